import { choice, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { isPattern, matchesAddress } from '../../core/osc/pattern';
import type { OscValue } from '../../core/inputs/inputs';

interface Memory {
  /** Messages seen of each address, and the addresses that are meant, for a pattern and the addresses there are. */
  counts: Map<string, number>;
  key: string;
  meant: string[];
}

export default signalKind({
  id: 'osc',
  label: 'OSC',
  summary: 'Numbers that other programs and devices send over the network by Open Sound Control.',
  words: ['network', 'udp', 'remote', 'message', 'address', 'tablet', 'phone', 'receive', 'learn'],
  inputs: {},
  controls: {
    address: text({
      label: 'Address',
      help: 'Such as /hive/glow. A pattern takes a sample from each address it fits: /hive/*/glow.',
      default: '/hive/glow',
    }),
    gives: choice({
      label: 'Gives',
      help: 'The numbers of the last message, or 1 for a frame whenever one comes.',
      options: { values: 'Its numbers', hit: 'A hit' },
      default: 'values',
    }),
    names: text({
      label: 'Lanes',
      help: 'Names for its numbers, parted by spaces; without names they are value, value2 and so on.',
      default: '',
      shownIf: (c) => c.gives === 'values',
    }),
    start: number({
      label: 'Before any comes',
      help: 'Value until the first message.',
      default: 0,
      range: [0, 1],
      shownIf: (c) => c.gives === 'values',
    }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  learn: (event) =>
    event.type === 'osc'
      ? {
          controls: { address: event.address },
          name: event.address.split('/').filter(Boolean).join(' ') || 'OSC',
        }
      : null,
  recalls: false,
  memory: (): Memory => ({ counts: new Map(), key: '', meant: [] }),
  compute({ controls: c, live, memory, out }) {
    const known = Object.keys(live.osc);
    const key = `${c.address} ${known.length}`;
    if (memory.key !== key) {
      memory.key = key;
      memory.meant = isPattern(c.address)
        ? known.filter((address) => matchesAddress(c.address, address)).sort()
        : [c.address];
    }
    const values = memory.meant.map((address): OscValue | undefined => live.osc[address]);
    const n = Math.max(1, values.length);
    if (c.gives === 'hit') {
      const [into] = out.layout(['value'], n);
      into.fill(0);
      memory.meant.forEach((address, i) => {
        const count = values[i]?.count ?? 0;
        if (count > (memory.counts.get(address) ?? count)) into[i] = 1;
        memory.counts.set(address, count);
      });
      return;
    }
    const names = c.names.split(/[\s,]+/).filter(Boolean);
    const width = Math.max(1, names.length, ...values.map((value) => value?.args.length ?? 0));
    for (let k = names.length; k < width; k++) names.push(k ? `value${k + 1}` : 'value');
    out.layout(names, n).forEach((into, lane) => {
      for (let i = 0; i < n; i++) into[i] = values[i]?.args[lane] ?? c.start;
    });
  },
});
