import { choice, number, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { Past } from '../../core/signal/past';
import { rowsLike } from '../../core/signal/rows';

const longestSeconds = 60;

export default signalKind({
  id: 'time-spread',
  label: 'Time Spread',
  summary: 'Gives every copy its own time: what stands above, asked for many moments at once.',
  words: [
    'offset',
    'delay',
    'echo',
    'stagger',
    'phase',
    'earlier',
    'later',
    'copies in time',
    'spread evenly',
  ],
  inputs: {
    in: {
      label: 'In',
      help: 'What is asked. It may be anything that follows from time; what has a memory is read from its past.',
      carries: 'signal',
    },
  },
  controls: {
    samples: whole({
      label: 'Samples',
      help: 'How many moments, where one sample comes in; many keep their number, each with its own time.',
      default: 6,
      range: [1, 256],
      min: 1,
      max: 100000,
    }),
    apart: choice({
      label: 'Apart',
      help: 'A fixed step from one to the next, or evenly over one cycle, so that the last is a step before the first.',
      options: { cycle: 'Evenly over a cycle', step: 'By a fixed step' },
      default: 'cycle',
    }),
    cycle: number({
      label: 'Cycle',
      help: 'Length of the cycle that they share.',
      default: 4,
      range: [0, 16],
      min: 0,
      shownIf: (c) => c.apart === 'cycle',
    }),
    step: number({
      label: 'Step',
      help: 'From one to the next; below 0 each is ahead of the one before.',
      default: 0.1,
      range: [-1, 1],
      shownIf: (c) => c.apart === 'step',
    }),
    unit: choice({
      label: 'In',
      help: 'What the cycle or step is counted in.',
      options: { seconds: 'Seconds', beats: 'Beats', frames: 'Frames', loops: 'Rounds of the loop' },
      default: 'seconds',
    }),
    before: choice({
      label: 'At the start',
      help: 'Already under way; or each waits for its time, at its first value or at 0.',
      options: { running: 'Under way', hold: 'The first value', empty: '0' },
      default: 'running',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => true,
  memory: () => ({ past: new Past(), offsets: new Float64Array(0) }),
  // sample i is at t - i x d, d = cycle / n.
  compute({ controls: c, inputs, moment, overTime, memory, out }) {
    const width = inputs.in?.length ?? 1;
    const n = width > 1 ? width : c.samples;
    const inSeconds = {
      seconds: 1,
      beats: 60 / moment.bpm,
      frames: 1 / moment.fps,
      loops: moment.loopSeconds,
    }[c.unit];
    const step = (c.apart === 'cycle' ? c.cycle / n : c.step) * inSeconds;
    if (memory.offsets.length !== n) memory.offsets = new Float64Array(n);
    const { offsets, past } = memory;
    const waits = c.before !== 'running';
    for (let i = 0; i < n; i++) {
      const behind = -i * step;
      offsets[i] = waits ? Math.max(behind, -moment.time) : behind;
    }
    const isEarly = (i: number): boolean => c.before === 'empty' && moment.time - i * step < -1e-9;
    const asked = inputs.in ? overTime('in', offsets) : null;
    if (asked?.lanes.length) {
      const rows = out.layout(
        asked.lanes.map((lane) => lane.name),
        n,
      );
      rows.forEach((into, k) => {
        const { samples } = asked.lanes[k];
        if (samples.length === n) into.set(samples);
        else for (let i = 0; i < n; i++) into[i] = samples[i % samples.length];
        if (c.before === 'empty') for (let i = 0; i < n; i++) if (isEarly(i)) into[i] = 0;
      });
      return;
    }
    const rows = rowsLike(inputs.in, out, n);
    const longest = Math.min(longestSeconds, Math.max(0, -offsets[n - 1]));
    past.push(moment.time, rows, width, longest);
    for (let i = 0; i < n; i++) {
      const then = past.find(moment.time + offsets[i]);
      rows.forEach(({ into }, k) => (into[i] = isEarly(i) ? 0 : past.at(then, k, i)));
    }
  },
});
