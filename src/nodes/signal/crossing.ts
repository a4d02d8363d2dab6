import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';

interface Memory {
  over: boolean[][];
}

export default signalKind({
  id: 'crossing',
  label: 'Crossing',
  summary: 'Fires when a value crosses a threshold.',
  words: ['threshold', 'trigger', 'beat detect', 'schmitt', 'compare', 'when', 'onset'],
  example: { feed: { kind: 'oscillator', controls: { samples: 12, spread: 0.5, rate: 0.5 } } },
  inputs: { in: { label: 'In', help: 'The values that are watched.', carries: 'signal' } },
  controls: {
    threshold: number({
      label: 'Threshold',
      help: 'The value that has to be crossed.',
      default: 0.5,
      range: [-1, 1],
    }),
    slack: number({
      label: 'Slack',
      help: 'How far below the threshold it has to fall before it can fire again, so that a trembling value fires once.',
      default: 0.1,
      range: [0, 1],
      min: 0,
    }),
    fires: choice({
      label: 'Fires',
      help: 'On its way up, on its way down, both ways, or high for as long as it is over.',
      options: { up: 'Upward', down: 'Downward', both: 'Both ways', over: 'While over' },
      default: 'up',
    }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  memory: (): Memory => ({ over: [] }),
  compute({ controls: c, inputs, memory, out }) {
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      const over = (memory.over[k] ??= []);
      for (let i = 0; i < into.length; i++) {
        // The first value only says on which side it starts.
        const before = over[i] ?? from[i] > c.threshold;
        const now = before ? from[i] > c.threshold - c.slack : from[i] > c.threshold;
        over[i] = now;
        const fired =
          c.fires === 'over' ? now : now !== before && (c.fires === 'both' || now === (c.fires === 'up'));
        into[i] = fired ? 1 : 0;
      }
    });
  },
});
