import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { curvesIn, curvesShape, evenCurve, lengthOf, smoothCurve } from '../../core/shape/curves';
import { checkPoints } from '../../core/shape/repeat';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'resample-curve',
  label: 'Resample Curve',
  summary: 'The points of a curve at even distances, as many as wanted.',
  words: ['even', 'points on curve', 'density', 'subdivide', 'simplify', 'spacing'],
  example: { feed: { kind: 'ring', controls: { points: 5 } } },
  inputs: { shape: { label: 'Curve', help: 'One curve or several.', carries: 'shape' } },
  controls: {
    by: choice({
      label: 'By',
      help: 'So many points on each, or one every so often.',
      options: { count: 'Count', distance: 'Distance' },
      default: 'count',
    }),
    count: whole({
      label: 'Points',
      help: 'On each curve.',
      default: 64,
      range: [2, 512],
      min: 2,
      max: 65536,
      shownIf: (c) => c.by === 'count',
    }),
    distance: number({
      label: 'Distance',
      help: 'From point to point.',
      default: 0.05,
      range: [0.005, 0.5],
      min: 0.0001,
      shownIf: (c) => c.by === 'distance',
    }),
    round: whole({
      label: 'Rounded',
      help: 'Rounds the curve first, with so many points between two.',
      default: 0,
      range: [0, 12],
      min: 0,
      max: 64,
    }),
  },
  make({ controls: c, inputs }) {
    if (!inputs.shape) return emptyShape;
    const curves = curvesIn(inputs.shape).map((curve) => smoothCurve(curve, c.round));
    const counts = curves.map((curve) =>
      c.by === 'count'
        ? c.count
        : Math.max(2, Math.round(lengthOf(curve) / c.distance) + (curve.closed ? 0 : 1)),
    );
    checkPoints(counts.reduce((sum, count) => sum + count, 0));
    return curvesShape(curves.map((curve, k) => evenCurve(curve, counts[k])));
  },
});
