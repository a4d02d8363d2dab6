import { expect, test } from '@jest/globals';
import { clipTime, type ClipTiming } from './clip-time';

const timing = (more: Partial<ClipTiming>): ClipTiming => ({
  time: 0,
  speed: 1,
  in: 0,
  out: 0,
  after: 'loop',
  position: null,
  ...more,
});

test('a video loops between in and out and never asks for its very end', () => {
  expect(clipTime(timing({ time: 0 }), 4)).toBe(0);
  expect(clipTime(timing({ time: 5 }), 4)).toBeCloseTo(1);
  expect(clipTime(timing({ time: 4 }), 4)).toBeCloseTo(0);
  expect(clipTime(timing({ time: 3.5, in: 1, out: 3 }), 4)).toBeCloseTo(2.5);
  for (let t = 0; t < 9; t += 0.013) expect(clipTime(timing({ time: t }), 4)).toBeLessThan(4);
});

test('backwards, to and fro, and holding the last frame', () => {
  expect(clipTime(timing({ time: 1, speed: -1 }), 4)).toBeCloseTo(3);
  expect(clipTime(timing({ time: 5, after: 'turn' }), 4)).toBeCloseTo(3);
  expect(clipTime(timing({ time: 9, after: 'turn' }), 4)).toBeCloseTo(1);
  expect(clipTime(timing({ time: 9, after: 'hold' }), 4)).toBeCloseTo(4, 2);
  expect(clipTime(timing({ time: 9, speed: -1, after: 'hold' }), 4)).toBeCloseTo(0);
});

test('a position says where, whatever time it is', () => {
  expect(clipTime(timing({ time: 7, position: 0.5, in: 1, out: 3 }), 4)).toBeCloseTo(2, 3);
  expect(clipTime(timing({ position: 2 }), 4)).toBeLessThan(4);
});

test('cuts that make no sense still give a frame of the video', () => {
  for (const cut of [{ in: 9 }, { in: 3, out: 1 }, { in: -2 }, { out: 99 }]) {
    const at = clipTime(timing({ time: 2.2, ...cut }), 4);
    expect(at).toBeGreaterThanOrEqual(0);
    expect(at).toBeLessThan(4);
  }
});
