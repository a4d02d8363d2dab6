import { number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { torusShape } from '../../core/shape/solids';

export default shapeKind({
  id: 'torus',
  label: 'Torus',
  summary: 'A tube bent round to a ring.',
  words: ['donut', 'ring', 'wheel', 'tyre', 'hoop'],
  inputs: {},
  controls: {
    size: number({ label: 'Size', help: 'Outer diameter.', default: 0.8, range: [0, 2], min: 0 }),
    tube: number({
      label: 'Tube',
      help: 'Thickness of the tube, as a share of the outer size.',
      default: 0.25,
      range: [0.01, 0.5],
      min: 0,
      max: 0.5,
    }),
    segments: whole({
      label: 'Segments',
      help: 'Cells around the ring.',
      default: 64,
      range: [3, 128],
      min: 3,
      max: 1024,
    }),
    sides: whole({
      label: 'Sides',
      help: 'Cells around the tube.',
      default: 24,
      range: [3, 64],
      min: 3,
      max: 512,
    }),
    anchor,
  },
  make({ controls: c }) {
    const tube = (c.size / 2) * c.tube;
    return anchored(torusShape(c.size / 2 - tube, tube, c.segments, c.sides), c.anchor);
  },
});
