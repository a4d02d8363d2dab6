import { angle, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { ringShape } from '../../core/shape/make';

export default shapeKind({
  id: 'ring',
  label: 'Ring',
  summary: 'A circle of points, an arc of it, or a flat band.',
  words: ['circle', 'arc', 'loop', 'half circle', 'disc', 'band'],
  inputs: {},
  controls: {
    size: number({ label: 'Size', help: 'Outer diameter.', default: 0.8, range: [0, 2], min: 0 }),
    points: whole({
      label: 'Points',
      help: 'How many; three make a triangle, six a hexagon.',
      default: 64,
      range: [3, 128],
      min: 2,
      max: 4096,
    }),
    start: angle({
      label: 'Start',
      help: 'Where the arc begins, counter-clockwise from the right.',
      default: 0,
      range: [0, 360],
    }),
    arc: angle({
      label: 'Arc',
      help: 'Part of the turn that is drawn.',
      default: 360,
      range: [0, 360],
      min: 0,
      max: 360,
    }),
    inner: number({
      label: 'Inner size',
      help: 'As a share of the outer; 0 is a line, more is a band with faces.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    anchor,
  },
  make: ({ controls: c }) => anchored(ringShape(c.size / 2, c.inner, c.points, c.start, c.arc), c.anchor),
});
