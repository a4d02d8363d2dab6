import { vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { segmentShape } from '../../core/shape/curves';

export default shapeKind({
  id: 'segment',
  label: 'Segment',
  summary: 'A straight line between two places, as a row of points.',
  words: ['line', 'straight', 'row', 'edge', 'stick'],
  inputs: {},
  controls: {
    from: vector({ label: 'From', help: 'Where it begins.', default: [-0.5, 0, 0], range: [-1, 1] }),
    to: vector({ label: 'To', help: 'Where it ends.', default: [0.5, 0, 0], range: [-1, 1] }),
    points: whole({
      label: 'Points',
      help: 'How many, both ends included.',
      default: 2,
      range: [2, 256],
      min: 1,
      max: 1048576,
    }),
  },
  make: ({ controls: c }) => segmentShape(c.from, c.to, c.points),
});
