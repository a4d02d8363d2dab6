import { choice } from '../../core/kind/controls';
import { boundsOf } from '../../core/shape/measure';
import type { Shape } from '../../core/shape/shape';

const sides = {
  middle: 'Middle',
  left: 'Left',
  right: 'Right',
  bottom: 'Bottom',
  top: 'Top',
  back: 'Back',
  front: 'Front',
} as const;

export type Anchor = keyof typeof sides;

/** Axis and end of its box that each anchor stands for. */
const ends: Record<Exclude<Anchor, 'middle'>, readonly [number, 'low' | 'high']> = {
  left: [0, 'low'],
  right: [0, 'high'],
  bottom: [1, 'low'],
  top: [1, 'high'],
  back: [2, 'low'],
  front: [2, 'high'],
};

/** The control that says which part of a shape lies at 0, 0, 0. */
export const anchor = choice({
  label: 'Anchor',
  help: 'The part that lies at 0, 0, 0 and stays in its place when the shape is scaled or turned.',
  options: sides,
  default: 'middle',
});

/** A shape that is centred by construction, moved so that its anchor lies at 0, 0, 0. */
export function anchored(shape: Shape, at: Anchor): Shape {
  if (at === 'middle') return shape;
  const bounds = boundsOf(shape);
  if (!bounds) return shape;
  const [axis, end] = ends[at];
  const by = bounds[end][axis];
  const positions = shape.positions.slice();
  for (let i = axis; i < positions.length; i += 3) positions[i] -= by;
  return { ...shape, positions };
}
