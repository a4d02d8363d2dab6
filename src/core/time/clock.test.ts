import { describe, expect, test } from '@jest/globals';
import { keepFor, momentAt, tempoFromTaps } from './clock';

describe('moment', () => {
  test('frames and beats follow time', () => {
    for (let frame = 0; frame < 600; frame++)
      expect(momentAt(frame / 60, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 }).frame).toBe(frame);
    const moment = momentAt(3, 0, 60, { bpm: 120, beatsPerBar: 4 });
    expect([moment.beat, moment.bar]).toEqual([6, 1.5]);
  });
  test('a change of tempo goes on from the beat it came at', () => {
    const at = momentAt(10, 0, 60, { bpm: 60, beatsPerBar: 4 }, { time: 10, beat: 20 });
    expect(at.beat).toBe(20);
    expect(momentAt(11, 0, 60, { bpm: 60, beatsPerBar: 4 }, { time: 10, beat: 20 }).beat).toBe(21);
  });
});

describe('tap', () => {
  test('averages, and begins anew after a pause', () => {
    expect(tempoFromTaps([0])).toBeNull();
    expect(tempoFromTaps([0, 0.5, 1, 1.5])).toBeCloseTo(120);
    expect(tempoFromTaps([0, 5, 5.6])).toBeCloseTo(100);
  });
});

test('keep is the same at any frame rate (K27)', () => {
  for (const fps of [30, 60, 144]) {
    let value = 1;
    for (let k = 0; k < fps; k++) value *= keepFor(0.95, 1 / fps);
    expect(value).toBeCloseTo(0.95 ** 60, 6);
  }
  // K26: half is gone after 13.5 frames of 1/60 s.
  expect(keepFor(0.95, 13.5 / 60)).toBeCloseTo(0.5, 2);
});
