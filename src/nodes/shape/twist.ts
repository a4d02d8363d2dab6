import { angle, choice, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { twistShape } from '../../core/shape/deform';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'twist',
  label: 'Twist',
  summary: 'Turns a shape more and more along an axis.',
  words: ['screw', 'wring', 'spiral', 'rotate', 'deform'],
  example: {
    controls: { turn: 120 },
    feed: { kind: 'box', controls: { size: [0.3, 0.9, 0.3], divisions: 16 } },
  },
  inputs: { shape: { label: 'Shape', help: 'What is twisted.', carries: 'shape' } },
  controls: {
    axis: choice({
      label: 'Along',
      help: 'The axis it is twisted about.',
      options: { x: 'x', y: 'y', z: 'z' },
      default: 'y',
    }),
    turn: angle({ label: 'Turn', help: 'From one end to the other.', default: 90, range: [-720, 720] }),
    centre: vector({ label: 'About', help: 'A place on the axis.', default: [0, 0, 0], range: [-0.5, 0.5] }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? twistShape(inputs.shape, c.axis, c.turn, c.centre) : emptyShape,
});
