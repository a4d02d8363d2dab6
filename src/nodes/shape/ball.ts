import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { ballShape, evenBall } from '../../core/shape/make';

export default shapeKind({
  id: 'ball',
  label: 'Ball',
  summary: 'A sphere of rings and segments, or of points spread evenly.',
  words: ['sphere', 'globe', 'planet', 'round', 'dots'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'Rings and segments have lines and faces; even points have none.',
      options: { rings: 'Rings and segments', even: 'Even points' },
      default: 'rings',
    }),
    size: number({ label: 'Size', help: 'Diameter.', default: 0.8, range: [0, 2], min: 0 }),
    rings: whole({
      label: 'Rings',
      help: 'Cells from pole to pole.',
      default: 24,
      range: [2, 64],
      min: 2,
      max: 512,
      shownIf: (c) => c.form === 'rings',
    }),
    segments: whole({
      label: 'Segments',
      help: 'Cells around.',
      default: 48,
      range: [3, 128],
      min: 3,
      max: 1024,
      shownIf: (c) => c.form === 'rings',
    }),
    points: whole({
      label: 'Points',
      help: 'How many.',
      default: 200,
      range: [1, 2000],
      min: 1,
      max: 200000,
      shownIf: (c) => c.form === 'even',
    }),
    anchor,
  },
  make: ({ controls: c }) =>
    anchored(
      c.form === 'even' ? evenBall(c.size / 2, c.points) : ballShape(c.size / 2, c.rings, c.segments),
      c.anchor,
    ),
});
