import { expect, test } from '@jest/globals';
import { layerSide } from './model-pictures';

test('layers are as large as asked for, until together they fill what may be filled', () => {
  expect(layerSide(512, 4)).toBe(512);
  expect(layerSide(8000, 1)).toBe(2048);
  expect(layerSide(2048, 16)).toBe(1024);
  expect(layerSide(2048, 16) ** 2 * 16).toBeLessThanOrEqual(4096 * 4096);
  expect(layerSide(0, 3)).toBe(1);
});
