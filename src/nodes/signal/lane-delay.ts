import { choice, curves, number, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { curveAt } from '../../core/signal/curve';
import { isTwoSided, Places, sampleOrder } from '../shared/sample-order';
import { Past } from '../../core/signal/past';
import { rowsLike } from '../../core/signal/rows';

const longestSeconds = 30;
export default signalKind({
  id: 'lane-delay',
  label: 'Lane Delay',
  summary: 'Lets every sample come later than the one before: one movement runs through many copies.',
  words: ['offset', 'ripple', 'stagger', 'echo', 'lag', 'follow the leader', 'canon', 'wave through'],
  inputs: {
    in: { label: 'In', help: 'What runs through; one sample is spread over all.', carries: 'signal' },
  },
  controls: {
    samples: whole({
      label: 'Samples',
      help: 'How many there are, where one comes in.',
      default: 16,
      range: [1, 256],
      min: 1,
      max: 10000,
    }),
    seconds: number({
      label: 'Delay',
      help: 'Seconds from one sample to the next, or from the first to the last.',
      default: 0.1,
      range: [0, 2],
      min: 0,
      max: longestSeconds,
      unit: 's',
    }),
    over: choice({
      label: 'Delay is',
      help: 'From one sample to the next, or over all of them.',
      options: { each: 'Each', all: 'Over all' },
      default: 'each',
    }),
    bend: number({
      label: 'Bend',
      help: 'Above 1 the first samples follow closely, below 1 the last ones.',
      default: 1,
      range: [0.25, 4],
      min: 0.05,
      max: 20,
    }),
    curve: curves({
      label: 'Delay curve',
      help: 'From the first to move (0) to the last (1): its delay, as a share of the longest.',
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
    from: sampleOrder('Which sample moves first.'),
    before: choice({
      label: 'At the start',
      help: 'What a sample gives whose time has not come yet.',
      options: { hold: 'The first value', empty: '0' },
      default: 'hold',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => true,
  memory: () => ({ past: new Past(), places: new Places() }),
  compute({ controls: c, inputs, moment, memory, out }) {
    const { past } = memory;
    const width = inputs.in?.length ?? 1;
    const count = width > 1 ? width : c.samples;
    const rows = rowsLike(inputs.in, out, count);
    const places = memory.places.of(c.from, count);
    const furthest = Math.max(1, isTwoSided(c.from) ? Math.ceil(count / 2) - 1 : count - 1);
    const longest = Math.min(longestSeconds, c.over === 'all' ? c.seconds : c.seconds * furthest);
    const keys = c.curve[0]?.keys ?? [];
    past.push(moment.time, rows, width, longest);
    for (let i = 0; i < count; i++) {
      const share = Math.pow(Math.max(0, curveAt(keys, places[i] / Math.max(1, count - 1))), c.bend);
      const then = past.find(moment.time - longest * share);
      rows.forEach(({ into }, k) => {
        into[i] = c.before === 'empty' && then.isEarly ? 0 : past.at(then, k, i);
      });
    }
  },
});
