import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { laneOf, type Signal } from '../../core/signal/signal';

const axes = ['x', 'y', 'z'] as const;

function place(signal: Signal | null, axis: number, i: number): number {
  if (!signal || (axis > 0 && signal.lanes.length <= axis)) return 0;
  const samples = laneOf(signal, axes[axis], axis)?.samples;
  return samples?.length ? samples[Math.min(i, samples.length - 1)] : 0;
}

export default signalKind({
  id: 'between',
  label: 'Between',
  summary: 'What lies between two points: the middle or any share of the way, their distance, the angle.',
  words: ['midpoint', 'distance', 'angle', 'direction', 'look at', 'average', 'lerp', 'line between'],
  inputs: {
    a: { label: 'A', help: 'The first point: lanes x, y and z.', carries: 'signal' },
    b: { label: 'B', help: 'The second point: lanes x, y and z.', carries: 'signal' },
  },
  controls: {
    gives: choice({
      label: 'Gives',
      help: 'A point on the way, how far apart they are, or the direction from A to B.',
      options: { point: 'A point', distance: 'Distance', angle: 'Angle' },
      default: 'point',
    }),
    share: number({
      label: 'Share',
      help: 'How far on the way from A to B; 0.5 is the middle.',
      default: 0.5,
      range: [0, 1],
      shownIf: (c) => c.gives === 'point',
    }),
    across: choice({
      label: 'Across is in',
      help: 'Whether x counts in picture heights, as y does, or from 0 to 1 over the width.',
      options: { heights: 'Picture heights', widths: 'Picture widths' },
      default: 'heights',
      shownIf: (c) => c.gives !== 'point',
    }),
  },
  naturalRange: (c) => (c.gives === 'angle' ? [-180, 180] : c.gives === 'distance' ? [0, 1] : [-1, 1]),
  moves: () => false,
  each: () => true,
  // In degrees counter-clockwise.
  compute({ controls: c, inputs, canvas, out }) {
    const { a, b } = inputs;
    const n = Math.max(a?.length ?? 1, b?.length ?? 1, 1);
    const isDeep = (a?.lanes.length ?? 0) > 2 || (b?.lanes.length ?? 0) > 2;
    if (c.gives === 'point') {
      const names = axes.slice(0, isDeep ? 3 : 2);
      out.layout(names, n).forEach((into, axis) => {
        for (let i = 0; i < n; i++) {
          const from = place(a, axis, i);
          into[i] = from + (place(b, axis, i) - from) * c.share;
        }
      });
      return;
    }
    const wide = c.across === 'widths' ? canvas.width / canvas.height : 1;
    const [into] = out.layout([c.gives], n);
    for (let i = 0; i < n; i++) {
      const [x, y, z] = axes.map((_, axis) => place(b, axis, i) - place(a, axis, i));
      into[i] =
        c.gives === 'distance' ? Math.hypot(x * wide, y, z) : (Math.atan2(y, x * wide) * 180) / Math.PI;
    }
  },
});
