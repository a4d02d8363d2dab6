import { describe, expect, test } from '@jest/globals';
import { mostPattern, patternShare } from './patterns';

const [width, height] = [96, 54];
function picture(at: (x: number, y: number) => number): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rgba.fill(at(x, y), 4 * (y * width + x), 4 * (y * width + x) + 3);
  return rgba;
}
const share = (at: (x: number, y: number) => number): number => patternShare(picture(at), width, height);
const bars = (period: number) => (x: number) => (x % period < period / 2 ? 20 : 230);

describe('patterns', () => {
  test('a plain picture and one of a few broad bars have none', () => {
    expect(share(() => 128)).toBe(0);
    expect(share(bars(24))).toBe(0);
  });
  test('eight pairs of bars over all of it are one, upright, level or aslant', () => {
    expect(share(bars(12))).toBeGreaterThan(0.85);
    expect(share((_, y) => bars(8)(y))).toBeGreaterThan(0.8);
    expect(share((x, y) => bars(10)(x + y))).toBeGreaterThan(0.7);
  });
  test('soft waves count by their light, not by their edges', () =>
    expect(share((x) => 128 + 100 * Math.sin((2 * Math.PI * x) / 10))).toBeGreaterThan(0.8));
  test('bars of too little light are none', () => {
    expect(share((x) => (x % 12 < 6 ? 20 : 60))).toBe(0);
    // Both are bright: nothing of it is dark enough.
    expect(share((x) => (x % 12 < 6 ? 235 : 255))).toBe(0);
  });
  test('only what they cover counts', () => {
    const covered = share((x, y) => (y < 10 ? bars(8)(x) : 128));
    expect(covered).toBeGreaterThan(0.1);
    expect(covered).toBeLessThan(mostPattern);
  });
  test('bars at uneven distances are no pattern', () => {
    const edges = [0, 3, 4, 13, 15, 22, 23, 34, 36, 37, 47, 50, 51, 63, 64, 72, 75, 76, 90];
    expect(share((x) => (edges.filter((edge) => edge <= x).length % 2 ? 20 : 230))).toBe(0);
  });
});
