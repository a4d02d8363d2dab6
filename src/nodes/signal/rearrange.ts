import { choice, point, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { nearFirst, shuffled } from '../shared/sample-order';
import { rowsLike } from '../../core/signal/rows';

const fromCentre = (n: number): number[] =>
  Array.from({ length: n }, (_, i) => i).sort(
    (a, b) => Math.abs(a - (n - 1) / 2) - Math.abs(b - (n - 1) / 2) || a - b,
  );

export default signalKind({
  id: 'rearrange',
  label: 'Rearrange',
  summary: 'Puts samples in another order, or turns lanes into samples and back.',
  words: ['reverse', 'sort', 'shuffle', 'order', 'transpose', 'flip', 'mirror', 'rotate', 'lanes'],
  example: { controls: { order: 'rising' }, feed: { kind: 'scatter' } },
  inputs: { in: { label: 'In', help: 'The samples to put in order.', carries: 'signal' } },
  controls: {
    order: choice({
      label: 'Order',
      help: 'All lanes are put in the same order; Rising and Falling go by the first lane.',
      options: {
        reverse: 'Reversed',
        mirror: 'There and back',
        rising: 'Rising',
        falling: 'Falling',
        centre: 'From the centre',
        distance: 'By distance',
        spiral: 'In a spiral',
        random: 'At random',
        turned: 'Swap lanes and samples',
      },
      default: 'reverse',
    }),
    shift: whole({
      label: 'Shift',
      help: 'Moves every sample so many places on, round the end.',
      default: 0,
      range: [-16, 16],
      shownIf: (c) => c.order !== 'turned',
    }),
    place: point({
      label: 'From',
      help: 'Where distances and the spiral begin; the first two lanes are places.',
      default: [0, 0],
      range: [-0.5, 0.5],
      shownIf: (c) => c.order === 'distance' || c.order === 'spiral',
    }),
    seed: whole({
      label: 'Seed',
      help: 'Another order.',
      default: 1,
      range: [1, 99],
      shownIf: (c) => c.order === 'random',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  compute({ controls: c, inputs, out }) {
    const signal = inputs.in;
    const n = signal?.length ?? 0;
    if (c.order === 'turned') {
      const lanes = signal?.lanes ?? [];
      const names = Array.from({ length: Math.max(1, n) }, (_, i) => (n > 1 ? `s${i}` : 'value'));
      out
        .layout(names, Math.max(1, lanes.length))
        .forEach((into, i) => into.forEach((_, k) => (into[k] = lanes[k]?.samples[i] ?? 0)));
      return;
    }
    const first = signal?.lanes[0]?.samples ?? [];
    let order = Array.from({ length: n }, (_, i) => i);
    if (c.order === 'reverse') order.reverse();
    else if (c.order === 'mirror') order = [...order, ...[...order].reverse()];
    else if (c.order === 'rising') order.sort((a, b) => first[a] - first[b] || a - b);
    else if (c.order === 'falling') order.sort((a, b) => first[b] - first[a] || a - b);
    else if (c.order === 'centre') order = fromCentre(n);
    else if (c.order === 'distance' || c.order === 'spiral')
      order = nearFirst([first, signal?.lanes[1]?.samples ?? first], c.place, c.order === 'spiral');
    else order = shuffled(n, c.seed);
    const count = Math.max(1, order.length);
    const shift = ((c.shift % count) + count) % count;
    for (const { from, into } of rowsLike(signal, out, count))
      for (let i = 0; i < count; i++) into[(i + shift) % count] = from[order[i] ?? 0];
  },
});
