import type { OutputPart } from '../document/types';

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

interface Size {
  width: number;
  height: number;
}

/** Corners of a part on the canvas, pixels from the top left: top left, top right, lower right, lower left of the part. */
export function cornersOf({ x, y, width, height, turn }: OutputPart): [number, number][] {
  const angleRad = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angleRad), Math.sin(angleRad)];
  const signs = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ];
  return signs.map(([sx, sy]) => {
    const [dx, dy] = [(sx * width) / 2, (sy * height) / 2];
    return [x + width / 2 + dx * cos - dy * sin, y + height / 2 + dx * sin + dy * cos];
  });
}

/** The smallest upright box around points; of none, nothing at 0, 0. */
export function boxOfPoints(points: Iterable<readonly [number, number]>): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  }
  if (left > right) return { x: 0, y: 0, width: 0, height: 0 };
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** What a part covers of the canvas, turned or not. */
export const boundsOf = (part: OutputPart): Box => boxOfPoints(cornersOf(part));

/**
 * The affine map from a place in an output's picture (shares from its top left) to one in the canvas (shares from its lower
 * left, as textures are read): x' = a u + b v + c, y' = d u + e v + f, given as [a, b, c, d, e, f].
 */
export function mapToCanvas(
  part: OutputPart,
  { quarterTurns, mirrored }: { quarterTurns: number; mirrored: boolean },
  canvas: Size,
): [number, number, number, number, number, number] {
  const [topLeft, topRight, , lowerLeft] = cornersOf(part);
  const at = (u: number, v: number): [number, number] => {
    let [x, y] = [mirrored ? 0.5 - u : u - 0.5, v - 0.5];
    for (let k = 0; k < quarterTurns; k++) [x, y] = [y, -x];
    const [s, t] = [x + 0.5, y + 0.5];
    const place = [0, 1].map(
      (axis) => topLeft[axis] + s * (topRight[axis] - topLeft[axis]) + t * (lowerLeft[axis] - topLeft[axis]),
    );
    return [place[0] / canvas.width, 1 - place[1] / canvas.height];
  };
  const [origin, right, down] = [at(0, 0), at(1, 0), at(0, 1)];
  return [
    right[0] - origin[0],
    down[0] - origin[0],
    origin[0],
    right[1] - origin[1],
    down[1] - origin[1],
    origin[1],
  ];
}

export type Side = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

const axisOf = (side: Side): 'x' | 'y' =>
  side === 'left' || side === 'centre' || side === 'right' ? 'x' : 'y';
const lengthOf = { x: 'width', y: 'height' } as const;
const shareOf: Record<Side, number> = { left: 0, centre: 0.5, right: 1, top: 0, middle: 0.5, bottom: 1 };

/** How far each of several parts moves along an axis so that one side of all is in line with that of what they cover together. */
export function aligned(parts: readonly OutputPart[], side: Side): { axis: 'x' | 'y'; moves: number[] } {
  const axis = axisOf(side);
  const length = lengthOf[axis];
  const boxes = parts.map(boundsOf);
  const start = Math.min(...boxes.map((box) => box[axis]));
  const end = Math.max(...boxes.map((box) => box[axis] + box[length]));
  const share = shareOf[side];
  return {
    axis,
    moves: boxes.map((box) => start + (end - start) * share - (box[axis] + box[length] * share)),
  };
}

/** How far each of several parts moves along an axis so that the gaps between neighbours are equal; the outermost stay. */
export function distributed(parts: readonly OutputPart[], axis: 'x' | 'y'): number[] {
  const length = lengthOf[axis];
  const boxes = parts.map(boundsOf);
  const order = boxes.map((_, k) => k).sort((a, b) => boxes[a][axis] - boxes[b][axis]);
  const [first, last] = [boxes[order[0]], boxes[order[order.length - 1]]];
  const all = boxes.reduce((sum, box) => sum + box[length], 0);
  const gap = (last[axis] + last[length] - first[axis] - all) / Math.max(1, parts.length - 1);
  const moves = parts.map(() => 0);
  let at = first[axis];
  for (const k of order) {
    moves[k] = at - boxes[k][axis];
    at += boxes[k][length] + gap;
  }
  return moves;
}

/** How far a box moves to meet the nearest line within `reach`: edges and middles of the canvas and of other boxes. */
export function snapOf(box: Box, others: readonly Box[], canvas: Size, reach: number): [number, number] {
  const lines = (axis: 'x' | 'y', of: Box): number[] =>
    [0, 0.5, 1].map((share) => of[axis] + share * of[lengthOf[axis]]);
  const nearest = (axis: 'x' | 'y'): number => {
    let best = 0;
    let distance = reach;
    for (const other of [{ x: 0, y: 0, ...canvas }, ...others])
      for (const line of lines(axis, other))
        for (const own of lines(axis, box))
          if (Math.abs(line - own) < distance) {
            distance = Math.abs(line - own);
            best = line - own;
          }
    return best;
  };
  return [nearest('x'), nearest('y')];
}
