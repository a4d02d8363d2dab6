import { noise3 } from '../noise';
import { randomAt } from '../random';

/**
 * Works out a block: `n` results in `o` from up to three blocks of numbers. Functions of one argument take it as `a` times
 * `b[0]` plus `c[0]`.
 */
export type BlockOp = (o: Float64Array, a: Float64Array, b: Float64Array, c: Float64Array, n: number) => void;

/** One function of the formula language, for blocks of numbers and as GLSL. */
export interface FormulaFunction {
  /** Fewest and most arguments. */
  arity: readonly [number, number];
  block: BlockOp;
  /** GLSL of a call; absent: a call by the same name. */
  glsl?(args: readonly string[]): string;
}

/**
 * Names and meaning as in GLSL ES 3.00 chapter 8 wherever it has them. Each has its loop written out: a shared loop that
 * is handed the function would stop the compiler from inlining it once a few formulas have run (three to six times slower).
 */
export const formulaFunctions: Readonly<Record<string, FormulaFunction>> = {
  sin: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.sin(a[i] * m + s);
    },
  },
  cos: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.cos(a[i] * m + s);
    },
  },
  tan: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.tan(a[i] * m + s);
    },
  },
  asin: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.asin(Math.min(1, Math.max(-1, a[i] * m + s)));
    },
  },
  acos: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.acos(Math.min(1, Math.max(-1, a[i] * m + s)));
    },
  },
  atan: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.atan(a[i] * m + s);
    },
  },
  atan2: {
    arity: [2, 2],
    block(o, a, b, _c, n) {
      for (let i = 0; i < n; i++) o[i] = Math.atan2(a[i], b[i]);
    },
    glsl: ([y, x]) => `atan(${y}, ${x})`,
  },
  sqrt: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.sqrt(Math.max(0, a[i] * m + s));
    },
    glsl: ([a]) => `sqrt(max(0.0, ${a}))`,
  },
  abs: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.abs(a[i] * m + s);
    },
  },
  sign: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.sign(a[i] * m + s);
    },
  },
  floor: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.floor(a[i] * m + s);
    },
  },
  ceil: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.ceil(a[i] * m + s);
    },
  },
  round: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.floor(a[i] * m + s + 0.5);
    },
    glsl: ([a]) => `floor(${a} + 0.5)`,
  },
  fract: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) {
        const v = a[i] * m + s;
        o[i] = v - Math.floor(v);
      }
    },
  },
  min: {
    arity: [2, 2],
    block(o, a, b, _c, n) {
      for (let i = 0; i < n; i++) o[i] = Math.min(a[i], b[i]);
    },
  },
  max: {
    arity: [2, 2],
    block(o, a, b, _c, n) {
      for (let i = 0; i < n; i++) o[i] = Math.max(a[i], b[i]);
    },
  },
  clamp: {
    arity: [3, 3],
    block(o, a, b, c, n) {
      for (let i = 0; i < n; i++) o[i] = Math.min(c[i], Math.max(b[i], a[i]));
    },
  },
  mix: {
    arity: [3, 3],
    block(o, a, b, c, n) {
      for (let i = 0; i < n; i++) o[i] = a[i] + (b[i] - a[i]) * c[i];
    },
  },
  step: {
    arity: [2, 2],
    block(o, a, b, _c, n) {
      for (let i = 0; i < n; i++) o[i] = b[i] < a[i] ? 0 : 1;
    },
  },
  smoothstep: {
    arity: [3, 3],
    block(o, a, b, c, n) {
      for (let i = 0; i < n; i++) {
        const t = Math.min(1, Math.max(0, (c[i] - a[i]) / (b[i] - a[i])));
        o[i] = t * t * (3 - 2 * t);
      }
    },
  },
  pow: {
    arity: [2, 2],
    block(o, a, b, _c, n) {
      for (let i = 0; i < n; i++) o[i] = Math.pow(a[i], b[i]);
    },
    glsl: ([a, b]) => `pow(max(0.0, ${a}), ${b})`,
  },
  exp: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.exp(a[i] * m + s);
    },
  },
  log: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = Math.log(Math.max(1e-30, a[i] * m + s));
    },
    glsl: ([a]) => `log(max(1e-30, ${a}))`,
  },
  noise: {
    arity: [1, 3],
    block(o, a, b, c, n) {
      for (let i = 0; i < n; i++) o[i] = noise3(a[i], b[i], c[i]);
    },
    glsl: (args) => `noise3(vec3(${[...args, '0.0', '0.0'].slice(0, 3).join(', ')}))`,
  },
  rand: {
    arity: [1, 1],
    block(o, a, { 0: m }, { 0: s }, n) {
      for (let i = 0; i < n; i++) o[i] = randomAt(Math.floor(a[i] * m + s));
    },
    glsl: ([a]) => `hash11(floor(${a}))`,
  },
};

export const formulaConstants: Readonly<Record<string, number>> = { pi: Math.PI, tau: 2 * Math.PI };
