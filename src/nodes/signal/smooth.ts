import { number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';
import { wayDone } from '../../core/time/clock';

const time = (label: string, help: string) =>
  number({ label, help, default: 0.3, range: [0, 2], min: 0, max: 60, unit: 's' });

export default signalKind({
  id: 'smooth',
  label: 'Smooth',
  summary: 'Lets values follow softly, rising and falling in their own time.',
  words: ['lag', 'ease', 'filter', 'slew', 'damp', 'soften', 'average', 'follow'],
  example: { feed: { kind: 'random-walk', controls: { samples: 12, smooth: false, step: 1 } } },
  inputs: { in: { label: 'In', help: 'The values to follow.', carries: 'signal' } },
  controls: {
    rise: time('Rise', 'Seconds for 95 % of the way up; 0 follows at once.'),
    fall: time('Fall', 'Seconds for 95 % of the way down; 0 follows at once.'),
  },
  naturalRange: () => [-1, 1],
  moves: () => true,
  memory: (): { before: Float32Array[] } => ({ before: [] }),
  compute({ controls: c, inputs, moment, memory, out }) {
    const [up, down] = [wayDone(c.rise, moment.dt), wayDone(c.fall, moment.dt)];
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      const before = memory.before[k];
      if (before?.length === into.length) {
        for (let i = 0; i < into.length; i++) {
          const was = before[i];
          into[i] = before[i] = was + (from[i] - was) * (from[i] > was ? up : down);
        }
      } else {
        // What is new starts where it is, instead of rising from 0.
        memory.before[k] = from.slice(0, into.length);
        into.set(memory.before[k]);
      }
    });
  },
});
