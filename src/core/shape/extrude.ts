import { FaceList } from './face-list';
import { edgesOf } from './measure';
import { dressedAs, joinShapes, type Shape } from './shape';

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
