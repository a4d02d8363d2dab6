/**
 * Points with attributes, and the lines and faces between them. Right-handed, y up, one unit about the height of the
 * view, centred on 0,0,0. The order of points is stable.
 */
export interface Shape {
  /** Points. */
  count: number;
  /** 3 numbers a point. */
  positions: Float32Array;
  /** Unit length, 3 numbers a point. */
  normals: Float32Array;
  /** Place on a picture, 0..1, 2 numbers a point. */
  uvs: Float32Array;
  /** 3 point indices a face, counter-clockwise from outside. */
  triangles: Uint32Array;
  /** For each triangle, which face it is a part of: what is flat and belongs together, counted from 0. */
  faceOf: Uint32Array;
  /** 2 point indices a piece of line. */
  rows: Uint32Array;
  columns: Uint32Array;
  /** Red, green, blue and alpha a point; absent: white. */
  colours?: Float32Array;
  /** Pictures that came with the shape and lie on it: ids of files. */
  pictures?: readonly string[];
  /** Which of them lies at each point, counted from 0; -1: none. Absent: the first everywhere. */
  pictureOf?: Float32Array;
}

const none = new Uint32Array(0);

/** No points at all: what a kind gives that has nothing to work on. */
export const emptyShape: Shape = {
  count: 0,
  positions: new Float32Array(0),
  normals: new Float32Array(0),
  uvs: new Float32Array(0),
  triangles: none,
  faceOf: none,
  rows: none,
  columns: none,
};

/** A shape of points alone, all facing +z; `uvs` run 0..1 along them. */
export function pointShape(positions: Float32Array, rows: Uint32Array = none): Shape {
  const count = positions.length / 3;
  const normals = new Float32Array(count * 3);
  const uvs = new Float32Array(count * 2);
  for (let i = 0; i < count; i++) {
    normals[3 * i + 2] = 1;
    uvs[2 * i] = count > 1 ? i / (count - 1) : 0;
    uvs[2 * i + 1] = 0.5;
  }
  return { count, positions, normals, uvs, triangles: none, faceOf: none, rows, columns: none };
}

/** Pairs of indices that join `count` points in a row, and the last to the first if closed. */
export function stripLines(count: number, closed: boolean, start = 0): number[] {
  const pairs: number[] = [];
  for (let i = 0; i + 1 < count; i++) pairs.push(start + i, start + i + 1);
  if (closed && count > 2) pairs.push(start + count - 1, start);
  return pairs;
}

/**
 * A sheet of `rows` x `columns` points made from a function of u and v (0..1): the body of every shape with rows and
 * columns. Closed in u or v means that the last column or row meets the first, which then has points of its own, so
 * that a picture can lie across the seam.
 */
export function gridShape(
  columns: number,
  rows: number,
  at: (u: number, v: number, into: { p: number[]; n: number[] }) => void,
): Shape {
  const count = columns * rows;
  const positions = new Float32Array(count * 3);
  const normals = new Float32Array(count * 3);
  const uvs = new Float32Array(count * 2);
  const here = { p: [0, 0, 0], n: [0, 0, 1] };
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const i = r * columns + c;
      const u = columns > 1 ? c / (columns - 1) : 0.5;
      const v = rows > 1 ? r / (rows - 1) : 0.5;
      at(u, v, here);
      positions.set(here.p, 3 * i);
      normals.set(here.n, 3 * i);
      uvs[2 * i] = u;
      uvs[2 * i + 1] = v;
    }
  }
  const cells = Math.max(0, (columns - 1) * (rows - 1));
  const triangles = new Uint32Array(cells * 6);
  const faceOf = new Uint32Array(cells * 2);
  let t = 0;
  for (let r = 0; r + 1 < rows; r++) {
    for (let c = 0; c + 1 < columns; c++) {
      const a = r * columns + c;
      const b = a + columns;
      faceOf[t / 3] = faceOf[t / 3 + 1] = t / 6;
      triangles[t++] = a;
      triangles[t++] = a + 1;
      triangles[t++] = b + 1;
      triangles[t++] = a;
      triangles[t++] = b + 1;
      triangles[t++] = b;
    }
  }
  return { count, positions, normals, uvs, triangles, faceOf, ...gridLines(columns, rows) };
}

/** The lines along the rows and along the columns of points that stand in a grid, row by row. */
export function gridLines(columns: number, rows: number): { rows: Uint32Array; columns: Uint32Array } {
  const along = new Uint32Array(Math.max(0, 2 * (columns - 1) * rows));
  const up = new Uint32Array(Math.max(0, 2 * columns * (rows - 1)));
  let at = 0;
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c + 1 < columns; c++) {
      along[at++] = r * columns + c;
      along[at++] = r * columns + c + 1;
    }
  }
  at = 0;
  for (let c = 0; c < columns; c++) {
    for (let r = 0; r + 1 < rows; r++) {
      up[at++] = r * columns + c;
      up[at++] = (r + 1) * columns + c;
    }
  }
  return { rows: along, columns: up };
}

/** How many faces a shape has. */
export function faceCount(shape: Shape): number {
  let most = -1;
  for (const face of shape.faceOf) if (face > most) most = face;
  return most + 1;
}

/** The colours of the points, white where a shape has none. */
const coloursOf = (shape: Shape): Float32Array => shape.colours ?? new Float32Array(4 * shape.count).fill(1);

/** Points of a shape in another number or order, with all that belongs to them, and no lines or faces yet. */
export function pickPoints(shape: Shape, points: ArrayLike<number>): Shape {
  const count = points.length;
  const pick = (from: Float32Array, width: number): Float32Array => {
    const into = new Float32Array(count * width);
    for (let i = 0; i < count; i++)
      for (let k = 0; k < width; k++) into[width * i + k] = from[width * points[i] + k];
    return into;
  };
  const picked: Shape = {
    ...emptyShape,
    count,
    positions: pick(shape.positions, 3),
    normals: pick(shape.normals, 3),
    uvs: pick(shape.uvs, 2),
  };
  if (shape.colours) picked.colours = pick(shape.colours, 4);
  if (shape.pictures) picked.pictures = shape.pictures;
  if (shape.pictureOf) picked.pictureOf = pick(shape.pictureOf, 1);
  return picked;
}

/** Several shapes as one, points in order. */
export function joinShapes(parts: readonly Shape[]): Shape {
  const count = parts.reduce((sum, part) => sum + part.count, 0);
  const joinFloats = (pick: (s: Shape) => Float32Array, width: number): Float32Array => {
    const all = new Float32Array(count * width);
    let at = 0;
    for (const part of parts) {
      all.set(pick(part), at);
      at += part.count * width;
    }
    return all;
  };
  const joinIndices = (pick: (s: Shape) => Uint32Array): Uint32Array => {
    const all = new Uint32Array(parts.reduce((sum, part) => sum + pick(part).length, 0));
    let at = 0;
    let start = 0;
    for (const part of parts) {
      for (const index of pick(part)) all[at++] = index + start;
      start += part.count;
    }
    return all;
  };
  const faceOf = new Uint32Array(parts.reduce((sum, part) => sum + part.faceOf.length, 0));
  let at = 0;
  let faces = 0;
  for (const part of parts) {
    for (const face of part.faceOf) faceOf[at++] = face + faces;
    faces += faceCount(part);
  }
  const joined: Shape = {
    count,
    positions: joinFloats((s) => s.positions, 3),
    normals: joinFloats((s) => s.normals, 3),
    uvs: joinFloats((s) => s.uvs, 2),
    triangles: joinIndices((s) => s.triangles),
    faceOf,
    rows: joinIndices((s) => s.rows),
    columns: joinIndices((s) => s.columns),
  };
  if (parts.some((part) => part.colours)) joined.colours = joinFloats(coloursOf, 4);
  const pictures = [...new Set(parts.flatMap((part) => part.pictures ?? []))];
  if (pictures.length === 0) return joined;
  joined.pictures = pictures;
  const onAll = pictures.length === 1 && parts.every((part) => part.pictures && !part.pictureOf);
  if (!onAll) joined.pictureOf = joinFloats((part) => pictureNumbers(part, pictures), 1);
  return joined;
}

/** Which picture of a list lies at each point of a shape; -1: none. */
function pictureNumbers({ count, pictures, pictureOf }: Shape, list: readonly string[]): Float32Array {
  if (!pictures) return new Float32Array(count).fill(-1);
  const numbers = pictures.map((id) => list.indexOf(id));
  return Float32Array.from({ length: count }, (_, i) => numbers[pictureOf ? pictureOf[i] : 0] ?? -1);
}

/** Gives a shape the colours and pictures of another: for each of its points, those of the point it came from. */
export function dressedAs(shape: Shape, from: Shape, points: ArrayLike<number>): Shape {
  const { colours, pictures, pictureOf } = pickPoints(from, points);
  return {
    ...shape,
    ...(colours && { colours }),
    ...(pictures && { pictures }),
    ...(pictureOf && { pictureOf }),
  };
}

/** 3x3 matrix, row by row, that turns about x, then y, then z (radians). */
export function turnMatrix(x: number, y: number, z: number): number[] {
  const [cx, sx, cy, sy, cz, sz] = [
    Math.cos(x),
    Math.sin(x),
    Math.cos(y),
    Math.sin(y),
    Math.cos(z),
    Math.sin(z),
  ];
  return [
    cy * cz,
    sx * sy * cz - cx * sz,
    cx * sy * cz + sx * sz,
    cy * sz,
    sx * sy * sz + cx * cz,
    cx * sy * sz - sx * cz,
    -sy,
    sx * cy,
    cx * cy,
  ];
}

/** Scaled, then turned, then moved; normals follow. */
export function placeShape(
  shape: Shape,
  move: readonly number[],
  turnRad: readonly number[],
  scale: readonly number[],
): Shape {
  const m = turnMatrix(turnRad[0], turnRad[1], turnRad[2]);
  const positions = new Float32Array(shape.positions.length);
  const normals = new Float32Array(shape.normals.length);
  const inverse = scale.map((s) => (s === 0 ? 0 : 1 / s));
  for (let i = 0; i < shape.count; i++) {
    const x = shape.positions[3 * i] * scale[0];
    const y = shape.positions[3 * i + 1] * scale[1];
    const z = shape.positions[3 * i + 2] * scale[2];
    const a = shape.normals[3 * i] * inverse[0];
    const b = shape.normals[3 * i + 1] * inverse[1];
    const c = shape.normals[3 * i + 2] * inverse[2];
    const length = Math.hypot(a, b, c) || 1;
    for (let k = 0; k < 3; k++) {
      positions[3 * i + k] = m[3 * k] * x + m[3 * k + 1] * y + m[3 * k + 2] * z + move[k];
      normals[3 * i + k] = (m[3 * k] * a + m[3 * k + 1] * b + m[3 * k + 2] * c) / length;
    }
  }
  return { ...shape, positions, normals };
}
