import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { spanOf, wholePicture } from './mapping';

const wide = { width: 1600, height: 400 };
const high = { width: 300, height: 600 };
const side = fc.integer({ min: 1, max: 5000 });
const share = fc.double({ min: 0.05, max: 1, noNaN: true });
const mapping = (fit: 'whole' | 'fill' | 'stretch', w = 1, h = 1) => ({ part: [0, 0, w, h], fit }) as const;

describe('a picture in an output', () => {
  test('lies between bars at the sides where the output is wider, above and below where it is higher', () => {
    expect(spanOf(2, wide, wholePicture)).toEqual([2, 1]);
    expect(spanOf(2, high, wholePicture)).toEqual([1, 4]);
    expect(spanOf(4, wide, wholePicture)).toEqual([1, 1]);
  });

  test('that fills it is cut at two sides', () => {
    expect(spanOf(2, wide, mapping('fill'))).toEqual([1, 0.5]);
    expect(spanOf(2, high, mapping('fill'))).toEqual([0.25, 1]);
  });

  test('that is stretched is neither cut nor between bars', () => {
    expect(spanOf(2, high, mapping('stretch'))).toEqual([1, 1]);
  });

  test('counts by the shape of the part that is shown', () => {
    // The left half of a picture twice as wide as high is a square.
    expect(spanOf(2, { width: 100, height: 100 }, mapping('whole', 0.5))).toEqual([1, 1]);
  });

  test('keeps its shape, whatever the sizes, unless it is stretched', () => {
    fc.assert(
      fc.property(side, side, share, share, fc.constantFrom('whole', 'fill'), (width, height, w, h, fit) => {
        const [x, y] = spanOf(16 / 9, { width, height }, mapping(fit, w, h));
        // Pixels of the output a unit of the picture takes along either side.
        const across = width / x / ((16 / 9) * w);
        const up = height / y / h;
        expect(across / up).toBeCloseTo(1, 6);
        expect(fit === 'whole' ? Math.min(x, y) : Math.max(x, y)).toBeCloseTo(1, 9);
      }),
    );
  });
});
