import { choice, point } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { fitValue } from '../../core/signal/fit';
import { rowsLike } from '../../core/signal/rows';

export default signalKind({
  id: 'shape-by-curve',
  label: 'Shape by Curve',
  summary: 'Looks every value up in a curve: the samples of another signal.',
  words: ['lookup', 'table', 'transfer', 'waveshape', 'map', 'function', 'easing'],
  example: { feed: { kind: 'number-line', controls: { samples: 24 } } },
  inputs: {
    in: { label: 'In', help: 'The values to look up.', carries: 'signal' },
    curve: {
      label: 'Curve',
      help: 'Its samples, first to last, are what the values become.',
      carries: 'signal',
    },
  },
  controls: {
    from: point({
      label: 'In',
      parts: ['In low', 'In high'],
      help: 'The values that find the first and the last sample of the curve.',
      default: [0, 1],
      range: [-1, 1],
    }),
    edges: choice({
      label: 'Beyond the ends',
      help: 'What values outside find.',
      options: { hold: 'Hold', wrap: 'Wrap', mirror: 'Mirror' },
      default: 'hold',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  each: () => ['in'],
  compute({ controls: c, inputs, out }) {
    const curves = inputs.curve?.lanes ?? [];
    const fit = { from: [c.from[0], c.from[1]] as [number, number], bend: 1, edges: c.edges };
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      const curve = curves[Math.min(k, curves.length - 1)]?.samples;
      for (let i = 0; i < into.length; i++) {
        if (!curve?.length) {
          into[i] = from[i];
          continue;
        }
        const at = fitValue(from[i], { ...fit, to: [0, curve.length - 1] });
        const low = Math.min(Math.floor(at), Math.max(0, curve.length - 2));
        const next = curve[Math.min(low + 1, curve.length - 1)];
        into[i] = curve[low] + (next - curve[low]) * (at - low);
      }
    });
  },
});
