import { decibels } from '../../core/audio/bands';
import { choice, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { wayDone } from '../../core/time/clock';

export default signalKind({
  id: 'audio-level',
  label: 'Audio Level',
  summary: 'How loud the sound is, as one smooth value.',
  words: ['volume', 'sound', 'loudness', 'music', 'microphone', 'amplitude', 'meter', 'rms'],
  inputs: {},
  controls: {
    measure: choice({
      label: 'Measures',
      help: 'The loudness as it is felt, or the peaks.',
      options: { loudness: 'Loudness', peak: 'Peaks' },
      default: 'loudness',
    }),
    scale: choice({
      label: 'Scale',
      help: 'Decibels follow the ear; plain values follow the membrane.',
      options: { decibels: 'Decibels', plain: 'Plain' },
      default: 'decibels',
    }),
    floor: number({
      label: 'Floor',
      help: 'What is this quiet becomes 0.',
      default: -48,
      range: [-80, -12],
      min: -120,
      max: -1,
      unit: 'dB',
      shownIf: (c) => c.scale === 'decibels',
    }),
    gain: number({
      label: 'Gain',
      help: 'Makes quiet sound count for more.',
      default: 0,
      range: [-24, 24],
      unit: 'dB',
    }),
    rise: number({
      label: 'Rise',
      help: 'Seconds in which it covers most of the way up.',
      default: 0.02,
      range: [0, 1],
      min: 0,
      unit: 's',
    }),
    fall: number({
      label: 'Fall',
      help: 'Seconds in which it covers most of the way down.',
      default: 0.3,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  hears: true,
  memory: () => ({ value: 0 }),
  compute({ controls: c, live, moment, memory, out }) {
    // A full sine counts as 1 either way.
    const raw = c.measure === 'peak' ? live.sound.peak : live.sound.level * Math.SQRT2;
    const amplitude = raw * Math.pow(10, c.gain / 20);
    const level =
      c.scale === 'plain' ? amplitude : Math.min(1, Math.max(0, (decibels(amplitude) - c.floor) / -c.floor));
    memory.value += (level - memory.value) * wayDone(level > memory.value ? c.rise : c.fall, moment.dt);
    out.layout([c.lane || 'value'], 1)[0][0] = memory.value;
  },
});
