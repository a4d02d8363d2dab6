import { angle, choice } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { bendShape } from '../../core/shape/deform';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'bend',
  label: 'Bend',
  summary: 'Bends a shape into a part of a circle.',
  words: ['curve', 'curl', 'arch', 'fold', 'deform'],
  example: { feed: { kind: 'box', controls: { size: [0.2, 0.9, 0.3], divisions: 16 } } },
  inputs: { shape: { label: 'Shape', help: 'What is bent.', carries: 'shape' } },
  controls: {
    axis: choice({
      label: 'Along',
      help: 'The axis that becomes an arc.',
      options: { x: 'x', y: 'y', z: 'z' },
      default: 'y',
    }),
    toward: choice({
      label: 'Toward',
      help: 'The side it bends to; the same axis as Along leaves it straight.',
      options: { x: 'x', y: 'y', z: 'z' },
      default: 'x',
    }),
    turn: angle({ label: 'Angle', help: 'Of the arc, from end to end.', default: 90, range: [-360, 360] }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? bendShape(inputs.shape, c.axis, c.toward, c.turn) : emptyShape,
});
