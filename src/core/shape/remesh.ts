import { curvePoints, curvesShape, smoothCurve, type Curve } from './curves';
import { crossOf, edgesOf, facesOf, runsOf, type Face } from './measure';
import { checkPoints } from './repeat';
import { dressedAs, emptyShape, joinShapes, pickPoints, type Shape } from './shape';

export type StrandsOf = 'rows' | 'columns' | 'both' | 'edges';

/** The lines of a shape alone: its rows, columns, both, or the edges of its faces; `between` points round each piece. */
export function strandsShape(shape: Shape, which: StrandsOf, between: number): Shape {
  if (which === 'edges') {
    const pairs = edgesOf(shape).flatMap(({ a, b }) => [a, b]);
    return dropLoose(shape, Uint32Array.from(pairs));
  }
  const curves: Curve[] = [];
  if (which !== 'columns') for (const run of runsOf(shape.rows)) curves.push(curvePoints(shape, run));
  if (which !== 'rows') for (const run of runsOf(shape.columns)) curves.push(curvePoints(shape, run));
  checkPoints(curves.reduce((sum, { points }) => sum + (points.length / 3) * (1 + between), 0));
  return curvesShape(curves.map((curve) => smoothCurve(curve, between)));
}

/** The points that lines lead to, and no others. */
function dropLoose(shape: Shape, pairs: Uint32Array): Shape {
  const place = new Map<number, number>();
  for (const index of pairs) if (!place.has(index)) place.set(index, place.size);
  return { ...pickPoints(shape, [...place.keys()]), rows: pairs.map((index) => place.get(index)!) };
}

/** Collects flat faces with points of their own. */
class FaceList {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly uvs: number[] = [];
  private readonly triangles: number[] = [];
  private readonly faceOf: number[] = [];
  private readonly rows: number[] = [];
  private faces = 0;

  /** A flat face of three or more corners, counter-clockwise from outside. `uv`: for each corner; else its own picture. */
  add(corners: readonly (readonly number[])[], uv?: readonly (readonly number[])[]): void {
    const first = this.positions.length / 3;
    const flat = corners.flat();
    const n = crossOf(flat, 0, 1, 2);
    const length = Math.hypot(...n) || 1;
    corners.forEach((corner, k) => {
      this.positions.push(corner[0], corner[1], corner[2]);
      this.normals.push(n[0] / length, n[1] / length, n[2] / length);
      const own = [k === 1 || k === 2 ? 1 : 0, k >= 2 ? 1 : 0];
      this.uvs.push(...(uv?.[k] ?? own));
      this.rows.push(first + k, first + ((k + 1) % corners.length));
    });
    for (let k = 1; k + 1 < corners.length; k++) {
      this.triangles.push(first, first + k, first + k + 1);
      this.faceOf.push(this.faces);
    }
    this.faces++;
  }

  shape(): Shape {
    return {
      ...emptyShape,
      count: this.positions.length / 3,
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      uvs: Float32Array.from(this.uvs),
      triangles: Uint32Array.from(this.triangles),
      faceOf: Uint32Array.from(this.faceOf),
      rows: Uint32Array.from(this.rows),
    };
  }
}

export type StrutForm = 'bars' | 'spindles' | 'diamonds';

const sub = (a: ArrayLike<number>, b: ArrayLike<number>): number[] => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: readonly number[], b: readonly number[]): number[] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (v: readonly number[]): number[] => {
  const length = Math.hypot(...v) || 1;
  return v.map((k) => k / length);
};
const towards = (a: ArrayLike<number>, b: ArrayLike<number>, t: number): number[] => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/**
 * The edges of a shape as thin solids. bars: prisms of `sides` sides, `width` across, closed. spindles: two pyramids that
 * meet in the middle of the edge. diamonds: flat rhombs between the ends of an edge and the middles of the faces beside
 * it, which tile the surface in another way. `gap` shortens each, 0 to 1.
 */
export function strutsShape(shape: Shape, form: StrutForm, width: number, sides: number, gap: number): Shape {
  const edges = edgesOf(shape);
  checkPoints(edges.length * (form === 'bars' ? 6 * sides : 24));
  const faces = form === 'diamonds' ? facesOf(shape) : [];
  const list = new FaceList();
  const place = (i: number): number[] => [...shape.positions.subarray(3 * i, 3 * i + 3)];
  for (const edge of edges) {
    const middle = towards(place(edge.a), place(edge.b), 0.5);
    const [a, b] = [towards(place(edge.a), middle, gap), towards(place(edge.b), middle, gap)];
    const way = sub(b, a);
    if (Math.hypot(...way) < 1e-9) continue;
    if (form === 'diamonds') {
      diamond(
        list,
        a,
        b,
        middle,
        edge.faces.map((face) => faces[face]),
        gap,
      );
      continue;
    }
    const along = unit(way);
    const side = unit(cross(Math.abs(along[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0], along));
    const other = cross(along, side);
    const count = form === 'bars' ? sides : 4;
    const ring = (at: readonly number[], k: number): number[] => {
      const turn = (2 * Math.PI * (k + 0.5)) / count;
      return [0, 1, 2].map(
        (axis) => at[axis] + (width / 2) * (side[axis] * Math.cos(turn) + other[axis] * Math.sin(turn)),
      );
    };
    for (let k = 0; k < count; k++) {
      if (form === 'bars') list.add([ring(a, k), ring(a, k + 1), ring(b, k + 1), ring(b, k)]);
      else {
        list.add([a, ring(middle, k + 1), ring(middle, k)]);
        list.add([b, ring(middle, k), ring(middle, k + 1)]);
      }
    }
    if (form === 'bars') {
      const turn = Array.from({ length: count }, (_, k) => k);
      list.add(turn.map((k) => ring(b, k)));
      list.add(turn.reverse().map((k) => ring(a, k)));
    }
  }
  return list.shape();
}

function diamond(
  list: FaceList,
  a: readonly number[],
  b: readonly number[],
  middle: readonly number[],
  faces: readonly (Face | undefined)[],
  gap: number,
): void {
  const [one, two] = faces;
  if (!one) return;
  const left = towards(one.middle, middle, gap);
  const right = two ? towards(two.middle, middle, gap) : [...middle];
  // The first face has the edge from a to b on its left, so that its middle lies to the left of it.
  const corners = [a, right, b, left];
  list.add(two ? corners : [a, b, left]);
}

/** What moves each piece: an entry a face, or one for all. Turns in radians about the pivot. */
export interface PanelMoves {
  push: Float32Array;
  size: Float32Array;
  depth: Float32Array;
  turn: readonly Float32Array[];
}

export type PanelPicture = 'across' | 'each';

const entry = (lane: Float32Array, i: number): number => lane[lane.length > 1 ? i : 0] ?? 0;

/** The middles of the faces of a shape as points that look the way the faces do. */
export function panelPivots(shape: Shape, faces: readonly Face[]): Shape {
  const pivots: Shape = {
    ...emptyShape,
    count: faces.length,
    positions: Float32Array.from(faces.flatMap((face) => face.middle)),
    normals: Float32Array.from(faces.flatMap((face) => face.normal)),
    uvs: Float32Array.from(
      faces.flatMap(({ points }) =>
        [0, 1].map((k) => points.reduce((sum, i) => sum + shape.uvs[2 * i + k], 0) / points.length),
      ),
    ),
  };
  return pivots;
}

/**
 * The faces of a shape as pieces of their own, in the given order: piece k is face `order[k]`, moved by entry k. Each
 * turns about and grows from its own middle, is pushed along its normal, and is `depth` thick, downward from its surface.
 * A picture lies across all as on the shape, or whole on each.
 */
export function panelsShape(
  shape: Shape,
  faces: readonly Face[],
  order: readonly number[],
  moves: PanelMoves,
  picture: PanelPicture,
): Shape {
  return joinShapes(order.map((number, k) => panel(shape, faces[number], moves, k, picture)));
}

function panel(shape: Shape, face: Face, moves: PanelMoves, k: number, picture: PanelPicture): Shape {
  const rim = rimOf(shape, face);
  const normal = face.normal;
  const depth = entry(moves.depth, k);
  const size = entry(moves.size, k);
  const [tx, ty, tz] = moves.turn.map((lane) => entry(lane, k));
  const side = unit(cross(Math.abs(normal[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0], normal));
  const up = cross(normal, side);
  const [cx, sx, cy, sy, cz, sz] = [
    Math.cos(tx),
    Math.sin(tx),
    Math.cos(ty),
    Math.sin(ty),
    Math.cos(tz),
    Math.sin(tz),
  ];
  // In the frame of the face: right, up and out. Turned about x, then y, then z as everywhere.
  const turned = (v: readonly number[]): number[] => {
    const local = [side, up, normal].map((axis) => axis[0] * v[0] + axis[1] * v[1] + axis[2] * v[2]);
    let [x, y, z] = local;
    [y, z] = [y * cx - z * sx, y * sx + z * cx];
    [x, z] = [x * cy + z * sy, -x * sy + z * cy];
    [x, y] = [x * cz - y * sz, x * sz + y * cz];
    return [0, 1, 2].map((axis) => side[axis] * x + up[axis] * y + normal[axis] * z);
  };
  const push = entry(moves.push, k);
  const at = (point: readonly number[], below: number): number[] => {
    const from = sub(point, face.middle).map((v, axis) => (v - normal[axis] * below) * size);
    const moved = turned(from);
    return moved.map((v, axis) => v + face.middle[axis] + normal[axis] * push);
  };
  const list = new FaceList();
  const corners = rim.map((i) => [...shape.positions.subarray(3 * i, 3 * i + 3)]);
  const uvs =
    picture === 'across' ? rim.map((i) => [...shape.uvs.subarray(2 * i, 2 * i + 2)]) : ownUvs(corners, face);
  list.add(
    corners.map((corner) => at(corner, 0)),
    uvs,
  );
  if (depth !== 0) {
    list.add(
      [...corners].reverse().map((corner) => at(corner, depth)),
      [...uvs].reverse(),
    );
    corners.forEach((corner, i) => {
      const next = (i + 1) % corners.length;
      list.add(
        [at(corner, 0), at(corner, depth), at(corners[next], depth), at(corners[next], 0)],
        [uvs[i], uvs[i], uvs[next], uvs[next]],
      );
    });
  }
  const made = list.shape();
  return dressedAs(made, shape, new Uint32Array(made.count).fill(rim[0]));
}

/** The picture lies whole on the face: the box around it in its own plane is 0..1. */
function ownUvs(corners: readonly (readonly number[])[], face: Face): number[][] {
  const side = unit(cross(Math.abs(face.normal[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0], face.normal));
  const up = cross(face.normal, side);
  const flat = corners.map((corner) =>
    [side, up].map((axis) => axis[0] * corner[0] + axis[1] * corner[1] + axis[2] * corner[2]),
  );
  const low = [0, 1].map((k) => Math.min(...flat.map((p) => p[k])));
  const high = [0, 1].map((k) => Math.max(...flat.map((p) => p[k])));
  return flat.map((p) => p.map((v, k) => (high[k] > low[k] ? (v - low[k]) / (high[k] - low[k]) : 0.5)));
}

/** The points around a face, counter-clockwise: the sides of its triangles that only one of them has. */
function rimOf(shape: Shape, face: Face): number[] {
  const next = new Map<number, number>();
  const sides = new Map<string, [number, number]>();
  const same = samePlaces(shape, face.points);
  for (const t of face.triangles) {
    for (let k = 0; k < 3; k++) {
      const a = same.get(shape.triangles[3 * t + k])!;
      const b = same.get(shape.triangles[3 * t + ((k + 1) % 3)])!;
      if (a === b) continue;
      if (!sides.delete(`${b} ${a}`)) sides.set(`${a} ${b}`, [a, b]);
    }
  }
  for (const [a, b] of sides.values()) next.set(a, b);
  const rim: number[] = [];
  const [start] = next.keys();
  for (let at: number | undefined = start; at !== undefined && rim.length < next.size; at = next.get(at)) {
    rim.push(at);
    if (next.get(at) === start) break;
  }
  return rim.length >= 3 ? rim : face.points.slice(0, 3);
}

/** The first of the points at each place, for each point of a face: lids meet in points of one place. */
function samePlaces(shape: Shape, points: readonly number[]): Map<number, number> {
  const first = new Map<string, number>();
  const same = new Map<number, number>();
  for (const i of points) {
    const key = [0, 1, 2].map((k) => shape.positions[3 * i + k].toFixed(6)).join();
    if (!first.has(key)) first.set(key, i);
    same.set(i, first.get(key)!);
  }
  return same;
}

export type ExtrudeAlong = 'normal' | 'x' | 'y' | 'z';

/**
 * Gives a surface thickness: the surface itself, a second one `depth` below it, and walls along its rim. Lines become
 * bands. `middle` puts half of the depth on each side. The band of a line has `depth` along an axis or its normals.
 */
export function extrudeShape(shape: Shape, depth: number, along: ExtrudeAlong, middle: boolean): Shape {
  const way = (i: number): readonly number[] =>
    along === 'normal'
      ? [...shape.normals.subarray(3 * i, 3 * i + 3)]
      : [along === 'x' ? 1 : 0, along === 'y' ? 1 : 0, along === 'z' ? 1 : 0];
  const top = middle ? depth / 2 : depth;
  const moved = (by: number): Float32Array => {
    const positions = new Float32Array(shape.positions.length);
    for (let i = 0; i < shape.count; i++) {
      const w = way(i);
      for (let k = 0; k < 3; k++) positions[3 * i + k] = shape.positions[3 * i + k] + w[k] * by;
    }
    return positions;
  };
  const upper = moved(top);
  const lower = moved(top - depth);
  if (shape.triangles.length === 0) return bands(shape, lower, upper);
  const flipped = shape.triangles.slice();
  for (let t = 0; t < flipped.length; t += 3)
    [flipped[t + 1], flipped[t + 2]] = [flipped[t + 2], flipped[t + 1]];
  const over: Shape = { ...shape, positions: upper };
  const under: Shape = {
    ...shape,
    positions: lower,
    normals: shape.normals.map((v) => -v),
    triangles: flipped,
  };
  const list = new FaceList();
  const at = (positions: Float32Array, i: number): number[] => [...positions.subarray(3 * i, 3 * i + 3)];
  const from: number[] = [];
  for (const { a, b, faces } of edgesOf(shape)) {
    if (faces.length !== 1) continue;
    const corners = [a, a, b, b];
    from.push(...corners);
    const uv = corners.map((i) => [...shape.uvs.subarray(2 * i, 2 * i + 2)]);
    list.add([at(upper, a), at(lower, a), at(lower, b), at(upper, b)], uv);
  }
  return joinShapes([over, under, dressedAs(list.shape(), shape, from)]);
}

function bands(shape: Shape, lower: Float32Array, upper: Float32Array): Shape {
  const list = new FaceList();
  for (const pairs of [shape.rows, shape.columns]) {
    for (let k = 0; k < pairs.length; k += 2) {
      const [a, b] = [pairs[k], pairs[k + 1]];
      const at = (from: Float32Array, i: number): number[] => [...from.subarray(3 * i, 3 * i + 3)];
      const u = [shape.uvs[2 * a], shape.uvs[2 * b]];
      list.add(
        [at(lower, a), at(lower, b), at(upper, b), at(upper, a)],
        [
          [u[0], 0],
          [u[1], 0],
          [u[1], 1],
          [u[0], 1],
        ],
      );
    }
  }
  return list.shape();
}
