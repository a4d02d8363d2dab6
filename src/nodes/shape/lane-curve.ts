import { number, toggle, vector } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
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
    const n = signal.length;
    const at = (k: number, i: number): number => {
      const j = c.closed ? ((i % n) + n) % n : Math.min(n - 1, Math.max(0, i));
      return (axes[k]?.[j] ?? 0) * c.scale[k];
    };
    const between = Math.round(c.smooth) + 1;
    const pieces = c.closed ? n : n - 1;
    const count = c.closed ? pieces * between : pieces * between + 1;
    const positions = new Float32Array(count * 3);
    for (let i = 0; i < count; i++) {
      const base = Math.floor(i / between);
      const t = (i % between) / between;
      for (let k = 0; k < 3; k++) {
        // Catmull-Rom: through every sample, its direction taken from the neighbours.
        const [a, b, d, e] = [at(k, base - 1), at(k, base), at(k, base + 1), at(k, base + 2)];
        positions[3 * i + k] =
          t === 0
            ? b
            : 0.5 *
              (2 * b +
                (d - a) * t +
                (2 * a - 5 * b + 4 * d - e) * t * t +
                (3 * b - a - 3 * d + e) * t * t * t);
      }
    }
    return pointShape(positions, Uint32Array.from(stripLines(count, c.closed)));
  },
});
