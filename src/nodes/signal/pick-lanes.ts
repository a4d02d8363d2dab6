import { choice, point, text, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { laneOf } from '../../core/signal/signal';

/** Whether a name is meant by a pattern, in which * stands for anything. */
function meant(pattern: string, name: string): boolean {
  const parts = pattern.split('*');
  if (parts.length === 1) return pattern === name;
  const last = parts[parts.length - 1];
  let at = parts[0].length;
  if (!name.startsWith(parts[0])) return false;
  for (const part of parts.slice(1, -1)) {
    const found = name.indexOf(part, at);
    if (found < 0) return false;
    at = found + part.length;
  }
  return name.length - at >= last.length && name.endsWith(last);
}

function holds(condition: string, value: number, [low, high]: readonly [number, number]): boolean {
  if (condition === 'above') return value > low;
  if (condition === 'below') return value < high;
  const isInside = value >= Math.min(low, high) && value <= Math.max(low, high);
  return condition === 'all' || isInside === (condition === 'inside');
}

export default signalKind({
  id: 'pick-lanes',
  label: 'Pick Lanes',
  summary: 'Takes some lanes of a signal by their names, and some of its samples by place or by value.',
  words: ['select', 'choose', 'filter', 'split', 'channel', 'subset', 'every second', 'slice'],
  example: { feed: { kind: 'scatter' } },
  inputs: { in: { label: 'In', help: 'Where they are taken from.', carries: 'signal' } },
  controls: {
    lanes: text({
      label: 'Lanes',
      help: 'Names in the order wanted, parted by spaces; * stands for anything.',
      default: '*',
    }),
    first: whole({
      label: 'First',
      help: 'The first sample taken, from 0; below 0 counts from the end.',
      default: 0,
      range: [0, 64],
    }),
    most: whole({
      label: 'At most',
      help: 'How many samples are taken; 0 takes all that are left.',
      default: 0,
      range: [0, 64],
      min: 0,
    }),
    every: whole({
      label: 'Every',
      help: '2 takes every second one.',
      default: 1,
      range: [1, 8],
      min: 1,
    }),
    keep: choice({
      label: 'Only where',
      help: 'Drops the samples for which this does not hold.',
      options: { all: 'Always', above: 'Above', below: 'Below', inside: 'Between', outside: 'Not between' },
      default: 'all',
    }),
    by: text({
      label: 'Looks at',
      help: 'The lane whose value decides; empty takes the first.',
      default: '',
      shownIf: (c) => c.keep !== 'all',
    }),
    limits: point({
      label: 'Limits',
      help: 'The lower and the upper limit. Above takes the lower one, Below the upper one.',
      default: [0, 1],
      range: [-1, 1],
      shownIf: (c) => c.keep !== 'all',
    }),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  compute({ controls: c, inputs, out }) {
    const lanes = inputs.in?.lanes ?? [];
    const patterns = c.lanes.split(/[\s,]+/).filter(Boolean);
    const picked = [
      ...new Set(patterns.flatMap((pattern) => lanes.filter((lane) => meant(pattern, lane.name)))),
    ];
    const n = inputs.in?.length ?? 0;
    const first = Math.min(n, Math.max(0, c.first < 0 ? n + c.first : c.first));
    const judged = inputs.in && laneOf(inputs.in, c.by || undefined)?.samples;
    const taken: number[] = [];
    for (let i = first; i < n && (c.most === 0 || taken.length < c.most); i += c.every)
      if (!judged || holds(c.keep, judged[i], c.limits)) taken.push(i);
    const count = taken.length;
    // A signal always has something to give: where nothing is meant, one 0.
    if (!picked.length || count < 1) {
      out.layout([picked[0]?.name ?? 'value'], 1)[0].fill(0);
      return;
    }
    out
      .layout(
        picked.map((lane) => lane.name),
        count,
      )
      .forEach((into, k) => {
        for (let i = 0; i < count; i++) into[i] = picked[k].samples[taken[i]];
      });
  },
});
