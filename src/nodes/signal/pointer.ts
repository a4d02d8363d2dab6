import { choice, number, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { wayDone } from '../../core/time/clock';

interface Place {
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
    pointers: whole({
      label: 'Pointers',
      help: 'Samples for so many fingers that touch the picture, in the order they came; 1 follows the last that moved.',
      default: 1,
      range: [1, 10],
      min: 1,
      max: 10,
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
  learn: (event) => (event.type === 'pointer' ? { controls: {}, name: 'Pointer' } : null),
  recalls: false,
  memory: (): { places: Place[] } => ({ places: [] }),
  compute({ controls: c, live, moment, memory, out }) {
    const { places } = memory;
    const [x, y, down, wheel] = out.layout(['x', 'y', 'down', 'wheel'], c.pointers);
    for (let k = 0; k < c.pointers; k++) {
      const pointer = c.pointers === 1 ? live.pointer : live.pointers[k];
      const place = (places[k] ??= { x: 0, y: 0, started: false });
      if (pointer && (c.follows === 'always' || pointer.down)) {
        const share = place.started ? wayDone(c.lag, moment.dt) : 1;
        place.x += (pointer.x - place.x) * share;
        place.y += (pointer.y - place.y) * share;
        place.started = true;
      }
      // A finger that was lifted stays where it was, and is up.
      x[k] = place.x;
      y[k] = place.y;
      down[k] = pointer?.down ? 1 : 0;
      wheel[k] = pointer?.wheel ?? 0;
    }
  },
});
