import type { Patch } from '../document/types';

/** What a card takes with a gap around it, on the patch. */
const gap = { width: 170, height: 126 };

/** The place that is asked for, or the nearest one below it where a new card hides no other. */
export function freePlace(scene: Patch, [x, y]: readonly [number, number]): [number, number] {
  const places = Object.values(scene.nodes).map(({ place }) => place);
  let at = y;
  for (;;) {
    const here = places.filter(([px, py]) => Math.abs(px - x) < gap.width && Math.abs(py - at) < gap.height);
    if (here.length === 0) return [x, at];
    // Right under the lowest of those in the way.
    at = Math.max(...here.map(([, py]) => py)) + gap.height;
  }
}
