import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'steps',
  label: 'Steps',
  summary: 'Rounds values to steps.',
  words: ['quantise', 'round', 'snap', 'grid', 'staircase', 'discrete'],
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
  // K04: round(v / step) x step.
  compute({ controls: c, inputs, out }) {
    const signal = inputs.in;
    const round = c.rounding === 'down' ? Math.floor : c.rounding === 'up' ? Math.ceil : Math.round;
    const lanes = out.layout(signal?.lanes.map((lane) => lane.name) ?? ['value'], signal?.length ?? 1);
    lanes.forEach((into, k) => {
      const from = signal?.lanes[k].samples;
      for (let i = 0; i < into.length; i++) {
        const value = from ? from[i] : 0;
        into[i] = c.step > 0 ? round((value - c.offset) / c.step) * c.step + c.offset : value;
      }
    });
  },
});
