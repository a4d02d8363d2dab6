import { BufferAttribute, InstancedBufferGeometry } from 'three';
import type { Look } from '../core/prop';
import type { Shape } from '../core/shape/shape';

/** A shape as the card draws it: corners of triangles, with what lines and points need to grow to their width. */
export interface PropMesh {
  geometry: InstancedBufferGeometry;
  /** Vertices of one copy. */
  vertices: number;
  /** Copies merged into one instance: small meshes instanced one by one leave most of the card idle. */
  merged: number;
}

interface Corners {
  /** Index of the point of the shape each vertex stands on. */
  point: number[];
  /** The other end of its line. */
  other: number[];
  /** Which corner of its quad it is, -1 or 1 each. */
  corner: number[];
  index: number[];
}

/** Vertices of a merged instance stay below this: enough work for the card, little memory. */
const mostMerged = 16384;

function quads(count: number, ends: (k: number) => readonly [number, number]): Corners {
  const into: Corners = { point: [], other: [], corner: [], index: [] };
  for (let k = 0; k < count; k++) {
    const [a, b] = ends(k);
    const first = into.point.length;
    into.point.push(a, a, b, b);
    into.other.push(b, b, a, a);
    into.corner.push(-1, -1, 1, -1, -1, 1, 1, 1);
    into.index.push(first, first + 1, first + 2, first + 2, first + 1, first + 3);
  }
  return into;
}

function linesOf(shape: Shape, lines: Look['lines']): Uint32Array {
  if (lines === 'rows') return shape.rows;
  if (lines === 'columns') return shape.columns;
  const both = new Uint32Array(shape.rows.length + shape.columns.length);
  both.set(shape.rows);
  both.set(shape.columns, shape.rows.length);
  return both;
}

function cornersOf(shape: Shape, look: Look): Corners {
  if (look.draw === 'points') return quads(shape.count, (k) => [k, k]);
  if (look.draw === 'lines') {
    const pairs = linesOf(shape, look.lines);
    return quads(pairs.length / 2, (k) => [pairs[2 * k], pairs[2 * k + 1]]);
  }
  const point = Array.from({ length: shape.count }, (_, i) => i);
  return { point, other: [], corner: [], index: Array.from(shape.triangles) };
}

/** How many copies are merged into one instance. */
export const mergedCopies = (vertices: number, copies: number): number =>
  Math.max(1, Math.min(1024, copies, Math.floor(mostMerged / Math.max(1, vertices))));

export function buildMesh(shape: Shape, look: Look, copies: number): PropMesh {
  const corners = cornersOf(shape, look);
  const vertices = corners.point.length;
  const merged = mergedCopies(vertices, copies);
  const total = vertices * merged;
  const position = new Float32Array(total * 3);
  const normal = new Float32Array(total * 3);
  const uv = new Float32Array(total * 2);
  const needsLine = look.draw !== 'surface';
  const other = new Float32Array(needsLine ? total * 3 : 0);
  const corner = new Float32Array(needsLine ? total * 2 : 0);
  for (let v = 0; v < vertices; v++) {
    const i = corners.point[v];
    for (let k = 0; k < 3; k++) {
      position[3 * v + k] = shape.positions[3 * i + k];
      normal[3 * v + k] = shape.normals[3 * i + k];
      if (needsLine) other[3 * v + k] = shape.positions[3 * corners.other[v] + k];
    }
    uv[2 * v] = shape.uvs[2 * i];
    uv[2 * v + 1] = shape.uvs[2 * i + 1];
    if (needsLine) corner.set([corners.corner[2 * v], corners.corner[2 * v + 1]], 2 * v);
  }
  const index = new Uint32Array(corners.index.length * merged);
  index.set(corners.index);
  for (let c = 1; c < merged; c++) {
    position.copyWithin(3 * vertices * c, 0, 3 * vertices);
    normal.copyWithin(3 * vertices * c, 0, 3 * vertices);
    uv.copyWithin(2 * vertices * c, 0, 2 * vertices);
    if (needsLine) {
      other.copyWithin(3 * vertices * c, 0, 3 * vertices);
      corner.copyWithin(2 * vertices * c, 0, 2 * vertices);
    }
    for (let k = 0; k < corners.index.length; k++)
      index[c * corners.index.length + k] = corners.index[k] + c * vertices;
  }
  const geometry = new InstancedBufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(position, 3));
  geometry.setAttribute('normal', new BufferAttribute(normal, 3));
  geometry.setAttribute('uv', new BufferAttribute(uv, 2));
  if (needsLine) {
    geometry.setAttribute('other', new BufferAttribute(other, 3));
    geometry.setAttribute('corner', new BufferAttribute(corner, 2));
  }
  geometry.setIndex(new BufferAttribute(index, 1));
  geometry.instanceCount = Math.ceil(copies / merged);
  return { geometry, vertices, merged };
}
