import { expect, test } from '@jest/globals';
import { FeedbackClock, mostStepsAt } from './feedback-steps';

const steps = (fps: number, seconds: number, wobble = 0): number[] => {
  const clock = new FeedbackClock();
  return Array.from(
    { length: Math.round(fps * seconds) },
    (_, k) => clock.next(1 / fps + wobble * (k % 2 ? 1 : -1)).count,
  );
};

test.each([24, 30, 60, 90, 144])('at %i frames a second, ten seconds are 600 steps', (fps) => {
  expect(steps(fps, 10).reduce((a, b) => a + b, 0)).toBe(600);
});

test('at about 60 frames a second every frame takes one step, though none is exactly 1/60 s long', () => {
  expect(new Set(steps(60, 10, 0.004))).toEqual(new Set([1]));
});

test('what a slow GPU leaves out is made up for', () => {
  const clock = new FeedbackClock();
  expect(clock.next(0.1, 2)).toEqual({ count: 2, sixtieths: 3 });
  expect(clock.next(1 / 60, 2)).toEqual({ count: 1, sixtieths: 1 });
});

test('the slower frames are, the fewer steps each takes', () => {
  expect([0, 16, 30, 60, 90, 120, 500].map(mostStepsAt)).toEqual([4, 4, 4, 3, 2, 1, 1]);
});

test('while time stands still there is no step, and nothing is owed for it', () => {
  const clock = new FeedbackClock();
  expect(clock.next(0).count).toBe(0);
  expect(clock.next(1 / 60).count).toBe(1);
});
