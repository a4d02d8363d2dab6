import { countsDiffer, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { spreadInto } from '../../core/signal/spread';

export default signalKind({
  id: 'join-lanes',
  label: 'Join Lanes',
  summary: 'Puts signals side by side as lanes of one: x, y, z from three.',
  words: ['merge', 'bundle', 'pack', 'combine', 'vector', 'rename'],
  inputs: {
    in: { label: 'In', help: 'Signals in the order they were wired.', carries: 'signal', many: true },
  },
  controls: {
    names: text({
      label: 'Names',
      help: 'Names of the lanes in order, parted by spaces; empty keeps those that come in.',
      default: 'x y z',
    }),
    spread: countsDiffer('How shorter signals are brought to the longest.'),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  each: () => true,
  compute({ controls: c, inputs, out }) {
    const sources = inputs.in.flatMap((signal) => signal.lanes);
    const length = inputs.in.reduce((most, signal) => Math.max(most, signal.length), 1);
    const wanted = c.names.split(/[\s,]+/).filter(Boolean);
    const names: string[] = [];
    for (let k = 0; k < Math.max(1, sources.length); k++) {
      let name = wanted[k] ?? sources[k]?.name ?? 'value';
      for (let n = 2; names.includes(name); n++)
        name = `${(wanted[k] ?? sources[k].name).replace(/\d+$/, '')}${n}`;
      names.push(name);
    }
    out.layout(names, length).forEach((into, k) => {
      if (sources[k]) spreadInto(into, sources[k].samples, c.spread);
      else into.fill(0);
    });
  },
});
