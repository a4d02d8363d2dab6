import type { OutputPart } from '../document/types';
import { boundsOf, boxOfPoints, type Box } from './parts';

/** Pixels of the canvas drawn around each part, for reads between pixels at its edges. */
const marginPixels = 4;
/** Boxes that are drawn one by one at most; more are drawn as one around all. */
const mostBoxes = 8;

const overlaps = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const around = (boxes: readonly Box[]): Box =>
  boxOfPoints(
    boxes.flatMap(({ x, y, width, height }): [number, number][] => [
      [x, y],
      [x + width, y + height],
    ]),
  );

/**
 * What outputs take of the canvas: boxes that do not overlap, as shares of it from its lower left. Null: all of it, or nearly.
 */
export function takenBoxes(
  parts: readonly OutputPart[],
  { width, height }: { width: number; height: number },
): Box[] | null {
  let boxes: Box[] = [];
  for (const part of parts) {
    const bounds = boundsOf(part);
    let [left, top] = [Math.max(0, bounds.x - marginPixels), Math.max(0, bounds.y - marginPixels)];
    const right = Math.min(width, bounds.x + bounds.width + marginPixels);
    const lower = Math.min(height, bounds.y + bounds.height + marginPixels);
    // A part that is turned by a right angle ends at a whole pixel but for rounding.
    [left, top] = [Math.floor(left + 1e-6), Math.floor(top + 1e-6)];
    if (right <= left || lower <= top) continue;
    let box: Box = {
      x: left,
      y: top,
      width: Math.ceil(right - 1e-6) - left,
      height: Math.ceil(lower - 1e-6) - top,
    };
    // What overlaps becomes one box, which may reach into further ones.
    for (let met = boxes.filter((other) => overlaps(box, other)); met.length > 0;) {
      boxes = boxes.filter((other) => !met.includes(other));
      box = around([box, ...met]);
      met = boxes.filter((other) => overlaps(box, other));
    }
    boxes.push(box);
  }
  if (boxes.length > mostBoxes) boxes = [around(boxes)];
  const area = boxes.reduce((sum, box) => sum + box.width * box.height, 0);
  if (area > 0.9 * width * height) return null;
  return boxes.map((box) => ({
    x: box.x / width,
    y: 1 - (box.y + box.height) / height,
    width: box.width / width,
    height: box.height / height,
  }));
}
