import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { strutsShape } from '../../core/shape/struts';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'struts',
  label: 'Struts',
  summary: 'The edges of a shape as thin solids, or as diamonds that tile it in another way.',
  words: ['wireframe', 'bars', 'frame', 'truss', 'scaffold', 'diamond', 'rods', 'cage'],
  example: {
    controls: { width: 0.02 },
    feed: { kind: 'polyhedron', controls: { solid: 'truncatedIcosahedron' } },
  },
  inputs: { shape: { label: 'Shape', help: 'Whose edges are taken.', carries: 'shape' } },
  controls: {
    form: choice({
      label: 'Form',
      help: 'Bars, spindles that are thick in the middle, or flat diamonds between the middles of the faces.',
      options: { bars: 'Bars', spindles: 'Spindles', diamonds: 'Diamonds' },
      default: 'bars',
    }),
    width: number({
      label: 'Thickness',
      help: 'Across the bar, or across the middle of the spindle.',
      default: 0.012,
      range: [0, 0.1],
      min: 0,
      shownIf: (c) => c.form !== 'diamonds',
    }),
    sides: whole({
      label: 'Sides',
      help: 'Of each bar.',
      default: 4,
      range: [3, 12],
      min: 3,
      max: 32,
      shownIf: (c) => c.form === 'bars',
    }),
    gap: number({
      label: 'Gap',
      help: 'How much each is shortened toward its middle.',
      default: 0,
      range: [0, 0.9],
      min: 0,
      max: 1,
    }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? strutsShape(inputs.shape, c.form, c.width, c.sides, c.gap) : emptyShape,
});
