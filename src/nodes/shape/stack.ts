import { choice, number, vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { middleOf } from '../../core/shape/measure';
import { stackShape } from '../../core/shape/repeat';
import { emptyShape, placeShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'stack',
  label: 'Stack',
  summary: 'A shape many times, each moved, turned and scaled on from the last.',
  words: ['repeat', 'array', 'tower', 'stairs', 'iterate', 'spiral stairs'],
  example: {
    controls: { count: 14, turn: [0, 14, 0], move: [0, 0.06, 0] },
    feed: { kind: 'box', controls: { size: [0.6, 0.05, 0.2] } },
  },
  inputs: { shape: { label: 'Shape', help: 'What is repeated.', carries: 'shape' } },
  controls: {
    count: whole({
      label: 'Count',
      help: 'How many, the first included.',
      default: 8,
      range: [1, 64],
      min: 1,
      max: 4096,
    }),
    move: vector({
      label: 'Move',
      help: 'From each to the next, in its own frame.',
      default: [0, 0.1, 0],
      range: [-0.5, 0.5],
    }),
    turn: vector({
      label: 'Turn',
      help: 'Each on from the last, about x, then y, then z.',
      default: [0, 0, 0],
      range: [-90, 90],
      unit: '°',
      angle: true,
    }),
    scale: number({
      label: 'Scale',
      help: 'Size of each compared to the last.',
      default: 1,
      range: [0.5, 1.5],
    }),
    centre: choice({
      label: 'Stands',
      help: 'The first at its place, or the whole stack centred.',
      options: { middle: 'Centred', first: 'First in place' },
      default: 'middle',
    }),
  },
  make({ controls: c, inputs }) {
    if (!inputs.shape) return emptyShape;
    const stack = stackShape(inputs.shape, c.count, c.move, c.turn, [c.scale, c.scale, c.scale]);
    if (c.centre === 'first') return stack;
    return placeShape(
      stack,
      middleOf(stack).map((v) => -v),
      [0, 0, 0],
      [1, 1, 1],
    );
  },
});
