import { expect, test } from '@jest/globals';
import { numberOf } from './constant';

test.each([
  ['0.5', 0.5],
  ['0,5', 0.5],
  [' -3 ', -3],
  ['.25', 0.25],
  ['1e3', 1000],
  ['90°', 90],
  ['12 beats', 12],
  ['1/4', 0.25],
  ['2*(3+1)', 8],
  ['value/2', 5],
  ['value + 0,5', 10.5],
  ['sqrt(16)', 4],
  ['360/7', 51.42857],
])('“%s” is %d', (text, number) => expect(numberOf(text, 10)).toBeCloseTo(number, 5));

test.each(['', 'abc', '2 +', 'time', 'other * 2', '1; 2'])('“%s” is no number', (text) =>
  expect(numberOf(text, 10)).toBeNull(),
);
