import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Carries } from '../kind/kind';
import { kindBetween } from './between';

const between = (carries: Carries, target: string): string | undefined =>
  kindBetween(catalogue, carries, catalogue.get(target)!)?.kind.id;

test.each<[Carries, string, string]>([
  ['shape', 'shot', 'body'],
  ['prop', 'blur', 'shot'],
  ['prop', 'scene-out', 'shot'],
  ['field', 'blur', 'field-shot'],
  ['image', 'smooth', 'pixel-reader'],
  ['signal', 'blur', 'data-image'],
  ['shape', 'smooth', 'point-reader'],
])('between %s and %s stands %s', (carries, target, kind) => expect(between(carries, target)).toBe(kind));

test('where no kind does it alone, none is offered', () => {
  expect(between('image', 'field-shot')).toBeUndefined();
  expect(between('shape', 'oscillator')).toBeUndefined();
});
