import { choice, key, number, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

interface Memory {
  presses: number | null;
  first: number;
}

export default signalKind({
  id: 'keys',
  label: 'Keys',
  summary: 'A key of the keyboard: while it is held, switched by each press, or counted.',
  words: ['keyboard', 'button', 'press', 'trigger', 'toggle', 'space'],
  inputs: {},
  controls: {
    key: key({ label: 'Key', help: 'Click, then press the key.', default: 'Space' }),
    mode: choice({
      label: 'Mode',
      help: 'High while held, turned over by each press, or one more with each press.',
      options: { momentary: 'While held', toggle: 'Toggle', count: 'Count' },
      default: 'momentary',
    }),
    low: number({
      label: 'Low',
      help: 'Value while off.',
      default: 0,
      range: [0, 1],
      shownIf: (c) => c.mode !== 'count',
    }),
    high: number({
      label: 'High',
      help: 'Value while on.',
      default: 1,
      range: [0, 1],
      shownIf: (c) => c.mode !== 'count',
    }),
    wrap: whole({
      label: 'Count up to',
      help: 'Starts at 0 again after so many; 0 never does.',
      default: 0,
      range: [0, 16],
      min: 0,
      shownIf: (c) => c.mode === 'count',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) =>
    c.mode === 'count' ? [0, c.wrap || 8] : [Math.min(c.low, c.high), Math.max(c.low, c.high)],
  moves: () => true,
  learn: (event) =>
    event.type === 'key'
      ? { controls: { key: event.code }, name: event.code.replace(/^Key|^Digit/, 'Key ') }
      : null,
  recalls: false,
  memory: (): Memory => ({ presses: null, first: 0 }),
  compute({ controls: c, live, memory, out }) {
    const state = live.keys[c.key] ?? { down: false, presses: 0 };
    if (memory.presses === null) {
      memory.presses = state.presses;
      memory.first = state.presses;
    }
    // A press shorter than a frame still counts for one frame.
    const hit = state.presses !== memory.presses;
    memory.presses = state.presses;
    const since = state.presses - memory.first;
    const [into] = out.layout([c.lane || 'value'], 1);
    if (c.mode === 'count') into[0] = c.wrap > 0 ? since % c.wrap : since;
    else if (c.mode === 'toggle') into[0] = since % 2 === 1 ? c.high : c.low;
    else into[0] = state.down || hit ? c.high : c.low;
  },
});
