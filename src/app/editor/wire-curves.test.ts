import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { Scene, Wire } from '../../core/document/types';
import type { Carries } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { bundledCurve, jointsOf, pathOf, returnCurve } from './wire-curves';

describe('curves', () => {
  test('a bundled wire begins and ends at its ports, and meets itself at the joint', () => {
    for (const rises of [false, true]) {
      const curve = bundledCurve([0, 0], [50, 20], [100, 90], rises);
      expect(curve.slice(0, 2)).toEqual([0, 0]);
      expect(curve.slice(6, 10)).toEqual([50, 20, 50, 20]);
      expect(curve.slice(-2)).toEqual([100, 90]);
      // It goes through the joint straight on: both handles there lie on one line.
      const along = rises ? 0 : 1;
      expect(curve[4 + along]).toBe(curve[10 + along]);
    }
  });
  test('a return wire runs below both ends', () =>
    expect(Math.max(...returnCurve([300, 40], [0, 10]).filter((_, k) => k % 2))).toBe(132));
  test('cubics are one path', () =>
    expect(pathOf([0, 0, 1, 1, 2, 2, 3, 3, 3, 3, 4, 4, 5, 5, 6, 6]).trim()).toBe(
      'M 0 0 C 1 1, 2 2, 3 3 C 4 4, 5 5, 6 6',
    ));
});

describe('where wires part', () => {
  let scene: Scene;
  let source: string;
  const carries: Record<string, Carries> = { noise: 'image', levels: 'image', oscillator: 'signal' };
  const carriesOf = ({ from }: Wire): Carries => carries[scene.nodes[from.node].kind];
  const levels = (x: number, y: number): string => {
    const id = addNode(scene, catalogue, 'levels', [x, y]);
    return connect(scene, catalogue, source, id, 'picture');
  };
  beforeEach(() => {
    scene = makeScene(catalogue, 's', 'Joints');
    source = addNode(scene, catalogue, 'noise', [0, 0]);
  });

  test('half-way to the nearest end, between the source and the middle of the ends', () => {
    const wires = [levels(354, 0), levels(554, 200)];
    const joints = jointsOf(scene, carriesOf);
    expect([...joints.keys()]).toEqual(wires);
    // From x 154 to the nearest end at 354; from y 38 to the middle of 38 and 238.
    expect(joints.get(wires[0])).toEqual([254, 88]);
    expect(joints.get(wires[1])).toBe(joints.get(wires[0]));
  });
  test('one alone, one that leads back or to what is too near, runs by itself', () => {
    levels(354, 0);
    levels(-300, 0);
    levels(180, 300);
    expect(jointsOf(scene, carriesOf).size).toBe(0);
  });
  test('signals rise to theirs', () => {
    source = addNode(scene, catalogue, 'oscillator', [0, 600]);
    const targets = [
      [0, 0],
      [200, 100],
    ].map(([x, y]) => addNode(scene, catalogue, 'levels', [x, y]));
    const wires = targets.map((id) => connect(scene, catalogue, source, id, 'gamma'));
    const joints = jointsOf(scene, carriesOf);
    expect([...joints.keys()]).toEqual(wires);
    // From y 600 up to the nearest lower edge at 214.
    expect(joints.get(wires[0])![1]).toBe(407);
  });
});
