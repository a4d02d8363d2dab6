import { choice, number, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'number-line',
  label: 'Number Line',
  summary: 'Even steps from one value to another, a sample each.',
  words: ['range', 'list', 'count', 'index', 'even', 'linspace', 'series'],
  inputs: {},
  controls: {
    from: number({ label: 'From', help: 'The first value.', default: 0, range: [-1, 1] }),
    to: number({
      label: 'To',
      help: 'The last value, or the one it would come to next.',
      default: 1,
      range: [-1, 1],
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many values.',
      default: 16,
      range: [1, 256],
      min: 1,
      max: 1000000,
    }),
    end: choice({
      label: 'End',
      help: 'With the end for a range; without it for anything that goes round; there and back again from the middle.',
      options: {
        with: 'Reaches the end',
        without: 'Stops one before (for cycles)',
        mirror: 'There and back',
      },
      default: 'with',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) => [Math.min(c.from, c.to), Math.max(c.from, c.to)],
  moves: () => false,
  // i / (n - 1) for a range with ends, i / n for what is cyclic.
  compute({ controls: c, out }) {
    const n = c.samples;
    const [into] = out.layout([c.lane || 'value'], n);
    const half = Math.ceil(n / 2);
    const steps = c.end === 'with' ? Math.max(1, n - 1) : c.end === 'mirror' ? Math.max(1, half - 1) : n;
    for (let i = 0; i < n; i++) {
      const k = c.end === 'mirror' ? Math.min(i, n - 1 - i) : i;
      into[i] = c.from + ((c.to - c.from) * k) / steps;
    }
  },
});
