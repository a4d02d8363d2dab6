import { describe, expect, test } from '@jest/globals';
import { freshMotion } from '../document/motions';
import type { Motion } from '../document/types';
import { SignalBuffer, type Signal } from '../signal/signal';
import { momentAt } from '../time/clock';
import { MotionRun } from './motion-run';

/** The value around 10 in each frame, at 120 beats a minute. */
function play(
  motion: Motion,
  frames: number,
  { fps = 60, base = () => 10, trigger = () => 0, salt = 0 } = {} as {
    fps?: number;
    base?: (frame: number) => number;
    trigger?: (frame: number) => number;
    salt?: number;
  },
): number[] {
  const run = new MotionRun(motion.type, salt);
  const signal = new SignalBuffer();
  return Array.from({ length: frames }, (_, frame) => {
    const samples = Float32Array.of(base(frame));
    signal.layout(['value'], 1)[0][0] = trigger(frame);
    run.apply(
      motion,
      samples,
      momentAt(frame / fps, frame ? 1 / fps : 0, fps, { bpm: 120, beatsPerBar: 4 }),
      signal as Signal,
    );
    return samples[0];
  });
}
const fresh = <T extends Motion['type']>(
  type: T,
  change: Partial<Extract<Motion, { type: T }>> = {},
): Motion => ({ ...freshMotion(type, [0, 16], 1), ...change }) as Motion;

describe('motions', () => {
  test('begin with an eighth of the range', () => expect(freshMotion('ramp', [0, 16], 1).amount).toBe(2));

  test.each(['swing', 'wander', 'ramp', 'walk', 'hit'] as const)(
    '%s that is off, or of amount 0, leaves the base',
    (type) => {
      const trigger = (frame: number): number => frame % 10;
      for (const change of [{ on: false }, { amount: 0 }])
        expect(new Set(play({ ...fresh(type), ...change } as Motion, 120, { trigger }))).toEqual(
          new Set([10]),
        );
    },
  );

  test('Wander stays within its amount, moves smoothly, and differs by seed and by axis', () => {
    const values = play(fresh('wander', { speed: 1 }), 600);
    expect(Math.max(...values.map((v) => Math.abs(v - 10)))).toBeLessThanOrEqual(2);
    expect(Math.max(...values) - Math.min(...values)).toBeGreaterThan(1);
    for (let k = 1; k < 600; k++) expect(Math.abs(values[k] - values[k - 1])).toBeLessThan(0.2);
    expect(play(fresh('wander', { speed: 1, seed: 2 }), 600)).not.toEqual(values);
    expect(play(fresh('wander', { speed: 1 }), 600, { salt: 1 })).not.toEqual(values);
  });

  test.each([
    ['once', 60, 11],
    ['once', 300, 12],
    ['round', 180, 11],
    ['toAndFro', 180, 11],
    ['toAndFro', 120, 12],
    ['round', 120, 10],
  ] as const)('Ramp over 4 beats, %s, after %d frames', (way, frame, expected) =>
    expect(play(fresh('ramp', { way, length: 4 }), frame + 1)[frame]).toBeCloseTo(expected, 4),
  );
  test('Ramp in seconds, eased', () => {
    const values = play(fresh('ramp', { unit: 'seconds', length: 1, eased: true }), 31);
    expect(values[15]).toBeCloseTo(10 + 2 * (0.25 ** 2 * (3 - 0.5)), 4);
  });

  test('Walk keeps to its amount and is the same at any frame rate', () => {
    const slow = play(fresh('walk', { rate: 5 }), 301, { fps: 30 });
    const quick = play(fresh('walk', { rate: 5 }), 601, { fps: 60 });
    slow.forEach((v, k) => expect(quick[2 * k]).toBeCloseTo(v, 4));
    expect(Math.max(...slow.map((v) => Math.abs(v - 10)))).toBeLessThanOrEqual(2);
    expect(new Set(slow).size).toBeGreaterThan(100);
  });

  test('Hit rises with the trigger and comes back; a second one does not cut the first', () => {
    const motion = fresh('hit', { attack: 0, decay: 0.5 });
    const once = play(motion, 60, { trigger: (frame) => (frame === 6 ? 1 : 0) });
    expect(once[5]).toBe(10);
    expect(once[6]).toBeCloseTo(12);
    expect(once[21]).toBeCloseTo(10 + 2 * 0.25, 4);
    expect(once[36]).toBe(10);
    const twice = play(motion, 60, { trigger: (frame) => (frame === 6 || frame === 12 ? 1 : 0) });
    expect(twice[12]).toBeCloseTo(12);
    expect(Math.min(...twice.slice(6, 13))).toBeGreaterThan(10.5);
  });

  test.each([30, 60, 144])('Follow covers 95 %% of a step in its time, at %d frames a second', (fps) => {
    const motion = fresh('follow', { rise: 1, fall: 0.25 });
    const step = play(motion, fps + 1, { fps, base: (frame) => (frame ? 20 : 10) });
    expect(step[0]).toBe(10);
    expect(step[fps]).toBeCloseTo(19.5, 1);
    const half = play({ ...motion, amount: 0.5 }, fps + 1, { fps, base: (frame) => (frame ? 20 : 10) });
    expect(half[1]).toBeCloseTo((20 + step[1]) / 2, 3);
    const down = play(motion, fps + 1, { fps, base: (frame) => (frame ? 0 : 10) });
    expect(down[Math.round(fps / 4)]).toBeLessThan(0.8);
  });

  test('Ramp over the loop, and in a locked loop in whole rounds', () => {
    const at = (change: object, time: number, lock = false): number => {
      const run = new MotionRun('ramp', 0);
      const samples = Float32Array.of(0);
      const loop = { length: 10, unit: 'seconds' as const, lock };
      const moment = momentAt(time, 0, 60, { bpm: 120, beatsPerBar: 4 }, undefined, loop);
      run.apply(fresh('ramp', change), samples, moment, null);
      return samples[0] / 2;
    };
    expect(at({ unit: 'loop', length: 1 }, 2.5)).toBeCloseTo(0.25);
    expect(at({ unit: 'loop', length: 0.5, way: 'toAndFro' }, 2.5)).toBeCloseTo(0.5);
    expect(at({ unit: 'loop', length: 0.5, way: 'toAndFro' }, 7.5)).toBeCloseTo(0.5);
    // 3 s go 3.3 times into 10: three times when locked.
    expect(at({ unit: 'seconds', length: 3 }, 12, true)).toBeCloseTo(
      at({ unit: 'seconds', length: 3 }, 2, true),
    );
    expect(at({ unit: 'seconds', length: 4, way: 'once' }, 2, true)).toBeCloseTo(0.5);
  });

  test('Colours go from one to another over a set time', () => {
    const stops = [
      { at: 0, colour: [1, 0, 0, 1] as [number, number, number, number] },
      { at: 1, colour: [0, 0.5, 1, 1] as [number, number, number, number] },
    ];
    const motion = fresh('colours', { stops, way: 'once', start: 1, length: 2, unit: 'seconds' });
    const colour = (time: number, amount = 1): number[] =>
      [0, 1, 2].map((part) => {
        const samples = Float32Array.of(0.2);
        new MotionRun('colours', 0, part).apply(
          { ...motion, amount },
          samples,
          momentAt(time, 0, 60, { bpm: 120, beatsPerBar: 4 }),
          null,
        );
        return Number(samples[0].toFixed(4));
      });
    expect([0, 1, 2, 3, 9].map((time) => colour(time))).toEqual([
      [1, 0, 0],
      [1, 0, 0],
      [0.5, 0.25, 0.5],
      [0, 0.5, 1],
      [0, 0.5, 1],
    ]);
    expect(colour(9, 0)).toEqual([0.2, 0.2, 0.2]);
    expect(colour(9, 0.5)).toEqual([0.1, 0.35, 0.6]);
  });
});
