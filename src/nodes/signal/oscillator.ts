import { choice, curves, number, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { curveAt } from '../../core/signal/curve';
import { Places, sampleOrder } from '../shared/sample-order';
import { wave } from '../../core/signal/wave';
import { cyclesAt } from '../../core/time/clock';

const fullTurn = 2 * Math.PI;

export default signalKind({
  id: 'oscillator',
  label: 'Oscillator',
  summary: 'A wave that goes up and down forever, for one value or many with phases apart.',
  words: [
    'wave',
    'sine',
    'lfo',
    'pulse',
    'swing',
    'triangle',
    'square',
    'cycle',
    'loop',
    'make it loop',
    'waveform',
    'bounce',
    'strobe',
    'to and fro',
  ],
  example: { controls: { samples: 24, spread: 1 } },
  inputs: {},
  controls: {
    shape: choice({
      label: 'Shape',
      help: 'Form of one cycle.',
      options: {
        sine: 'Sine',
        triangle: 'Triangle',
        ramp: 'Ramp up',
        fall: 'Ramp down',
        square: 'Square',
        drawn: 'Drawn',
      },
      default: 'sine',
    }),
    curve: curves({
      label: 'Drawn cycle',
      help: 'One cycle, from 0 to 1 in time and -1 to 1 in height.',
      default: [
        {
          name: 'value',
          keys: [
            { at: 0, value: 0, form: 'smooth' },
            { at: 0.3, value: 1, form: 'smooth' },
            { at: 0.5, value: 0.2, form: 'smooth' },
            { at: 0.8, value: -1, form: 'smooth' },
            { at: 1, value: 0, form: 'smooth' },
          ],
        },
      ],
      span: 1,
      many: false,
      shownIf: (c) => c.shape === 'drawn',
    }),
    rate: number({
      label: 'Rate',
      help: 'Cycles a second, beats a cycle, or cycles in each round of the loop.',
      default: 0.25,
      range: [0, 4],
      many: true,
      pace: { unit: 'unit' },
    }),
    unit: choice({
      label: 'Rate in',
      help: 'Seconds, the beat of the show, or the loop of the scene.',
      options: { hertz: 'Cycles a second', beats: 'Beats a cycle', loop: 'Cycles a loop' },
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
    order: sampleOrder('Which sample is first in the spread, and which last.'),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  countOf: (c, _inputs, longest) => Math.max(c.samples, longest),
  naturalRange: (c) => {
    const size = Math.abs(Number(c.amplitude)) || 1;
    const centre = Number(c.centre) || 0;
    return [centre - size, centre + size];
  },
  moves: () => true,
  each: () => true,
  memory: () => new Places(),
  fromMotion: (motion, base) =>
    motion.type === 'swing'
      ? {
          controls: {
            shape: motion.shape,
            rate: motion.rate,
            unit: motion.unit,
            phase: motion.phase,
            amplitude: motion.amount,
            centre: base,
          },
        }
      : null,
  compute({ controls: c, moment, count, memory, out }) {
    const [into] = out.layout([c.lane || 'value'], count);
    // Where samples stand for moments, they are of as many waves as are made here.
    const own = moment.spread ? c.samples : count;
    const places = memory.of(c.order, own);
    const { rate, phase, centre, amplitude, shape, unit, width } = c;
    // One moment for all and one rate: worked out once, as patches with many copies ask for.
    const alike = rate.length === 1 && !moment.spread;
    const turns = alike ? cyclesAt(moment, rate[0], unit) : 0;
    const step = c.spread / own;
    // One plain sine with its phases apart, by far the most frequent case, goes through a loop of its own.
    if (alike && shape === 'sine' && phase.length + centre.length + amplitude.length === 3 && own === count) {
      const start = turns - Math.floor(turns) + phase[0];
      const [middle, size] = [centre[0], amplitude[0]];
      for (let i = 0; i < count; i++)
        into[i] = middle + size * Math.sin((start + step * places[i]) * fullTurn);
      return;
    }
    const keys = c.curve[0]?.keys ?? [];
    const last = (many: Float32Array): number => (many.length === 1 ? 0 : 1);
    const [ofRate, ofPhase, ofCentre, ofAmplitude] = [last(rate), last(phase), last(centre), last(amplitude)];
    for (let i = 0; i < count; i++) {
      const t =
        (alike ? turns : cyclesAt(moment, rate[i * ofRate], unit, i)) +
        phase[i * ofPhase] +
        step * places[own === count ? i : i % own];
      const height = shape === 'drawn' ? curveAt(keys, t - Math.floor(t)) : wave(shape, t, width);
      into[i] = centre[i * ofCentre] + amplitude[i * ofAmplitude] * height;
    }
  },
});
