import { choice, numbers, point, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { normalAt, randomAt } from '../../core/random';

const laneNames = ['x', 'y', 'z', 'w'];

export default signalKind({
  id: 'scatter',
  label: 'Scatter',
  summary: 'A random value for each sample that stays the same every time.',
  words: ['random', 'shuffle', 'per copy', 'seed', 'chance', 'dice', 'random numbers', 'random rotation'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'Even over the range, gathered around its middle, or picked from a list.',
      options: { even: 'Even', normal: 'Gathered', list: 'From a list' },
      default: 'even',
    }),
    range: point({
      label: 'Range',
      parts: ['From', 'To'],
      help: 'Lowest and highest value.',
      default: [0, 1],
      range: [-1, 1],
      shownIf: (c) => c.form !== 'list',
    }),
    list: numbers({
      label: 'List',
      help: 'The values to pick from.',
      default: [0, 0.5, 1],
      shownIf: (c) => c.form === 'list',
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many values.',
      default: 16,
      range: [1, 1000],
      min: 1,
      max: 1000000,
    }),
    lanes: whole({
      label: 'Lanes',
      help: 'Independent values a sample: x, y, z, w.',
      default: 1,
      range: [1, 4],
      min: 1,
      max: 4,
    }),
    seed: whole({ label: 'Seed', help: 'Another throw of the dice.', default: 1, range: [1, 99] }),
    lane: text({ label: 'Lane', help: 'Name of the lane, if there is one only.', default: 'value' }),
  },
  naturalRange: (c) =>
    c.form === 'list' ? [Math.min(0, ...c.list), Math.max(...c.list, 0)] : [c.range[0], c.range[1]],
  moves: () => false,
  compute({ controls: c, out }) {
    const names = c.lanes === 1 ? [c.lane || 'value'] : laneNames.slice(0, c.lanes);
    const [low, high] = c.range;
    out.layout(names, c.samples).forEach((into, lane) => {
      const seed = c.seed * 8 + lane;
      for (let i = 0; i < c.samples; i++) {
        if (c.form === 'list')
          into[i] = c.list.length ? c.list[Math.floor(randomAt(i, seed) * c.list.length)] : 0;
        // Three deviations reach the ends of the range.
        else if (c.form === 'normal') {
          into[i] = Math.min(high, Math.max(low, (low + high) / 2 + ((high - low) / 6) * normalAt(i, seed)));
        } else into[i] = low + (high - low) * randomAt(i, seed);
      }
    });
  },
});
