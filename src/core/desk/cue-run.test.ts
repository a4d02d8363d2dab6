import { describe, expect, test } from '@jest/globals';
import { addCue, cueOf } from '../show/edit-desk';
import { makeShow } from '../show/create';
import { catalogue } from '../../nodes/catalogue';
import type { Cue, CueGo } from '../document/types';
import { cueAfter, CueRun, secondsLeft, type CueClock } from './cue-run';

/** A running order of cues that start like that, `q1`, `q2` … */
function order(...goes: CueGo[]): Cue[] {
  const show = makeShow(catalogue, 'Night');
  for (const go of goes) {
    const id = addCue(show, null, null);
    cueOf(show, id).go = go;
  }
  return show.cues;
}

const hand: CueGo = { type: 'hand' };
const after = (length: number, unit: 'seconds' | 'beats' = 'seconds'): CueGo => ({
  type: 'after',
  length,
  unit,
});
const clock = (time: number, more: Partial<CueClock> = {}): CueClock => ({
  time,
  beat: time * 2,
  sound: null,
  notes: {},
  code: null,
  ...more,
});

/** Plays at a frame rate; gives which cue began in which frame. */
function play(run: CueRun, cues: readonly Cue[], fps: number, seconds: number): [string, number][] {
  const begun: [string, number][] = [];
  for (let frame = 0; frame <= seconds * fps; frame++)
    for (const cue of run.advance(cues, clock(frame / fps))) begun.push([cue.id, frame]);
  return begun;
}

describe('a running order', () => {
  test('goes by hand, back, and to any cue', () => {
    const cues = order(hand, hand, hand);
    const run = new CueRun();
    expect(run.go(cues, clock(0))?.id).toBe('q1');
    expect(run.go(cues, clock(1))?.id).toBe('q2');
    expect(run.back(cues, clock(2))?.id).toBe('q1');
    expect(run.jump(cues, 'q3', clock(3))?.id).toBe('q3');
    expect(run.go(cues, clock(4))).toBeNull();
    expect(run.jump(cues, 'q9', clock(4))).toBeNull();
    expect(run.state.at).toBe('q3');
  });

  test('follows by seconds and beats, to the frame, without drifting at awkward frame rates', () => {
    for (const fps of [24, 29.97, 59.94, 60, 144]) {
      const cues = order(
        hand,
        ...Array.from({ length: 40 }, (_, k) => after(0.35, k % 2 ? 'seconds' : 'beats')),
      );
      const run = new CueRun();
      run.advance(cues, clock(0));
      run.go(cues, clock(0));
      const begun = play(run, cues, fps, 12);
      // Odd cues wait 0.35 beats at two a second, even ones 0.35 s.
      const due = Array.from(
        { length: 40 },
        (_, k) => Math.ceil((k + 1) / 2) * 0.175 + Math.floor((k + 1) / 2) * 0.35,
      );
      expect(begun.map(([id]) => id)).toEqual(cues.slice(1).map(({ id }) => id));
      begun.forEach(([, frame], k) => expect(frame).toBe(Math.ceil(due[k] * fps - 1e-4)));
    }
  });

  test('goes round a loop of steps so many times, and on by hand at any time', () => {
    const cues = order(hand, hand, hand);
    cues[1].back = { cue: 'q1', times: 2 };
    const run = new CueRun();
    const goes = Array.from({ length: 8 }, (_, k) => run.go(cues, clock(k))?.id ?? null);
    expect(goes).toEqual(['q1', 'q2', 'q1', 'q2', 'q1', 'q2', 'q3', null]);
    cues[1].back = { cue: 'q1', times: 0 };
    run.open();
    for (let k = 0; k < 20; k++) run.go(cues, clock(k));
    expect(run.state.at).toBe('q2');
    expect(run.go(cues, clock(30), true)?.id).toBe('q3');
  });

  test('starts at a place of the sound each time this comes round', () => {
    const cues = order({ type: 'sound', at: 3 }, hand);
    const run = new CueRun();
    const begins = (sound: number, time: number): string[] =>
      run.advance(cues, clock(time, { sound })).map(({ id }) => id);
    expect([begins(2.9, 0), begins(3.01, 0.1)]).toEqual([[], ['q1']]);
    run.open();
    // The sound went round past it.
    expect([begins(7.9, 1), begins(0.1, 1.1), begins(3.2, 4.2)]).toEqual([[], [], ['q1']]);
  });

  test('starts by a note, of any channel or its own', () => {
    const cues = order({ type: 'note', channel: 0, note: 60 }, { type: 'note', channel: 3, note: 60 });
    const run = new CueRun();
    const begins = (notes: Record<string, number>, time: number): string[] =>
      run.advance(cues, clock(time, { notes })).map(({ id }) => id);
    expect(begins({ '0/60': 4 }, 0)).toEqual([]);
    expect(begins({ '0/60': 5 }, 1)).toEqual(['q1']);
    expect(begins({ '0/60': 6, '1/60': 1 }, 2)).toEqual([]);
    expect(begins({ '0/60': 7, '3/60': 1 }, 3)).toEqual(['q2']);
  });

  test('follows time code, and finds its place after a jump', () => {
    const cues = order({ type: 'code', at: 10 }, { type: 'code', at: 20 }, { type: 'code', at: 30 });
    const run = new CueRun();
    const begins = (code: number, time: number): string[] =>
      run.advance(cues, clock(time, { code })).map(({ id }) => id);
    expect([begins(9.9, 0), begins(10.02, 0.1), begins(19.9, 1)]).toEqual([[], ['q1'], []]);
    expect(begins(31, 2)).toEqual(['q3']);
    expect(begins(12, 3)).toEqual(['q1']);
    expect(begins(13, 4)).toEqual([]);
  });

  test('waits while a hand interrupts, and goes on with the time that was left', () => {
    const cues = order(hand, after(4));
    const run = new CueRun();
    run.advance(cues, clock(0));
    run.go(cues, clock(0));
    run.advance(cues, clock(1));
    run.hold(clock(1));
    expect(secondsLeft({ cues }, run.state, { time: 9, beat: 18, bpm: 120 })).toBeCloseTo(3);
    expect(run.advance(cues, clock(20))).toEqual([]);
    run.resume(clock(20));
    expect(run.advance(cues, clock(22.9))).toEqual([]);
    expect(run.advance(cues, clock(23)).map(({ id }) => id)).toEqual(['q2']);
  });

  test('that was sent back in time begins its cue there again', () => {
    const cues = order(hand, after(4));
    const run = new CueRun();
    run.advance(cues, clock(100));
    run.go(cues, clock(100));
    run.advance(cues, clock(0));
    expect(run.advance(cues, clock(3.9))).toEqual([]);
    expect(run.advance(cues, clock(4)).map(({ id }) => id)).toEqual(['q2']);
  });

  test('of cues that all follow at once ends all the same', () => {
    const cues = order(hand, after(0));
    cues[1].back = { cue: 'q1', times: 0 };
    cues[0].go = after(0);
    const run = new CueRun();
    run.advance(cues, clock(0));
    run.go(cues, clock(0));
    expect(run.advance(cues, clock(1)).length).toBeLessThan(100);
  });

  test('leaves a cue that was removed', () => {
    const cues = order(hand, hand);
    const run = new CueRun();
    run.go(cues, clock(0));
    run.keepTo(cues.slice(1));
    expect(cueAfter(cues.slice(1), run.state)?.id).toBe('q2');
  });
});
