import { describe, expect, test } from '@jest/globals';
import { ballShape, boxShape, evenBall, ringShape, sheetShape, tubeShape } from './make';
import { extrudeShape } from './extrude';
import { dressedAs, joinShapes, pickPoints, placeShape, stripLines, type Shape } from './shape';

const middle = (shape: Shape): number[] =>
  [0, 1, 2].map((k) => {
    const all = Array.from({ length: shape.count }, (_, i) => shape.positions[3 * i + k]);
    return (Math.min(...all) + Math.max(...all)) / 2;
  });

const shapes: [string, Shape][] = [
  ['ball', ballShape(0.5, 8, 16)],
  ['even ball', evenBall(0.5, 100)],
  ['box', boxShape([1, 2, 3], 2)],
  ['sheet', sheetShape(2, 1, 5, 4)],
  ['ring', ringShape(0.5, 0, 12, 0, 2 * Math.PI)],
  ['band', ringShape(0.5, 0.5, 12, 0, 2 * Math.PI)],
];

describe.each(shapes)('%s', (_name, shape) => {
  test('has attributes for every point and indices within', () => {
    expect(shape.positions).toHaveLength(shape.count * 3);
    expect(shape.normals).toHaveLength(shape.count * 3);
    expect(shape.uvs).toHaveLength(shape.count * 2);
    for (const list of [shape.triangles, shape.rows, shape.columns])
      for (const index of list) expect(index).toBeLessThan(shape.count);
  });
  test('stands in the middle', () => {
    if (_name !== 'dot' && _name !== 'even ball') for (const v of middle(shape)) expect(v).toBeCloseTo(0, 5);
  });
  test('normals have length 1', () => {
    for (let i = 0; i < shape.count; i++)
      expect(Math.hypot(...shape.normals.subarray(3 * i, 3 * i + 3))).toBeCloseTo(1, 5);
  });
});

test('faces of ball and box look outward', () => {
  for (const shape of [
    ballShape(0.5, 6, 10),
    boxShape([1, 1, 1], 1),
    tubeShape([0.5, 0.3], 1, 6, true, true),
    tubeShape([0.5, 0], 1, 12, true, false),
  ]) {
    for (let t = 0; t < shape.triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => [
        ...shape.positions.subarray(3 * shape.triangles[t + k], 3 * shape.triangles[t + k] + 3),
      ]);
      const u = b.map((v, k) => v - a[k]);
      const w = c.map((v, k) => v - a[k]);
      const n = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]];
      const out = n[0] * (a[0] + b[0] + c[0]) + n[1] * (a[1] + b[1] + c[1]) + n[2] * (a[2] + b[2] + c[2]);
      expect(out).toBeGreaterThanOrEqual(-1e-6);
    }
  }
});

test('counts of cells and lines', () => {
  const ball = ballShape(1, 8, 16);
  expect(ball.count).toBe(9 * 17);
  expect(ball.triangles).toHaveLength(8 * 16 * 6);
  expect(ball.rows).toHaveLength(9 * 16 * 2);
  expect(stripLines(4, true)).toEqual([0, 1, 1, 2, 2, 3, 3, 0]);
  expect(ringShape(1, 0, 5, 0, Math.PI).rows).toHaveLength(8);
});

test('placing scales, turns, then moves', () => {
  const one = sheetShape(2, 2, 2, 2);
  const placed = placeShape(one, [1, 0, 0], [0, 0, Math.PI / 2], [2, 1, 1]);
  // The lower left corner (-1, -1) becomes (-2, -1), turned a quarter (1, -2), moved (2, -2).
  expect([...placed.positions.subarray(0, 3)].map((v) => Math.round(v * 1e5) / 1e5)).toEqual([2, -2, 0]);
  const both = joinShapes([one, placed]);
  expect(both.count).toBe(8);
  expect(Math.min(...both.triangles.subarray(6))).toBe(4);
});

test('tubes: size, cone, and the normals of flat sides', () => {
  const prism = tubeShape([0.5, 0.5], 2, 6, true, true);
  const ys = prism.positions.filter((_, k) => k % 3 === 1);
  expect([Math.min(...ys), Math.max(...ys)]).toEqual([-1, 1]);
  // Six sides of four points, two caps of two rows of seven.
  expect(prism.count).toBe(6 * 4 + 2 * 14);
  for (let side = 0; side < 6; side++) {
    const facing = (Math.PI * (2 * side + 1)) / 6;
    for (let k = 0; k < 4; k++) {
      const at = 3 * (4 * side + k);
      expect(prism.normals[at]).toBeCloseTo(Math.sin(facing), 5);
      expect(prism.normals[at + 2]).toBeCloseTo(Math.cos(facing), 5);
    }
  }
  const cone = tubeShape([0.5, 0], 1, 8, true, false);
  // Half as wide as high: its sides lean by atan(1 / 2).
  expect(cone.normals[1]).toBeCloseTo(Math.sin(Math.atan(0.5)), 5);
  expect(tubeShape([0.5, 0.5], 1, 8, false, false).count).toBe(18);
});

describe('pictures of shapes', () => {
  const sheet = (pictures?: readonly string[], pictureOf?: readonly number[]): Shape => ({
    ...sheetShape(1, 1, 2, 2),
    ...(pictures && { pictures }),
    ...(pictureOf && { pictureOf: Float32Array.from(pictureOf) }),
  });

  test('one picture on all parts stays one, and no point has to say so', () => {
    const both = joinShapes([sheet(['a']), sheet(['a'])]);
    expect(both.pictures).toEqual(['a']);
    expect(both.pictureOf).toBeUndefined();
    expect(joinShapes([sheet(), sheet()]).pictures).toBeUndefined();
  });

  test('parts keep their own pictures, also those that have none, and also when joined again', () => {
    const mixed = joinShapes([sheet(['a']), sheet(), sheet(['b'])]);
    expect(mixed.pictures).toEqual(['a', 'b']);
    expect([...mixed.pictureOf!]).toEqual([0, 0, 0, 0, -1, -1, -1, -1, 1, 1, 1, 1]);
    const again = joinShapes([sheet(['b', 'c'], [1, 0, 1, -1]), mixed]);
    expect(again.pictures).toEqual(['b', 'c', 'a']);
    expect([...again.pictureOf!].slice(0, 5)).toEqual([1, 0, 1, -1, 2]);
    expect([...again.pictureOf!].slice(12)).toEqual([0, 0, 0, 0]);
  });

  test('they and colours go with the points that are taken', () => {
    const coloured = sheet(['a', 'b'], [0, 1, 1, -1]);
    coloured.colours = Float32Array.from({ length: 16 }, (_, k) => k);
    expect([...pickPoints(coloured, [3, 1]).pictureOf!]).toEqual([-1, 1]);
    const dressed = dressedAs(sheet(), coloured, [1, 1, 3, 0]);
    expect([...dressed.pictureOf!]).toEqual([1, 1, -1, 0]);
    expect([...dressed.colours!.subarray(4, 12)]).toEqual([4, 5, 6, 7, 12, 13, 14, 15]);
    expect(dressed.positions).toEqual(sheet().positions);
  });

  test('the sides of what is extruded look as its rim does', () => {
    const red = sheet(['a']);
    red.colours = Float32Array.from([0, 1, 2, 3].flatMap(() => [1, 0, 0, 1]));
    const block = extrudeShape(red, 0.2, 'z', true);
    expect(block.pictureOf).toBeUndefined();
    expect(block.pictures).toEqual(['a']);
    for (let i = 0; i < block.count; i++)
      expect([...block.colours!.subarray(4 * i, 4 * i + 4)]).toEqual([1, 0, 0, 1]);
  });
});
