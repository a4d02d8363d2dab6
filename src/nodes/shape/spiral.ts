import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { spiralShape } from '../../core/shape/curves';

export default shapeKind({
  id: 'spiral',
  label: 'Spiral',
  summary: 'Points on a spiral, flat or climbing; or like the seeds of a flower, each with the same room.',
  words: ['helix', 'coil', 'spring', 'sunflower', 'golden angle', 'whirl', 'shell'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'At even angles along a line, or a golden angle apart.',
      options: { even: 'A line', golden: 'Seeds' },
      default: 'even',
    }),
    inner: number({
      label: 'Inner size',
      help: 'Diameter where it begins.',
      default: 0,
      range: [0, 2],
      min: 0,
    }),
    outer: number({
      label: 'Outer size',
      help: 'Diameter where it ends.',
      default: 0.9,
      range: [0, 2],
      min: 0,
    }),
    turns: number({
      label: 'Turns',
      help: 'How often it goes round.',
      default: 4,
      range: [0, 20],
      shownIf: (c) => c.form === 'even',
    }),
    height: number({ label: 'Depth', help: 'How far it climbs along z.', default: 0, range: [-1, 1] }),
    points: whole({
      label: 'Points',
      help: 'How many.',
      default: 240,
      range: [2, 2000],
      min: 1,
      max: 1048576,
    }),
  },
  make: ({ controls: c }) => spiralShape(c.form, c.inner / 2, c.outer / 2, c.turns, c.height, c.points),
});
