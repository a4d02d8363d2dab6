import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene } from './create';
import { addNode, setFormula, setMotions } from './edit';
import { fitPace, loopReport } from './loop-report';
import { freshMotion } from '../document/motions';
import type { ControlValue, Scene } from '../document/types';

const tempo = { bpm: 120, beatsPerBar: 4 };
const report = (scene: Scene) => loopReport(scene, catalogue, tempo, 60);

function sceneWith(...oscillators: Record<string, ControlValue>[]): { scene: Scene; ids: string[] } {
  const scene = makeScene(catalogue, 's1', 'Scene');
  scene.loop = { length: 10, unit: 'seconds', lock: false };
  const ids = oscillators.map((controls) => {
    const id = addNode(scene, catalogue, 'oscillator', [0, 0]);
    Object.assign(scene.nodes[id].controls, controls);
    return id;
  });
  return { scene, ids };
}

describe('what turns in a scene', () => {
  test('cycles in the loop, the nearest that fits, and when all meet', () => {
    const { scene } = sceneWith({ rate: 0.4 }, { rate: 0.5 }, { rate: 0.6 }, { rate: 0.13 });
    const { seconds, paces, joint } = report(scene);
    expect(seconds).toBe(10);
    expect(paces.map(({ cycles }) => Number(cycles.toFixed(6)))).toEqual([4, 5, 6, 1.3]);
    expect(paces.map(({ nearest }) => nearest)).toEqual([null, null, null, 0.1]);
    expect(joint).toBeCloseTo(100);
  });
  test('beats a cycle, cycles a loop and periods', () => {
    const { scene } = sceneWith({ rate: 3, unit: 'beats' }, { rate: 2.4, unit: 'loop' });
    const noise = addNode(scene, catalogue, 'noise', [0, 0]);
    scene.nodes[noise].controls.loop = 4;
    // 3 beats are 1.5 s: 6.67 cycles in 10 s; seven of them are 20 / 7 beats each. 4 s go 2.5 times into 10 s.
    expect(report(scene).paces.map(({ nearest }) => Number(nearest?.toFixed(4)))).toEqual([
      2.8571, 2, 3.3333,
    ]);
  });
  test('inner lengths must divide the outer: 2 s in 10 s do, 3 s do not', () => {
    const { scene } = sceneWith();
    for (const loop of [2, 3]) {
      const noise = addNode(scene, catalogue, 'noise', [0, 0]);
      scene.nodes[noise].controls.loop = loop;
    }
    expect(report(scene).paces.map(({ nearest }) => nearest !== null)).toEqual([false, true]);
  });
  test('motions count, those that are off, what is driven and what stands still do not', () => {
    const { scene, ids } = sceneWith({ rate: 0 }, { rate: 0.33 });
    setFormula(scene, ids[1], 'rate', 'time');
    setMotions(scene, ids[0], 'centre', [
      { ...freshMotion('swing', [0, 1], 1), rate: 0.25 } as never,
      { ...freshMotion('swing', [0, 1], 1), rate: 0.7, on: false } as never,
      { ...freshMotion('ramp', [0, 1], 1), way: 'toAndFro', length: 4, unit: 'seconds' } as never,
    ]);
    expect(report(scene).paces.map(({ motion, cycles }) => [motion, cycles])).toEqual([
      [0, 2.5],
      [2, 1.25],
    ]);
  });
  test('fitted, everything fits; an empty scene has nothing to say', () => {
    const { scene, ids } = sceneWith({ rate: 0.33 });
    setMotions(scene, ids[0], 'centre', [
      { ...freshMotion('swing', [0, 1], 1), rate: 0.27 } as never,
      { ...freshMotion('ramp', [0, 1], 1), way: 'toAndFro', length: 0.3, unit: 'loop' } as never,
      { ...freshMotion('ramp', [0, 1], 1), way: 'round', length: 3, unit: 'beats' } as never,
    ]);
    for (const pace of report(scene).paces) fitPace(scene, pace);
    expect(report(scene).paces.map(({ nearest }) => nearest)).toEqual([null, null, null, null]);
    expect(report(sceneWith().scene)).toMatchObject({ paces: [], joint: null });
  });
});
