import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blendAt, ramp } from './blend';
import { noBlend } from './screens';
import { whiteGains } from './white-point';

describe('an overlap', () => {
  test('two of the same width add up to even light, whatever the curve', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 5, noNaN: true }),
        fc.double({ min: 0.02, max: 0.5, noNaN: true }),
        (share, power, width) => {
          const left = { ...noBlend(), power, right: width };
          const right = { ...noBlend(), power, left: width };
          // The same place of the room, as each projector counts it.
          const both = blendAt(left, 1 - width + share * width, 0.5) + blendAt(right, share * width, 0.5);
          expect(both).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  test('leaves everything else alone, and its ends are dark and full', () => {
    expect(blendAt(noBlend(), 0, 0)).toBe(1);
    expect(blendAt({ ...noBlend(), top: 0.2 }, 0.5, 0.3)).toBe(1);
    expect(blendAt({ ...noBlend(), top: 0.2 }, 0.5, 0)).toBe(0);
    expect(ramp(0.5, 3)).toBe(0.5);
  });
});

describe('white', () => {
  test('of 6500 K changes nothing; warm white keeps red, cold white keeps blue', () => {
    whiteGains(6500).forEach((gain) => expect(gain).toBeCloseTo(1, 9));
    const [red, green, blue] = whiteGains(3200);
    expect(red).toBe(1);
    expect(green).toBeLessThan(0.8);
    expect(blue).toBeLessThan(green);
    const cold = whiteGains(10000);
    expect(cold[2]).toBe(1);
    expect(cold[0]).toBeLessThan(cold[1]);
  });

  test('gets steadily bluer, without a jump between the two formulas', () => {
    let before = 0;
    for (let kelvin = 2000; kelvin <= 15000; kelvin += 100) {
      const [red, , blue] = whiteGains(kelvin);
      const share = blue / red;
      expect(share).toBeGreaterThanOrEqual(before);
      if (kelvin > 2100 && kelvin < 6000) expect(share - before).toBeLessThan(0.04);
      before = share;
    }
  });
});
