import { FaceList } from './face-list';
import { sub, cross, unit } from './vec';
import type { Face } from './measure';
import { dressedAs, emptyShape, joinShapes, type Shape } from './shape';

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
