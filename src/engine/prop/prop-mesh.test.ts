import { describe, expect, test } from '@jest/globals';
import { plainLook } from '../../core/kind/prop';
import { segmentShape } from '../../core/shape/curves';
import { boxShape, sheetShape } from '../../core/shape/make';
import { solidShape } from '../../core/shape/solids';
import { buildMesh, drawingOf, fillMesh, linesOf, mergedCopies, sameBuild } from './prop-mesh';

const lines = { ...plainLook, draw: 'lines' } as const;

describe('lines of a shape', () => {
  test('are those that are asked for, and its edges where it has none', () => {
    const sheet = sheetShape(1, 1, 3, 2);
    expect(linesOf(sheet, 'rows')).toHaveLength(2 * 4);
    expect(linesOf(sheet, 'columns')).toHaveLength(2 * 3);
    expect(linesOf(sheet, 'both')).toHaveLength(2 * 7);
    // Two cells: six sides around, and the one between them.
    expect(linesOf(sheet, 'edges')).toHaveLength(2 * 7);
    const solid = solidShape('cube', 1, 1, 0);
    expect(linesOf({ ...solid, rows: new Uint32Array(0) }, 'both')).toHaveLength(24);
    expect(linesOf(solid, 'columns')).toHaveLength(0);
  });

  test('of two shapes without faces are each its own', () => {
    const [short, long] = [3, 5].map((points) => segmentShape([0, 0, 0], [1, 0, 0], points));
    expect(linesOf(short, 'edges')).toHaveLength(4);
    expect(linesOf(long, 'edges')).toHaveLength(8);
  });
});

describe('meshes', () => {
  test('grow to a width until there are too many', () => {
    expect(drawingOf(sheetShape(1, 1, 100, 100), lines)).toBe('lines');
    expect(drawingOf(sheetShape(1, 1, 400, 400), lines)).toBe('hairlines');
    expect(drawingOf(sheetShape(1, 1, 400, 400), { ...plainLook, draw: 'points' })).toBe('sprites');
    expect(drawingOf(sheetShape(1, 1, 400, 400), plainLook)).toBe('surface');
  });

  test('merge small copies, and only as many as there are', () => {
    expect(mergedCopies(4, 100000)).toBe(1024);
    expect(mergedCopies(4, 10)).toBe(10);
    expect(mergedCopies(100000, 10)).toBe(1);
    const mesh = buildMesh(sheetShape(1, 1, 2, 2), plainLook, 3000, true);
    expect(mesh.geometry.instanceCount).toBe(3);
    expect(mesh.geometry.getAttribute('merge').array[4 * 1024 - 1]).toBe(1023);
  });

  test('are refilled where only points moved, and never write over the shape', () => {
    const box = boxShape([1, 1, 1], 1);
    const mesh = buildMesh(box, plainLook, 1, false);
    const moved = { ...box, positions: box.positions.map((v) => v * 2) };
    expect(sameBuild(mesh, moved)).toBe(true);
    fillMesh(mesh, moved);
    expect(mesh.geometry.getAttribute('position').array[0]).toBe(moved.positions[0]);
    expect(Math.abs(box.positions[0])).toBe(0.5);
    expect(sameBuild(mesh, boxShape([1, 1, 1], 2))).toBe(false);
  });
});
