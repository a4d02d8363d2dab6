import type { Warp } from '../document/types';

/** A place: x to the right and y down, as shares of an output from its top left. */
export type Place = readonly [number, number];

/** Points that a warp has at most along a side. */
export const mostWarpPoints = 9;
/** Steps that one cell of a bent grid is drawn in. */
const stepsOfCell = 8;

/** Points of a grid that bends nothing, row by row from the top left. */
export function flatPoints(columns: number, rows: number): [number, number][] {
  const points: [number, number][] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) points.push([column / (columns - 1), row / (rows - 1)]);
  return points;
}

export const flatWarp = (): Warp => ({ columns: 2, rows: 2, smooth: false, points: flatPoints(2, 2) });

/**
 * The plane projective map that takes the corners of the unit square (top left, top right, lower left, lower right) to four
 * places, as three rows of a matrix on (u, v, 1); null where the four do not form a convex quadrangle. After P. Heckbert,
 * "Fundamentals of Texture Mapping and Image Warping", 1989.
 */
export function homography([p00, p10, p01, p11]: readonly Place[]): number[][] | null {
  const sum = [p00[0] - p10[0] - p01[0] + p11[0], p00[1] - p10[1] - p01[1] + p11[1]];
  const d1 = [p10[0] - p11[0], p10[1] - p11[1]];
  const d2 = [p01[0] - p11[0], p01[1] - p11[1]];
  const det = d1[0] * d2[1] - d2[0] * d1[1];
  if (Math.abs(det) < 1e-9) return null;
  const g = (sum[0] * d2[1] - d2[0] * sum[1]) / det;
  const h = (d1[0] * sum[1] - sum[0] * d1[1]) / det;
  // Behind the eye: the four are not convex.
  if (Math.min(1 + g, 1 + h, 1 + g + h) <= 1e-6) return null;
  return [
    [p10[0] - p00[0] + g * p10[0], p01[0] - p00[0] + h * p01[0], p00[0]],
    [p10[1] - p00[1] + g * p10[1], p01[1] - p00[1] + h * p01[1], p00[1]],
    [g, h, 1],
  ];
}

/** A Catmull-Rom spline through four values, between the middle two. */
const spline = (a: number, b: number, c: number, d: number, t: number): number =>
  b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));

/** A row of values at `t` between `k` and the next; beyond its ends it goes on straight. */
function along(value: (k: number) => number, count: number, k: number, t: number, smooth: boolean): number {
  const [b, c] = [value(k), value(k + 1)];
  if (!smooth) return b + t * (c - b);
  const a = k > 0 ? value(k - 1) : 2 * b - c;
  const d = k + 2 < count ? value(k + 2) : 2 * c - b;
  return spline(a, b, c, d, t);
}

/** Where a place of the picture (shares from its top left) lies on a grid: by lines or curves between its points, which it meets exactly. */
function onGrid({ columns, rows, smooth, points }: Warp, u: number, v: number): [number, number] {
  const x = u * (columns - 1);
  const y = v * (rows - 1);
  const column = Math.min(columns - 2, Math.floor(x));
  const row = Math.min(rows - 2, Math.floor(y));
  const axis = (k: 0 | 1): number =>
    along(
      (r) => along((c) => points[r * columns + c][k], columns, column, x - column, smooth),
      rows,
      row,
      y - row,
      smooth,
    );
  return [axis(0), axis(1)];
}

const cornersOnly = ({ columns, rows }: Warp): boolean => columns === 2 && rows === 2;

/** Where a place of the picture lies on the output, both as shares from the top left. */
export function warpAt(warp: Warp, u: number, v: number): [number, number] {
  const map = cornersOnly(warp) ? homography(warp.points) : null;
  if (!map) return onGrid(warp, u, v);
  const [x, y, w] = map.map((row) => row[0] * u + row[1] * v + row[2]);
  return [x / w, y / w];
}

/** The same bend with another number of points. */
export function withPoints(warp: Warp, columns: number, rows: number): Warp {
  const points = flatPoints(columns, rows).map(([u, v]) => warpAt(warp, u, v));
  return { ...warp, columns, rows, points };
}

/** A warp as triangles. */
export interface WarpMesh {
  /** x, y and w for each corner: the place on the output is (x, y) / w, as shares from the top left. */
  places: Float32Array;
  /** u and v for each corner: the place in the picture, as shares from the top left. */
  pictures: Float32Array;
  indices: Uint16Array | Uint32Array;
}

/**
 * Triangles that draw a warp. Four corners need but two, since the GPU divides by w; a grid is drawn in small steps, as are four
 * corners that no perspective can reach.
 */
export function warpMesh(warp: Warp): WarpMesh {
  const map = cornersOnly(warp) ? homography(warp.points) : null;
  const [across, down] = map ? [1, 1] : [(warp.columns - 1) * stepsOfCell, (warp.rows - 1) * stepsOfCell];
  const places: number[] = [];
  const pictures: number[] = [];
  for (let j = 0; j <= down; j++) {
    for (let i = 0; i <= across; i++) {
      const [u, v] = [i / across, j / down];
      pictures.push(u, v);
      if (map) places.push(...map.map((row) => row[0] * u + row[1] * v + row[2]));
      else places.push(...onGrid(warp, u, v), 1);
    }
  }
  const indices: number[] = [];
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      const k = j * (across + 1) + i;
      indices.push(k, k + across + 1, k + 1, k + 1, k + across + 1, k + across + 2);
    }
  }
  return {
    places: new Float32Array(places),
    pictures: new Float32Array(pictures),
    indices: new Uint16Array(indices),
  };
}
