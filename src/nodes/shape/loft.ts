import { choice, toggle, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { curvesIn, loftShape } from '../../core/shape/curves';
import { checkPoints } from '../../core/shape/repeat';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'loft',
  label: 'Loft',
  summary: 'A skin stretched over curves.',
  words: ['surface', 'skin', 'sail', 'ribbon', 'curves to surface', 'nurbs', 'cover', 'hull'],
  example: { feed: { kind: 'strands', controls: { which: 'rows' } } },
  inputs: {
    curves: {
      label: 'Curves',
      help: 'The curves in the order of the skin; one shape may bring several.',
      carries: 'shape',
      many: true,
    },
  },
  controls: {
    along: whole({
      label: 'Along',
      help: 'Points along each curve, at even distances.',
      default: 48,
      range: [2, 256],
      min: 2,
      max: 2048,
    }),
    across: whole({
      label: 'Across',
      help: 'Rows from the first curve to the last.',
      default: 32,
      range: [2, 256],
      min: 2,
      max: 2048,
    }),
    between: choice({
      label: 'Between',
      help: 'Rounded ways through corresponding points, or straight ones.',
      options: { smooth: 'Rounded', straight: 'Straight' },
      default: 'smooth',
    }),
    round: toggle({ label: 'Closed', help: 'Leads from the last curve back to the first.', default: false }),
  },
  make({ controls: c, inputs, remark }) {
    const curves = inputs.curves.flatMap(curvesIn);
    checkPoints((c.along + 1) * (c.across + 1));
    const skin = loftShape(curves, c.along, c.across, c.between === 'smooth', c.round);
    if (!skin && inputs.curves.length)
      remark?.(`A skin needs two curves or more; ${curves.length === 1 ? 'one comes' : 'none come'} in.`);
    return skin ?? emptyShape;
  },
});
