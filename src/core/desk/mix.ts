import type { DeskControl, DeskValue } from '../document/types';
import { fromOklab, toOklab } from '../colour';
import { heldNumber, isWords, numbersOfType } from './value';

/** How the numbers of a desk control lie between two of its values. */
export interface MixWay {
  /** Numbers of a cycle that is this long: the shorter way round is taken. 0: none. */
  period: number;
}

/** From `a` to `a` again the shorter way round a cycle. */
function shortWay(a: number, b: number, period: number): number {
  const difference = (((b - a) % period) + period) % period;
  return difference > period / 2 ? difference - period : difference;
}

/**
 * A mix of values that one desk control can stand at. `shares` add up to 1. Numbers are mixed one by one, angles the short way, colours in OKLab
 * (B. Ottosson, 2020); of words, and of a pad or switch, the one with the largest share counts, so between two at the half.
 */
export function mixValues(
  control: DeskControl,
  values: readonly DeskValue[],
  shares: readonly number[],
  { period }: MixWay = { period: 0 },
): DeskValue {
  const count = numbersOfType[control.type];
  // Nearly all controls are one number with a straight way: nothing is made for them but the result.
  if (count === 1 && period === 0 && control.type !== 'pad' && control.type !== 'switch') {
    let sum = 0;
    for (let k = 0; k < values.length; k++) sum += shares[k] * (values[k][0] as number);
    return [heldNumber(control, sum)];
  }
  let most = 0;
  for (let k = 1; k < shares.length; k++) if (shares[k] > shares[most] + 1e-9) most = k;
  const numbers: number[][] = [];
  for (const value of values) if (!isWords(value)) numbers.push(value);
  if (numbers.length < values.length || control.type === 'pad' || control.type === 'switch')
    return values[most];
  if (shares[most] >= 1) return numbers[most];
  if (control.type === 'chip') {
    const mixed = [0, 0, 0, 0];
    numbers.forEach((value, k) => {
      const [l, a, b] = toOklab(value);
      [l, a, b, value[3]].forEach((v, j) => (mixed[j] += shares[k] * v));
    });
    return [...fromOklab([mixed[0], mixed[1], mixed[2]]), mixed[3]].map((v) => heldNumber(control, v));
  }
  const first = numbers[0];
  return first.map((base, j) => {
    let sum = base;
    for (let k = 1; k < numbers.length; k++) {
      const away = period > 0 ? shortWay(base, numbers[k][j], period) : numbers[k][j] - base;
      sum += shares[k] * away;
    }
    // The short way may lead out of the range at one end: it comes in at the other.
    if (period > 0 && (sum < control.range[0] || sum > control.range[1])) {
      const [low, high] = control.range;
      const back = sum < low ? sum + period : sum - period;
      if (back >= low && back <= high) sum = back;
    }
    return heldNumber(control, sum);
  });
}

/** Shares of the four corners at a place, 0..1 each: left and right below, left and right above. */
export const cornerShares = ([x, y]: readonly [number, number]): [number, number, number, number] => [
  (1 - x) * (1 - y),
  x * (1 - y),
  (1 - x) * y,
  x * y,
];
