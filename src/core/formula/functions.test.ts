import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formulaConstants, formulaFunctions } from './functions';

const one = Float64Array.of(1);
const zero = Float64Array.of(0);
/** A call for single numbers. Functions of one argument take it times 1 plus 0. */
function call(name: string, ...args: number[]): number {
  const { arity, block } = formulaFunctions[name];
  const out = new Float64Array(1);
  const [a, b, c] = args.map((v) => Float64Array.of(v));
  if (arity[1] === 1) block(out, a, one, zero, 1);
  else block(out, a, b ?? zero, c ?? zero, 1);
  return out[0];
}

const number = fc.double({ min: -1e6, max: 1e6, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('functions of formulas', () => {
  test.each<[string, number[], number]>([
    ['sin', [Math.PI / 2], 1],
    ['cos', [0], 1],
    ['tan', [Math.PI / 4], 1],
    ['asin', [1], Math.PI / 2],
    ['asin', [7], Math.PI / 2],
    ['acos', [-7], Math.PI],
    ['atan', [1], Math.PI / 4],
    ['atan2', [1, -1], (3 * Math.PI) / 4],
    ['sqrt', [9], 3],
    ['sqrt', [-9], 0],
    ['abs', [-3], 3],
    ['sign', [-3], -1],
    ['sign', [0], 0],
    ['floor', [-1.5], -2],
    ['ceil', [-1.5], -1],
    ['round', [2.5], 3],
    ['round', [-2.5], -2],
    ['fract', [-0.25], 0.75],
    ['min', [2, 3], 2],
    ['max', [2, 3], 3],
    ['clamp', [5, 0, 1], 1],
    ['clamp', [-5, 0, 1], 0],
    ['mix', [2, 4, 0.25], 2.5],
    ['step', [0.5, 0.5], 1],
    ['step', [0.5, 0.4], 0],
    ['smoothstep', [0, 2, 1], 0.5],
    ['pow', [2, 10], 1024],
    ['exp', [0], 1],
    ['log', [1], 0],
  ])('%s of %j is %d', (name, args, result) => {
    expect(call(name, ...args)).toBeCloseTo(result, 12);
  });

  test('are finite for any finite number where GLSL leaves it open', () => {
    for (const name of ['asin', 'acos', 'sqrt', 'log', 'fract', 'noise', 'rand'])
      fc.assert(fc.property(number, (v) => expect(Number.isFinite(call(name, v, 0, 0))).toBe(true)));
  });

  test('of one argument take a factor and a summand along', () => {
    for (const [name, { arity, block }] of Object.entries(formulaFunctions)) {
      if (arity[1] !== 1 || name === 'rand') continue;
      fc.assert(
        fc.property(share, fc.double({ min: 0.1, max: 2, noNaN: true }), share, (v, factor, summand) => {
          const out = new Float64Array(1);
          block(out, Float64Array.of(v), Float64Array.of(factor), Float64Array.of(summand), 1);
          expect(out[0]).toBeCloseTo(call(name, v * factor + summand), 9);
        }),
        { numRuns: 20 },
      );
    }
  });

  test('work out blocks as they work out each number', () => {
    const n = 64;
    const lane = (seed: number): Float64Array =>
      Float64Array.from({ length: n }, (_, i) => Math.sin(i * 12.9898 + seed) * 3);
    const [a, b, c] = [1, 2, 3].map(lane);
    for (const [name, { arity, block }] of Object.entries(formulaFunctions)) {
      const out = new Float64Array(n);
      if (arity[1] === 1) block(out, a, one, zero, n);
      else block(out, a, b, c, n);
      for (let i = 0; i < n; i++) expect(out[i]).toEqual(call(name, a[i], b[i], c[i]));
    }
  });

  test('clamp, mix and smoothstep stay between their ends', () => {
    fc.assert(
      fc.property(number, number, share, (p, q, t) => {
        const [low, high] = [Math.min(p, q), Math.max(p, q)];
        for (const v of [call('clamp', p + q, low, high), call('mix', low, high, t)]) {
          expect(v).toBeGreaterThanOrEqual(low - 1e-6);
          expect(v).toBeLessThanOrEqual(high + 1e-6);
        }
      }),
    );
    fc.assert(
      fc.property(number, (v) => {
        const s = call('smoothstep', -10, 10, v);
        expect(s).toBeGreaterThanOrEqual(0);
        expect(s).toBeLessThanOrEqual(1);
      }),
    );
  });

  test('rand gives each whole number its own place between 0 and 1, the same each time', () => {
    const values = Array.from({ length: 200 }, (_, i) => call('rand', i));
    expect(new Set(values).size).toBeGreaterThan(195);
    for (const [i, v] of values.entries()) {
      expect(v).toBeGreaterThanOrEqual(0);
      expect(v).toBeLessThan(1);
      expect(call('rand', i + 0.4)).toBe(v);
    }
  });

  test('noise is smooth and fills its range', () => {
    let [low, high, steepest] = [Infinity, -Infinity, 0];
    let before = call('noise', 0, 0, 0);
    for (let k = 1; k < 4000; k++) {
      const v = call('noise', k / 100, 0.3, 0.7);
      [low, high] = [Math.min(low, v), Math.max(high, v)];
      if (k > 1) steepest = Math.max(steepest, Math.abs(v - before));
      before = v;
    }
    expect(steepest).toBeLessThan(0.05);
    expect(high - low).toBeGreaterThan(0.6);
  });

  test('that GLSL has by the same name are called so, the others are written out', () => {
    for (const [name, { glsl, arity }] of Object.entries(formulaFunctions)) {
      const args = ['x', 'y', 'z'].slice(0, arity[1]);
      if (!glsl) continue;
      const text = glsl(args);
      for (const arg of args) expect(text).toContain(arg);
      expect(text.split('(').length).toBe(text.split(')').length);
      expect(name).toMatch(/^[a-z0-9]+$/);
    }
    expect(formulaConstants.tau).toBe(2 * formulaConstants.pi);
  });
});
