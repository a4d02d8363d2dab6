import { formulaFunctions } from './functions';
import { namesIn, type BinaryOperator, type Expression } from './parse';

const blockSize = 512;

type Op = (out: Float64Array, a: Float64Array, b: Float64Array, c: Float64Array, n: number) => void;

const binaryOps: Record<BinaryOperator, Op> = {
  '+': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] + b[i];
  },
  '-': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] - b[i];
  },
  '*': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] * b[i];
  },
  '/': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] / b[i];
  },
  '%': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] - b[i] * Math.floor(a[i] / b[i]);
  },
  '^': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.pow(a[i], b[i]);
  },
  '<': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] < b[i] ? 1 : 0;
  },
  '<=': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] <= b[i] ? 1 : 0;
  },
  '>': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] > b[i] ? 1 : 0;
  },
  '>=': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] >= b[i] ? 1 : 0;
  },
  '==': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] === b[i] ? 1 : 0;
  },
  '!=': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] !== b[i] ? 1 : 0;
  },
  '&&': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] && b[i] ? 1 : 0;
  },
  '||': (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] || b[i] ? 1 : 0;
  },
};

const negateOp: Op = (o, a, _b, _c, n) => {
  for (let i = 0; i < n; i++) o[i] = -a[i];
};
const notOp: Op = (o, a, _b, _c, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] ? 0 : 1;
};
const chooseOp: Op = (o, a, b, c, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] ? b[i] : c[i];
};

// One loop a function, written out: a shared loop that is handed the function would stop the compiler from inlining it
// once a few formulas have run (three to six times slower).
const loops: Record<string, Op> = {
  sin: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.sin(a[i]);
  },
  cos: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.cos(a[i]);
  },
  abs: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.abs(a[i]);
  },
  floor: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.floor(a[i]);
  },
  fract: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] - Math.floor(a[i]);
  },
  min: (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.min(a[i], b[i]);
  },
  max: (o, a, b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.max(a[i], b[i]);
  },
  mix: (o, a, b, c, n) => {
    for (let i = 0; i < n; i++) o[i] = a[i] + (b[i] - a[i]) * c[i];
  },
  sqrt: (o, a, _b, _c, n) => {
    for (let i = 0; i < n; i++) o[i] = Math.sqrt(a[i] < 0 ? 0 : a[i]);
  },
};

function loopOf(name: string): Op {
  const ready = loops[name];
  if (ready) return ready;
  const { one } = formulaFunctions[name];
  return (o, a, b, c, n) => {
    for (let i = 0; i < n; i++) o[i] = one(a[i], b[i], c[i]);
  };
}

interface Step {
  op: Op;
  out: Float64Array;
  a: Float64Array;
  b: Float64Array;
  c: Float64Array;
}

/** Values of the names of a formula: one number for all samples, or one a sample (then `length` of the run long). */
export type FormulaValues = Readonly<Record<string, number | Float32Array>>;

const zeros = new Float64Array(blockSize);

/**
 * A formula ready to run over blocks of samples. Each part of the tree has a block of scratch memory; parts in which
 * nothing varies by sample are worked out once a run.
 */
export class FormulaRunner {
  readonly names: readonly string[];
  private readonly nameBlocks = new Map<string, Float64Array>();
  private readonly uniformSteps: Step[] = [];
  private readonly varyingSteps: Step[] = [];
  private readonly varying = new Set<Float64Array>();
  private readonly result: Float64Array;

  /** `varies` says which names have a value of their own for each sample; `i` and `u` always do. */
  constructor(expression: Expression, varies: (name: string) => boolean) {
    this.names = [...namesIn(expression)];
    for (const name of this.names) {
      const block = new Float64Array(blockSize);
      this.nameBlocks.set(name, block);
      if (name === 'i' || name === 'u' || varies(name)) this.varying.add(block);
    }
    this.result = this.build(expression);
  }

  private step(op: Op, a: Float64Array, b: Float64Array = zeros, c: Float64Array = zeros): Float64Array {
    const out = new Float64Array(blockSize);
    const each = this.varying.has(a) || this.varying.has(b) || this.varying.has(c);
    if (each) this.varying.add(out);
    (each ? this.varyingSteps : this.uniformSteps).push({ op, out, a, b, c });
    return out;
  }

  private build(e: Expression): Float64Array {
    switch (e.type) {
      case 'constant':
        return new Float64Array(blockSize).fill(e.value);
      case 'name':
        return this.nameBlocks.get(e.name)!;
      case 'negate':
        return this.step(negateOp, this.build(e.of));
      case 'not':
        return this.step(notOp, this.build(e.of));
      case 'binary':
        return this.step(binaryOps[e.operator], this.build(e.left), this.build(e.right));
      case 'choose':
        return this.step(chooseOp, this.build(e.test), this.build(e.yes), this.build(e.no));
      case 'call': {
        const [a, b, c] = e.args.map((arg) => this.build(arg));
        return this.step(loopOf(e.name), a, b, c);
      }
    }
  }

  /** Whether the result has a value of its own for each sample. */
  get isVarying(): boolean {
    return this.varying.has(this.result);
  }

  /** Fills `out`; what is not a finite number becomes 0. */
  run(out: Float32Array, values: FormulaValues): void {
    const n = out.length;
    for (const [name, block] of this.nameBlocks) {
      const value = values[name];
      if (typeof value === 'number') block.fill(value);
      else if (value === undefined && name !== 'i' && name !== 'u') block.fill(0);
    }
    for (const s of this.uniformSteps) s.op(s.out, s.a, s.b, s.c, blockSize);
    const iBlock = this.nameBlocks.get('i');
    const uBlock = this.nameBlocks.get('u');
    const last = Math.max(1, n - 1);
    for (let start = 0; start < n; start += blockSize) {
      const size = Math.min(blockSize, n - start);
      for (const [name, block] of this.nameBlocks) {
        const value = values[name];
        if (typeof value === 'object') for (let k = 0; k < size; k++) block[k] = value[start + k];
      }
      if (iBlock) for (let k = 0; k < size; k++) iBlock[k] = start + k;
      if (uBlock) for (let k = 0; k < size; k++) uBlock[k] = (start + k) / last;
      for (const s of this.varyingSteps) s.op(s.out, s.a, s.b, s.c, size);
      const result = this.result;
      for (let k = 0; k < size; k++) {
        const v = result[k];
        out[start + k] = v - v === 0 ? v : 0;
      }
    }
  }
}
