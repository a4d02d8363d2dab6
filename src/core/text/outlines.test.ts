import { expect, test } from '@jest/globals';
import { outlinesOf, type OutlineFont, type PathCommand } from './outlines';

const box = (width: number, height: number): PathCommand[] => [
  { type: 'M', x: 0, y: 0 },
  { type: 'L', x: width, y: 0 },
  { type: 'L', x: width, y: height },
  { type: 'L', x: 0, y: height },
  { type: 'Z' },
];
const font: OutlineFont = {
  unitsPerEm: 1000,
  charToGlyph: (letter) => ({
    advanceWidth: letter === ' ' ? 300 : 700,
    path: {
      commands:
        letter === ' '
          ? []
          : letter === 'O'
            ? [
                { type: 'M', x: 0, y: 0 },
                { type: 'Q', x1: 350, y1: 1400, x: 700, y: 0 },
                { type: 'C', x1: 600, y1: -100, x2: 100, y2: -100, x: 0, y: 0 },
                { type: 'Z' },
              ]
            : box(700, 700),
    },
  }),
};

test('a capital is 1 high and a line of them stands round the middle', () => {
  const [first, second] = outlinesOf(font, 'HH', 0);
  expect(first).toEqual([-1, -0.5, 0, -0.5, 0, 0.5, -1, 0.5]);
  expect(second).toEqual([0, -0.5, 1, -0.5, 1, 0.5, 0, 0.5]);
});

test('spacing stands between letters, not after the last; a space has no outline', () => {
  const outlines = outlinesOf(font, 'H H', 0.5);
  expect(outlines).toHaveLength(2);
  expect(outlines[0][0]).toBeCloseTo(-outlines[1][2]);
  expect(outlines[1][0] - outlines[0][2]).toBeCloseTo(300 / 700 + 1);
});

test('curves are drawn in straight pieces that pass through the curve', () => {
  const [outline] = outlinesOf(font, 'O', 0);
  expect(outline.length / 2).toBe(1 + 6 + 6);
  // The middle of a quadratic curve: a quarter of both ends and half of the point between.
  expect(outline[2 * 3 + 1] + 0.5).toBeCloseTo((0.5 * 1400) / 700);
});
