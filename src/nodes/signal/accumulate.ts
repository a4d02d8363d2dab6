import { choice, number, point } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike, Triggers } from '../../core/signal/rows';
import { fitValue } from '../../core/signal/fit';

interface Memory {
  reached: Float64Array[];
  again: Triggers;
}

export default signalKind({
  id: 'accumulate',
  label: 'Accumulate',
  summary: 'Adds values up over time: a speed becomes a place that never jumps when the speed changes.',
  words: ['integrate', 'sum', 'speed', 'position', 'total', 'spin', 'scroll'],
  inputs: {
    in: { label: 'Speed', help: 'How much is added a second.', carries: 'signal' },
    restart: {
      label: 'Restart',
      help: 'Goes back to the start when it rises over a half.',
      carries: 'signal',
    },
  },
  controls: {
    factor: number({ label: 'Factor', help: 'On the speed.', default: 1, range: [-4, 4] }),
    start: number({ label: 'Start', help: 'The value it begins at.', default: 0, range: [-1, 1] }),
    ends: choice({
      label: 'At the ends',
      help: 'Whether it has ends, and what happens there.',
      options: { none: 'Has none', wrap: 'Wrap', hold: 'Hold', mirror: 'To and fro' },
      default: 'none',
    }),
    range: point({
      label: 'Range',
      parts: ['Low', 'High'],
      help: 'The ends.',
      default: [0, 1],
      range: [-1, 1],
      shownIf: (c) => c.ends !== 'none',
    }),
  },
  naturalRange: (c) => (c.ends === 'none' ? [0, 1] : [c.range[0], c.range[1]]),
  endless: (c) => c.ends === 'none',
  moves: () => true,
  memory: (): Memory => ({ reached: [], again: new Triggers() }),
  compute({ controls: c, inputs, moment, memory, out }) {
    const restarts = memory.again.anyRose(inputs.restart);
    const [low, high] = [Math.min(...c.range), Math.max(...c.range)];
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      let reached = memory.reached[k];
      if (reached?.length !== into.length)
        reached = memory.reached[k] = new Float64Array(into.length).fill(c.start);
      else if (restarts) reached.fill(c.start);
      for (let i = 0; i < into.length; i++) {
        const next = reached[i] + from[i] * c.factor * moment.dt;
        // One that is held at an end leaves it as soon as the speed turns.
        reached[i] = c.ends === 'hold' ? Math.min(high, Math.max(low, next)) : next;
        into[i] =
          c.ends === 'wrap' || c.ends === 'mirror'
            ? fitValue(reached[i], { from: [low, high], to: [low, high], bend: 1, edges: c.ends })
            : reached[i];
      }
    });
  },
});
