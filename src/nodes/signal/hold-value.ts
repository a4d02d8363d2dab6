import { signalKind } from '../../core/kind/kind';
import { rowsLike, Triggers } from '../../core/signal/rows';

interface Memory {
  kept: Float32Array[];
  triggers: Triggers;
}

export default signalKind({
  id: 'hold-value',
  label: 'Hold Value',
  summary: 'Takes a value when a trigger fires, and keeps it until the next.',
  words: ['sample and hold', 'freeze', 'latch', 'random on hit', 'keep', 'store'],
  inputs: {
    in: { label: 'In', help: 'The values that are taken.', carries: 'signal' },
    trigger: {
      label: 'Trigger',
      help: 'Takes when it rises over a half; many samples each take their own.',
      carries: 'signal',
    },
  },
  controls: {},
  naturalRange: () => [-1, 1],
  moves: () => false,
  memory: (): Memory => ({ kept: [], triggers: new Triggers() }),
  compute({ inputs, memory, out }) {
    const triggers = inputs.trigger?.lanes[0]?.samples;
    const fired = triggers ? Array.from(triggers, (value, k) => memory.triggers.rose(k, value)) : [];
    rowsLike(inputs.in, out).forEach(({ from, into }, k) => {
      let kept = memory.kept[k];
      if (kept?.length !== into.length) kept = memory.kept[k] = from.slice(0, into.length);
      for (let i = 0; i < into.length; i++)
        if (fired.length && fired[fired.length === 1 ? 0 : i % fired.length]) kept[i] = from[i];
      into.set(kept);
    });
  },
});
