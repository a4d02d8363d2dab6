import { curvesOf, type PointRun } from './measure';
import { gridShape, joinShapes, pointShape, stripLines, type Shape } from './shape';

export type Vec = readonly [number, number, number];

/** A straight row of points from one place to another. */
export function segmentShape(from: Vec, to: Vec, points: number): Shape {
  const positions = new Float32Array(3 * points);
  for (let i = 0; i < points; i++) {
    const t = points > 1 ? i / (points - 1) : 0.5;
    for (let k = 0; k < 3; k++) positions[3 * i + k] = from[k] + (to[k] - from[k]) * t;
  }
  return pointShape(positions, Uint32Array.from(stripLines(points, false)));
}

/**
 * The arc of the circle through three places, from the first by the second to the third; `whole` goes on round to the
 * first. Three places in a line have no circle: the straight way is gone then.
 */
export function arcThrough(a: Vec, b: Vec, c: Vec, points: number, whole: boolean): Shape {
  const sub = (p: Vec, q: Vec): number[] => p.map((v, k) => v - q[k]);
  const dot = (p: readonly number[], q: readonly number[]): number => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
  const cross = (p: readonly number[], q: readonly number[]): number[] => [
    p[1] * q[2] - p[2] * q[1],
    p[2] * q[0] - p[0] * q[2],
    p[0] * q[1] - p[1] * q[0],
  ];
  const ab = sub(b, a);
  const ac = sub(c, a);
  const n = cross(ab, ac);
  const nn = dot(n, n);
  if (nn < 1e-14) {
    const positions = new Float32Array(3 * points);
    const half = (points - 1) / 2;
    for (let i = 0; i < points; i++) {
      const [p, q, t] = i <= half ? [a, b, half > 0 ? i / half : 0] : [b, c, (i - half) / half];
      for (let k = 0; k < 3; k++) positions[3 * i + k] = p[k] + (q[k] - p[k]) * t;
    }
    return pointShape(positions, Uint32Array.from(stripLines(points, false)));
  }
  // Centre of the circle around a triangle, from its corner a.
  const toCentre = cross(n, ab).map((v, k) => (v * dot(ac, ac) + cross(ac, n)[k] * dot(ab, ab)) / (2 * nn));
  const centre = a.map((v, k) => v + toCentre[k]);
  const radius = Math.hypot(...toCentre);
  const x = toCentre.map((v) => -v / radius);
  const unit = n.map((v) => v / Math.sqrt(nn));
  const y = cross(unit, x);
  const angleOf = (p: Vec): number => {
    const d = p.map((v, k) => v - centre[k]);
    return (Math.atan2(dot(d, y), dot(d, x)) + 2 * Math.PI) % (2 * Math.PI);
  };
  const sweep = whole ? 2 * Math.PI : angleOf(c);
  const steps = whole ? points : Math.max(1, points - 1);
  const positions = new Float32Array(3 * points);
  const shape = pointShape(positions, Uint32Array.from(stripLines(points, whole)));
  for (let i = 0; i < points; i++) {
    const angle = (sweep * i) / steps;
    for (let k = 0; k < 3; k++) {
      const out = x[k] * Math.cos(angle) + y[k] * Math.sin(angle);
      positions[3 * i + k] = centre[k] + radius * out;
      shape.normals[3 * i + k] = out;
    }
  }
  return shape;
}

/**
 * A spiral in the plane of x and y that may climb along z. even: the points stand at even angles; golden: each is a golden
 * angle on from the last and as far out as keeps the area for each the same (Vogel, "A better way to construct the
 * sunflower head", 1979).
 */
export function spiralShape(
  form: 'even' | 'golden',
  inner: number,
  outer: number,
  turns: number,
  height: number,
  points: number,
): Shape {
  const positions = new Float32Array(3 * points);
  const lines = form === 'even' ? Uint32Array.from(stripLines(points, false)) : undefined;
  const shape = pointShape(positions, lines);
  const golden = Math.PI * (3 - Math.sqrt(5));
  for (let i = 0; i < points; i++) {
    const t = points > 1 ? i / (points - 1) : 0;
    const angle = form === 'even' ? 2 * Math.PI * turns * t : golden * i;
    const area = (i + 0.5) / points;
    const r =
      form === 'even'
        ? inner + (outer - inner) * t
        : Math.sqrt(inner ** 2 + (outer ** 2 - inner ** 2) * area);
    positions.set([r * Math.cos(angle), r * Math.sin(angle), (t - 0.5) * height], 3 * i);
    if (height !== 0) shape.normals.set([Math.cos(angle), Math.sin(angle), 0], 3 * i);
  }
  return shape;
}

/** Points of a curve, x, y, z in turn. */
export interface Curve {
  points: Float32Array;
  closed: boolean;
}

export function curvePoints(shape: Shape, run: PointRun): Curve {
  const points = new Float32Array(3 * run.points.length);
  run.points.forEach((index, i) => points.set(shape.positions.subarray(3 * index, 3 * index + 3), 3 * i));
  return { points, closed: run.closed };
}

/** Value of the Catmull-Rom curve between b and d, t from 0 to 1; a and e are their neighbours. */
const throughPoints = (a: number, b: number, d: number, e: number, t: number): number =>
  0.5 * (2 * b + (d - a) * t + (2 * a - 5 * b + 4 * d - e) * t * t + (3 * b - a - 3 * d + e) * t * t * t);

/** `between` points put between each two, on a rounded curve through all of them. */
export function smoothCurve(curve: Curve, between: number): Curve {
  const n = curve.points.length / 3;
  if (between <= 0 || n < 3) return curve;
  const pieces = curve.closed ? n : n - 1;
  const steps = between + 1;
  const count = curve.closed ? pieces * steps : pieces * steps + 1;
  const points = new Float32Array(3 * count);
  const at = (k: number, i: number): number => {
    const j = curve.closed ? ((i % n) + n) % n : Math.min(n - 1, Math.max(0, i));
    return curve.points[3 * j + k];
  };
  for (let i = 0; i < count; i++) {
    const base = Math.floor(i / steps);
    const t = (i % steps) / steps;
    for (let k = 0; k < 3; k++)
      points[3 * i + k] = throughPoints(at(k, base - 1), at(k, base), at(k, base + 1), at(k, base + 2), t);
  }
  return { points, closed: curve.closed };
}

/** How long a curve is, in scene units. */
export function lengthOf({ points: p, closed }: Curve): number {
  const n = p.length / 3;
  let sum = 0;
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const j = (i + 1) % n;
    sum += Math.hypot(p[3 * j] - p[3 * i], p[3 * j + 1] - p[3 * i + 1], p[3 * j + 2] - p[3 * i + 2]);
  }
  return sum;
}

/** `count` points at even distances along a curve. An open one keeps its ends; a closed one its first point. */
export function evenCurve(curve: Curve, count: number): Curve {
  const n = curve.points.length / 3;
  if (n === 0) return curve;
  const pieces = curve.closed && n > 2 ? n : n - 1;
  const far = new Float64Array(pieces + 1);
  const p = curve.points;
  for (let i = 0; i < pieces; i++) {
    const j = (i + 1) % n;
    far[i + 1] =
      far[i] + Math.hypot(p[3 * j] - p[3 * i], p[3 * j + 1] - p[3 * i + 1], p[3 * j + 2] - p[3 * i + 2]);
  }
  const whole = far[pieces];
  const points = new Float32Array(3 * count);
  const steps = curve.closed && n > 2 ? count : Math.max(1, count - 1);
  let piece = 0;
  for (let i = 0; i < count; i++) {
    const at = count === 1 && !curve.closed ? 0 : (whole * i) / steps;
    while (piece < pieces - 1 && far[piece + 1] < at) piece++;
    const long = pieces > 0 ? far[piece + 1] - far[piece] : 0;
    const t = long > 0 ? Math.min(1, (at - far[piece]) / long) : 0;
    const j = pieces > 0 ? (piece + 1) % n : 0;
    for (let k = 0; k < 3; k++) points[3 * i + k] = p[3 * piece + k] + (p[3 * j + k] - p[3 * piece + k]) * t;
  }
  return { points, closed: curve.closed };
}

/** Curves as a shape of lines, in order. Normals look away from the middle of each curve. */
export function curvesShape(curves: readonly Curve[]): Shape {
  return joinShapes(
    curves.map(({ points, closed }) => {
      const count = points.length / 3;
      return pointShape(points, Uint32Array.from(stripLines(count, closed)));
    }),
  );
}

/** All curves of a shape, each with its points. */
export const curvesIn = (shape: Shape): Curve[] => curvesOf(shape).map((run) => curvePoints(shape, run));

/**
 * A skin over curves: each becomes a row of `along` points at even distances, and `across` rows lie between the first and
 * the last, on rounded or straight ways through corresponding points. `round` leads from the last curve back to the first.
 */
export function loftShape(
  curves: readonly Curve[],
  along: number,
  across: number,
  smooth: boolean,
  round: boolean,
): Shape | null {
  const even = curves.filter(({ points }) => points.length >= 3).map((curve) => evenCurve(curve, along));
  if (even.length < 2) return null;
  const closed = even.every((curve) => curve.closed);
  const columns = closed ? along + 1 : along;
  const pieces = round ? even.length : even.length - 1;
  const rows = round ? across + 1 : across;
  const count = columns * rows;
  const positions = new Float32Array(3 * count);
  const at = (row: number, i: number, k: number): number => {
    const n = even.length;
    const r = round ? ((row % n) + n) % n : Math.min(n - 1, Math.max(0, row));
    return even[r].points[3 * (i % along) + k];
  };
  for (let r = 0; r < rows; r++) {
    const place = rows > 1 ? (pieces * r) / (rows - 1) : 0;
    const base = Math.min(pieces - 1, Math.floor(place));
    const t = place - base;
    for (let c = 0; c < columns; c++) {
      for (let k = 0; k < 3; k++) {
        const [b, d] = [at(base, c, k), at(base + 1, c, k)];
        positions[3 * (r * columns + c) + k] = smooth
          ? throughPoints(at(base - 1, c, k), b, d, at(base + 2, c, k), t)
          : b + (d - b) * t;
      }
    }
  }
  return gridFrom(positions, columns, rows);
}

/** A sheet whose points are given, row by row; its normals follow from its rows and columns. */
function gridFrom(positions: Float32Array, columns: number, rows: number): Shape {
  const at = (c: number, r: number, k: number): number => positions[3 * (r * columns + c) + k];
  const meets = (first: number, last: number): boolean =>
    [0, 1, 2].every((k) => Math.abs(positions[3 * first + k] - positions[3 * last + k]) < 1e-6);
  const roundColumns = columns > 3 && meets(0, columns - 1);
  const roundRows = rows > 3 && meets(0, (rows - 1) * columns);
  const step = (i: number, n: number, by: number, round: boolean): number =>
    round ? (((i + by) % (n - 1)) + n - 1) % (n - 1) : Math.min(n - 1, Math.max(0, i + by));
  let i = 0;
  return gridShape(columns, rows, (_u, _v, into) => {
    const [c, r] = [i % columns, Math.floor(i / columns)];
    const [left, right] = [step(c, columns, -1, roundColumns), step(c, columns, 1, roundColumns)];
    const [below, above] = [step(r, rows, -1, roundRows), step(r, rows, 1, roundRows)];
    const u = [0, 1, 2].map((k) => at(right, r, k) - at(left, r, k));
    const v = [0, 1, 2].map((k) => at(c, above, k) - at(c, below, k));
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const length = Math.hypot(...n);
    into.n = length > 0 ? n.map((w) => w / length) : [0, 0, 1];
    into.p = [at(c, r, 0), at(c, r, 1), at(c, r, 2)];
    i++;
  });
}
