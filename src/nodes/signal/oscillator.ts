import { choice, number, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { wave } from '../../core/signal/wave';
import { cyclesAt } from '../../core/time/clock';

export default signalKind({
  id: 'oscillator',
  label: 'Oscillator',
  summary: 'A wave that goes up and down for ever, for one value or many with phases apart.',
  words: ['wave', 'sine', 'lfo', 'pulse', 'swing', 'triangle', 'square', 'cycle', 'loop', 'make it loop'],
  inputs: {},
  controls: {
    shape: choice({
      label: 'Shape',
      help: 'Form of one cycle.',
      options: { sine: 'Sine', triangle: 'Triangle', ramp: 'Ramp up', fall: 'Ramp down', square: 'Square' },
      default: 'sine',
    }),
    rate: number({
      label: 'Rate',
      help: 'Cycles a second, or beats a cycle.',
      default: 0.25,
      range: [0, 4],
      many: true,
    }),
    unit: choice({
      label: 'Rate in',
      help: 'Seconds, or the beat of the show.',
      options: { hertz: 'Cycles a second', beats: 'Beats a cycle' },
      default: 'hertz',
    }),
    amplitude: number({
      label: 'Amplitude',
      help: 'Height of the wave above its centre.',
      default: 1,
      range: [0, 2],
      many: true,
    }),
    centre: number({
      label: 'Centre',
      help: 'The value it swings around.',
      default: 0,
      range: [-1, 1],
      many: true,
    }),
    phase: number({
      label: 'Phase',
      help: 'Where in the cycle it starts, in turns.',
      default: 0,
      range: [0, 1],
      many: true,
    }),
    width: number({
      label: 'Width',
      help: 'Share of the cycle that is high.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.shape === 'square',
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many waves, one for each copy.',
      default: 1,
      range: [1, 256],
      min: 1,
      max: 100000,
    }),
    spread: number({
      label: 'Phase spread',
      help: 'Turns between the first and one past the last sample; 1 spreads them evenly over the cycle.',
      default: 0,
      range: [0, 1],
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  countOf: (c, _inputs, longest) => Math.max(c.samples, longest),
  naturalRange: (c) => {
    const size = Math.abs(Number(c.amplitude)) || 1;
    const centre = Number(c.centre) || 0;
    return [centre - size, centre + size];
  },
  moves: () => true,
  compute({ controls: c, moment, count, out }) {
    const [into] = out.layout([c.lane || 'value'], count);
    const at = (many: Float32Array, i: number): number => many[many.length === 1 ? 0 : i];
    for (let i = 0; i < count; i++) {
      const turns = cyclesAt(moment, at(c.rate, i), c.unit);
      const t = turns + at(c.phase, i) + (c.spread * i) / count;
      into[i] = at(c.centre, i) + at(c.amplitude, i) * wave(c.shape, t, c.width);
    }
  },
});
