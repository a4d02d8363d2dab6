import { noise3 } from '../noise';
import { randomAt } from '../random';

/** One function of the formula language, for blocks of numbers and as GLSL. */
export interface FormulaFunction {
  /** Fewest and most arguments. */
  arity: readonly [number, number];
  one(a: number, b: number, c: number): number;
  /** GLSL of a call; absent: a call by the same name. */
  glsl?(args: readonly string[]): string;
}

const unary = (one: (a: number) => number, glsl?: (args: readonly string[]) => string): FormulaFunction => ({
  arity: [1, 1],
  one,
  glsl,
});
const binary = (
  one: (a: number, b: number) => number,
  glsl?: (args: readonly string[]) => string,
): FormulaFunction => ({
  arity: [2, 2],
  one,
  glsl,
});

const smooth = (low: number, high: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - low) / (high - low)));
  return t * t * (3 - 2 * t);
};

/** Names and meaning as in GLSL ES 3.00 chapter 8 wherever it has them. */
export const formulaFunctions: Readonly<Record<string, FormulaFunction>> = {
  sin: unary(Math.sin),
  cos: unary(Math.cos),
  tan: unary(Math.tan),
  asin: unary((a) => Math.asin(Math.min(1, Math.max(-1, a)))),
  acos: unary((a) => Math.acos(Math.min(1, Math.max(-1, a)))),
  atan: unary(Math.atan),
  atan2: binary(Math.atan2, ([y, x]) => `atan(${y}, ${x})`),
  sqrt: unary(
    (a) => Math.sqrt(Math.max(0, a)),
    ([a]) => `sqrt(max(0.0, ${a}))`,
  ),
  abs: unary(Math.abs),
  sign: unary(Math.sign),
  floor: unary(Math.floor),
  ceil: unary(Math.ceil),
  round: unary(Math.round, ([a]) => `floor(${a} + 0.5)`),
  fract: unary((a) => a - Math.floor(a)),
  min: binary(Math.min),
  max: binary(Math.max),
  clamp: { arity: [3, 3], one: (x, low, high) => Math.min(high, Math.max(low, x)) },
  mix: { arity: [3, 3], one: (a, b, t) => a + (b - a) * t },
  step: binary((edge, x) => (x < edge ? 0 : 1)),
  smoothstep: { arity: [3, 3], one: smooth },
  pow: binary(Math.pow, ([a, b]) => `pow(max(0.0, ${a}), ${b})`),
  exp: unary(Math.exp),
  log: unary(
    (a) => Math.log(Math.max(1e-30, a)),
    ([a]) => `log(max(1e-30, ${a}))`,
  ),
  noise: {
    arity: [1, 3],
    one: noise3,
    glsl: (args) => `noise3(vec3(${[...args, '0.0', '0.0'].slice(0, 3).join(', ')}))`,
  },
  rand: unary(
    (a) => randomAt(Math.floor(a)),
    ([a]) => `hash11(floor(${a}))`,
  ),
};

export const formulaConstants: Readonly<Record<string, number>> = { pi: Math.PI, tau: 2 * Math.PI };
