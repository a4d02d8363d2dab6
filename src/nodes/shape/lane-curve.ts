import { number, toggle, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { smoothCurve } from '../../core/shape/curves';
import { pointShape, stripLines } from '../../core/shape/shape';
import type { Signal } from '../../core/signal/signal';

function axis(signal: Signal, name: string, index: number): Float32Array | null {
  return signal.lanes.find((lane) => lane.name === name)?.samples ?? signal.lanes[index]?.samples ?? null;
}

export default shapeKind({
  id: 'lane-curve',
  label: 'Lane Curve',
  summary: 'A curve through the samples of a signal: its lanes are x, y and z.',
  words: ['line', 'stroke', 'path', 'plot', 'trace', 'numbers to shape', 'string'],
  inputs: {
    in: {
      label: 'Lanes',
      help: 'Lanes x, y and z by name, else in their order; a sample a point.',
      carries: 'signal',
    },
  },
  controls: {
    scale: vector({ label: 'Scale', help: 'Factor on each axis.', default: [0.5, 0.5, 0.5], range: [0, 2] }),
    smooth: number({
      label: 'Smooth',
      help: 'Points put between two samples on a rounded curve.',
      default: 0,
      range: [0, 8],
      min: 0,
      max: 64,
    }),
    closed: toggle({ label: 'Closed', help: 'Joins the last point to the first.', default: false }),
  },
  make({ controls: c, inputs }) {
    const signal = inputs.in;
    if (!signal || signal.length === 0) return pointShape(new Float32Array(0));
    const axes = ['x', 'y', 'z'].map((name, k) => axis(signal, name, k));
    const points = new Float32Array(3 * signal.length);
    for (let i = 0; i < signal.length; i++)
      for (let k = 0; k < 3; k++) points[3 * i + k] = (axes[k]?.[i] ?? 0) * c.scale[k];
    const { points: positions } = smoothCurve({ points, closed: c.closed }, Math.round(c.smooth));
    return pointShape(positions, Uint32Array.from(stripLines(positions.length / 3, c.closed)));
  },
});
