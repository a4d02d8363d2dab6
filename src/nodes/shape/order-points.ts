import { choice } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { orderOf, orderPoints, orderStart, pointOrders } from '../shared/point-order';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'order-points',
  label: 'Order Points',
  summary: 'Renumbers the points of a shape: by distance, in a spiral, along an axis, at random.',
  words: ['sort', 'index', 'number', 'centre out', 'shuffle', 'renumber'],
  example: { feed: { kind: 'point-grid' } },
  inputs: { shape: { label: 'Shape', help: 'Whose points are numbered.', carries: 'shape' } },
  controls: {
    order: choice({ label: 'Order', help: 'Which comes first.', options: pointOrders, default: 'spiral' }),
    ...orderStart,
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? orderPoints(inputs.shape, orderOf(inputs.shape, c.order, c.from, c.seed)) : emptyShape,
});
