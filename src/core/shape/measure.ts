import type { Shape } from './shape';

export interface Bounds {
  low: [number, number, number];
  high: [number, number, number];
}

/** The box around all points that are numbers; null if there are none. */
export function boundsOf(shape: Pick<Shape, 'positions'>): Bounds | null {
  const low: Bounds['low'] = [Infinity, Infinity, Infinity];
  const high: Bounds['high'] = [-Infinity, -Infinity, -Infinity];
  const { positions } = shape;
  for (let i = 0; i < positions.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const v = positions[i + k];
      if (v < low[k]) low[k] = v;
      if (v > high[k]) high[k] = v;
    }
  }
  return low.every(Number.isFinite) && high.every(Number.isFinite) ? { low, high } : null;
}

/** The middle of the box around a shape; 0, 0, 0 if it has no points. */
export function middleOf(shape: Pick<Shape, 'positions'>): [number, number, number] {
  const bounds = boundsOf(shape);
  if (!bounds) return [0, 0, 0];
  const { low, high } = bounds;
  return [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2];
}

/** Runs of points that lines lead through: each from end to end, or round. */
export interface PointRun {
  points: number[];
  closed: boolean;
}

/** Follows pieces of line to the runs they make, in the order in which they are first met. */
export function runsOf(pairs: Uint32Array): PointRun[] {
  const runs: PointRun[] = [];
  let open: number[] = [];
  const end = (closed: boolean): void => {
    if (open.length > 1) runs.push({ points: open, closed });
    open = [];
  };
  for (let k = 0; k < pairs.length; k += 2) {
    const [a, b] = [pairs[k], pairs[k + 1]];
    if (open.length > 2 && a === open[open.length - 1] && b === open[0]) {
      end(true);
      continue;
    }
    if (open.length === 0 || a !== open[open.length - 1]) {
      end(false);
      open.push(a);
    }
    open.push(b);
  }
  end(false);
  return runs;
}

/** The runs a shape is drawn with as curves: its rows; its points in their order if it has no lines. */
export function curvesOf(shape: Shape): PointRun[] {
  const runs = runsOf(shape.rows.length ? shape.rows : shape.columns);
  if (runs.length || shape.count < 2) return runs;
  return [{ points: Array.from({ length: shape.count }, (_, i) => i), closed: false }];
}

/** One number for each place: points that stand at the same place are one corner. */
function cornersOf(shape: Shape): { of: Uint32Array; first: number[] } {
  const bounds = boundsOf(shape);
  const size = bounds ? Math.max(...bounds.high.map((v, k) => v - bounds.low[k]), 1e-9) : 1;
  const step = size * 1e-5;
  const of = new Uint32Array(shape.count);
  const known = new Map<string, number>();
  const first: number[] = [];
  for (let i = 0; i < shape.count; i++) {
    const key = `${Math.round(shape.positions[3 * i] / step)} ${Math.round(shape.positions[3 * i + 1] / step)} ${Math.round(shape.positions[3 * i + 2] / step)}`;
    let corner = known.get(key);
    if (corner === undefined) {
      corner = first.length;
      known.set(key, corner);
      first.push(i);
    }
    of[i] = corner;
  }
  return { of, first };
}

/** An edge between two faces, or at the rim of one. */
export interface Edge {
  /** Its ends, as points of the shape. */
  a: number;
  b: number;
  /** The faces at its sides. */
  faces: number[];
}

/**
 * The edges of the faces, each once, in the order of the faces; what lies within a face is none. Points at the same place
 * count as one. Without faces: the pieces of line.
 */
export function edgesOf(shape: Shape): Edge[] {
  if (shape.triangles.length === 0) {
    const edges: Edge[] = [];
    for (const pairs of [shape.rows, shape.columns])
      for (let k = 0; k < pairs.length; k += 2) edges.push({ a: pairs[k], b: pairs[k + 1], faces: [] });
    return edges;
  }
  const { of, first } = cornersOf(shape);
  const within = new Map<number, Edge & { times: Map<number, number> }>();
  const corners = first.length;
  for (let t = 0; t < shape.triangles.length; t += 3) {
    const face = shape.faceOf[t / 3];
    for (let k = 0; k < 3; k++) {
      const a = shape.triangles[t + k];
      const b = shape.triangles[t + ((k + 1) % 3)];
      const [low, high] = of[a] < of[b] ? [of[a], of[b]] : [of[b], of[a]];
      if (low === high) continue;
      const key = low * corners + high;
      let edge = within.get(key);
      if (!edge) within.set(key, (edge = { a, b, faces: [], times: new Map() }));
      edge.times.set(face, (edge.times.get(face) ?? 0) + 1);
    }
  }
  const edges: Edge[] = [];
  for (const { a, b, times } of within.values()) {
    // What two triangles of the same face share is a diagonal.
    const faces = [...times].filter(([, n]) => n === 1).map(([face]) => face);
    if (faces.length) edges.push({ a, b, faces });
  }
  return edges;
}

/** The faces of a shape: their triangles, their middle (of their points) and which way they look. */
export interface Face {
  triangles: number[];
  /** Points, each once, in the order they are met. */
  points: number[];
  middle: [number, number, number];
  normal: [number, number, number];
}

export function facesOf(shape: Shape): Face[] {
  const faces: Face[] = [];
  for (let t = 0; t < shape.faceOf.length; t++) {
    const face = (faces[shape.faceOf[t]] ??= {
      triangles: [],
      points: [],
      middle: [0, 0, 0],
      normal: [0, 0, 0],
    });
    face.triangles.push(t);
  }
  const { positions: p, triangles } = shape;
  const listed = faces.filter(Boolean);
  for (const face of listed) {
    const points = new Set<number>();
    for (const t of face.triangles) {
      const [a, b, c] = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]];
      for (const i of [a, b, c]) points.add(i);
      const n = crossOf(p, a, b, c);
      for (let k = 0; k < 3; k++) face.normal[k] += n[k];
    }
    face.points = [...points];
    for (const i of face.points)
      for (let k = 0; k < 3; k++) face.middle[k] += p[3 * i + k] / face.points.length;
    const length = Math.hypot(...face.normal);
    face.normal = length > 0 ? (face.normal.map((v) => v / length) as Face['normal']) : [0, 0, 1];
  }
  return listed;
}

/** Cross product of the sides of a triangle from its first corner: along its normal, twice its area long. */
export function crossOf(p: ArrayLike<number>, a: number, b: number, c: number): [number, number, number] {
  const [ux, uy, uz] = [p[3 * b] - p[3 * a], p[3 * b + 1] - p[3 * a + 1], p[3 * b + 2] - p[3 * a + 2]];
  const [vx, vy, vz] = [p[3 * c] - p[3 * a], p[3 * c + 1] - p[3 * a + 1], p[3 * c + 2] - p[3 * a + 2]];
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

/** Normals worked out from the faces, mixed at each point by area. Points without faces keep `kept`, or look to +z. */
export function normalsFrom(
  positions: Float32Array,
  triangles: Uint32Array,
  kept?: Float32Array,
): Float32Array {
  const normals = new Float32Array(positions.length);
  for (let t = 0; t < triangles.length; t += 3) {
    const n = crossOf(positions, triangles[t], triangles[t + 1], triangles[t + 2]);
    for (let c = 0; c < 3; c++) for (let k = 0; k < 3; k++) normals[3 * triangles[t + c] + k] += n[k];
  }
  for (let i = 0; i < normals.length; i += 3) {
    const length = Math.hypot(normals[i], normals[i + 1], normals[i + 2]);
    if (length > 0) for (let k = 0; k < 3; k++) normals[i + k] /= length;
    else if (kept) for (let k = 0; k < 3; k++) normals[i + k] = kept[i + k];
    else normals[i + 2] = 1;
  }
  return normals;
}
