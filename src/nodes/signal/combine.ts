import { choice, countsDiffer } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import type { Lane } from '../../core/signal/signal';
import { spreadInto } from '../../core/signal/spread';

type How = 'add' | 'subtract' | 'multiply' | 'divide' | 'least' | 'most' | 'average';

const operations: Readonly<Record<How, (a: number, b: number) => number>> = {
  add: (a, b) => a + b,
  subtract: (a, b) => a - b,
  multiply: (a, b) => a * b,
  divide: (a, b) => (b === 0 ? 0 : a / b),
  least: Math.min,
  most: Math.max,
  average: (a, b) => a + b,
};

let scratch = new Float32Array(0);

export default signalKind({
  id: 'combine',
  label: 'Combine',
  summary: 'Brings signals together: adds, multiplies, takes the least, the most or the average.',
  words: ['add', 'sum', 'multiply', 'divide', 'subtract', 'min', 'max', 'average', 'mix', 'maths'],
  inputs: {
    in: { label: 'In', help: 'Signals in the order they were wired.', carries: 'signal', many: true },
  },
  controls: {
    how: choice({
      label: 'How',
      help: 'What is done with the values, one signal after the other.',
      options: {
        add: 'Add',
        subtract: 'Subtract',
        multiply: 'Multiply',
        divide: 'Divide',
        least: 'Least',
        most: 'Most',
        average: 'Average',
      },
      default: 'add',
    }),
    spread: countsDiffer('How shorter signals are brought to the longest.'),
  },
  naturalRange: () => [-1, 1],
  moves: () => false,
  each: () => true,
  // Lanes go by their place: one lane serves all the lanes of the others. Divided by 0 is 0.
  compute({ controls: c, inputs, out }) {
    const signals = inputs.in.filter((signal) => signal.lanes.length > 0);
    const length = signals.reduce((most, signal) => Math.max(most, signal.length), 1);
    const widest = signals.reduce<readonly Lane[]>(
      (most, { lanes }) => (lanes.length > most.length ? lanes : most),
      [],
    );
    const names = widest.length ? widest.map((lane) => lane.name) : ['value'];
    if (scratch.length < length) scratch = new Float32Array(length);
    const row = scratch.subarray(0, length);
    const operation = operations[c.how];
    out.layout(names, length).forEach((into, k) => {
      into.fill(0);
      signals.forEach(({ lanes }, place) => {
        spreadInto(row, lanes[Math.min(k, lanes.length - 1)].samples, c.spread);
        if (place === 0) into.set(row);
        else for (let i = 0; i < length; i++) into[i] = operation(into[i], row[i]);
      });
      if (c.how === 'average' && signals.length > 1)
        for (let i = 0; i < length; i++) into[i] /= signals.length;
    });
  },
});
