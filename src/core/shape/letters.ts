import earcut from 'earcut';
import type { Outline } from '../text/outlines';
import { crossOf } from './measure';
import { emptyShape, joinShapes, type Shape } from './shape';

/** An outline with the holes that lie in it; the outline runs counter-clockwise, holes clockwise. */
interface Patch {
  rim: number[][];
  holes: number[][][];
}

const pairs = (outline: Outline): number[][] => {
  const points: number[][] = [];
  for (let k = 0; k + 1 < outline.length; k += 2) {
    const last = points[points.length - 1];
    if (last && Math.hypot(last[0] - outline[k], last[1] - outline[k + 1]) < 1e-6) continue;
    points.push([outline[k], outline[k + 1]]);
  }
  const [first] = points;
  const last = points[points.length - 1];
  if (points.length > 1 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-6) points.pop();
  return points;
};

const areaOf = (points: readonly number[][]): number =>
  points.reduce((sum, [x, y], k) => {
    const [nx, ny] = points[(k + 1) % points.length];
    return sum + (x * ny - nx * y) / 2;
  }, 0);

function contains(points: readonly number[][], [x, y]: readonly number[]): boolean {
  let inside = false;
  points.forEach(([ax, ay], k) => {
    const [bx, by] = points[(k + 1) % points.length];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** Sorts outlines into patches: what lies in an odd number of others is a hole of the nearest around it. */
function patchesOf(outlines: readonly Outline[]): Patch[] {
  const all = outlines.map(pairs).filter((points) => points.length >= 3);
  const around = all.map((points, k) =>
    all.flatMap((other, j) => (j !== k && contains(other, points[0]) ? [j] : [])),
  );
  const turned = (points: number[][], way: 1 | -1): number[][] =>
    Math.sign(areaOf(points)) === way ? points : [...points].reverse();
  const patches = new Map<number, Patch>();
  all.forEach((points, k) => {
    if (around[k].length % 2 === 0) patches.set(k, { rim: turned(points, 1), holes: [] });
  });
  all.forEach((points, k) => {
    if (around[k].length % 2 === 0) return;
    const nearest = around[k].find((j) => around[j].length === around[k].length - 1);
    if (nearest !== undefined) patches.get(nearest)?.holes.push(turned(points, -1));
  });
  return [...patches.values()];
}

/** Moves every corner of an outline inward by `by` (a hole outward), along the line that halves its angle. */
function inset(points: readonly number[][], by: number): number[][] {
  const n = points.length;
  return points.map(([x, y], k) => {
    const [px, py] = points[(k + n - 1) % n];
    const [nx, ny] = points[(k + 1) % n];
    const one = Math.hypot(x - px, y - py) || 1;
    const two = Math.hypot(nx - x, ny - y) || 1;
    // Left normals of the sides before and after: inward where the outline runs counter-clockwise.
    const [ax, ay] = [-(y - py) / one, (x - px) / one];
    const [bx, by2] = [-(ny - y) / two, (nx - x) / two];
    const [mx, my] = [ax + bx, ay + by2];
    const length = mx * mx + my * my;
    // At a sharp corner the halving line would run away: it is held to twice the inset.
    const reach = length > 0.25 ? (2 * by) / length : 0;
    return [x + mx * reach, y + my * reach];
  });
}

interface Side {
  from: number[][];
  to: number[][];
  zFrom: number;
  zTo: number;
}

function wall({ from, to, zFrom, zTo }: Side): Shape {
  const n = from.length;
  const positions: number[] = [];
  const normals: number[] = [];
  const uvs: number[] = [];
  const triangles: number[] = [];
  const faceOf: number[] = [];
  for (let k = 0; k < n; k++) {
    const next = (k + 1) % n;
    const first = positions.length / 3;
    positions.push(...from[k], zFrom, ...from[next], zFrom, ...to[next], zTo, ...to[k], zTo);
    const normal = crossOf(positions, first, first + 1, first + 2);
    const long = Math.hypot(...normal) || 1;
    for (let c = 0; c < 4; c++) normals.push(...normal.map((v) => v / long));
    uvs.push(k / n, 0, (k + 1) / n, 0, (k + 1) / n, 1, k / n, 1);
    triangles.push(first, first + 1, first + 2, first, first + 2, first + 3);
    faceOf.push(k, k);
  }
  return {
    ...emptyShape,
    count: positions.length / 3,
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    uvs: Float32Array.from(uvs),
    triangles: Uint32Array.from(triangles),
    faceOf: Uint32Array.from(faceOf),
  };
}

function lid(patch: Patch, z: number, front: boolean, frame: readonly number[]): Shape {
  const all = [patch.rim, ...patch.holes];
  const points = all.flat();
  const starts: number[] = [];
  let at = patch.rim.length;
  for (const hole of patch.holes) {
    starts.push(at);
    at += hole.length;
  }
  const found = earcut(points.flat(), starts);
  const triangles = Uint32Array.from(found);
  const p3 = points.flatMap(([x, y]) => [x, y, z]);
  for (let t = 0; t < triangles.length; t += 3) {
    const up = crossOf(p3, triangles[t], triangles[t + 1], triangles[t + 2])[2] > 0;
    if (up !== front) [triangles[t + 1], triangles[t + 2]] = [triangles[t + 2], triangles[t + 1]];
  }
  const rows: number[] = [];
  let first = 0;
  for (const run of all) {
    run.forEach((_, k) => rows.push(first + k, first + ((k + 1) % run.length)));
    first += run.length;
  }
  const [x0, y0, w, h] = frame;
  return {
    ...emptyShape,
    count: points.length,
    positions: Float32Array.from(p3),
    normals: Float32Array.from(points.flatMap(() => [0, 0, front ? 1 : -1])),
    uvs: Float32Array.from(points.flatMap(([x, y]) => [(x - x0) / w, (y - y0) / h])),
    triangles,
    faceOf: new Uint32Array(triangles.length / 3),
    rows: Uint32Array.from(rows),
  };
}

/**
 * Outlines as a solid: letters, or any closed runs in the plane of x and y. Its front lies at z = depth / 2. `bevel` is how
 * far its rims are cut off, as a share of half the depth at most. Depth 0 gives the front alone. Holes are kept. A picture
 * lies across the whole line of letters.
 */
export function solidLetters(outlines: readonly Outline[], depth: number, bevel: number): Shape {
  const patches = patchesOf(outlines);
  if (patches.length === 0) return emptyShape;
  const xs = patches.flatMap(({ rim }) => rim.map(([x]) => x));
  const ys = patches.flatMap(({ rim }) => rim.map(([, y]) => y));
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const frame = [x0, y0, Math.max(...xs) - x0 || 1, Math.max(...ys) - y0 || 1];
  const half = depth / 2;
  const cut = Math.min(Math.max(0, bevel), half);
  const parts: Shape[] = [];
  for (const patch of patches) {
    const inner: Patch =
      cut > 0 ? { rim: inset(patch.rim, cut), holes: patch.holes.map((hole) => inset(hole, cut)) } : patch;
    parts.push(lid(inner, half, true, frame));
    if (depth <= 0) continue;
    parts.push(lid(inner, -half, false, frame));
    [patch.rim, ...patch.holes].forEach((run, k) => {
      const shrunk = [inner.rim, ...inner.holes][k];
      if (cut > 0) parts.push(wall({ from: run, to: shrunk, zFrom: half - cut, zTo: half }));
      if (half > cut) parts.push(wall({ from: run, to: run, zFrom: cut - half, zTo: half - cut }));
      if (cut > 0) parts.push(wall({ from: shrunk, to: run, zFrom: -half, zTo: cut - half }));
    });
  }
  return joinShapes(parts);
}
