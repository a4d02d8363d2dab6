import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { wayDone } from '../../core/time/clock';

interface Memory {
  x: number;
  y: number;
  started: boolean;
}

export default signalKind({
  id: 'pointer',
  label: 'Pointer',
  summary: 'Place, button and wheel of the pointer over the monitor or a stage window.',
  words: ['mouse', 'touch', 'cursor', 'hand', 'click', 'wheel'],
  inputs: {},
  controls: {
    follows: choice({
      label: 'Follows',
      help: 'Always, or only while the button is down.',
      options: { always: 'Always', pressed: 'While pressed' },
      default: 'always',
    }),
    lag: number({
      label: 'Lag',
      help: 'Seconds in which it covers most of the way to the pointer.',
      default: 0,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
  },
  naturalRange: () => [-0.5, 0.5],
  moves: () => true,
  memory: (): Memory => ({ x: 0, y: 0, started: false }),
  compute({ controls: c, live, moment, memory, out }) {
    const { pointer } = live;
    const follow = c.follows === 'always' || pointer.down;
    if (follow) {
      const share = memory.started ? wayDone(c.lag, moment.dt) : 1;
      memory.x += (pointer.x - memory.x) * share;
      memory.y += (pointer.y - memory.y) * share;
      memory.started = true;
    }
    const [x, y, down, wheel] = out.layout(['x', 'y', 'down', 'wheel'], 1);
    x[0] = memory.x;
    y[0] = memory.y;
    down[0] = pointer.down ? 1 : 0;
    wheel[0] = pointer.wheel;
  },
});
