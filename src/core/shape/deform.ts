import { octaveNoise } from '../noise';
import { boundsOf, middleOf } from './measure';
import type { Shape } from './shape';

/** Where a place goes; `i` is the point it belongs to. */
type Warp = (x: number, y: number, z: number, i: number, into: Float64Array) => void;

export type Axis = 'x' | 'y' | 'z';
export const axisIndex: Record<Axis, number> = { x: 0, y: 1, z: 2 };

/**
 * Moves every point by a warp. Normals follow: two places a little aside of each point, in its surface, are moved as well,
 * and what they span afterwards is the surface there.
 */
function warpShape(shape: Shape, warp: Warp): Shape {
  const { count } = shape;
  const positions = new Float32Array(3 * count);
  const normals = new Float32Array(3 * count);
  const bounds = boundsOf(shape);
  const size = bounds ? Math.max(...bounds.high.map((v, k) => v - bounds.low[k])) : 1;
  const aside = Math.max(1e-4, size * 1e-3);
  const here = new Float64Array(3);
  const one = new Float64Array(3);
  const two = new Float64Array(3);
  for (let i = 0; i < count; i++) {
    const [x, y, z] = [shape.positions[3 * i], shape.positions[3 * i + 1], shape.positions[3 * i + 2]];
    warp(x, y, z, i, here);
    positions.set(here, 3 * i);
    const [nx, ny, nz] = [shape.normals[3 * i], shape.normals[3 * i + 1], shape.normals[3 * i + 2]];
    // A direction across the normal: from the axis it is least along.
    const flat = Math.abs(nx) < 0.6 ? [0, nz, -ny] : [-nz, 0, nx];
    const long = Math.hypot(flat[0], flat[1], flat[2]) || 1;
    const [ux, uy, uz] = [flat[0] / long, flat[1] / long, flat[2] / long];
    const [vx, vy, vz] = [ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux];
    warp(x + ux * aside, y + uy * aside, z + uz * aside, i, one);
    warp(x + vx * aside, y + vy * aside, z + vz * aside, i, two);
    for (let k = 0; k < 3; k++) {
      one[k] -= here[k];
      two[k] -= here[k];
    }
    const n = [
      one[1] * two[2] - one[2] * two[1],
      one[2] * two[0] - one[0] * two[2],
      one[0] * two[1] - one[1] * two[0],
    ];
    const length = Math.hypot(n[0], n[1], n[2]);
    if (length > 0) for (let k = 0; k < 3; k++) normals[3 * i + k] = n[k] / length;
    else normals.set([nx, ny, nz], 3 * i);
  }
  return { ...shape, positions, normals };
}

/** Turns points about an axis, the more the farther along it they lie: `turnRad` from one end of the shape to the other. */
export function twistShape(shape: Shape, axis: Axis, turnRad: number, centre: readonly number[]): Shape {
  const a = axisIndex[axis];
  const [b, c] = [(a + 1) % 3, (a + 2) % 3];
  const bounds = boundsOf(shape);
  if (!bounds) return shape;
  const long = bounds.high[a] - bounds.low[a];
  const middle = (bounds.low[a] + bounds.high[a]) / 2;
  const rate = long > 0 ? turnRad / long : 0;
  const from = new Float64Array(3);
  return warpShape(shape, (x, y, z, _i, into) => {
    from[0] = x;
    from[1] = y;
    from[2] = z;
    const turn = (from[a] - middle) * rate;
    const [u, v] = [from[b] - centre[b], from[c] - centre[c]];
    into[a] = from[a];
    into[b] = centre[b] + u * Math.cos(turn) - v * Math.sin(turn);
    into[c] = centre[c] + u * Math.sin(turn) + v * Math.cos(turn);
  });
}

/**
 * Bends the shape along one axis toward another into a part of a circle of `bendRad`, about its middle. Lengths along the
 * middle stay as they are.
 */
export function bendShape(shape: Shape, axis: Axis, toward: Axis, bendRad: number): Shape {
  const a = axisIndex[axis];
  const b = axisIndex[toward];
  const bounds = boundsOf(shape);
  if (!bounds || a === b) return shape;
  const long = bounds.high[a] - bounds.low[a];
  if (long <= 0 || Math.abs(bendRad) < 1e-6) return shape;
  const middle = middleOf(shape);
  const radius = long / bendRad;
  const c = 3 - a - b;
  const from = new Float64Array(3);
  return warpShape(shape, (x, y, z, _i, into) => {
    from[0] = x;
    from[1] = y;
    from[2] = z;
    const angle = (from[a] - middle[a]) / radius;
    const out = radius - (from[b] - middle[b]);
    into[a] = middle[a] + out * Math.sin(angle);
    into[b] = middle[b] + radius - out * Math.cos(angle);
    into[c] = from[c];
  });
}

/** Scales the shape across an axis: by 1 at its low end, by `end` at its high end; `bulge` is added in the middle. */
export function taperShape(shape: Shape, axis: Axis, end: readonly [number, number], bulge: number): Shape {
  const a = axisIndex[axis];
  const [b, c] = [(a + 1) % 3, (a + 2) % 3];
  const bounds = boundsOf(shape);
  if (!bounds) return shape;
  const long = bounds.high[a] - bounds.low[a];
  const middle = middleOf(shape);
  const from = new Float64Array(3);
  return warpShape(shape, (x, y, z, _i, into) => {
    from[0] = x;
    from[1] = y;
    from[2] = z;
    const t = long > 0 ? (from[a] - bounds.low[a]) / long : 0;
    const scale = end[0] + (end[1] - end[0]) * t + bulge * 4 * t * (1 - t);
    into[a] = from[a];
    into[b] = middle[b] + (from[b] - middle[b]) * scale;
    into[c] = middle[c] + (from[c] - middle[c]) * scale;
  });
}

export interface PushBy {
  strength: number;
  octaves: number;
  /** Scene units of one swell. */
  period: number;
  along: 'normal' | 'all' | Axis;
  roughness: number;
  /** Where along its evolution the noise is. */
  at: number;
  seed: number;
}

/** Moves points by fractal noise of their places: along their normals, along an axis, or each axis by a noise of its own. */
export function pushShape(shape: Shape, by: PushBy): Shape {
  const scale = 1 / Math.max(1e-6, by.period);
  const shift = by.seed * 37.19;
  const noise = (x: number, y: number, z: number, lane: number): number =>
    by.strength *
    octaveNoise(
      x * scale + shift + lane * 71.3,
      y * scale + by.at * 0.31 + lane * 13.7,
      z * scale + by.at,
      by.octaves,
      by.roughness,
    );
  const { normals } = shape;
  return warpShape(shape, (x, y, z, i, into) => {
    into[0] = x;
    into[1] = y;
    into[2] = z;
    if (by.along === 'all') for (let k = 0; k < 3; k++) into[k] += noise(x, y, z, k);
    else {
      const d = noise(x, y, z, 0);
      if (by.along === 'normal') for (let k = 0; k < 3; k++) into[k] += normals[3 * i + k] * d;
      else into[axisIndex[by.along]] += d;
    }
  });
}

/** 1 inside `radius` - `soft`, 0 outside of `radius`, smooth between. */
function softBall(distance: number, radius: number, soft: number): number {
  const t = Math.min(1, Math.max(0, (radius - distance) / Math.max(1e-9, soft)));
  return t * t * (3 - 2 * t);
}

/** Finds the nearest of many points, which are sorted into cells once. */
class Nearest {
  private readonly cells = new Map<string, number[]>();
  private readonly size: number;

  constructor(private readonly points: Float32Array) {
    const bounds = boundsOf({ positions: points });
    const longest = bounds ? Math.max(...bounds.high.map((v, k) => v - bounds.low[k])) : 1;
    this.size = Math.max(1e-6, longest / Math.max(1, Math.cbrt(points.length / 3)));
    for (let i = 0; i < points.length / 3; i++) {
      const key = this.key(points[3 * i], points[3 * i + 1], points[3 * i + 2], 0, 0, 0);
      const cell = this.cells.get(key);
      if (cell) cell.push(i);
      else this.cells.set(key, [i]);
    }
  }

  private key(x: number, y: number, z: number, a: number, b: number, c: number): string {
    const { size } = this;
    return `${Math.floor(x / size) + a} ${Math.floor(y / size) + b} ${Math.floor(z / size) + c}`;
  }

  /** Index of a point that is nearest among the cells around; far away, of all. */
  of(x: number, y: number, z: number): number {
    let best = -1;
    let least = Infinity;
    const look = (i: number): void => {
      const { points: p } = this;
      const d = (p[3 * i] - x) ** 2 + (p[3 * i + 1] - y) ** 2 + (p[3 * i + 2] - z) ** 2;
      if (d < least) [best, least] = [i, d];
    };
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (let c = -1; c <= 1; c++) this.cells.get(this.key(x, y, z, a, b, c))?.forEach(look);
    // What is nearer than a cell's side cannot lie outside of the cells around.
    if (best < 0 || least > this.size ** 2) for (let i = 0; i < this.points.length / 3; i++) look(i);
    return best;
  }
}

/**
 * Draws points toward a place, or each toward the nearest point of another shape; those within `radius` only, `soft` of it
 * fading. Strength 1 brings them there, below 0 drives them away.
 */
export function gatherShape(
  shape: Shape,
  place: readonly number[],
  to: Shape | null,
  strength: number,
  radius: number,
  soft: number,
): Shape {
  const nearest = to && to.count > 0 ? new Nearest(to.positions) : null;
  return warpShape(shape, (x, y, z, _i, into) => {
    let goal: ArrayLike<number> = place;
    if (nearest) {
      const found = nearest.of(x, y, z);
      goal = to!.positions.subarray(3 * found, 3 * found + 3);
    }
    const [dx, dy, dz] = [goal[0] - x, goal[1] - y, goal[2] - z];
    const share = strength * softBall(Math.hypot(dx, dy, dz), radius, soft * radius);
    into[0] = x + dx * share;
    into[1] = y + dy * share;
    into[2] = z + dz * share;
  });
}
