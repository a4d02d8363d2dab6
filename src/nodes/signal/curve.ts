import { curves, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { curveAt, valuesOfCurves } from '../../core/signal/curve';

export default signalKind({
  id: 'curve',
  label: 'Curve',
  summary: 'A drawn curve as a row of samples: for looking values up, for delays, for sizes along a row.',
  words: ['shape', 'function', 'lookup', 's curve', 'ease', 'profile', 'draw', 'graph', 'falloff'],
  inputs: {
    like: {
      label: 'As many as',
      help: 'Takes the number of samples from here, if something is wired.',
      carries: 'signal',
    },
  },
  controls: {
    curve: curves({
      label: 'Curve',
      help: 'From 0 to 1 in time.',
      default: [
        {
          name: 'value',
          keys: [
            { at: 0, value: 0, form: 'smooth' },
            { at: 1, value: 1, form: 'smooth' },
          ],
        },
      ],
      span: 1,
      many: false,
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many values are read off it, both ends included.',
      default: 32,
      range: [2, 256],
      min: 1,
      max: 100000,
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) => valuesOfCurves(c.curve),
  moves: () => false,
  compute({ controls: c, inputs, out }) {
    const n = inputs.like?.length ?? c.samples;
    const [into] = out.layout([c.lane || 'value'], n);
    const keys = c.curve[0]?.keys ?? [];
    for (let i = 0; i < n; i++) into[i] = curveAt(keys, n > 1 ? i / (n - 1) : 0);
  },
});
