import { expect, test } from '@jest/globals';
import { catalogue } from '../../../nodes/catalogue';
import { hasProportions, inProportion } from './proportions';

test('the other parts follow one by the same factor, from nought by the same amount', () => {
  expect(inProportion([1, 2, 4], 0, 2)).toEqual([2, 4, 8]);
  expect(inProportion([1, 2, 4], 2, 1)).toEqual([0.25, 0.5, 1]);
  expect(inProportion([0, 2, 0], 0, 0.5)).toEqual([0.5, 2.5, 0.5]);
  expect(inProportion([3, 6], 1, 0)).toEqual([0, 0]);
});

test('sizes and stretches have proportions; places, turns and single numbers have none', () => {
  const of = (kind: string, control: string): boolean =>
    hasProportions(catalogue.get(kind)!.controls[control]);
  expect(of('box', 'size')).toBe(true);
  expect(of('place', 'stretch')).toBe(true);
  expect(of('place', 'move')).toBe(false);
  expect(of('place', 'turn')).toBe(false);
  expect(of('noise', 'period')).toBe(false);
});
