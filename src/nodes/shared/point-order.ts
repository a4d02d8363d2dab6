import { vector, whole } from '../../core/kind/controls';
import { nearFirst, shuffled } from './sample-order';
import { axisIndex, type Axis } from '../../core/shape/deform';
import { pickPoints, type Shape } from '../../core/shape/shape';

export const pointOrders = {
  none: 'As they come',
  reverse: 'Reversed',
  distance: 'By distance',
  spiral: 'In a spiral',
  x: 'Left to right',
  y: 'Bottom to top',
  z: 'Back to front',
  random: 'At random',
} as const;

/** The controls that go with a control `order`: where it begins, and which of the random ones. */
export const orderStart = {
  from: vector({
    label: 'From',
    help: 'Where distances and the spiral begin.',
    default: [0, 0, 0],
    range: [-1, 1],
    shownIf: (c) => c.order === 'distance' || c.order === 'spiral',
  }),
  seed: whole({
    label: 'Seed',
    help: 'Another order.',
    default: 1,
    range: [1, 99],
    shownIf: (c) => c.order === 'random',
  }),
};

export type PointOrder = keyof typeof pointOrders;

/** The points of a shape in an order: entry k says which comes k-th. */
export function orderOf(shape: Shape, order: PointOrder, from: readonly number[], seed: number): number[] {
  const { count, positions } = shape;
  const all = Array.from({ length: count }, (_, i) => i);
  if (order === 'none') return all;
  if (order === 'reverse') return all.reverse();
  if (order === 'random') return shuffled(count, seed);
  const lane = (axis: Axis): Float32Array =>
    Float32Array.from(all, (i) => positions[3 * i + axisIndex[axis]]);
  if (order === 'distance' || order === 'spiral')
    return nearFirst([lane('x'), lane('y'), lane('z')], from, order === 'spiral');
  const along = lane(order);
  return all.sort((a, b) => along[a] - along[b] || a - b);
}

/** The same shape with its points renumbered; lines and faces stay where they are. */
export function orderPoints(shape: Shape, order: readonly number[]): Shape {
  const place = new Uint32Array(shape.count);
  order.forEach((point, k) => (place[point] = k));
  const renamed = (indices: Uint32Array): Uint32Array => indices.map((index) => place[index]);
  return {
    ...pickPoints(shape, order),
    triangles: renamed(shape.triangles),
    faceOf: shape.faceOf,
    rows: renamed(shape.rows),
    columns: renamed(shape.columns),
  };
}

const ordered = new WeakMap<Shape, { key: string; shape: Shape }>();

/** As `orderPoints`; the same shape in the same order gives the very same result. */
export function orderedOnce(shape: Shape, order: PointOrder, from: readonly number[]): Shape {
  if (order === 'none') return shape;
  const key = `${order} ${from.join()}`;
  const known = ordered.get(shape);
  if (known?.key === key) return known.shape;
  const made = orderPoints(shape, orderOf(shape, order, from, 1));
  ordered.set(shape, { key, shape: made });
  return made;
}
