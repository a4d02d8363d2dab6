import { describe, expect, test } from '@jest/globals';
import { Sketch } from '../../../demo/sketch';
import { catalogue } from '../../nodes/catalogue';
import { cyclesOf } from './cycles';
import { picturesWithHistory } from './history';
import { buildPlan } from './plan';

/** Names of the pictures of a sketched scene that count for later frames. */
function historyOf(s: Sketch): string[] {
  const plan = buildPlan(s.scene, catalogue, [s.out]);
  return [...picturesWithHistory(plan, cyclesOf(plan))].map((id) => s.scene.nodes[id].name).sort();
}

describe('pictures with a history', () => {
  test('there are none where nothing comes back', () => {
    const s = new Sketch('s', 'Plain', [0, 0]);
    const noise = s.add('noise', 'Noise', [0, 0]);
    s.formula(noise, 'phase', 'time');
    s.wire(noise, s.out, 'picture');
    expect(historyOf(s)).toEqual([]);
  });

  test('a cycle and all that enters it, also beside the return wire, but not what it enters', () => {
    const s = new Sketch('s', 'Cycle', [0, 0]);
    const noise = s.add('noise', 'Noise', [0, 0]);
    const home = s.add('fill', 'Home', [0, 0]);
    const blend = s.add('blend', 'Blend', [0, 0]);
    const after = s.add('levels', 'After', [0, 0]);
    const beside = s.add('gradient', 'Beside', [0, 0]);
    const both = s.add('blend', 'Both', [0, 0]);
    s.wire(noise, blend, 'picture');
    const back = s.wire(blend, blend, 'over');
    s.scene.wires[back].back!.startsFrom = home;
    s.wire(blend, after, 'picture');
    s.wire(after, both, 'picture');
    s.wire(beside, both, 'over');
    s.wire(both, s.out, 'picture');
    expect(historyOf(s)).toEqual(['Blend', 'Home', 'Noise']);
  });

  test('what a Frame Store keeps, and what pixels are read of, through props as well', () => {
    const s = new Sketch('s', 'Kept', [0, 0]);
    const noise = s.add('noise', 'Noise', [0, 0]);
    const store = s.add('frame-store', 'Store', [0, 0]);
    const ball = s.add('ball', 'Ball', [0, 0]);
    const paint = s.add('gradient', 'Paint', [0, 0]);
    const body = s.add('body', 'Body', [0, 0]);
    const shot = s.add('shot', 'Shot', [0, 0]);
    const reader = s.add('pixel-reader', 'Reader', [0, 0]);
    const levels = s.add('levels', 'Levels', [0, 0]);
    s.wire(noise, store, 'picture');
    s.wire(ball, body, 'shape');
    s.wire(paint, body, 'picture');
    s.wire(body, shot, 'props');
    s.wire(shot, reader, 'picture');
    s.wire(store, levels, 'picture');
    s.wire(reader, levels, 'gamma');
    s.wire(levels, s.out, 'picture');
    expect(historyOf(s)).toEqual(['Noise', 'Paint', 'Shot']);
  });
});
