import { describe, expect, test } from '@jest/globals';
import { coloursOf, gradientFrom } from './colours-of';

/** Pixels of these colours, so many of each. */
const picture = (...parts: readonly (readonly [number, readonly [number, number, number, number]])[]) =>
  new Uint8ClampedArray(parts.flatMap(([count, rgba]) => Array.from({ length: count }, () => rgba).flat()));
const red = [255, 0, 0, 255] as const;
const blue = [0, 0, 255, 255] as const;
const white = [255, 255, 255, 255] as const;

describe('the colours of a picture', () => {
  test('as many as it has, from dark to light, however unevenly they are spread', () => {
    const colours = coloursOf(picture([500, red], [3, white], [40, blue]), 3);
    expect(colours).toEqual([
      [0, 0, 1, 1],
      [1, 0, 0, 1],
      [1, 1, 1, 1],
    ]);
    expect(coloursOf(picture([500, red], [3, white]), 6)).toHaveLength(2);
  });
  test('many are brought down to as many as are asked for, near to what was there', () => {
    const ramp = new Uint8ClampedArray(Array.from({ length: 256 }, (_, v) => [v, v, v, 255]).flat());
    const greys = coloursOf(ramp, 4);
    expect(greys).toHaveLength(4);
    for (const [r, g, b] of greys) expect([g, b]).toEqual([r, r]);
    expect(greys[0][0]).toBeLessThan(0.3);
    expect(greys[3][0]).toBeGreaterThan(0.7);
  });
  test('what is transparent does not count', () => {
    expect(coloursOf(picture([9, [0, 255, 0, 20]], [1, red]), 3)).toEqual([[1, 0, 0, 1]]);
    expect(coloursOf(picture([9, [0, 255, 0, 20]]), 3)).toEqual([]);
  });
  test('as a gradient: evenly, two stops at least', () => {
    expect(gradientFrom(picture([2, red], [2, white], [2, blue]), 3)!.map(({ at }) => at)).toEqual([
      0, 0.5, 1,
    ]);
    expect(gradientFrom(picture([2, red]), 5)!.map(({ at }) => at)).toEqual([0, 1]);
    expect(gradientFrom(new Uint8ClampedArray(0), 5)).toBeNull();
  });
});
