import type { EdgeBlend } from '../document/types';

/** How bright one side of an overlap is, `t` 0..1 across it: a curve that adds up to 1 with its mirror image. */
export function ramp(t: number, power: number): number {
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  return t < 0.5 ? 0.5 * (2 * t) ** power : 1 - 0.5 * (2 * (1 - t)) ** power;
}

/**
 * Linear light that an output keeps at a place of its picture (shares from the top left), so that overlaps add up to what the rest
 * has. The shader of screens does the same; tests compare the two.
 */
export function blendAt({ left, right, top, bottom, power }: EdgeBlend, u: number, v: number): number {
  const side = (distance: number, width: number): number =>
    width > 0 ? ramp(Math.max(0, distance) / width, power) : 1;
  return side(u, left) * side(1 - u, right) * side(v, top) * side(1 - v, bottom);
}
