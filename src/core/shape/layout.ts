import { spiralShape, segmentShape } from './curves';
import { ringShape } from './make';
import { checkPoints } from './repeat';
import { pointGrid } from './scatter';
import type { Shape } from './shape';

/** Where copies stand if no shape says so. Lengths in scene units. */
export type Layout =
  | { form: 'line'; length: number }
  | { form: 'circle'; size: number; arcRad: number }
  | { form: 'grid'; counts: readonly [number, number, number]; spacing: readonly [number, number, number] }
  | { form: 'spiral'; size: number; turns: number };

function make(layout: Layout, count: number): Shape {
  switch (layout.form) {
    case 'line':
      return segmentShape([-layout.length / 2, 0, 0], [layout.length / 2, 0, 0], count);
    case 'circle':
      return ringShape(layout.size / 2, 0, count, 0, layout.arcRad);
    case 'grid':
      return pointGrid(layout.counts, layout.spacing, false);
    case 'spiral':
      return spiralShape('even', 0, layout.size / 2, layout.turns, 0, count);
  }
}

const kept = new Map<string, Shape>();
const mostKept = 32;

/** The points of a layout. The same layout gives the very same shape, so that nothing is sent to the GPU again. */
export function layoutShape(layout: Layout, count: number): Shape {
  checkPoints(count);
  const key = `${JSON.stringify(layout)} ${count}`;
  let shape = kept.get(key);
  if (!shape) {
    if (kept.size >= mostKept) kept.clear();
    kept.set(key, (shape = make(layout, count)));
  }
  return shape;
}
