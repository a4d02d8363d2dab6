import { describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode, setFormula } from '../../core/show/edit';
import type { ControlValue, PatchNode, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { dragged, dragsOf, handlesOf, placeAdder, safeAreas, snapped, type MonitorHandle } from './handles';

const aspect = 16 / 9;

function made(kind: string, controls: Record<string, ControlValue>): { scene: Scene; node: PatchNode } {
  const scene = makeScene(catalogue, 's', 'Handles');
  const node = scene.nodes[addNode(scene, catalogue, kind, [0, 0])];
  Object.assign(node.controls, controls);
  return { scene, node };
}
const handle = ({ scene, node }: { scene: Scene; node: PatchNode }, key: string): MonitorHandle =>
  handlesOf(scene, node, aspect).find((h) => h.key === key)!;

describe('handles', () => {
  test('a place, and a size around it', () => {
    const shape = made('flat-shape', { place: [0.2, -0.1], size: [0.6, 0.4] });
    expect(handle(shape, 'place').place).toEqual([0.2, -0.1]);
    expect(handle(shape, 'place').valuesAt([0.5, 0])).toEqual({ place: [0.5, 0] });
    const size = handle(shape, 'size');
    expect(size.place[0]).toBeCloseTo(0.5);
    expect(size.place[1]).toBeCloseTo(0.1);
    const { size: grown } = size.valuesAt([0.7, -0.3]) as { size: number[] };
    expect(grown[0]).toBeCloseTo(1);
    expect(grown[1]).toBe(0);
  });

  test('a corner is measured from its own corner of the picture', () => {
    const pin = made('corner-pin', { upperRight: [-0.1, -0.2] });
    const corner = handle(pin, 'upperRight');
    expect(corner.place[0]).toBeCloseTo(aspect / 2 - 0.1);
    expect(corner.place[1]).toBeCloseTo(0.3);
    const { upperRight } = corner.valuesAt([aspect / 2, 0.5]) as { upperRight: number[] };
    expect(upperRight.map((v) => Math.abs(Math.round(v * 1e6)))).toEqual([0, 0]);
  });

  test('an arrow sets an angle and a length', () => {
    const line = made('gradient', { place: [0.1, 0], turn: 90, length: 0.8 });
    const arrow = handle(line, 'turn');
    expect(arrow.place[0]).toBeCloseTo(0.1);
    expect(arrow.place[1]).toBeCloseTo(0.4);
    expect(arrow.valuesAt([0.1 - 0.3, 0])).toEqual({ turn: 180, length: expect.closeTo(0.6) });
    expect(arrow.valuesAt([0.1, -0.25]).turn).toBe(270);
  });

  test('points of a list, one more and one less; three are the least', () => {
    const kite = made('flat-shape', {
      form: 'points',
      place: [0.1, 0.1],
      points: [0, 0, 0.2, 0, 0, 0.2, -0.2, 0],
    });
    expect(handle(kite, 'points 2').place[0]).toBeCloseTo(0.3);
    expect(handle(kite, 'points 2').valuesAt([0.1, 0.1]).points).toEqual([0, 0, 0, 0, 0, 0.2, -0.2, 0]);
    expect(handle(kite, 'points 4').without!()).toEqual({ points: [0, 0, 0.2, 0, 0, 0.2] });
    expect(placeAdder(kite.node)!.valueWith([0.1, 0.1]).slice(-2)).toEqual([0, 0]);
    const three = made('flat-shape', { form: 'points' });
    expect(handle(three, 'points 1').without).toBeNull();
  });

  test('what is hidden has none, what is driven cannot be dragged, other kinds have nothing', () => {
    expect(handle(made('flat-shape', { form: 'disc' }), 'points 1')).toBeUndefined();
    const driven = made('flat-shape', {});
    setFormula(driven.scene, driven.node.id, 'place.x', 'time');
    expect(handle(driven, 'place').driven).toBe(true);
    const plain = made('fill', {});
    expect(handlesOf(plain.scene, plain.node, aspect)).toEqual([]);
    expect(placeAdder(plain.node)).toBeNull();
  });
});

test('places near the middle, an edge or a safe line are drawn to it', () => {
  expect(snapped([0.01, -0.012], aspect)).toEqual([0, 0]);
  expect(snapped([aspect / 2 - 0.01, 0.3], aspect)).toEqual([aspect / 2, 0.3]);
  expect(snapped([0.3, 0.44], aspect)).toEqual([0.3, 0.5 * safeAreas.title]);
});

test('a camera turns by dragging over the monitor, and comes nearer by the wheel', () => {
  const scene = makeScene(catalogue, 's1', 'Scene');
  const id = addNode(scene, catalogue, 'camera', [0, 0]);
  const drags = dragsOf(scene, scene.nodes[id]);
  expect(drags.map(({ control, by }) => [control, by])).toEqual([
    ['orbit', 'across'],
    ['height', 'up'],
    ['distance', 'wheel'],
  ]);
  const [orbit, height, distance] = drags;
  expect(dragged(orbit, 30, 0.5, 0.2, 0)).toBe(-60);
  expect(dragged(height, 25, 0.5, -0.9, 0)).toBe(90);
  expect(dragged(distance, 2, 0.5, 0.2, 0)).toBe(2);
  expect(dragged(distance, 2, 0, 0, 100)).toBeGreaterThan(2);
  // What is driven is not the hand's.
  setFormula(scene, id, 'orbit', 'time');
  expect(dragsOf(scene, scene.nodes[id]).map(({ control }) => control)).toEqual(['height', 'distance']);
});
