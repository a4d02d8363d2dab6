import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formulaToGlsl } from './glsl';
import { parseLanes } from './lanes';
import { formulaName, renameInFormula } from './names';
import { FormulaError, parseFormula } from './parse';
import { FormulaRunner, type FormulaValues } from './run';

const names = ['time', 'a.x', 'u', 'i', 'n'];
const parse = (text: string) => parseFormula(text, (name) => names.includes(name), names);

function value(text: string, values: FormulaValues = { time: 3, 'a.x': 4 }): number {
  const out = new Float32Array(1);
  new FormulaRunner(parse(text), () => false).run(out, values);
  return out[0];
}

function fault(text: string): FormulaError {
  try {
    parse(text);
  } catch (error) {
    return error as FormulaError;
  }
  throw new Error(`${text} was read`);
}

describe('precedence', () => {
  test.each([
    ['1 + 2 * 3', 7],
    ['(1 + 2) * 3', 9],
    ['-2^2', -4],
    ['(-2)^2', 4],
    ['2^3^2', 512],
    ['2^-1', 0.5],
    ['2 * 3^2', 18],
    ['time^2', 9],
    ['10 - 4 - 3', 3],
    ['-7 % 3', 2],
    ['1 < 2 ? 3 : 4', 3],
    ['1 + 1 == 2 && !0', 1],
    ['a.x * 2 + time', 11],
    ['clamp(5, 0, 1) + max(1, 2)', 3],
    ['smoothstep(0, 1, 0.5)', 0.5],
    ['sqrt(-1) + log(0) * 0', 0],
    ['1 / 0', 0],
  ])('%s is %d', (text, expected) => expect(value(text)).toBeCloseTo(expected, 5));

  test('constants', () => expect(value('tau / pi')).toBeCloseTo(2));
});

describe('errors say what and where', () => {
  test.each([
    ['', 0, /empty/],
    ['1 +', 3, /Expected/],
    ['sin(1', 5, /\)/],
    ['2 3', 0, /operator is missing/],
    ['1 + foo', 4, /Nothing is called foo/],
    ['1 + foo(2)', 4, /no function foo/],
    ['2 * sin', 4, /sin needs brackets/],
    ['clamp(1)', 0, /takes 3 values, not 1/],
    ['1 + "a"', 5, /numbers only/],
    ['a.y', 0, /Nothing is called a\.y/],
  ])('%s', (text, position, message) => {
    const error = fault(text);
    expect(error).toBeInstanceOf(FormulaError);
    expect(error.message).toMatch(message);
    expect(error.position).toBe(position);
  });

  test('offers a name that is near', () => expect(fault('Time').message).toContain('Do you mean time?'));

  test.each([
    'constructor',
    'a.x.y',
    'this',
    '[1]',
    'a[0]',
    'toString()',
    '__proto__',
    'hasOwnProperty(1)',
    'x = 3',
    '1; 2',
  ])('refuses %s', (text) => expect(() => parse(text)).toThrow(FormulaError));
});

describe('samples', () => {
  test('i counts from 0, u runs from 0 to 1, over more than one block', () => {
    const out = new Float32Array(1300);
    new FormulaRunner(parse('i + u * 0'), () => false).run(out, { n: 1300 });
    expect([out[0], out[511], out[512], out[1299]]).toEqual([0, 511, 512, 1299]);
    new FormulaRunner(parse('u'), () => false).run(out, {});
    expect([out[0], out[1299]]).toEqual([0, 1]);
  });

  test('a name with samples gives each its own, uniform parts are the same for all', () => {
    const lane = Float32Array.from({ length: 700 }, (_, k) => k);
    const out = new Float32Array(700);
    const runner = new FormulaRunner(parse('a.x * 2 + sin(time) * 0 + time'), (name) => name === 'a.x');
    runner.run(out, { 'a.x': lane, time: 1 });
    expect([out[0], out[3], out[699]]).toEqual([1, 7, 1399]);
    expect(runner.isVarying).toBe(true);
    expect(new FormulaRunner(parse('time * 2'), () => false).isVarying).toBe(false);
  });

  test('agrees with JavaScript on a formula of many parts', () => {
    const out = new Float32Array(100);
    new FormulaRunner(
      parse('sin(u * tau) * 0.5 + (i % 3 == 0 ? 1 : mix(2, 3, u)) - abs(time)'),
      () => false,
    ).run(out, { time: -2 });
    for (let i = 0; i < 100; i++) {
      const u = i / 99;
      expect(out[i]).toBeCloseTo(Math.sin(u * 2 * Math.PI) * 0.5 + (i % 3 === 0 ? 1 : 2 + u) - 2, 4);
    }
  });
});

describe('as GLSL', () => {
  const glsl = (text: string): string =>
    formulaToGlsl(
      parseFormula(text, (n) => n === 'v'),
      (n) => `a_${n}`,
    );
  test('writes floats, calls and choices', () => {
    expect(glsl('v^2 + 1')).toBe('((a_v * a_v) + 1.0)');
    expect(glsl('atan2(v, 2)')).toBe('atan(a_v, 2.0)');
    expect(glsl('v > 0.5 ? 1 : 0')).toBe('((a_v > 0.5 ? 1.0 : 0.0) != 0.0 ? 1.0 : 0.0)');
  });
});

describe('lanes', () => {
  test('named lines, and value for one without a name', () => {
    expect(parseLanes('x = 1\ny = 2; 3', () => false).map((lane) => lane.name)).toEqual(['x', 'y', 'value3']);
    expect(parseLanes('1 == 1', () => false)[0].name).toBe('value');
  });
  test('positions count from the start of the text', () => {
    expect(() => parseLanes('x = 1\ny = foo', () => false)).toThrow(
      expect.objectContaining({ position: 10 }),
    );
    expect(() => parseLanes('x = 1; x = 2', () => false)).toThrow(/Two lanes/);
  });
});

describe('names of nodes', () => {
  test.each([
    ['Slow Drift', 'slow_drift'],
    ['  3 Bees! ', 'n_3_bees'],
    ['Ö', 'n_'],
  ])('%s is %s', (name, word) => expect(formulaName(name)).toBe(word));
  test('renaming follows whole names only', () => {
    expect(
      renameInFormula('drift.x + drift + drift2 + a.drift + drifting', new Map([['drift', 'wind']])),
    ).toBe('wind.x + wind + drift2 + a.drift + drifting');
  });
});

describe('what cannot be read is said as a sentence', () => {
  test.each([
    ['brackets', '('.repeat(50_000) + '1' + ')'.repeat(50_000)],
    ['signs', '-'.repeat(60_000) + '1'],
    ['sums', `1${' + 1'.repeat(5000)}`],
    ['choices', `${'1 ? '.repeat(3000)}1${' : 2'.repeat(3000)}`],
  ])('%s nested too deeply', (_name, text) => {
    expect(fault(text)).toBeInstanceOf(FormulaError);
    expect(fault(text).message).toMatch(/nested too deeply/);
  });

  test('a formula as long as a hand writes is read', () => {
    expect(value(`1${' + 1'.repeat(300)}`)).toBe(301);
  });

  test('any text is read or refused, and what is read gives a finite number', () => {
    const words = fc.constantFrom(
      ...'sin cos max noise time a.x u i n pi ( ) + - * / % ^ < <= == && || ! ? : , . 1 0.5 1e9 -3 foo { } [ ] = ; "'.split(
        ' ',
      ),
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(words, { maxLength: 24 }).map((list) => list.join(' ')),
          fc.string(),
        ),
        (text) => {
          try {
            expect(Number.isFinite(value(text, { time: 3, 'a.x': 4 }))).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(FormulaError);
            expect((error as FormulaError).position).toBeGreaterThanOrEqual(0);
            expect((error as FormulaError).position).toBeLessThanOrEqual(text.length);
          }
        },
      ),
      { seed: 1, numRuns: 600 },
    );
  });
});

test('a node named like a word of formulas is called by a name of its own', () => {
  for (const word of ['Time', 'pi', 'TAU', 'Beat', 'bar', 'frame', 'i', 'n', 'U', 'value', 'true'])
    expect(formulaName(word)).toBe(`n_${word.toLowerCase()}`);
  expect(formulaName('Time 2')).toBe('time_2');
});
