import { BufferAttribute, InstancedBufferGeometry } from 'three';
import type { Look } from '../../core/kind/prop';
import { edgesOf } from '../../core/shape/measure';
import type { Shape } from '../../core/shape/shape';
import type { Drawing } from './prop-shader';

/** A shape as the GPU draws it: corners of triangles, with what lines and points need to grow to their width. */
export interface PropMesh {
  geometry: InstancedBufferGeometry;
  drawing: Drawing;
  /** Vertices of one copy. */
  vertices: number;
  /** Copies merged into one instance: small meshes instanced one by one leave most of the GPU idle. */
  merged: number;
  /** Points of the shape that the vertices stand on, where that is not one to one. */
  corners: Corners | null;
  shape: Shape;
}

interface Corners {
  /** Index of the point of the shape each vertex stands on. */
  point: Uint32Array;
  /** The other end of its line. */
  other: Uint32Array;
  /** Which corner of its quad it is, -1 or 1 each. */
  corner: Float32Array;
  index: Uint32Array;
}

/** Vertices of a merged instance stay below this: enough work for the GPU, little memory. */
const mostMerged = 16384;
/** Pieces of line, or points, that still grow to a width: four vertices each. */
const mostWide = 131072;

function quads(count: number, ends: (k: number, end: 0 | 1) => number, asDot: boolean): Corners {
  const point = new Uint32Array(4 * count);
  const other = new Uint32Array(4 * count);
  const corner = new Float32Array(8 * count);
  const index = new Uint32Array(6 * count);
  for (let k = 0; k < count; k++) {
    const [a, b, v] = [ends(k, 0), ends(k, 1), 4 * k];
    point[v] = point[v + 1] = other[v + 2] = other[v + 3] = a;
    point[v + 2] = point[v + 3] = other[v] = other[v + 1] = b;
    corner.set(asDot ? [-1, -1, -1, 1, 1, -1, 1, 1] : [-1, -1, 1, -1, -1, 1, 1, 1], 8 * k);
    index.set([v, v + 1, v + 2, v + 2, v + 1, v + 3], 6 * k);
  }
  return { point, other, corner, index };
}

const edgePairs = new WeakMap<Shape['triangles'], Uint32Array>();

/** All pieces of line of a shape, row by row and column by column. */
function allLines({ rows, columns }: Shape): Uint32Array {
  if (columns.length === 0) return rows;
  const both = new Uint32Array(rows.length + columns.length);
  both.set(rows);
  both.set(columns, rows.length);
  return both;
}

function edgesAsLines(shape: Shape): Uint32Array {
  if (shape.triangles.length === 0) return allLines(shape);
  // The edges of faces that stay the same stay the same as well, wherever their points go.
  const known = edgePairs.get(shape.triangles);
  if (known) return known;
  const pairs = Uint32Array.from(edgesOf(shape).flatMap(({ a, b }) => [a, b]));
  edgePairs.set(shape.triangles, pairs);
  return pairs;
}

/** The pieces of line of a shape; its edges where it has none of those that are wanted. */
export function linesOf(shape: Shape, lines: Look['lines']): Uint32Array {
  if (lines === 'edges') return edgesAsLines(shape);
  if (lines === 'rows' && shape.rows.length) return shape.rows;
  if (lines === 'columns' && shape.columns.length) return shape.columns;
  if (shape.rows.length + shape.columns.length === 0) return edgesAsLines(shape);
  return lines === 'both' ? allLines(shape) : new Uint32Array(0);
}

/** How a shape with that look is drawn, by how much there is of it. */
export function drawingOf(shape: Shape, look: Look): Drawing {
  if (look.draw === 'points') return shape.count > mostWide ? 'sprites' : 'points';
  if (look.draw === 'lines') return linesOf(shape, look.lines).length > 2 * mostWide ? 'hairlines' : 'lines';
  return 'surface';
}

/** How many copies are merged into one instance. */
export const mergedCopies = (vertices: number, copies: number): number =>
  Math.max(1, Math.min(1024, copies, Math.floor(mostMerged / Math.max(1, vertices))));

export function buildMesh(shape: Shape, look: Look, copies: number, copied: boolean): PropMesh {
  const drawing = drawingOf(shape, look);
  const pairs = look.draw === 'lines' ? linesOf(shape, look.lines) : null;
  const corners =
    drawing === 'lines'
      ? quads(pairs!.length / 2, (k, end) => pairs![2 * k + end], false)
      : drawing === 'points'
        ? quads(shape.count, (k) => k, true)
        : null;
  const vertices = corners ? corners.point.length : shape.count;
  const one =
    corners?.index ?? (drawing === 'hairlines' ? pairs! : drawing === 'surface' ? shape.triangles : null);
  const merged = copied ? mergedCopies(vertices, copies) : 1;
  const geometry = new InstancedBufferGeometry();
  const mesh: PropMesh = { geometry, drawing, vertices, merged, corners, shape };
  fillMesh(mesh, shape);
  if (copied) {
    const merge = new Float32Array(vertices * merged);
    for (let c = 0; c < merged; c++) merge.fill(c, c * vertices, (c + 1) * vertices);
    geometry.setAttribute('merge', new BufferAttribute(merge, 1));
  }
  if (corners) geometry.setAttribute('corner', new BufferAttribute(repeated(corners.corner, merged), 2));
  if (one) geometry.setIndex(new BufferAttribute(shifted(one, merged, vertices), 1));
  geometry.instanceCount = Math.ceil(copies / merged);
  return mesh;
}

/** Puts the places, normals and so on of a shape into a mesh that was built for one with the same lines and faces. */
export function fillMesh(mesh: PropMesh, shape: Shape): void {
  const { corners, merged } = mesh;
  const put = (name: string, values: Float32Array, width: number, points: Uint32Array | null): void => {
    const spread = points ? picked(values, width, points) : values;
    const all = repeated(spread, merged);
    const old = mesh.geometry.getAttribute(name) as BufferAttribute | undefined;
    if (old?.array.length === all.length) {
      (old.array as Float32Array).set(all);
      old.needsUpdate = true;
      // Without copies the buffer belongs to the shape: it must not be written over.
    } else
      mesh.geometry.setAttribute(name, new BufferAttribute(all === values ? values.slice() : all, width));
  };
  const points = corners?.point ?? null;
  put('position', shape.positions, 3, points);
  put('normal', shape.normals, 3, points);
  put('uv', shape.uvs, 2, points);
  if (shape.colours) put('tone', shape.colours, 4, points);
  if (shape.pictureOf) put('layer', shape.pictureOf, 1, points);
  if (corners) {
    put('other', shape.positions, 3, corners.other);
    put('otherUv', shape.uvs, 2, corners.other);
    put('otherNormal', shape.normals, 3, corners.other);
  }
  mesh.shape = shape;
}

/** Whether a shape can be put into a mesh as it stands. */
export const sameBuild = (mesh: PropMesh, shape: Shape): boolean =>
  mesh.shape.count === shape.count &&
  mesh.shape.triangles === shape.triangles &&
  mesh.shape.rows === shape.rows &&
  mesh.shape.columns === shape.columns &&
  Boolean(mesh.shape.colours) === Boolean(shape.colours) &&
  Boolean(mesh.shape.pictureOf) === Boolean(shape.pictureOf);

function picked(values: Float32Array, width: number, points: Uint32Array): Float32Array {
  const into = new Float32Array(points.length * width);
  for (let v = 0; v < points.length; v++)
    for (let k = 0; k < width; k++) into[width * v + k] = values[width * points[v] + k];
  return into;
}

function repeated(values: Float32Array, times: number): Float32Array {
  if (times === 1) return values;
  const all = new Float32Array(values.length * times);
  for (let c = 0; c < times; c++) all.set(values, c * values.length);
  return all;
}

function shifted(index: Uint32Array, times: number, by: number): Uint32Array {
  if (times === 1) return index;
  const all = new Uint32Array(index.length * times);
  for (let c = 0; c < times; c++)
    for (let k = 0; k < index.length; k++) all[c * index.length + k] = index[k] + c * by;
  return all;
}
