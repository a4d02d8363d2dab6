import { number, point, text, toggle, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { Walk } from '../../core/signal/walk';

export default signalKind({
  id: 'random-walk',
  label: 'Random Walk',
  summary: 'A value that takes a random step at every tick and turns back at its ends.',
  words: ['wander', 'brownian', 'drunk', 'random', 'stagger', 'stroll'],
  example: { controls: { samples: 24 } },
  inputs: {},
  controls: {
    range: point({
      label: 'Range',
      parts: ['Low', 'High'],
      help: 'The ends.',
      default: [-1, 1],
      range: [-1, 1],
    }),
    step: number({
      label: 'Greatest step',
      help: 'The most it moves at a tick, up or down.',
      default: 0.2,
      range: [0, 1],
      min: 0,
    }),
    rate: number({
      label: 'Rate',
      help: 'Ticks a second.',
      default: 4,
      range: [0, 30],
      min: 0,
      max: 240,
      unit: '/s',
    }),
    smooth: toggle({ label: 'Smooth', help: 'Glides from step to step.', default: true }),
    samples: whole({
      label: 'Samples',
      help: 'How many walk, each its own way.',
      default: 1,
      range: [1, 256],
      min: 1,
      max: 100000,
    }),
    seed: whole({ label: 'Seed', help: 'Another walk.', default: 1, range: [1, 99] }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) => [Math.min(...c.range), Math.max(...c.range)],
  moves: () => true,
  memory: () => new Walk(),
  fromMotion: (motion, base) =>
    motion.type === 'walk'
      ? {
          controls: {
            range: [base - Math.abs(motion.amount), base + Math.abs(motion.amount)],
            step: Math.abs(motion.amount) / 4,
            rate: motion.rate,
            smooth: motion.smooth,
            seed: motion.seed,
          },
        }
      : null,
  compute({ controls: c, moment, memory, out }) {
    const [into] = out.layout([c.lane || 'value'], c.samples);
    const { step, rate, seed, smooth } = c;
    memory.at(
      moment.time,
      { low: Math.min(...c.range), high: Math.max(...c.range), step, rate, seed, smooth },
      into,
    );
  },
});
