import { choice, number, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';

interface Memory {
  times: number[];
  /** Samples of all lanes at each of the times, one lane after the other. */
  values: Float32Array[];
  shape: string;
}

const longestSeconds = 30;
/** Numbers kept at most, over all moments: eight megabytes. */
const mostNumbers = 1 << 21;

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
    from: choice({
      label: 'From',
      help: 'Where it begins.',
      options: { first: 'The first', last: 'The last', centre: 'The centre', edges: 'Both ends' },
      default: 'first',
    }),
    before: choice({
      label: 'At the start',
      help: 'What a sample gives whose time has not come yet.',
      options: { hold: 'The first value', empty: '0' },
      default: 'hold',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => true,
  memory: (): Memory => ({ times: [], values: [], shape: '' }),
  // K05 and K17; moments are found by time, so a delay is as long at any frame rate.
  compute({ controls: c, inputs, moment, memory, out }) {
    const width = inputs.in?.length ?? 1;
    const count = width > 1 ? width : c.samples;
    const rows = rowsLike(inputs.in, out, count);
    const { times, values } = memory;
    const shape = `${rows.length} ${width}`;
    if (memory.shape !== shape || (times.length && moment.time < times[times.length - 1])) {
      memory.shape = shape;
      times.length = values.length = 0;
    }
    const now = times.length && times[times.length - 1] === moment.time ? values.pop()! : null;
    if (now) times.pop();
    const furthest = Math.max(
      1,
      c.from === 'first' || c.from === 'last' ? count - 1 : Math.ceil(count / 2) - 1,
    );
    const longest = Math.min(longestSeconds, c.over === 'all' ? c.seconds : c.seconds * furthest);
    const size = rows.length * width;
    // The oldest moment is written over again once it is too old to be asked for.
    let oldest: Float32Array | null = now;
    while (
      times.length > 1 &&
      (times[1] <= moment.time - longest || (times.length + 1) * size > mostNumbers)
    ) {
      times.shift();
      oldest = values.shift()!;
    }
    const kept = oldest ?? new Float32Array(size);
    rows.forEach(({ from }, k) => kept.set(from.subarray(0, width), k * width));
    times.push(moment.time);
    values.push(kept);
    for (let i = 0; i < count; i++) {
      const middle = Math.abs(i - (count - 1) / 2) - (count % 2 ? 0 : 0.5);
      const steps =
        c.from === 'first'
          ? i
          : c.from === 'last'
            ? count - 1 - i
            : c.from === 'centre'
              ? middle
              : furthest - middle;
      const share = Math.pow(Math.max(0, steps) / furthest, c.bend);
      const wanted = moment.time - longest * share;
      let high = times.length - 1;
      let low = 0;
      // The last moment that is not later than the wanted one.
      while (low < high) {
        const middleTime = Math.ceil((low + high) / 2);
        if (times[middleTime] <= wanted) low = middleTime;
        else high = middleTime - 1;
      }
      const next = Math.min(low + 1, times.length - 1);
      const gap = times[next] - times[low];
      const mix = gap > 0 ? Math.min(1, Math.max(0, (wanted - times[low]) / gap)) : 0;
      const isEmpty = c.before === 'empty' && wanted < times[0] - 1e-6;
      rows.forEach(({ into }, k) => {
        const at = k * width + (width > 1 ? i : 0);
        into[i] = isEmpty ? 0 : values[low][at] + (values[next][at] - values[low][at]) * mix;
      });
    }
  },
});
