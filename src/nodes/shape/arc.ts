import { toggle, vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { arcThrough } from '../../core/shape/curves';

export default shapeKind({
  id: 'arc',
  label: 'Arc',
  summary: 'The part of a circle that leads through three places.',
  words: ['curve', 'circle through points', 'bow', 'three points'],
  inputs: {},
  controls: {
    from: vector({ label: 'From', help: 'Where it begins.', default: [-0.5, -0.2, 0], range: [-1, 1] }),
    by: vector({ label: 'By', help: 'A place it leads through.', default: [0, 0.2, 0], range: [-1, 1] }),
    to: vector({ label: 'To', help: 'Where it ends.', default: [0.5, -0.2, 0], range: [-1, 1] }),
    points: whole({ label: 'Points', help: 'How many.', default: 32, range: [3, 256], min: 3, max: 65536 }),
    whole: toggle({ label: 'Whole circle', help: 'Goes on round to where it began.', default: false }),
  },
  make: ({ controls: c }) => arcThrough(c.from, c.by, c.to, c.points, c.whole),
});
