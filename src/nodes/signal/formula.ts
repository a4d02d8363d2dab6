import { formula, point, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { asksForSample, asksForTime } from '../../core/formula/names';
import type { FormulaValues } from '../../core/formula/run';
import { spreadInto } from '../../core/signal/spread';

export default signalKind({
  id: 'formula',
  label: 'Formula',
  summary: 'Lanes worked out from a line of arithmetic each.',
  words: ['maths', 'expression', 'calculate', 'equation', 'code', 'sin', 'cos'],
  inputs: {
    in: { label: 'In', help: 'Its lanes can be read as in.x, in.value and so on.', carries: 'signal' },
  },
  controls: {
    formula: formula({
      label: 'Formula',
      help: 'One lane a line: x = cos(tau * u). Knows time, beat, frame, i, n, u, in.… and other nodes by name.',
      default: 'x = cos(tau * u + time)\ny = sin(tau * u + time)',
      variables: ['in.*'],
      lanes: true,
    }),
    samples: whole({
      label: 'Samples',
      help: 'How many values; 0 takes as many as come in.',
      default: 0,
      range: [0, 256],
      min: 0,
      max: 1000000,
    }),
    range: point({
      label: 'Natural range',
      help: 'What its values lie between, for the first fit of a wire.',
      default: [-1, 1],
      range: [-1, 1],
    }),
  },
  naturalRange: (c) => [c.range[0], c.range[1]],
  moves: (c) => asksForTime(c.formula),
  // A formula that asks which sample it is has another answer where samples stand for moments.
  each: (c) => (c.samples === 0 && !asksForSample(c.formula) ? true : []),
  memory: () => new Map<string, Float32Array>(),
  compute({ controls: c, inputs, formula: read, memory, out }) {
    const lanes = read('formula');
    const wired = inputs.in;
    const n = c.samples || Math.max(wired?.length ?? 1, ...lanes.map((lane) => lane.longest));
    const extra: Record<string, number | Float32Array> = {};
    for (const lane of wired?.lanes ?? []) {
      let buffer = memory.get(lane.name);
      if (!buffer || buffer.length !== n) memory.set(lane.name, (buffer = new Float32Array(n)));
      spreadInto(buffer, lane.samples, 'stretch');
      extra[`in.${lane.name}`] = n === 1 ? buffer[0] : buffer;
    }
    const into = out.layout(
      lanes.map((lane) => lane.name),
      n,
    );
    lanes.forEach((lane, k) => lane.run(into[k], extra as FormulaValues));
  },
});
