import { describe, expect, test } from '@jest/globals';
import { noBlend } from '../../core/wall/screens';
import { screenFragment, type ScreenNumbers } from './screen-shader';

const plain: ScreenNumbers = {
  blend: noBlend(),
  gain: [1, 1, 1],
  bend: [1, 1, 1],
  black: [0, 0, 0],
  hasMask: false,
  isWithin: true,
};

describe('the shader of an output', () => {
  test('does nothing that changes nothing', () => {
    const text = screenFragment(plain);
    expect(text).not.toMatch(/pow|ramp|within|texture\(mask/);
    expect(text).not.toContain('uniform vec3');
  });

  test('has the numbers of the output in its code, each as a float', () => {
    const text = screenFragment({
      ...plain,
      blend: { ...noBlend(), right: 0.25, power: 3 },
      gain: [1, 0.5, 2],
      black: [0.1, 0, 0],
      hasMask: true,
      isWithin: false,
    });
    expect(text).toContain('ramp((1.0 - at.x) * 4.0)');
    expect(text).not.toContain('ramp((at.x)');
    expect(text).toContain('pow(2.0 * min(t, 1.0 - t), 3.0)');
    expect(text).toContain('c *= vec3(1.0, 0.5, 2.0)');
    expect(text).toContain('vec3(0.1, 0.0, 0.0) + vec3(0.9, 1.0, 1.0) * c');
    expect(text).toMatch(/within/);
    expect(text).toMatch(/texture\(mask/);
  });

  test('for all takes every number from outside', () => {
    const text = screenFragment(null);
    for (const name of ['overlap', 'blend', 'gain', 'bend', 'black', 'fade'])
      expect(text).toMatch(new RegExp(`uniform \\w+ ${name};`));
  });
});
