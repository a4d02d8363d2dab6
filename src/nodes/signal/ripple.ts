import { button, choice, curves, number, point, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { curveAt } from '../../core/signal/curve';
import { envelopeAt, envelopeLength, type EnvelopeShape } from '../../core/signal/envelope';
import { placesInOrder, type SampleOrder } from '../shared/sample-order';
import { Triggers } from '../../core/signal/rows';
import type { Signal } from '../../core/signal/signal';

/** Waves that may run at once; the oldest is dropped. */
const mostWaves = 32;

/** How far each element is from where the wave begins, 0 to 1. */
function waysOf(
  from: SampleOrder | 'place',
  elements: Signal | null,
  n: number,
  place: readonly [number, number],
): Float32Array {
  if (from !== 'place') return placesInOrder(from, n).map((turn) => turn / Math.max(1, n - 1));
  const xs = elements?.lanes[0]?.samples;
  const ys = elements?.lanes[1]?.samples;
  const far = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    // Elements without places stand in a row across the picture.
    const x = xs?.[i] ?? (n > 1 ? i / (n - 1) - 0.5 : 0);
    far[i] = Math.hypot(x - place[0], (ys?.[i] ?? place[1]) - place[1]);
  }
  const furthest = far.reduce((most, d) => Math.max(most, d), 1e-6);
  return far.map((d) => d / furthest);
}

const bend = (label: string) =>
  number({
    label,
    help: '1 is straight, above 1 fast at first, below 1 slow at first.',
    default: 2,
    range: [0.25, 4],
    min: 0.05,
    max: 20,
  });

export default signalKind({
  id: 'ripple',
  label: 'Ripple',
  summary: 'A hit that travels through many elements: each rises and dies away when the wave reaches it.',
  words: ['wave', 'hit', 'travel', 'spread', 'shockwave', 'trigger', 'centre out', 'propagate', 'envelope'],
  inputs: {
    hit: { label: 'Hit', help: 'Starts a wave when it rises over a half.', carries: 'signal' },
    elements: {
      label: 'Elements',
      help: 'One sample for each element; its first two lanes are their places.',
      carries: 'signal',
    },
  },
  controls: {
    test: button({ label: 'Test', help: 'Starts a wave by hand.', default: 0 }),
    samples: whole({
      label: 'Samples',
      help: 'How many elements, where none are wired.',
      default: 24,
      range: [1, 256],
      min: 1,
      max: 100000,
    }),
    from: choice({
      label: 'Begins at',
      help: 'Where the wave starts; a place can be led by the pointer.',
      options: {
        centre: 'The centre',
        edges: 'Both ends',
        first: 'The first',
        last: 'The last',
        random: 'At random',
        place: 'A place',
      },
      default: 'centre',
    }),
    place: point({
      label: 'Place',
      help: 'Where each wave starts, in heights from the middle; taken at the moment of the hit.',
      default: [0, 0],
      range: [-0.5, 0.5],
      shownIf: (c) => c.from === 'place',
      handle: { as: 'place' },
    }),
    time: number({
      label: 'Spread time',
      help: 'Seconds until the last element is reached.',
      default: 0.6,
      range: [0, 4],
      min: 0,
      max: 60,
      unit: 's',
    }),
    curve: curves({
      label: 'Spread curve',
      help: 'From the nearest element (0) to the farthest (1): when it is reached, as a share of the spread time.',
      default: [
        {
          name: 'value',
          keys: [
            { at: 0, value: 0, form: 'straight' },
            { at: 1, value: 1, form: 'straight' },
          ],
        },
      ],
      span: 1,
      many: false,
    }),
    attack: number({
      label: 'Attack',
      help: 'Seconds to the top.',
      default: 0.08,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
    attackBend: bend('Attack bend'),
    decay: number({
      label: 'Decay',
      help: 'Seconds from the top down to 0.',
      default: 0.9,
      range: [0, 4],
      min: 0,
      unit: 's',
    }),
    decayBend: bend('Decay bend'),
    meet: choice({
      label: 'Where waves meet',
      help: 'The stronger one counts, or they add up.',
      options: { most: 'The stronger', add: 'They add up' },
      default: 'most',
    }),
    fade: number({
      label: 'Fades by',
      help: 'How much weaker the last element is than the first; 1 dies out there.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  countOf: (c, inputs) => inputs.elements?.length ?? c.samples,
  naturalRange: () => [0, 1],
  moves: () => true,
  fromMotion: (motion, base) =>
    motion.type === 'hit'
      ? {
          controls: { samples: 1, time: 0, attack: motion.attack, decay: motion.decay },
          to: [base, base + motion.amount],
        }
      : null,
  memory: () => ({
    waves: [] as { at: number; ways: Float32Array }[],
    triggers: new Triggers(),
    presses: null as number | null,
  }),
  compute({ controls: c, inputs, moment, count, memory, out }) {
    const shape: EnvelopeShape = {
      attackSeconds: c.attack,
      holdSeconds: 0,
      decaySeconds: c.decay,
      sustain: 0,
      releaseSeconds: 0,
      attackBend: c.attackBend,
      decayBend: c.decayBend,
      releaseBend: 1,
    };
    const { waves } = memory;
    const lasts = envelopeLength(shape, 0) + c.time;
    // Time that went back takes waves with it that have not started yet.
    while (waves.length && (waves[0].at > moment.time || moment.time - waves[0].at > lasts)) waves.shift();
    const pressed = memory.presses !== null && c.test > memory.presses;
    memory.presses = c.test;
    const hit = memory.triggers.anyRose(inputs.hit);
    // A wave keeps the ways it started with: it runs on though the next one starts elsewhere.
    if (hit || pressed)
      waves.push({ at: moment.time, ways: waysOf(c.from, inputs.elements, count, c.place) });
    if (waves.length > mostWaves) waves.shift();
    const keys = c.curve[0]?.keys ?? [];
    const [into] = out.layout([c.lane || 'value'], count);
    into.fill(0);
    for (const { at, ways } of waves) {
      const since = moment.time - at;
      for (let i = 0; i < count; i++) {
        const way = ways[i % ways.length];
        const level = envelopeAt(shape, since - c.time * curveAt(keys, way), 0) * (1 - c.fade * way);
        into[i] = c.meet === 'add' ? into[i] + level : Math.max(into[i], level);
      }
    }
  },
});
