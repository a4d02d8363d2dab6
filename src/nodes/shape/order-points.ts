import { choice, vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { orderOf, orderPoints, pointOrders } from '../../core/shape/order';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'order-points',
  label: 'Order Points',
  summary: 'Numbers the points of a shape anew: by distance, in a spiral, along an axis, at random.',
  words: ['sort', 'index', 'number', 'centre out', 'shuffle', 'renumber'],
  inputs: { shape: { label: 'Shape', help: 'Whose points are numbered.', carries: 'shape' } },
  controls: {
    order: choice({ label: 'Order', help: 'Which comes first.', options: pointOrders, default: 'spiral' }),
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
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? orderPoints(inputs.shape, orderOf(inputs.shape, c.order, c.from, c.seed)) : emptyShape,
});
