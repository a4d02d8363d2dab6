import { number, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { gatherShape } from '../../core/shape/deform';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'gather',
  label: 'Gather',
  summary: 'Draws points toward a place, or toward another shape; or drives them away.',
  words: ['attract', 'pull', 'magnet', 'suck', 'repel', 'pinch', 'morph', 'shrink wrap', 'explode'],
  example: { controls: { place: [0.4, 0.3, 0.2], strength: 0.8, radius: 0.5 } },
  inputs: {
    shape: { label: 'Shape', help: 'Whose points are drawn.', carries: 'shape' },
    to: {
      label: 'To',
      help: 'Each point goes toward the nearest point of this one, instead of the place.',
      carries: 'shape',
    },
  },
  controls: {
    place: vector({ label: 'Place', help: 'Where the points go to.', default: [0, 0, 0], range: [-1, 1] }),
    strength: number({
      label: 'Strength',
      help: 'Share of the way; 1 arrives, below 0 drives away.',
      default: 0.5,
      range: [-1, 1],
    }),
    radius: number({
      label: 'Radius',
      help: 'Points farther away stay where they are.',
      default: 0.6,
      range: [0, 2],
      min: 0,
    }),
    soft: number({
      label: 'Softness',
      help: 'Share of the radius over which it fades.',
      default: 1,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? gatherShape(inputs.shape, c.place, inputs.to, c.strength, c.radius, c.soft) : emptyShape,
});
