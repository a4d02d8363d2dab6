import { choice, countsDiffer } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import type { Lane } from '../../core/signal/signal';
import { spreadInto } from '../../core/signal/spread';

type How = 'add' | 'subtract' | 'multiply' | 'divide' | 'least' | 'most' | 'average';

/** Works one row into another, sample by sample; a row of one sample serves all. Divided by 0 is 0. */
function fold(into: Float32Array, row: Float32Array, how: How): void {
  const n = into.length;
  const step = row.length === 1 ? 0 : 1;
  switch (how) {
    case 'add':
    case 'average':
      for (let i = 0; i < n; i++) into[i] += row[i * step];
      break;
    case 'subtract':
      for (let i = 0; i < n; i++) into[i] -= row[i * step];
      break;
    case 'multiply':
      for (let i = 0; i < n; i++) into[i] *= row[i * step];
      break;
    case 'divide':
      for (let i = 0; i < n; i++) into[i] = row[i * step] === 0 ? 0 : into[i] / row[i * step];
      break;
    case 'least':
      for (let i = 0; i < n; i++) into[i] = Math.min(into[i], row[i * step]);
      break;
    case 'most':
      for (let i = 0; i < n; i++) into[i] = Math.max(into[i], row[i * step]);
      break;
  }
}

const oneLane: readonly Lane[] = [{ name: 'value', samples: new Float32Array(1) }];
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
  // Lanes go by their place: one lane serves all the lanes of the others.
  compute({ controls: c, inputs, out }) {
    const signals = inputs.in;
    let length = 1;
    let widest = oneLane;
    for (const signal of signals) {
      length = Math.max(length, signal.length);
      if (widest === oneLane || signal.lanes.length > widest.length) widest = signal.lanes;
    }
    if (scratch.length < length) scratch = new Float32Array(length);
    const arrays = out.layoutLike(widest, length);
    for (let k = 0; k < arrays.length; k++) {
      const into = arrays[k];
      into.fill(0);
      for (let place = 0; place < signals.length; place++) {
        const { lanes } = signals[place];
        let row = lanes[Math.min(k, lanes.length - 1)].samples;
        if (row.length !== length && row.length !== 1) {
          const stretched = scratch.subarray(0, length);
          spreadInto(stretched, row, c.spread);
          row = stretched;
        }
        if (place > 0) fold(into, row, c.how);
        else if (row.length === 1) into.fill(row[0]);
        else into.set(row);
      }
      if (c.how === 'average' && signals.length > 1)
        for (let i = 0; i < length; i++) into[i] /= signals.length;
    }
  },
});
