import { choice, number, point } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { taperShape } from '../../core/shape/deform';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'taper',
  label: 'Taper',
  summary: 'Makes a shape thinner or thicker along an axis.',
  words: ['cone', 'narrow', 'widen', 'bulge', 'pinch', 'deform'],
  example: { feed: { kind: 'box', controls: { size: [0.5, 0.8, 0.5], divisions: 16 } } },
  inputs: { shape: { label: 'Shape', help: 'What is tapered.', carries: 'shape' } },
  controls: {
    axis: choice({
      label: 'Along',
      help: 'The axis along which the thickness changes.',
      options: { x: 'x', y: 'y', z: 'z' },
      default: 'y',
    }),
    ends: point({
      label: 'Low, high end',
      help: 'Thickness of the ends, compared to what comes in.',
      default: [1, 0.3],
      range: [0, 2],
    }),
    bulge: number({ label: 'Bulge', help: 'Added in the middle.', default: 0, range: [-1, 1] }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? taperShape(inputs.shape, c.axis, c.ends, c.bulge) : emptyShape,
});
