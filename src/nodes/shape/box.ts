import { vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { boxShape } from '../../core/shape/make';

export default shapeKind({
  id: 'box',
  label: 'Box',
  summary: 'A box with its own width, height and depth.',
  words: ['cube', 'block', 'brick'],
  inputs: {},
  controls: {
    size: vector({
      label: 'Size',
      help: 'Width, height and depth.',
      default: [0.6, 0.6, 0.6],
      range: [0, 2],
      min: 0,
    }),
    divisions: whole({
      label: 'Divisions',
      help: 'Cells along each edge.',
      default: 1,
      range: [1, 16],
      min: 1,
      max: 128,
    }),
    anchor,
  },
  make: ({ controls: c }) => anchored(boxShape(c.size, c.divisions), c.anchor),
});
