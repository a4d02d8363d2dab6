import { describe, expect, test } from '@jest/globals';
import { noise3, octaveNoise } from './noise';
import { normalAt, randomAt } from './random';
import { fromHex, gradientAt, toHex } from './colour';

describe('random numbers', () => {
  test('are even, fixed and differ by seed', () => {
    const values = Array.from({ length: 20000 }, (_, i) => randomAt(i, 3));
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    expect(mean).toBeCloseTo(0.5, 1);
    for (let tenth = 0; tenth < 10; tenth++) {
      const share = values.filter((v) => Math.floor(v * 10) === tenth).length / values.length;
      expect(share).toBeGreaterThan(0.09);
      expect(share).toBeLessThan(0.11);
    }
    expect(randomAt(5, 3)).toBe(values[5]);
    expect(randomAt(5, 4)).not.toBe(values[5]);
  });
  test('gathered ones have mean 0 and deviation 1', () => {
    const values = Array.from({ length: 20000 }, (_, i) => normalAt(i));
    const square = values.reduce((a, b) => a + b * b, 0) / values.length;
    expect(square).toBeGreaterThan(0.95);
    expect(square).toBeLessThan(1.05);
  });
});

describe('noise', () => {
  test('is 0 at whole numbers, smooth and within its range', () => {
    expect(noise3(3, -2, 7)).toBeCloseTo(0);
    let before = noise3(0, 0.3, 0.7);
    let most = 0;
    for (let x = 0.01; x < 40; x += 0.01) {
      const now = noise3(x, 0.3, 0.7);
      expect(Math.abs(now - before)).toBeLessThan(0.05);
      most = Math.max(most, Math.abs(now));
      before = now;
    }
    expect(most).toBeGreaterThan(0.3);
    expect(most).toBeLessThanOrEqual(1);
    expect(Math.abs(octaveNoise(1.3, 2.7, 0.1, 6, 0.5))).toBeLessThanOrEqual(1);
    expect(octaveNoise(1, 2, 3, 0, 0.5)).toBe(0);
  });
});

describe('colour', () => {
  test('hex there and back', () => {
    expect(toHex(fromHex('#f0a63a')!)).toBe('#f0a63a');
    expect(fromHex('fff')).toEqual([1, 1, 1]);
    expect(fromHex('#12345')).toBeNull();
  });
  test('gradients hold beyond their ends and take stops in any order', () => {
    const stops = [
      { at: 1, colour: [1, 1, 1, 1] as [number, number, number, number] },
      { at: 0.5, colour: [0, 0, 0, 1] as [number, number, number, number] },
    ];
    expect(gradientAt(stops, 0)[0]).toBe(0);
    expect(gradientAt(stops, 0.75)[0]).toBe(0.5);
    expect(gradientAt([], 0.3)).toEqual([0, 0, 0, 0]);
  });
});
