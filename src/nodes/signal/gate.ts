import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { rowsLike } from '../../core/signal/rows';

export default signalKind({
  id: 'gate',
  label: 'Gate',
  summary: 'Lets values through while it is open.',
  words: ['switch', 'mute', 'pass', 'block', 'on off', 'if'],
  inputs: {
    in: { label: 'In', help: 'The values that want through.', carries: 'signal' },
    open: { label: 'Open', help: 'Open while over a half; nothing wired leaves it open.', carries: 'signal' },
  },
  controls: {
    shut: choice({
      label: 'While shut',
      help: 'What it gives: the last value that came through, or one of its own.',
      options: { last: 'The last value', own: 'A value of its own' },
      default: 'last',
    }),
    value: number({
      label: 'Value',
      help: 'What it gives while it is shut.',
      default: 0,
      range: [-1, 1],
      shownIf: (c) => c.shut === 'own',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  memory: (): { last: Float32Array[] } => ({ last: [] }),
  compute({ controls: c, inputs, memory, out }) {
    const gates = inputs.open?.lanes[0]?.samples;
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      let last = memory.last[k];
      if (last?.length !== into.length) last = memory.last[k] = new Float32Array(into.length).fill(c.value);
      for (let i = 0; i < into.length; i++) {
        const isOpen = !gates?.length || gates[gates.length === 1 ? 0 : i % gates.length] > 0.5;
        if (isOpen) last[i] = from[i];
        into[i] = isOpen || c.shut === 'last' ? last[i] : c.value;
      }
    });
  },
});
