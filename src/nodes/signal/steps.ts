import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';

export default signalKind({
  id: 'steps',
  label: 'Steps',
  summary: 'Rounds values to steps.',
  words: ['quantise', 'round', 'snap', 'grid', 'staircase', 'discrete'],
  example: { feed: { kind: 'number-line' } },
  inputs: { in: { label: 'In', help: 'The values to round.', carries: 'signal' } },
  controls: {
    step: number({
      label: 'Step',
      help: 'Distance from one step to the next; 0 leaves values as they are.',
      default: 0.1,
      range: [0, 1],
      min: 0,
    }),
    offset: number({ label: 'Offset', help: 'Where one of the steps lies.', default: 0, range: [-1, 1] }),
    rounding: choice({
      label: 'Rounding',
      help: 'To which step a value goes.',
      options: { nearest: 'Nearest', down: 'Down', up: 'Up' },
      default: 'nearest',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  each: () => true,
  // round(v / step) x step.
  compute({ controls: c, inputs, out }) {
    const { step, offset, rounding } = c;
    for (const { from, into } of rowsLike(inputs.in, out)) {
      if (step <= 0) into.set(from);
      else if (rounding === 'nearest')
        for (let i = 0; i < into.length; i++) into[i] = Math.round((from[i] - offset) / step) * step + offset;
      else {
        const round = rounding === 'down' ? Math.floor : Math.ceil;
        for (let i = 0; i < into.length; i++) into[i] = round((from[i] - offset) / step) * step + offset;
      }
    }
  },
});
