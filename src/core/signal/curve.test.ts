import { describe, expect, test } from '@jest/globals';
import type { CurveKey } from '../document/types';
import { curveAt, easeKeys, inOrder, moveKeys, slopeAt, stretchKeys, valuesOfCurves } from './curve';

const keys = (form: CurveKey['form'], ...pairs: [number, number][]): CurveKey[] =>
  pairs.map(([at, value]) => ({ at, value, form }));

describe('a drawn curve', () => {
  test('none, one and beyond the ends', () => {
    expect(curveAt([], 3)).toBe(0);
    expect(curveAt(keys('smooth', [1, 7]), -5)).toBe(7);
    const line = keys('straight', [1, 2], [3, 6]);
    expect([0, 1, 2, 3, 9].map((t) => curveAt(line, t))).toEqual([2, 2, 4, 6, 6]);
  });
  test('smooth passes its keys, is flat at turns and never overshoots', () => {
    const curve = keys('smooth', [0, 0], [1, 0.1], [2, 5], [3, 5], [4, -1]);
    for (const { at, value } of curve) expect(curveAt(curve, at)).toBeCloseTo(value, 9);
    for (let t = 0; t < 2; t += 0.01)
      expect(curveAt(curve, t + 0.01)).toBeGreaterThanOrEqual(curveAt(curve, t) - 1e-12);
    for (let t = 2; t <= 3; t += 0.05) expect(curveAt(curve, t)).toBeCloseTo(5, 9);
    // Half of a smooth way between two turns: smoothstep.
    expect(curveAt(keys('smooth', [0, 0], [1, 1]), 0.25)).toBeCloseTo(0.15625, 9);
  });
  test('hold stands until the next key', () => {
    const curve = keys('hold', [0, 1], [2, 5]);
    expect([0, 1.999, 2].map((t) => curveAt(curve, t))).toEqual([1, 1, 5]);
  });
  test('free goes by its slopes: worked value of the cubic', () => {
    const curve: CurveKey[] = [
      { at: 0, value: 0, form: 'free', slopes: [0, 3] },
      { at: 2, value: 0, form: 'free', slopes: [-3, 0] },
    ];
    // Hermite at a half: (rise - fall) x span / 8.
    expect(curveAt(curve, 1)).toBeCloseTo(1.5, 9);
  });
  test('two keys at one time jump', () => {
    const curve = keys('straight', [0, 0], [1, 1], [1, 5], [2, 6]);
    expect([curveAt(curve, 0.999), curveAt(curve, 1), curveAt(curve, 1.5)]).toEqual([
      expect.closeTo(0.999, 6),
      5,
      5.5,
    ]);
  });
});

describe('editing', () => {
  const curve = keys('straight', [0, 0], [1, 1], [3, 0]);
  test('slide, stretch and put in order', () => {
    expect(moveKeys(curve, new Set([1]), { at: 3, value: -1 }).map((k) => [k.at, k.value])).toEqual([
      [0, 0],
      [4, 0],
      [3, 0],
    ]);
    expect(inOrder(moveKeys(curve, new Set([1]), { at: 3, value: 0 })).map((k) => k.at)).toEqual([0, 3, 4]);
    expect(stretchKeys(curve, new Set([1, 2]), 2).map((k) => k.at)).toEqual([0, 1, 5]);
    const free: CurveKey[] = [{ at: 2, value: 0, form: 'free', slopes: [4, 2] }];
    expect(stretchKeys(free, new Set([0]), 2)[0].slopes).toEqual([2, 1]);
  });
  test.each([
    ['line', 0.25],
    ['in', 0.0625],
    ['out', 0.4375],
    ['both', 0.15625],
    ['hold', 0],
  ] as const)('eases %s', (easing, quarter) => {
    const eased = easeKeys(keys('straight', [0, 0], [1, 1]), 0, easing);
    expect(curveAt(eased, 0.25)).toBeCloseTo(quarter, 9);
    expect(curveAt(eased, 1)).toBe(1);
  });
  test('easing one way leaves the others as they were', () => {
    const eased = easeKeys(curve, 0, 'in');
    for (const t of [1.5, 2, 2.5]) expect(curveAt(eased, t)).toBeCloseTo(curveAt(curve, t), 9);
    expect(slopeAt(eased, 1, 0)).toBe(2);
    expect(easeKeys(curve, 2, 'in')).toEqual(curve);
  });
  test('the range of its values', () => {
    expect(valuesOfCurves([{ keys: curve }])).toEqual([0, 1]);
    expect(valuesOfCurves([{ keys: keys('hold', [0, 4]) }])).toEqual([0, 4]);
    expect(valuesOfCurves([])).toEqual([0, 1]);
  });
});
