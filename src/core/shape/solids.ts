import { crossOf } from './measure';
import { emptyShape, gridShape, joinShapes, type Shape } from './shape';

/** Torus around y: `radius` from its middle to the middle of its tube. */
export function torusShape(radius: number, tube: number, around: number, across: number): Shape {
  return gridShape(around + 1, across + 1, (u, v, into) => {
    const a = 2 * Math.PI * u;
    const b = 2 * Math.PI * v;
    const out = Math.cos(b);
    into.n = [out * Math.sin(a), Math.sin(b), out * Math.cos(a)];
    const r = radius + tube * out;
    into.p = [r * Math.sin(a), tube * Math.sin(b), r * Math.cos(a)];
  });
}

export const solidNames = {
  tetrahedron: '4 faces: tetrahedron',
  cube: '6 faces: cube',
  octahedron: '8 faces: octahedron',
  dodecahedron: '12 faces: dodecahedron',
  icosahedron: '20 faces: icosahedron',
  cuboctahedron: '14 faces: cuboctahedron',
  rhombic: '12 rhombs: rhombic dodecahedron',
  truncatedOctahedron: '14 faces: truncated octahedron',
  icosidodecahedron: '32 faces: icosidodecahedron',
  truncatedIcosahedron: '32 faces: truncated icosahedron',
} as const;

export type Solid = keyof typeof solidNames;

const phi = (1 + Math.sqrt(5)) / 2;
const cyclic = (rows: readonly (readonly number[])[]): number[][] =>
  rows.flatMap(([x, y, z]) => [
    [x, y, z],
    [z, x, y],
    [y, z, x],
  ]);
/** All choices of signs, each place once. */
function signed(rows: readonly (readonly number[])[]): number[][] {
  const found = new Map<string, number[]>();
  for (const row of rows) {
    for (let bits = 0; bits < 8; bits++) {
      // Adding 0 makes -0 the same place as 0.
      const place = row.map((v, k) => (bits & (1 << k) ? -v : v) + 0);
      found.set(place.map((v) => v.toFixed(6)).join(), place);
    }
  }
  return [...found.values()];
}

/** Corners of the solids (Coxeter, "Regular Polytopes"), at any size. */
const corners: Record<Solid, () => number[][]> = {
  tetrahedron: () => [
    [1, 1, 1],
    [-1, -1, 1],
    [-1, 1, -1],
    [1, -1, -1],
  ],
  cube: () => signed([[1, 1, 1]]),
  octahedron: () => signed(cyclic([[1, 0, 0]])),
  dodecahedron: () => signed([[1, 1, 1], ...cyclic([[0, 1 / phi, phi]])]),
  icosahedron: () => signed(cyclic([[0, 1, phi]])),
  cuboctahedron: () => signed(cyclic([[0, 1, 1]])),
  rhombic: () => signed([[1, 1, 1], ...cyclic([[2, 0, 0]])]),
  truncatedOctahedron: () => signed([...cyclic([[0, 1, 2]]), ...cyclic([[0, 2, 1]])]),
  icosidodecahedron: () => signed([...cyclic([[0, 0, phi]]), ...cyclic([[0.5, phi / 2, (phi * phi) / 2]])]),
  truncatedIcosahedron: () =>
    signed([
      ...cyclic([[0, 1, 3 * phi]]),
      ...cyclic([[1, 2 + phi, 2 * phi]]),
      ...cyclic([[phi, 2, 2 * phi + 1]]),
    ]),
};

/** The faces of the hull of corners that all lie on it: corner numbers, counter-clockwise from outside. */
function hullFaces(places: readonly (readonly number[])[]): number[][] {
  const flat = places.flat();
  const faces = new Map<string, number[]>();
  const n = places.length;
  for (let a = 0; a < n; a++) {
    for (let b = a + 1; b < n; b++) {
      for (let c = b + 1; c < n; c++) {
        let normal = crossOf(flat, a, b, c);
        const length = Math.hypot(...normal);
        if (length < 1e-6) continue;
        normal = normal.map((v) => v / length) as typeof normal;
        const side = (p: readonly number[]): number => normal[0] * p[0] + normal[1] * p[1] + normal[2] * p[2];
        let at = side(places[a]);
        if (at < 0) [normal, at] = [normal.map((v) => -v) as typeof normal, -at];
        if (places.some((p) => side(p) > at + 1e-5)) continue;
        const members = places.flatMap((p, i) => (Math.abs(side(p) - at) < 1e-5 ? [i] : []));
        if (faces.has(members.join())) continue;
        faces.set(members.join(), around(places, members, normal));
      }
    }
  }
  return [...faces.values()];
}

function around(
  places: readonly (readonly number[])[],
  members: readonly number[],
  [nx, ny, nz]: readonly number[],
): number[] {
  const middle = [0, 1, 2].map((k) => members.reduce((sum, i) => sum + places[i][k], 0) / members.length);
  const from = places[members[0]].map((v, k) => v - middle[k]);
  const turn = (i: number): number => {
    const to = places[i].map((v, k) => v - middle[k]);
    const cross = [
      from[1] * to[2] - from[2] * to[1],
      from[2] * to[0] - from[0] * to[2],
      from[0] * to[1] - from[1] * to[0],
    ];
    return Math.atan2(
      cross[0] * nx + cross[1] * ny + cross[2] * nz,
      from[0] * to[0] + from[1] * to[1] + from[2] * to[2],
    );
  };
  return [...members].sort((a, b) => turn(a) - turn(b));
}

const known = new Map<Solid, { places: number[][]; faces: number[][] }>();

function solid(name: Solid): { places: number[][]; faces: number[][] } {
  let found = known.get(name);
  if (!found) {
    const raw = corners[name]();
    const most = Math.max(...raw.map((p) => Math.hypot(...p)));
    const places = raw.map((p) => p.map((v) => v / most));
    known.set(name, (found = { places, faces: hullFaces(places) }));
  }
  return found;
}

/**
 * A solid whose farthest corners are `radius` from its middle. Every face has points of its own; each is cut into a fan of
 * triangles from its middle and each of those into `divisions` x `divisions`. `round` moves all points toward the ball,
 * 0 to 1. Rows are its edges, columns what divides the faces.
 */
export function solidShape(name: Solid, radius: number, divisions: number, round: number): Shape {
  const { places, faces } = solid(name);
  const seen = new Set<string>();
  return joinShapes(
    faces.map((face) => {
      const parts = divisions === 1 && round === 0 ? [wholeFace(places, face)] : fan(places, face, divisions);
      const made = finish(joinShapes(parts), radius, round);
      const rows: number[] = [];
      const edges = face.map((corner, k): [number, number] => [corner, face[(k + 1) % face.length]]);
      edges.forEach(([a, b], k) => {
        const key = a < b ? `${a} ${b}` : `${b} ${a}`;
        if (seen.has(key)) return;
        seen.add(key);
        if (parts.length === 1 && face.length !== 1 && divisions === 1 && round === 0) {
          rows.push(k, (k + 1) % face.length);
          return;
        }
        const size = parts[0].count;
        for (let d = 0; d < divisions; d++)
          rows.push(k * size + rim(divisions, d), k * size + rim(divisions, d + 1));
      });
      return { ...made, rows: Uint32Array.from(rows), faceOf: new Uint32Array(made.triangles.length / 3) };
    }),
  );
}

/** Index of the `d`-th point along the outer edge of a divided triangle: its last row. */
const rim = (divisions: number, d: number): number => (divisions * (divisions + 1)) / 2 + d;

function wholeFace(places: readonly number[][], face: readonly number[]): Shape {
  const count = face.length;
  const triangles: number[] = [];
  for (let k = 1; k + 1 < count; k++) triangles.push(0, k, k + 1);
  const uvs = new Float32Array(2 * count);
  for (let k = 0; k < count; k++) {
    const a = (2 * Math.PI * k) / count;
    uvs.set([0.5 + 0.5 * Math.sin(a), 0.5 + 0.5 * Math.cos(a)], 2 * k);
  }
  return {
    ...emptyShape,
    count,
    positions: Float32Array.from(face.flatMap((i) => places[i])),
    normals: new Float32Array(3 * count),
    uvs,
    triangles: Uint32Array.from(triangles),
    faceOf: new Uint32Array(triangles.length / 3),
  };
}

/** The triangles from the middle of a face to its edges, each divided. */
function fan(places: readonly number[][], face: readonly number[], divisions: number): Shape[] {
  const middle = [0, 1, 2].map((k) => face.reduce((sum, i) => sum + places[i][k], 0) / face.length);
  return face.map((corner, side) => {
    const [a, b] = [places[corner], places[face[(side + 1) % face.length]]];
    const positions: number[] = [];
    const uvs: number[] = [];
    const triangles: number[] = [];
    const columns: number[] = [];
    for (let r = 0; r <= divisions; r++) {
      const out = r / divisions;
      for (let c = 0; c <= r; c++) {
        const along = r === 0 ? 0 : c / r;
        for (let k = 0; k < 3; k++)
          positions.push(middle[k] + (a[k] + (b[k] - a[k]) * along - middle[k]) * out);
        const turn = (2 * Math.PI * (side + along)) / face.length;
        uvs.push(0.5 + 0.5 * out * Math.sin(turn), 0.5 + 0.5 * out * Math.cos(turn));
        const here = positions.length / 3 - 1;
        if (c < r) columns.push(here, here + 1);
        if (r < divisions) {
          const below = here + r + 1;
          triangles.push(here, below, below + 1);
          columns.push(here, below);
          if (c < r) triangles.push(here, below + 1, here + 1);
        }
      }
    }
    const count = positions.length / 3;
    return {
      ...emptyShape,
      count,
      positions: Float32Array.from(positions),
      normals: new Float32Array(3 * count),
      uvs: Float32Array.from(uvs),
      triangles: Uint32Array.from(triangles),
      faceOf: new Uint32Array(triangles.length / 3),
      columns: Uint32Array.from(columns),
    };
  });
}

function finish(shape: Shape, radius: number, round: number): Shape {
  const { positions, normals } = shape;
  const flat = crossOf(positions, shape.triangles[0], shape.triangles[1], shape.triangles[2]);
  const long = Math.hypot(...flat);
  for (let i = 0; i < positions.length; i += 3) {
    const far = Math.hypot(positions[i], positions[i + 1], positions[i + 2]) || 1;
    const grow = radius * (1 - round + round / far);
    const n = [0, 1, 2].map((k) => (flat[k] / long) * (1 - round) + (positions[i + k] / far) * round);
    const length = Math.hypot(...n);
    for (let k = 0; k < 3; k++) {
      normals[i + k] = n[k] / length;
      positions[i + k] *= grow;
    }
  }
  return shape;
}
