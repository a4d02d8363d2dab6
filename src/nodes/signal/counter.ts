import { choice, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { Triggers } from '../../core/signal/rows';
import { cyclesAt } from '../../core/time/clock';

interface Memory {
  hits: number;
  started: number | null;
  triggers: Triggers;
  again: Triggers;
}

/** Value after so many steps between two ends. */
function stepped(steps: number, from: number, to: number, step: number, ends: string): number {
  const size = Math.abs(step);
  const places = size > 0 ? Math.floor(Math.abs(to - from) / size + 1e-9) + 1 : 1;
  let k = steps;
  if (ends === 'hold') k = Math.min(steps, places - 1);
  else if (ends === 'wrap') k = steps % places;
  else if (ends === 'mirror' && places > 1) {
    const turn = steps % (2 * places - 2);
    k = turn < places ? turn : 2 * places - 2 - turn;
  } else if (ends === 'mirror') k = 0;
  return from + k * size * (to < from ? -1 : 1);
}

export default signalKind({
  id: 'counter',
  label: 'Counter',
  summary: 'Counts hits, or ticks of its own, from one value to another.',
  words: ['count', 'tick', 'step', 'sequence', 'next', 'increment', 'timer', 'number of', 'countdown'],
  inputs: {
    trigger: {
      label: 'Trigger',
      help: 'Counts one on when it rises over a half; where nothing is wired, Ticks count.',
      carries: 'signal',
    },
    restart: { label: 'Restart', help: 'Goes back to From when it rises over a half.', carries: 'signal' },
  },
  controls: {
    from: number({ label: 'From', help: 'The first value.', default: 0, range: [0, 16] }),
    to: number({
      label: 'To',
      help: 'The last value; below From it counts down.',
      default: 7,
      range: [0, 16],
    }),
    step: number({ label: 'Step', help: 'From one value to the next.', default: 1, range: [0, 4], min: 0 }),
    ends: choice({
      label: 'At the end',
      help: 'What comes after the last value.',
      options: { wrap: 'From the start', mirror: 'To and fro', hold: 'Stays', none: 'Goes on' },
      default: 'wrap',
    }),
    ticks: number({
      label: 'Ticks',
      help: 'Steps a second, or beats a step, where no trigger is wired.',
      default: 1,
      range: [0, 8],
      min: 0,
    }),
    unit: choice({
      label: 'Ticks in',
      help: 'Seconds, or the beat of the show.',
      options: { seconds: 'Steps a second', beats: 'Beats a step' },
      default: 'beats',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) => [Math.min(c.from, c.to), Math.max(c.from, c.to)],
  endless: (c) => c.ends === 'none',
  moves: () => true,
  memory: (): Memory => ({ hits: 0, started: null, triggers: new Triggers(), again: new Triggers() }),
  compute({ controls: c, inputs, moment, memory, out }) {
    const done = Math.floor(cyclesAt(moment, c.ticks, c.unit === 'beats' ? 'beats' : 'hertz') + 1e-9);
    if (memory.triggers.anyRose(inputs.trigger)) memory.hits++;
    if (memory.again.anyRose(inputs.restart)) {
      memory.hits = 0;
      memory.started = done;
    }
    // Without a restart ticks are counted from the start of the show, so that any frame can be worked out by itself.
    const steps = inputs.trigger ? memory.hits : Math.max(0, done - (memory.started ?? 0));
    out.layout([c.lane || 'value'], 1)[0][0] = stepped(steps, c.from, c.to, c.step, c.ends);
  },
});
