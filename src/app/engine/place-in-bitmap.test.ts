import { expect, test } from '@jest/globals';
import { placeInBitmap } from './place-in-bitmap';

const placed = (share: readonly [number, number]): Record<string, string> => {
  const canvas = { style: {} as Record<string, string> };
  placeInBitmap(canvas as unknown as HTMLCanvasElement, share);
  return canvas.style;
};

test('a bitmap that belongs to one output fills its box', () => {
  expect(placed([1, 1])).toMatchObject({ width: '100%', height: '100%', left: '0', bottom: '0' });
});

test('a shared one is enlarged until the output’s own part fills the box, from the lower left', () => {
  expect(placed([0.25, 0.5])).toMatchObject({ width: '400%', height: '200%', position: 'absolute' });
});
