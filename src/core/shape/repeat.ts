import { joinShapes, turnMatrix, type Shape } from './shape';

/** Most points that one shape may come to. */
const mostPoints = 4_194_304;

/** A shape that would have more points than a GPU takes well. */
export class ShapeError extends Error {
  override name = 'ShapeError';
}

/** Throws if a shape of so many points would be too large. */
export function checkPoints(count: number): void {
  if (count > mostPoints)
    throw new ShapeError(
      `This would be ${count.toLocaleString('en')} points; at most ${mostPoints.toLocaleString('en')} can be drawn. Lower a count.`,
    );
}

/**
 * `count` copies of a shape, each moved, turned (x, then y, then z) and scaled on from the last, in its own frame. The
 * first is the shape as it comes.
 */
export function stackShape(
  shape: Shape,
  count: number,
  move: readonly number[],
  turnRad: readonly number[],
  scale: readonly number[],
): Shape {
  checkPoints(shape.count * count);
  const turn = turnMatrix(turnRad[0], turnRad[1], turnRad[2]);
  // One step: scaled, turned, moved. The frame of copy k is that of copy k - 1 with one step put before it.
  const step = [0, 1, 2].map((r) => [0, 1, 2].map((c) => turn[3 * r + c] * scale[c]));
  let frame = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  let at = [0, 0, 0];
  const parts: Shape[] = [];
  for (let k = 0; k < count; k++) {
    parts.push(k === 0 ? shape : transformed(shape, frame, at));
    at = at.map((v, r) => v + frame[r][0] * move[0] + frame[r][1] * move[1] + frame[r][2] * move[2]);
    frame = frame.map((row) =>
      [0, 1, 2].map((c) => row[0] * step[0][c] + row[1] * step[1][c] + row[2] * step[2][c]),
    );
  }
  return joinShapes(parts);
}

function transformed(shape: Shape, m: readonly (readonly number[])[], at: readonly number[]): Shape {
  const positions = new Float32Array(shape.positions.length);
  const normals = new Float32Array(shape.normals.length);
  // Normals go by the cofactors, which stay right where a scale differs by axis or is 0.
  const cof = [0, 1, 2].map((r) =>
    [0, 1, 2].map((c) => {
      const [r1, r2, c1, c2] = [(r + 1) % 3, (r + 2) % 3, (c + 1) % 3, (c + 2) % 3];
      return m[r1][c1] * m[r2][c2] - m[r1][c2] * m[r2][c1];
    }),
  );
  for (let i = 0; i < shape.count; i++) {
    const p = shape.positions.subarray(3 * i, 3 * i + 3);
    const n = shape.normals.subarray(3 * i, 3 * i + 3);
    const turned = cof.map((row) => row[0] * n[0] + row[1] * n[1] + row[2] * n[2]);
    const length = Math.hypot(...turned);
    for (let k = 0; k < 3; k++) {
      positions[3 * i + k] = m[k][0] * p[0] + m[k][1] * p[1] + m[k][2] * p[2] + at[k];
      normals[3 * i + k] = length > 0 ? turned[k] / length : n[k];
    }
  }
  return { ...shape, positions, normals };
}
