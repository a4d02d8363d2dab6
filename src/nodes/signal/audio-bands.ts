import { bandAmplitudes, bandEdges, bandLevel } from '../../core/audio/bands';
import { number, text, vector, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { wayDone } from '../../core/time/clock';

interface Memory {
  key: string;
  edges: Float32Array;
  amplitudes: Float32Array;
  values: Float32Array;
}

export default signalKind({
  id: 'audio-bands',
  label: 'Audio Bands',
  summary: 'The sound by pitch, bass first: one smooth value for each band.',
  words: ['spectrum', 'equaliser', 'frequency', 'fft', 'bass', 'treble', 'music', 'sound', 'analyser'],
  inputs: {
    like: {
      label: 'As many as',
      help: 'Takes the number of bands from here, if something is wired.',
      carries: 'signal',
    },
  },
  controls: {
    bands: whole({
      label: 'Bands',
      help: 'How many, evenly by pitch; the first is the lowest.',
      default: 16,
      range: [1, 128],
      min: 1,
      max: 256,
    }),
    low: number({
      label: 'Lowest',
      help: 'Where the first band begins.',
      default: 40,
      range: [20, 500],
      min: 10,
      max: 20000,
      unit: 'Hz',
    }),
    high: number({
      label: 'Highest',
      help: 'Where the last band ends.',
      default: 12000,
      range: [1000, 16000],
      min: 20,
      max: 22000,
      unit: 'Hz',
    }),
    tilt: number({
      label: 'Tilt',
      help: 'Lifts treble, which is weaker than bass in most music, by so much for each octave.',
      default: 3,
      range: [0, 6],
      min: -12,
      max: 12,
      unit: 'dB',
    }),
    floor: number({
      label: 'Floor',
      help: 'What is this quiet becomes 0.',
      default: -54,
      range: [-80, -12],
      min: -120,
      max: -1,
      unit: 'dB',
    }),
    gains: vector({
      label: 'Gain',
      parts: ['Bass gain', 'Mid gain', 'Treble gain'],
      help: 'Decibels on bass (to 250 Hz), middle (to 2,500 Hz) and treble.',
      default: [0, 0, 0],
      range: [-24, 24],
      unit: 'dB',
    }),
    rise: number({
      label: 'Rise',
      help: 'Seconds in which a band covers most of the way up.',
      default: 0.03,
      range: [0, 1],
      min: 0,
      unit: 's',
    }),
    fall: number({
      label: 'Fall',
      help: 'Seconds in which a band covers most of the way down.',
      default: 0.35,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  hears: true,
  memory: (): Memory => ({
    key: '',
    edges: new Float32Array(0),
    amplitudes: new Float32Array(0),
    values: new Float32Array(0),
  }),
  compute({ controls: c, inputs, live, moment, memory, out }) {
    const n = Math.min(256, inputs.like?.length ?? c.bands);
    const key = `${n} ${c.low} ${c.high}`;
    if (memory.key !== key) {
      memory.key = key;
      memory.edges = bandEdges(n, c.low, c.high);
      if (memory.values.length !== n) {
        memory.amplitudes = new Float32Array(n);
        memory.values = new Float32Array(n);
      }
    }
    const { edges, amplitudes, values } = memory;
    bandAmplitudes(live.sound.power, live.sound.rate, edges, amplitudes);
    const shape = { tilt: c.tilt, floor: c.floor, gains: c.gains };
    const [up, down] = [wayDone(c.rise, moment.dt), wayDone(c.fall, moment.dt)];
    for (let k = 0; k < n; k++) {
      const level = bandLevel(amplitudes[k], Math.sqrt(edges[k] * edges[k + 1]), shape);
      values[k] += (level - values[k]) * (level > values[k] ? up : down);
    }
    out.layout([c.lane || 'value'], n)[0].set(values);
  },
});
