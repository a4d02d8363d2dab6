import { choice, number, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

interface Memory {
  /** Newest last; parallel to `values`. */
  times: number[];
  values: number[][];
}

/** Longest memory, in readings: half a minute at 144 frames a second. */
const mostReadings = 4320;

export default signalKind({
  id: 'history',
  label: 'History',
  summary: 'The last moments of a signal as a row of samples: a trace of where it has been.',
  words: ['trail', 'trace', 'memory', 'past', 'record', 'delay', 'ring buffer'],
  inputs: {
    in: { label: 'In', help: 'The values to remember (the first sample of each lane).', carries: 'signal' },
  },
  controls: {
    samples: whole({
      label: 'Samples',
      help: 'How many moments.',
      default: 48,
      range: [2, 256],
      min: 2,
      max: 4096,
    }),
    by: choice({
      label: 'Apart',
      help: 'Spread over a span of time, or one for each frame of the show.',
      options: { seconds: 'Over a span', frames: 'A frame each' },
      default: 'seconds',
    }),
    span: number({
      label: 'Span',
      help: 'Seconds from the newest moment to the oldest.',
      default: 1,
      range: [0.1, 8],
      min: 0.001,
      max: 30,
      unit: 's',
      shownIf: (c) => c.by === 'seconds',
    }),
    order: choice({
      label: 'First is',
      help: 'Which end of the row is now.',
      options: { newest: 'Now', oldest: 'The oldest' },
      default: 'newest',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => true,
  memory: (): Memory => ({ times: [], values: [] }),
  // Moments are found by time, not by frame, so a trace has the same length at 30 and at 144 frames a second.
  compute({ controls: c, inputs, moment, memory, out }) {
    const names = inputs.in?.lanes.map((lane) => lane.name) ?? ['value'];
    const now = inputs.in?.lanes.map((lane) => lane.samples[0]) ?? [0];
    const { times, values } = memory;
    const span = c.by === 'frames' ? (c.samples - 1) / moment.fps : c.span;
    if (values.length && values[0].length !== now.length) times.length = values.length = 0;
    if (times.length && moment.time <= times[times.length - 1]) values[values.length - 1] = now;
    else {
      times.push(moment.time);
      values.push(now);
    }
    while (times.length > 2 && (times.length > mostReadings || times[1] < moment.time - span)) {
      times.shift();
      values.shift();
    }
    const lanes = out.layout(names, c.samples);
    let at = times.length - 1;
    for (let i = 0; i < c.samples; i++) {
      const wanted = moment.time - (span * i) / (c.samples - 1);
      while (at > 0 && times[at - 1] >= wanted) at--;
      const low = Math.max(0, at - 1);
      const gap = times[at] - times[low];
      const share = gap > 0 ? Math.min(1, Math.max(0, (wanted - times[low]) / gap)) : 1;
      const k = c.order === 'newest' ? i : c.samples - 1 - i;
      for (let lane = 0; lane < lanes.length; lane++) {
        lanes[lane][k] = values[low][lane] + (values[at][lane] - values[low][lane]) * share;
      }
    }
  },
});
