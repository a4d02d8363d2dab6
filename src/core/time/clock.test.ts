import { describe, expect, test } from '@jest/globals';
import {
  cyclesAt,
  inLoop,
  jointPeriod,
  keepFor,
  loopSecondsOf,
  momentAt,
  momentLater,
  tempoFromTaps,
} from './clock';

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
  test('averages, and begins again after a pause', () => {
    expect(tempoFromTaps([0])).toBeNull();
    expect(tempoFromTaps([0, 0.5, 1, 1.5])).toBeCloseTo(120);
    expect(tempoFromTaps([0, 5, 5.6])).toBeCloseTo(100);
  });
});

test('keep is the same at any frame rate', () => {
  for (const fps of [30, 60, 144]) {
    let value = 1;
    for (let k = 0; k < fps; k++) value *= keepFor(0.95, 1 / fps);
    expect(value).toBeCloseTo(0.95 ** 60, 6);
  }
  // half is gone after 13.5 frames of 1/60 s.
  expect(keepFor(0.95, 13.5 / 60)).toBeCloseTo(0.5, 2);
});

describe('loops', () => {
  const tempo = { bpm: 120, beatsPerBar: 4 };
  const loop = (length: number, unit: 'beats' | 'seconds' | 'frames', lock = false) => ({
    length,
    unit,
    lock,
  });
  test('as long in beats, seconds and frames', () => {
    expect(loopSecondsOf(loop(16, 'beats'), 120, 60)).toBe(8);
    expect(loopSecondsOf(loop(8, 'seconds'), 120, 60)).toBe(8);
    expect(loopSecondsOf(loop(300, 'frames'), 120, 60)).toBe(5);
    const moment = momentAt(2, 0, 60, tempo);
    for (const own of [loop(16, 'beats'), loop(8, 'seconds'), loop(480, 'frames')])
      expect(inLoop(moment, own).loop).toBe(0.25);
  });
  test('frame N of N is the start of the next round, exactly', () => {
    for (let frame = 0; frame <= 1200; frame += 300)
      expect(momentAt(frame / 60, 0, 60, tempo, undefined, loop(300, 'frames')).loop).toBeCloseTo(
        frame / 300,
        12,
      );
  });
  test('cycles in each unit, at this moment and later ones', () => {
    const moment = momentAt(3, 0, 60, tempo, undefined, loop(6, 'seconds'));
    const many = { ...moment, spread: Float64Array.of(0, 1) };
    expect([0, 1].map((i) => cyclesAt(many, 0.5, 'hertz', i))).toEqual([1.5, 2]);
    expect([0, 1].map((i) => cyclesAt(many, 4, 'beats', i))).toEqual([1.5, 2]);
    expect([0, 1].map((i) => cyclesAt(many, 3, 'loop', i))).toEqual([1.5, 2]);
    expect(cyclesAt(moment, 0, 'beats')).toBe(0);
    expect(momentLater(moment, 1)).toEqual(momentAt(4, 0, 60, tempo, undefined, loop(6, 'seconds')));
  });
  test('a locked loop makes whole cycles of any rate but 0', () => {
    const moment = momentAt(8, 0, 60, tempo, undefined, loop(8, 'seconds', true));
    for (const rate of [0.01, 0.3, 0.5, 1.26, -0.2]) {
      const cycles = cyclesAt(moment, rate, 'hertz');
      expect(Math.abs(cycles)).toBeGreaterThanOrEqual(1);
      expect(cycles).toBe(Math.round(cycles));
      expect(Math.sign(cycles)).toBe(Math.sign(rate));
    }
    expect(cyclesAt(moment, 0, 'hertz')).toBe(0);
  });
  test('joint period: 0.4, 0.5, 0.6 and 0.1 meet after 10', () => {
    expect(jointPeriod([0.4, 0.5, 0.6, 0.1])).toBeCloseTo(10);
    expect(jointPeriod([0.25])).toBeCloseTo(4);
    expect(jointPeriod([0, 0])).toBeNull();
    expect(jointPeriod([])).toBeNull();
  });
});
