import { choice, number, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { facesOf } from '../../core/shape/measure';
import { orderOf, orderStart, pointOrders } from '../shared/point-order';
import { panelPivots, panelsShape } from '../../core/shape/panels';
import { checkPoints } from '../../core/shape/repeat';
import { emptyShape, faceCount, pickPoints, type Shape } from '../../core/shape/shape';

export default shapeKind({
  id: 'panels',
  label: 'Panels',
  summary: 'The faces of a shape as pieces apart, each with its own pivot, thickness and part of a picture.',
  words: ['explode', 'pieces', 'tiles', 'shatter', 'faces', 'split', 'cells', 'facade', 'extrude faces'],
  example: {
    controls: { depth: 0.05, push: 0.05 },
    feed: { kind: 'polyhedron', controls: { solid: 'truncatedIcosahedron' } },
  },
  inputs: { shape: { label: 'Shape', help: 'Whose faces become pieces.', carries: 'shape' } },
  controls: {
    push: number({
      label: 'Push',
      help: 'How far each piece is moved along its normal.',
      default: 0,
      range: [0, 0.5],
      many: true,
    }),
    size: number({
      label: 'Size',
      help: 'Of each piece, about its pivot.',
      default: 0.9,
      range: [0, 1.5],
      many: true,
    }),
    turn: vector({
      label: 'Turn',
      help: 'About its pivot: right, up and outward axes of the piece.',
      default: [0, 0, 0],
      range: [-180, 180],
      unit: '°',
      angle: true,
      many: true,
    }),
    depth: number({
      label: 'Depth',
      help: 'Thickness of each piece, inward from its surface.',
      default: 0,
      range: [0, 0.5],
      many: true,
    }),
    picture: choice({
      label: 'Picture',
      help: 'One across all pieces, which travels with them, or whole on each.',
      options: { across: 'Across all', each: 'Whole on each' },
      default: 'across',
    }),
    order: choice({
      label: 'Numbered',
      help: 'The order in which numbers go to the pieces.',
      options: pointOrders,
      default: 'none',
    }),
    ...orderStart,
    gives: choice({
      label: 'Gives',
      help: 'The pieces, or their pivots as points for copies to stand on.',
      options: { pieces: 'Pieces', pivots: 'Pivots' },
      default: 'pieces',
    }),
  },
  countOf: (_c, inputs) => (inputs.shape ? faceCount(inputs.shape as Shape) : 1),
  make({ controls: c, inputs, remark }) {
    if (!inputs.shape) return emptyShape;
    const faces = facesOf(inputs.shape);
    if (faces.length === 0) {
      remark?.('The shape has no faces to take apart.');
      return emptyShape;
    }
    checkPoints(faces.length * 24);
    const pivots = panelPivots(inputs.shape, faces);
    const order = orderOf(pivots, c.order, c.from, c.seed);
    if (c.gives === 'pivots') return pickPoints(pivots, order);
    return panelsShape(inputs.shape, faces, order, c, c.picture);
  },
});
