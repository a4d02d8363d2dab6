import { expect, test } from '@jest/globals';
import { itemsPerRow, mostSegments, strokeOf, strokePixels, type StrokeControls } from './stroke';

const controls = (more: Partial<StrokeControls>): StrokeControls => ({
  form: 'line',
  from: [-0.5, 0],
  to: [0.5, 0],
  place: [0, 0],
  size: 1,
  corners: 4,
  points: [],
  closed: false,
  text: '',
  font: 'sans',
  spacing: 0,
  ...more,
});
const item = (rgba: Float32Array, k: number): number[] => [...rgba.slice(4 * k, 4 * k + 4)];

test('a line is one segment, measured from the place', () => {
  const { rgba, width } = strokePixels(strokeOf(controls({ place: [0.5, 0.25] })));
  expect(width).toBe(itemsPerRow);
  expect(item(rgba, 0).slice(0, 2)).toEqual([1, 1]);
  expect(item(rgba, 1)).toEqual([-1, -0.25, 0, -0.25]);
  expect(item(rgba, 3)).toEqual([-1, -0.25, 0, -0.25]);
  expect(item(rgba, 4).slice(0, 2)).toEqual([0, 1]);
});

test('an outline is as high as its size, closes, and runs from 0 to 1 by length', () => {
  const [run] = strokeOf(controls({ form: 'polygon', corners: 4, size: 0.8 }));
  expect(Math.max(...run.points)).toBeCloseTo(0.4);
  const { rgba } = strokePixels([run]);
  expect(item(rgba, 0)[1]).toBe(4);
  const runs = [0, 1, 2, 3].map((k) => item(rgba, 3 + 2 * k + 1));
  expect(runs.map(([from]) => from)).toEqual([0, 0.25, 0.5, 0.75].map((v) => expect.closeTo(v, 5)));
  expect(runs[3][1]).toBeCloseTo(1);
});

test('many segments are boxed in groups that hold all of them', () => {
  const { rgba, height } = strokePixels(strokeOf(controls({ form: 'ring' })));
  const [groups, segments] = item(rgba, 0);
  expect(groups * 12).toBeGreaterThanOrEqual(segments);
  const counts = Array.from({ length: groups }, (_, g) => item(rgba, 2 + 2 * g)[1]);
  expect(counts.reduce((a, b) => a + b, 0)).toBe(segments);
  for (let g = 0; g < groups; g++) {
    const box = item(rgba, 1 + 2 * g);
    const [first, count] = item(rgba, 2 + 2 * g);
    for (let k = 0; k < count; k++) {
      const [ax, ay, bx, by] = item(rgba, first + 2 * k);
      expect(Math.min(ax, bx)).toBeGreaterThanOrEqual(box[0] - 1e-6);
      expect(Math.max(ay, by)).toBeLessThanOrEqual(box[3] + 1e-6);
    }
  }
  expect(height * itemsPerRow).toBeGreaterThanOrEqual(1 + 2 * groups + 2 * segments);
});

test('nothing, one point, points in one place and too many of them are no trouble', () => {
  for (const points of [[], [0.1], [0.1, 0.2], [0.1, 0.2, 0.1, 0.2], [NaN, 0, 1, 1]]) {
    const { rgba } = strokePixels(strokeOf(controls({ form: 'points', points })));
    expect(item(rgba, 0).slice(0, 2)).toEqual([0, 0]);
    expect([...rgba].every(Number.isFinite)).toBe(true);
  }
  const many = Array.from({ length: 9000 }, (_, k) => Math.sin(k));
  expect(item(strokePixels([{ points: many, closed: true }]).rgba, 0)[1]).toBe(mostSegments);
});

test('letters come from the font, scaled to the size; while it is on its way there are none', () => {
  const letters = (): readonly number[][] => [[0, 0, 1, 0, 1, 1]];
  expect(strokeOf(controls({ form: 'letters', size: 0.5 }), letters)[0].points).toEqual([
    0, 0, 0.5, 0, 0.5, 0.5,
  ]);
  expect(strokeOf(controls({ form: 'letters' }), () => null)).toEqual([]);
});
