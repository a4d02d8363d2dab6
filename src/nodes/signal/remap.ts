import { choice, number, point } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { fitInPlace } from '../../core/signal/fit';
import { rowsLike } from '../../core/signal/rows';

export default signalKind({
  id: 'remap',
  label: 'Remap',
  summary: 'Brings values from one range to another.',
  words: ['range', 'scale', 'fit', 'multiply', 'add', 'invert', 'clamp', 'maths'],
  example: { feed: { kind: 'number-line' } },
  inputs: { in: { label: 'In', help: 'The values to bring over.', carries: 'signal' } },
  controls: {
    before: number({ label: 'Add before', help: 'Added to what comes in.', default: 0, range: [-1, 1] }),
    from: point({
      label: 'In',
      parts: ['In low', 'In high'],
      help: 'The values that become the two ends.',
      default: [-1, 1],
      range: [-1, 1],
    }),
    to: point({
      label: 'Out',
      parts: ['Out low', 'Out high'],
      help: 'What the ends become; high below low inverts.',
      default: [0, 1],
      range: [-1, 1],
    }),
    bend: number({
      label: 'Bend',
      help: 'Curve between the ends; 1 is straight.',
      default: 1,
      range: [0.2, 5],
      min: 0.05,
      max: 20,
    }),
    edges: choice({
      label: 'Beyond the ends',
      help: 'What happens to values outside.',
      options: { pass: 'Go on', hold: 'Hold', wrap: 'Wrap', mirror: 'Mirror' },
      default: 'pass',
    }),
    multiply: number({ label: 'Multiply', help: 'Factor on the result.', default: 1, range: [-2, 2] }),
    after: number({ label: 'Add after', help: 'Added to the result.', default: 0, range: [-1, 1] }),
  },
  naturalRange: (c) => {
    const ends = [c.to[0], c.to[1]].map((v) => v * c.multiply + c.after);
    return [Math.min(...ends), Math.max(...ends)];
  },
  moves: () => false,
  each: () => true,
  compute({ controls: c, inputs, out }) {
    const fit = {
      from: [c.from[0], c.from[1]] as [number, number],
      to: [c.to[0], c.to[1]] as [number, number],
      bend: c.bend,
      edges: c.edges,
    };
    for (const { from, into } of rowsLike(inputs.in, out)) {
      // Where nothing comes in there is nothing to map.
      if (!inputs.in) {
        into.fill(0);
        continue;
      }
      into.set(from);
      if (c.before !== 0) for (let i = 0; i < into.length; i++) into[i] += c.before;
      fitInPlace(into, fit);
      if (c.multiply !== 1 || c.after !== 0)
        for (let i = 0; i < into.length; i++) into[i] = into[i] * c.multiply + c.after;
    }
  },
});
