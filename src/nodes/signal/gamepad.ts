import { choice, number, whole } from '../../core/kind/controls';
import { signalKind, type Learned } from '../../core/kind/kind';

/** A stick in its rest gives 0, and what is left of its way is opened to the whole range. */
function outside(value: number, dead: number): number {
  const size = Math.abs(value);
  return size <= dead ? 0 : (Math.sign(value) * (size - dead)) / (1 - dead);
}

export default signalKind({
  id: 'gamepad',
  label: 'Gamepad',
  summary: 'Sticks and buttons of a gamepad.',
  words: ['joystick', 'controller', 'stick', 'trigger', 'button', 'thumb'],
  inputs: {},
  controls: {
    pad: whole({ label: 'Pad', help: 'Which one, from 1.', default: 1, range: [1, 4], min: 1, max: 8 }),
    takes: choice({
      label: 'Takes',
      help: 'Both sticks, all buttons as samples, or one button.',
      options: { sticks: 'Sticks', buttons: 'All buttons', button: 'One button' },
      default: 'sticks',
    }),
    button: whole({
      label: 'Button',
      help: 'Which one, from 0, in the order of the W3C Gamepad standard. Use Learn to find it.',
      default: 0,
      range: [0, 16],
      min: 0,
      max: 31,
      shownIf: (c) => c.takes === 'button',
    }),
    dead: number({
      label: 'Dead zone',
      help: 'How far a stick moves before it counts.',
      default: 0.08,
      range: [0, 0.5],
      min: 0,
      max: 0.9,
      shownIf: (c) => c.takes === 'sticks',
    }),
  },
  naturalRange: (c) => (c.takes === 'sticks' ? [-1, 1] : [0, 1]),
  moves: () => true,
  learn(event): Learned | null {
    if (event.type !== 'pad') return null;
    return 'button' in event
      ? {
          controls: { pad: event.pad, takes: 'button', button: event.button },
          name: `Button ${event.button}`,
        }
      : {
          controls: { pad: event.pad, takes: 'sticks' },
          name: 'Sticks',
          lane: ['x', 'y', 'x2', 'y2'][event.stick],
        };
  },
  each: () => false,
  compute({ controls: c, live, out }) {
    const pad = live.pads[c.pad - 1];
    if (c.takes === 'sticks') {
      out.layout(['x', 'y', 'x2', 'y2'], 1).forEach((into, k) => {
        into[0] = outside(pad?.sticks[k] ?? 0, c.dead);
      });
      return;
    }
    const buttons = pad?.buttons ?? [];
    const [into] = out.layout(['value'], c.takes === 'button' ? 1 : Math.max(17, buttons.length));
    for (let k = 0; k < into.length; k++) into[k] = buttons[c.takes === 'button' ? c.button : k] ?? 0;
  },
});
