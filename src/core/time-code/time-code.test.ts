import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../random';
import { LtcReader, makeLtc } from './ltc';
import { MtcReader, quarterFrames } from './mtc';
import { codeText, secondsIn, secondsOf, type TimeCode } from './time-code';

const code = (text: string, fps = 25, drop = false): TimeCode => {
  const [hours, minutes, seconds, frames] = text.split(':').map(Number);
  return { hours, minutes, seconds, frames, fps, drop };
};

describe('time code', () => {
  test('is seconds: of drop frame as the clock has it after an hour', () => {
    expect(secondsOf(code('01:00:00:12'))).toBeCloseTo(3600.48, 9);
    // SMPTE ST 12-1: an hour of drop frame is 107,892 frames, 3.6 ms short of the clock.
    expect(secondsOf(code('01:00:00:00', 30, true))).toBeCloseTo((107892 * 1001) / 30000, 9);
    expect(secondsOf(code('00:01:00:02', 30, true))).toBeCloseTo((1800 * 1001) / 30000, 9);
  });

  test('is written and read', () => {
    expect(codeText(3723.16)).toBe('01:02:03:04');
    expect(secondsIn('01:02:03:04')).toBeCloseTo(3723.16, 9);
    expect(secondsIn('2:03')).toBe(123);
    expect(secondsIn('7.5')).toBe(7.5);
    expect(secondsIn('soon')).toBeNull();
    expect(secondsIn('1:2:3:4:5')).toBeNull();
  });
});

describe('MIDI time code', () => {
  test('is read from eight quarter frames, two frames after their time', () => {
    for (const [fps, drop] of [
      [24, false],
      [25, false],
      [30, false],
      [30, true],
    ] as const) {
      const sent = code('13:47:59:20', fps, drop);
      const reader = new MtcReader();
      const read = quarterFrames(sent).map((bytes) => reader.take(bytes));
      expect(read.slice(0, 7)).toEqual(Array(7).fill(null));
      expect(read[7]).toBeCloseTo(secondsOf(sent) + 2 / (drop ? 30000 / 1001 : fps), 9);
    }
  });

  test('with a piece lost gives no time, and the next whole one does', () => {
    const reader = new MtcReader();
    const frames = quarterFrames(code('00:00:01:00'));
    for (const bytes of frames.filter((_, k) => k !== 3)) expect(reader.take(bytes)).toBeNull();
    expect(frames.map((bytes) => reader.take(bytes)).at(-1)).toBeCloseTo(1.08, 9);
  });

  test('is read from a full message, and nonsense is not', () => {
    const reader = new MtcReader();
    expect(reader.take([0xf0, 0x7f, 0x7f, 1, 1, (1 << 5) | 2, 3, 4, 5, 0xf7])).toBeCloseTo(7384.2, 9);
    expect(reader.take([0xf0, 0x7f, 0x7f, 1, 1, 2, 99, 4, 5, 0xf7])).toBeNull();
    expect(reader.take([0x90, 60, 100])).toBeNull();
  });
});

describe('linear time code', () => {
  const read = (samples: Float32Array, rate: number, block = 128): number[] => {
    const reader = new LtcReader(rate);
    const times: number[] = [];
    for (let k = 0; k < samples.length; k += block) {
      const time = reader.push(samples.subarray(k, k + block));
      if (time !== null) times.push(time);
    }
    return times;
  };

  test('is read at each rate, out of sound of either rate', () => {
    for (const fps of [24, 25, 30])
      for (const rate of [44100, 48000]) {
        const first = code('10:20:30:05', fps);
        const times = read(makeLtc(first, 20, rate), rate);
        // The first frame sets the speed, and the last ends with the next change of level, which does not come.
        expect(times.length).toBeGreaterThanOrEqual(18);
        const last = times[times.length - 1];
        expect(Math.abs(last - (secondsOf(first) + 19 / fps))).toBeLessThan(1.5 / fps);
        for (let k = 1; k < times.length; k++) expect(times[k] - times[k - 1]).toBeCloseTo(1 / fps, 1);
      }
  });

  test('comes back by itself after dropouts, and never gives a time that was not sent', () => {
    const rate = 48000;
    const first = code('00:59:58:00');
    const clean = makeLtc(first, 100, rate);
    const dirty = clean.map((v, k) => v * 0.2 + (randomAt(k, 7) - 0.5) * 0.02);
    for (const at of [0.5, 1.31, 2.77]) dirty.fill(0, at * rate, (at + 0.11) * rate);
    const times = read(dirty, rate);
    const start = secondsOf(first);
    expect(times.length).toBeGreaterThan(70);
    for (const time of times) {
      expect(time).toBeGreaterThan(start);
      expect(time).toBeLessThan(start + 4.05);
    }
    for (let k = 1; k < times.length; k++) expect(times[k]).toBeGreaterThan(times[k - 1]);
  });

  test('is not found in noise', () => {
    expect(
      read(
        Float32Array.from({ length: 96000 }, (_, k) => randomAt(k, 3) - 0.5),
        48000,
      ),
    ).toEqual([]);
  });
});
