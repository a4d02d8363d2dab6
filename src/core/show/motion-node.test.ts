import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { idleInputs } from '../inputs/inputs';
import { SceneRun } from '../run/scene-run';
import { momentAt } from '../time/clock';
import { oneStep } from '../time/feedback-steps';
import { makeScene } from './create';
import { addNode, EditError, setFormula, setMotions } from './edit';
import { motionToNode } from './motion-node';
import { freshMotion } from '../document/motions';
import type { Motion, Scene } from '../document/types';

/** The driven value of a part, frame by frame. */
function play(scene: Scene, node: string, part: string, frames = 90): number[] {
  const run = new SceneRun(catalogue);
  run.update(scene, [node]);
  return Array.from({ length: frames }, (_, frame) => {
    run.run({
      moment: momentAt(frame / 60, frame ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: {
        ...idleInputs(),
        keys: { Space: { down: frame > 20 && frame < 25, presses: frame > 20 ? 1 : 0 } },
      },
      canvas: { width: 16, height: 9 },
      feedback: oneStep,
    });
    expect([...run.faults().values()]).toEqual([]);
    return run.runs.get(node)!.parts.get(part)!.samples[0];
  });
}

function moved(motion: Motion): { scene: Scene; id: string } {
  const scene = makeScene(catalogue, 's1', 'Scene');
  const id = addNode(scene, catalogue, 'remap', [0, 0]);
  scene.nodes[id].controls.after = 0.3;
  setMotions(scene, id, 'after', [motion]);
  return { scene, id };
}

describe('a motion turned into a node', () => {
  test.each(['swing', 'ramp'] as const)('%s: the same values', (type) => {
    const { scene, id } = moved(freshMotion(type, [0, 8], 3));
    const before = play(scene, id, 'after');
    const made = motionToNode(scene, catalogue, id, 'after', 0);
    expect(scene.nodes[made]).toBeDefined();
    expect(scene.nodes[id].motions.after ?? []).toEqual([]);
    play(scene, id, 'after').forEach((value, k) => expect(value).toBeCloseTo(before[k], 4));
  });
  test.each(['wander', 'walk'] as const)('%s: as far and as lively', (type) => {
    const { scene, id } = moved(freshMotion(type, [0, 8], 3));
    const before = play(scene, id, 'after', 900);
    motionToNode(scene, catalogue, id, 'after', 0);
    const after = play(scene, id, 'after', 900);
    const far = (values: number[]): number => Math.max(...values.map((v) => Math.abs(v - 0.3)));
    expect(far(after)).toBeGreaterThan(far(before) / 3);
    expect(far(after)).toBeLessThanOrEqual(1.0001);
  });
  test('a hit keeps its trigger and its height', () => {
    const { scene, id } = moved(freshMotion('hit', [0, 8], 1));
    const keys = addNode(scene, catalogue, 'keys', [0, 0]);
    setMotions(scene, id, 'after', [{ ...freshMotion('hit', [0, 8], 1), trigger: keys } as Motion]);
    const before = play(scene, id, 'after');
    motionToNode(scene, catalogue, id, 'after', 0);
    play(scene, id, 'after').forEach((value, k) => expect(value).toBeCloseTo(before[k], 4));
    expect(Math.max(...before)).toBeGreaterThan(1);
  });
  test('not where something else drives the control, and not what no node does', () => {
    const { scene, id } = moved(freshMotion('swing', [0, 8], 1));
    setFormula(scene, id, 'after', 'time');
    expect(() => motionToNode(scene, catalogue, id, 'after', 0)).toThrow(EditError);
    const follow = moved(freshMotion('follow', [0, 8], 1));
    expect(() => motionToNode(follow.scene, catalogue, follow.id, 'after', 0)).toThrow(/no node/);
  });
});

describe('a control that follows another', () => {
  test('by the name of node and control, moved or not', () => {
    const scene = makeScene(catalogue, 's1', 'Scene');
    const leader = addNode(scene, catalogue, 'flat-shape', [0, 0]);
    scene.nodes[leader].name = 'Queen Bee';
    scene.nodes[leader].controls.place = [0.25, -0.5];
    const id = addNode(scene, catalogue, 'remap', [0, 0]);
    setFormula(scene, id, 'after', 'queen_bee.place_x * 2');
    setFormula(scene, id, 'multiply', 'queen_bee.place_y');
    expect(play(scene, id, 'after', 2)[1]).toBeCloseTo(0.5);
    expect(play(scene, id, 'multiply', 2)[1]).toBeCloseTo(-0.5);
    setMotions(scene, leader, 'place.x', [
      { ...freshMotion('ramp', [0, 8], 1), way: 'once', length: 1, unit: 'seconds' } as Motion,
    ]);
    expect(play(scene, id, 'after', 90)[89]).toBeCloseTo(2.5);
  });
  test('an unknown control is said', () => {
    const scene = makeScene(catalogue, 's1', 'Scene');
    const leader = addNode(scene, catalogue, 'flat-shape', [0, 0]);
    scene.nodes[leader].name = 'Disc';
    const id = addNode(scene, catalogue, 'remap', [0, 0]);
    setFormula(scene, id, 'after', 'disc.wings');
    const run = new SceneRun(catalogue);
    run.update(scene, [id]);
    run.run({
      moment: momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 16, height: 9 },
      feedback: oneStep,
    });
    expect(run.faults().get(id)).toMatch(/disc gives no numbers and has no control wings/);
  });
});
