import { formulaFunctions, type BlockOp } from './functions';
import { namesIn, type BinaryOperator, type Expression } from './parse';

const blockSize = 512;

const binaryOps: Record<BinaryOperator, BlockOp> = {
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

const negateOp: BlockOp = (o, a, _b, _c, n) => {
  for (let i = 0; i < n; i++) o[i] = -a[i];
};
const notOp: BlockOp = (o, a, _b, _c, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] ? 0 : 1;
};
const chooseOp: BlockOp = (o, a, b, c, n) => {
  for (let i = 0; i < n; i++) o[i] = a[i] ? b[i] : c[i];
};

/** Loops for the commonest case that one side is the same for all samples: `b[0]` and `c[0]`. */
const affineOp: BlockOp = (o, a, b, c, n) => {
  const m = b[0];
  const s = c[0];
  for (let i = 0; i < n; i++) o[i] = a[i] * m + s;
};
const divideByOneOp: BlockOp = (o, a, b, _c, n) => {
  const d = b[0];
  for (let i = 0; i < n; i++) o[i] = a[i] / d;
};
const clampToOneOp: BlockOp = (o, a, b, c, n) => {
  const low = b[0];
  const high = c[0];
  for (let i = 0; i < n; i++) {
    const v = a[i];
    o[i] = v < low ? low : v > high ? high : v;
  }
};
const spreadOp: BlockOp = (o, a, _b, _c, n) => void o.fill(a[0], 0, n);

interface Step {
  op: BlockOp;
  out: Float64Array;
  a: Float64Array;
  b: Float64Array;
  c: Float64Array;
}

/** A part of the tree in the making: a block of samples, or a single number in a block of one. */
interface Operand {
  block: Float64Array;
  varies: boolean;
  /** Set where it is `of` times `m` plus `s`, so that what follows can go into the same loop. */
  affine?: { of: Operand; m: Operand; s: Operand; step: Step };
}

/** Values of the names of a formula: one number for all samples, or one a sample (then `length` of the run long). */
export type FormulaValues = Readonly<Record<string, number | Float32Array>>;

const zeros = new Float64Array(blockSize);

const number = (value: number): Operand => ({ block: Float64Array.of(value), varies: false });
const zero = number(0);
const one = number(1);
const minusOne = number(-1);

/**
 * A formula ready to run over blocks of samples. Each part of the tree has a block of scratch memory; parts in which
 * nothing varies by sample are a single number, worked out once a run.
 */
export class FormulaRunner {
  readonly names: readonly string[];
  private readonly nameBlocks = new Map<string, Operand>();
  private readonly uniformSteps: Step[] = [];
  private readonly varyingSteps: Step[] = [];
  private readonly result: Operand;

  /** `varies` says which names have a value of their own for each sample; `i` and `u` always do. */
  constructor(expression: Expression, varies: (name: string) => boolean) {
    this.names = [...namesIn(expression)];
    for (const name of this.names) {
      const each = name === 'i' || name === 'u' || varies(name);
      this.nameBlocks.set(name, { block: new Float64Array(each ? blockSize : 1), varies: each });
    }
    this.result = this.build(expression);
  }

  private push(op: BlockOp, each: boolean, a: Operand, b: Operand, c: Operand): { out: Operand; step: Step } {
    const out = { block: new Float64Array(each ? blockSize : 1), varies: each };
    const step = { op, out: out.block, a: a.block, b: b.block, c: c.block };
    (each ? this.varyingSteps : this.uniformSteps).push(step);
    return { out, step };
  }

  /** One step; where it varies, operands that do not are spread over a block first, once a run. */
  private step(op: BlockOp, a: Operand, b: Operand = zero, c: Operand = zero): Operand {
    if (!a.varies && !b.varies && !c.varies) return this.push(op, false, a, b, c).out;
    const [wideA, wideB, wideC] = [a, b, c].map((part) => this.spread(part));
    return this.push(op, true, wideA, wideB, wideC).out;
  }

  private spread(part: Operand): Operand {
    if (part.varies) return part;
    if (part === zero) return { block: zeros, varies: true };
    const block = new Float64Array(blockSize);
    this.uniformSteps.push({ op: spreadOp, out: block, a: part.block, b: zeros, c: zeros });
    return { block, varies: true };
  }

  /** `of` times `m` plus `s`; a loop of that form before it goes into the same one. */
  private affine(of: Operand, m: Operand, s: Operand): Operand {
    const before = of.affine;
    if (before) {
      this.varyingSteps.splice(this.varyingSteps.indexOf(before.step), 1);
      const scaled = this.step(binaryOps['*'], before.s, m);
      return this.affine(
        before.of,
        this.step(binaryOps['*'], before.m, m),
        this.step(binaryOps['+'], scaled, s),
      );
    }
    const { out, step } = this.push(affineOp, true, of, m, s);
    return { ...out, affine: { of, m, s, step } };
  }

  /** A function of one argument takes it as `a` times `b[0]` plus `c[0]`, which saves a loop where it comes in that form. */
  private unary(name: string, a: Operand): Operand {
    const { block } = formulaFunctions[name];
    if (!a.affine) return this.push(block, a.varies, a, one, zero).out;
    const { of, m, s, step } = a.affine;
    this.varyingSteps.splice(this.varyingSteps.indexOf(step), 1);
    return this.push(block, true, of, m, s).out;
  }

  private binary(operator: BinaryOperator, a: Operand, b: Operand): Operand {
    if (a.varies !== b.varies) {
      const [each, same] = a.varies ? [a, b] : [b, a];
      if (operator === '*') return this.affine(each, same, zero);
      if (operator === '+') return this.affine(each, one, same);
      if (operator === '-' && a.varies) return this.affine(each, one, this.step(negateOp, same));
      if (operator === '-') return this.affine(each, minusOne, same);
      // Not by the inverse: a third of 3 has to be 1 to the last bit.
      if (operator === '/' && a.varies) return this.push(divideByOneOp, true, a, b, zero).out;
    }
    return this.step(binaryOps[operator], a, b);
  }

  private build(e: Expression): Operand {
    switch (e.type) {
      case 'constant':
        return number(e.value);
      case 'name':
        return this.nameBlocks.get(e.name)!;
      case 'negate':
        return this.step(negateOp, this.build(e.of));
      case 'not':
        return this.step(notOp, this.build(e.of));
      case 'binary':
        return this.binary(e.operator, this.build(e.left), this.build(e.right));
      case 'choose':
        return this.step(chooseOp, this.build(e.test), this.build(e.yes), this.build(e.no));
      case 'call': {
        const [a, b, c] = e.args.map((arg) => this.build(arg));
        if (e.name === 'clamp' && a.varies && !b.varies && !c.varies)
          return this.push(clampToOneOp, true, a, b, c).out;
        if (e.args.length === 1 && formulaFunctions[e.name].arity[1] === 1) return this.unary(e.name, a);
        return this.step(formulaFunctions[e.name].block, a, b, c);
      }
    }
  }

  /** Whether the result has a value of its own for each sample. */
  get isVarying(): boolean {
    return this.result.varies;
  }

  /** Fills `out`; what is not a finite number becomes 0. */
  run(out: Float32Array, values: FormulaValues): void {
    const n = out.length;
    const { block: result, varies } = this.result;
    for (const [name, { block }] of this.nameBlocks) {
      const value = values[name];
      if (typeof value === 'number') block.fill(value);
      else if (value === undefined && name !== 'i' && name !== 'u') block.fill(0);
    }
    for (const s of this.uniformSteps) s.op(s.out, s.a, s.b, s.c, s.out.length);
    if (!varies) {
      out.fill(result[0] - result[0] === 0 ? result[0] : 0);
      return;
    }
    const iBlock = this.nameBlocks.get('i')?.block;
    const uBlock = this.nameBlocks.get('u')?.block;
    const last = Math.max(1, n - 1);
    const share = 1 / last;
    for (let start = 0; start < n; start += blockSize) {
      const size = Math.min(blockSize, n - start);
      for (const [name, { block }] of this.nameBlocks) {
        const value = values[name];
        if (typeof value === 'object') for (let k = 0; k < size; k++) block[k] = value[start + k];
      }
      if (iBlock) for (let k = 0; k < size; k++) iBlock[k] = start + k;
      if (uBlock) {
        // A division a sample costs more than all the rest of a short formula; the end is set to be exact.
        for (let k = 0; k < size; k++) uBlock[k] = (start + k) * share;
        if (start + size > last && n > 1) uBlock[size - 1] = 1;
      }
      for (const s of this.varyingSteps) s.op(s.out, s.a, s.b, s.c, size);
      for (let k = 0; k < size; k++) {
        const v = result[k];
        out[start + k] = v - v === 0 ? v : 0;
      }
    }
  }
}
