import { number, point, text, toggle, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { randomAt } from '../../core/random';

interface Memory {
  /** The tick that `now` stands for; -1 before the first. */
  tick: number;
  now: Float64Array;
  before: Float64Array;
  key: string;
}

/** Ticks that are worked through at most after a leap in time; earlier ones are left out. */
const mostTicks = 20000;

export default signalKind({
  id: 'random-walk',
  label: 'Random Walk',
  summary: 'A value that takes a random step at every tick and turns back at its ends.',
  words: ['wander', 'brownian', 'drunk', 'random', 'stagger', 'stroll'],
  inputs: {},
  controls: {
    range: point({ label: 'Low, high', help: 'The ends.', default: [-1, 1], range: [-1, 1] }),
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
  memory: (): Memory => ({ tick: -1, now: new Float64Array(0), before: new Float64Array(0), key: '' }),
  // The walk starts with the show and only its ticks move it, so that it is the same at any frame rate.
  compute({ controls: c, moment, memory, out }) {
    const [low, high] = [Math.min(...c.range), Math.max(...c.range)];
    const at = moment.time * c.rate + 1e-9;
    const tick = Math.floor(at);
    const key = `${c.samples} ${c.seed}`;
    if (memory.key !== key || tick < memory.tick || memory.tick < 0) {
      memory.key = key;
      memory.tick = Math.max(0, tick - mostTicks);
      memory.now = new Float64Array(c.samples).fill((low + high) / 2);
      memory.before = memory.now.slice();
    }
    memory.tick = Math.max(memory.tick, tick - mostTicks);
    while (memory.tick < tick) {
      memory.tick++;
      memory.before.set(memory.now);
      for (let i = 0; i < c.samples; i++) {
        let next = memory.now[i] + (randomAt(memory.tick * 7919 + i, c.seed) * 2 - 1) * c.step;
        if (next > high) next = 2 * high - next;
        if (next < low) next = 2 * low - next;
        memory.now[i] = Math.min(high, Math.max(low, next));
      }
    }
    const share = c.smooth ? at - tick : 1;
    const [into] = out.layout([c.lane || 'value'], c.samples);
    for (let i = 0; i < c.samples; i++)
      into[i] = memory.before[i] + (memory.now[i] - memory.before[i]) * share;
  },
});
