import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Warp } from '../document/types';
import { flatPoints, flatWarp, homography, warpAt, warpMesh, withPoints } from './warp';

const corners: [number, number][] = [
  [0.1, 0.05],
  [0.95, 0.2],
  [0.02, 0.9],
  [0.8, 0.97],
];
const byCorners: Warp = { columns: 2, rows: 2, smooth: false, points: corners };
const square: [number, number][] = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
];
const near = (a: readonly number[], b: readonly number[], digits = 9): void =>
  a.forEach((value, k) => expect(value).toBeCloseTo(b[k], digits));

describe('four corners', () => {
  test('each corner of the picture meets its point', () => {
    square.forEach(([u, v], k) => near(warpAt(byCorners, u, v), corners[k]));
  });

  test('straight lines stay straight: the diagonals of the picture cross where those of the four do', () => {
    const [a, b, c, d] = corners;
    const middle = warpAt(byCorners, 0.5, 0.5);
    const side = (p: readonly number[], q: readonly number[]): number =>
      (q[0] - p[0]) * (middle[1] - p[1]) - (q[1] - p[1]) * (middle[0] - p[0]);
    expect(side(a, d)).toBeCloseTo(0, 9);
    expect(side(b, c)).toBeCloseTo(0, 9);
  });

  test('corners that cross have no perspective and are bent all the same', () => {
    const crossed = [corners[1], corners[0], corners[2], corners[3]];
    expect(homography(crossed)).toBeNull();
    square.forEach(([u, v], k) => near(warpAt({ ...byCorners, points: crossed }, u, v), crossed[k]));
  });

  test('two triangles draw them, which the GPU divides by w', () => {
    const { places, pictures, indices } = warpMesh(byCorners);
    expect(indices).toHaveLength(6);
    for (let k = 0; k < 4; k++) {
      const [x, y, w] = places.slice(3 * k, 3 * k + 3);
      near([x / w, y / w], warpAt(byCorners, pictures[2 * k], pictures[2 * k + 1]), 6);
    }
  });
});

describe('a grid', () => {
  const grid = fc
    .record({
      columns: fc.integer({ min: 2, max: 9 }),
      rows: fc.integer({ min: 2, max: 9 }),
      smooth: fc.boolean(),
    })
    .chain((form) =>
      fc
        .array(
          fc.tuple(
            fc.double({ min: -0.1, max: 0.1, noNaN: true }),
            fc.double({ min: -0.1, max: 0.1, noNaN: true }),
          ),
          {
            minLength: form.columns * form.rows,
            maxLength: form.columns * form.rows,
          },
        )
        .map((moves): Warp => ({
          ...form,
          points: flatPoints(form.columns, form.rows).map(([x, y], k) => [x + moves[k][0], y + moves[k][1]]),
        })),
    );

  test('meets its points exactly, straight or curved', () => {
    fc.assert(
      fc.property(grid, (warp) => {
        flatPoints(warp.columns, warp.rows).forEach(([u, v], k) =>
          near(warpAt(warp, u, v), warp.points[k], 6),
        );
      }),
      { numRuns: 60 },
    );
  });

  test('a flat one bends nothing, and more points change nothing', () => {
    for (const smooth of [false, true]) {
      const warp = { ...withPoints(flatWarp(), 5, 4), smooth };
      near(warpAt(warp, 0.37, 0.81), [0.37, 0.81]);
      near(warpAt(withPoints(byCorners, 9, 9), 0.5, 0.25), warpAt(byCorners, 0.5, 0.25));
    }
  });

  test('its triangles go in small steps over all of the picture', () => {
    const { places, pictures, indices } = warpMesh({ ...withPoints(flatWarp(), 3, 2), smooth: true });
    expect(indices).toHaveLength(16 * 8 * 6);
    expect(Math.max(...indices)).toBe(places.length / 3 - 1);
    expect(Math.max(...pictures)).toBe(1);
    places.forEach((value, k) => k % 3 === 2 && expect(value).toBe(1));
  });
});
