import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeShow } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { bind, controlOf, putOnDesk } from '../../core/show/edit-desk';
import type { BindSource, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { FeedbackLines } from './feedback';

describe('what is sent back to controllers', () => {
  let show: Show;
  let fader: string;
  let lines: FeedbackLines;
  const state = (value: number | null, more: Partial<PerformanceState> = {}): PerformanceState => {
    const stood = performanceAt('s1');
    return {
      ...stood,
      desk: { ...stood.desk, values: value === null ? {} : { [fader]: [value] } },
      ...more,
    };
  };
  const bound = (source: BindSource): void =>
    void bind(show, source, { type: 'desk', control: fader, from: 0 });

  beforeEach(() => {
    show = makeShow(catalogue, 'Night');
    const node = addNode(show.scenes[0], catalogue, 'flat-shape', [0, 0]);
    show.scenes[0].nodes[node].controls.turn = 50;
    fader = putOnDesk(show, catalogue, { scene: 's1', node, part: 'turn' });
    Object.assign(controlOf(show, fader), { range: [0, 100] });
    controlOf(show, fader).targets[0].to = [0, 100];
    lines = new FeedbackLines();
  });

  test('is where the control stands, by hand or as the patch has it, once for each change', () => {
    bound({ type: 'control', channel: 2, control: 7, fine: false });
    const sent = (value: number): object => ({ midi: { type: 'control', channel: 2, control: 7, value } });
    expect(lines.next(show, state(null))).toEqual([sent(64)]);
    expect(lines.next(show, state(null))).toEqual([]);
    expect(lines.next(show, state(100))).toEqual([sent(127)]);
  });

  test('is not sent to the fader that has just said it', () => {
    bound({ type: 'control', channel: 1, control: 7, fine: false });
    lines.next(show, state(50));
    lines.heard(show.bindings[0], 1);
    expect(lines.next(show, state(100))).toEqual([]);
    expect(lines.next(show, state(0))).toHaveLength(1);
  });

  test('has 14 bits where the source has, lights for notes, numbers for OSC, and nothing for keys', () => {
    bound({ type: 'control', channel: 1, control: 7, fine: true });
    bound({ type: 'note', channel: 1, note: 40 });
    bound({ type: 'osc', address: '/turn', arg: 0 });
    bound({ type: 'key', code: 'KeyA' });
    expect(lines.next(show, state(25))).toEqual([
      { midi: { type: 'control', channel: 1, control: 7, value: Math.round(0.25 * 16383) >> 7 } },
      { midi: { type: 'control', channel: 1, control: 39, value: Math.round(0.25 * 16383) & 127 } },
      { midi: { type: 'note', channel: 1, note: 40, velocity: 32, on: true } },
      { osc: { address: '/turn', args: [0.25] } },
    ]);
  });

  test('lights what is on: scenes, switches, and not what is sent to nobody', () => {
    bind(show, { type: 'note', channel: 1, note: 36 }, { type: 'scene', scene: 's1' });
    bind(show, { type: 'note', channel: 1, note: 37 }, { type: 'command', command: 'stage.blackout' });
    bind(show, { type: 'note', channel: 1, note: 38 }, { type: 'command', command: 'play.go' });
    bound({ type: 'note', channel: 1, note: 39 });
    show.bindings[3].feedback = false;
    const velocities = lines
      .next(show, state(null, { blackout: false }))
      .map((line) => ('midi' in line && line.midi.type === 'note' ? line.midi.velocity : -1));
    expect(velocities).toEqual([127, 0]);
    expect(lines.next(show, state(null, { blackout: true }))).toHaveLength(1);
  });
});
