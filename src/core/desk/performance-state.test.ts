import { expect, test } from '@jest/globals';
import { performanceAt, timeAt, type PerformanceState } from './performance-state';

/** A performance that stood at 20 s when its clock said so many milliseconds. */
const stoodAt = (at: number, playing = true): PerformanceState => {
  const state = performanceAt('s1');
  return { ...state, at, transport: { ...state.transport, time: 20, playing } };
};

test('the show goes on after it was last reported, for ten seconds at most', () => {
  expect([50_000, 51_500, 60_000, 90_000].map((now) => timeAt(stoodAt(50_000), now))).toEqual([
    20, 21.5, 30, 30,
  ]);
});

test('it stands where it is paused, where it is not known when it stood so, and never goes back', () => {
  expect(timeAt(stoodAt(50_000, false), 55_000)).toBe(20);
  expect(timeAt(stoodAt(0), 55_000)).toBe(20);
  expect(timeAt(stoodAt(50_000), 49_000)).toBe(20);
});
