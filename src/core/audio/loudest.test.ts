import { expect, test } from '@jest/globals';
import { loudestSecond, nextLoudest } from './loudest';

const rate = 1000;
const sound = (seconds: number, loud: (second: number) => number): Float32Array =>
  Float32Array.from({ length: seconds * rate }, (_, k) => loud(k / rate) * Math.sin(k));

test('finds where the most power is, to a tenth of a second', () => {
  expect(
    loudestSecond(
      sound(8, (t) => (t >= 5.3 && t < 6.3 ? 1 : 0.2)),
      rate,
    ),
  ).toBeCloseTo(5.3);
  expect(
    loudestSecond(
      sound(4, (t) => (t >= 3 ? 1 : 0)),
      rate,
    ),
  ).toBe(3);
});

test('an even sound and a short one begin at 0', () => {
  expect(
    loudestSecond(
      sound(0.5, () => 1),
      rate,
    ),
  ).toBe(0);
  expect(loudestSecond(new Float32Array(5000), rate)).toBe(0);
});

test('what was looked at needs no second look', () => {
  expect(nextLoudest(5.3, 8, { from: 0, to: 10 }, 10)).toBeNull();
  expect(nextLoudest(5.3, 8, { from: 10, to: 20 }, 20)).toBeNull();
});

test('else it comes when the sound has gone round to it', () => {
  expect(nextLoudest(5.3, 8, { from: 0, to: 4 }, 4)).toBeCloseTo(5.3);
  expect(nextLoudest(5.3, 8, { from: 0, to: 6 }, 6)).toBeCloseTo(13.3);
  expect(nextLoudest(5.3, 8, { from: 4, to: 5 }, 9)).toBeCloseTo(13.3);
});
