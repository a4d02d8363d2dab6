import { number, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { octaveNoise } from '../../core/noise';
import { loopedWay } from '../../core/time/clock';

const laneNames = ['x', 'y', 'z', 'w'];

export default signalKind({
  id: 'drift',
  label: 'Drift',
  summary: 'Smooth noise: a value that wanders softly, alone or as a row of neighbours.',
  words: ['noise', 'wander', 'wobble', 'organic', 'random', 'smooth', 'breathe', 'shake', 'handheld'],
  example: { controls: { samples: 24 } },
  inputs: {},
  controls: {
    speed: number({
      label: 'Speed',
      help: 'Changes of direction a second; 0 stands still.',
      default: 0.3,
      range: [0, 3],
      unit: '/s',
    }),
    amplitude: number({
      label: 'Amplitude',
      help: 'Reach to either side of the centre.',
      default: 1,
      range: [0, 2],
      many: true,
    }),
    centre: number({
      label: 'Centre',
      help: 'The value it wanders around.',
      default: 0,
      range: [-1, 1],
      many: true,
    }),
    octaves: whole({
      label: 'Octaves',
      help: 'Layers of finer unrest.',
      default: 1,
      range: [1, 6],
      min: 1,
      max: 10,
    }),
    roughness: number({
      label: 'Roughness',
      help: 'Strength of each finer layer.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many neighbours along the noise.',
      default: 1,
      range: [1, 256],
      min: 1,
      max: 100000,
    }),
    period: number({
      label: 'Period',
      help: 'Samples from one cloud to the next.',
      default: 8,
      range: [1, 64],
      min: 0.01,
    }),
    lanes: whole({
      label: 'Lanes',
      help: 'Independent noises: x, y, z, w.',
      default: 1,
      range: [1, 4],
      min: 1,
      max: 4,
    }),
    loop: number({
      label: 'Loop',
      help: 'Comes back to its start after this time, exactly; 0 goes on forever.',
      default: 0,
      range: [0, 16],
      min: 0,
      unit: 's',
      pace: 'period',
    }),
    seed: whole({ label: 'Seed', help: 'Another noise of the same form.', default: 1, range: [1, 99] }),
    lane: text({ label: 'Lane', help: 'Name of the lane, if there is one only.', default: 'value' }),
  },
  countOf: (c, _inputs, longest) => Math.max(c.samples, longest),
  naturalRange: (c) => {
    const size = Math.abs(Number(c.amplitude)) || 1;
    const centre = Number(c.centre) || 0;
    return [centre - size, centre + size];
  },
  moves: (c) => c.speed !== 0,
  each: () => true,
  fromMotion: (motion, base) =>
    motion.type === 'wander'
      ? {
          controls: {
            speed: motion.speed,
            seed: motion.seed,
            amplitude: motion.amount,
            centre: base,
            octaves: 2,
          },
        }
      : null,
  compute({ controls: c, moment, count, out }) {
    const names = c.lanes === 1 ? [c.lane || 'value'] : laneNames.slice(0, c.lanes);
    const lanes = out.layout(names, count);
    const own = moment.spread ? c.samples : count;
    let [y, z] = loopedWay(moment, c.speed, c.loop);
    lanes.forEach((into, lane) => {
      const start = c.seed * 71.7 + lane * 1013.3;
      for (let i = 0; i < count; i++) {
        if (moment.spread) [y, z] = loopedWay(moment, c.speed, c.loop, i);
        const value = octaveNoise(start + (i % own) / c.period, y + 0.37, z + 0.71, c.octaves, c.roughness);
        // Gradient noise seldom passes 0.8, so it is opened to the range it promises.
        const wide = Math.max(-1, Math.min(1, value * 1.25));
        into[i] =
          c.centre[c.centre.length === 1 ? 0 : i] + c.amplitude[c.amplitude.length === 1 ? 0 : i] * wide;
      }
    });
  },
});
