import { choice, number, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { middleOf } from '../../core/shape/measure';
import { emptyShape, placeShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'place',
  label: 'Place',
  summary: 'Scales, turns and moves a shape.',
  words: ['move', 'rotate', 'scale', 'transform', 'position', 'spin', 'centre'],
  inputs: { shape: { label: 'Shape', help: 'What is placed.', carries: 'shape' } },
  controls: {
    move: vector({
      label: 'Move',
      help: 'Right, up and towards the viewer.',
      default: [0, 0, 0],
      range: [-1, 1],
    }),
    turn: vector({
      label: 'Turn',
      help: 'About x, then y, then z.',
      default: [0, 0, 0],
      range: [0, 360],
      unit: '°',
      angle: true,
    }),
    scale: number({ label: 'Scale', help: 'Size of the whole.', default: 1, range: [0, 3] }),
    stretch: vector({
      label: 'Stretch',
      help: 'Scale of each axis, on top of Scale.',
      default: [1, 1, 1],
      range: [0, 3],
    }),
    centre: choice({
      label: 'About',
      help: 'The point that scaling and turning leave in place.',
      options: { origin: 'Where 0,0,0 is', middle: 'Its own middle' },
      default: 'origin',
    }),
  },
  make({ controls: c, inputs }) {
    if (!inputs.shape) return emptyShape;
    const stretch = c.stretch.map((s) => s * c.scale);
    if (c.centre === 'origin') return placeShape(inputs.shape, c.move, c.turn, stretch);
    const at = middleOf(inputs.shape);
    const centred = placeShape(
      inputs.shape,
      at.map((v) => -v),
      [0, 0, 0],
      [1, 1, 1],
    );
    return placeShape(
      centred,
      c.move.map((v, k) => v + at[k]),
      c.turn,
      stretch,
    );
  },
});
