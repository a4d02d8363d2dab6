import { gridShape, joinShapes, placeShape, pointShape, stripLines, type Shape } from './shape';

/** Ball of `rings` rows from pole to pole and `segments` columns. */
export function ballShape(radius: number, rings: number, segments: number): Shape {
  return gridShape(segments + 1, rings + 1, (u, v, into) => {
    const around = 2 * Math.PI * u;
    const up = Math.PI * (v - 0.5);
    into.n = [Math.cos(up) * Math.sin(around), Math.sin(up), Math.cos(up) * Math.cos(around)];
    into.p = into.n.map((k) => k * radius);
  });
}

/** Points spread evenly over a ball along a golden spiral (Fibonacci lattice), without lines or faces. */
export function evenBall(radius: number, points: number): Shape {
  const positions = new Float32Array(points * 3);
  const shape = pointShape(positions);
  const golden = Math.PI * (3 - Math.sqrt(5));
  for (let i = 0; i < points; i++) {
    const y = 1 - (2 * (i + 0.5)) / points;
    const r = Math.sqrt(1 - y * y);
    const unit = [r * Math.sin(golden * i), y, r * Math.cos(golden * i)];
    shape.normals.set(unit, 3 * i);
    positions.set(
      unit.map((k) => k * radius),
      3 * i,
    );
    shape.uvs.set([(i + 0.5) / points, (y + 1) / 2], 2 * i);
  }
  return shape;
}

/** Sheet in the plane of x and y, facing +z. */
export function sheetShape(width: number, height: number, columns: number, rows: number): Shape {
  return gridShape(columns, rows, (u, v, into) => {
    into.p = [(u - 0.5) * width, (v - 0.5) * height, 0];
    into.n = [0, 0, 1];
  });
}

/** Box of six sheets, each with `divisions` cells a side. */
export function boxShape(size: readonly number[], divisions: number): Shape {
  const [w, h, d] = size;
  const quarter = Math.PI / 2;
  const face = (width: number, height: number, out: number, turn: readonly number[]): Shape =>
    placeShape(
      placeShape(
        sheetShape(width, height, divisions + 1, divisions + 1),
        [0, 0, out / 2],
        [0, 0, 0],
        [1, 1, 1],
      ),
      [0, 0, 0],
      turn,
      [1, 1, 1],
    );
  return joinShapes([
    face(w, h, d, [0, 0, 0]),
    face(d, h, w, [0, quarter, 0]),
    face(w, h, d, [0, 2 * quarter, 0]),
    face(d, h, w, [0, -quarter, 0]),
    face(w, d, h, [-quarter, 0, 0]),
    face(w, d, h, [quarter, 0, 0]),
  ]);
}

/**
 * Ring or arc in the plane of x and y. A whole turn is closed and its points stand 1/n of it apart; a part of a turn
 * reaches both ends. `inner` above 0 gives a band with faces.
 */
export function ringShape(
  radius: number,
  inner: number,
  points: number,
  startRad: number,
  arcRad: number,
): Shape {
  const whole = arcRad >= 2 * Math.PI - 1e-6;
  const at = (i: number, r: number): number[] => {
    const a = startRad + (arcRad * i) / (whole ? points : Math.max(1, points - 1));
    return [r * Math.cos(a), r * Math.sin(a), 0];
  };
  if (inner > 0) {
    return gridShape(whole ? points + 1 : points, 2, (u, v, into) => {
      const a = startRad + arcRad * u;
      const r = radius * (inner + (1 - inner) * v);
      into.p = [r * Math.cos(a), r * Math.sin(a), 0];
      into.n = [0, 0, 1];
    });
  }
  const positions = new Float32Array(points * 3);
  for (let i = 0; i < points; i++) positions.set(at(i, radius), 3 * i);
  const shape = pointShape(positions, Uint32Array.from(stripLines(points, whole)));
  // Normals point outward, so that copies on a ring can face away from its middle.
  for (let i = 0; i < points; i++) shape.normals.set(at(i, 1), 3 * i);
  return shape;
}

/**
 * Tube, cone or prism upright along y, its middle at 0. `sharp` gives each side a face of its own, so that six segments
 * make a prism; `caps` closes both ends.
 */
export function tubeShape(
  radii: readonly [number, number],
  height: number,
  segments: number,
  caps: boolean,
  sharp: boolean,
): Shape {
  const [foot, top] = radii;
  const slope = height > 0 ? (foot - top) / height : 0;
  const length = Math.hypot(1, slope);
  const side = (from: number, to: number, columns: number): Shape =>
    gridShape(columns + 1, 2, (u, v, into) => {
      const a = 2 * Math.PI * (from + (to - from) * u);
      // A flat side faces where its middle faces.
      const facing = sharp ? Math.PI * (from + to) : a;
      const r = foot + (top - foot) * v;
      into.p = [r * Math.sin(a), (v - 0.5) * height, r * Math.cos(a)];
      into.n = [Math.sin(facing) / length, slope / length, Math.cos(facing) / length];
    });
  const cap = (radius: number, up: 1 | -1): Shape => {
    const made = gridShape(segments + 1, 2, (u, v, into) => {
      // Seen from outside, both caps run counter-clockwise.
      const a = 2 * Math.PI * u * up;
      const r = radius * (1 - v);
      into.p = [r * Math.sin(a), (up * height) / 2, r * Math.cos(a)];
      into.n = [0, up, 0];
    });
    // A lid is one face, not a wedge for each segment.
    return { ...made, faceOf: new Uint32Array(made.faceOf.length) };
  };
  const parts = sharp
    ? Array.from({ length: segments }, (_, k) => side(k / segments, (k + 1) / segments, 1))
    : [side(0, 1, segments)];
  if (caps && top > 0) parts.push(cap(top, 1));
  if (caps && foot > 0) parts.push(cap(foot, -1));
  return joinShapes(parts);
}
