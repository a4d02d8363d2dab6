import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { joinLines, LoopError, mostTurns, withLoopBudget } from './loop-budget';

const check = 'if (turnsLeft0-- <= 0) break;';
/** The text as it is given a budget, with the check written as B. */
const given = (code: string): string => withLoopBudget(code).code.replaceAll(check, 'B');

describe('every loop has a share in the budget, and the program stays what it was', () => {
  test.each([
    ['for (int k = 0; k < 9; k++) v += 1.0;', 'for (int k = 0; k < 9; k++) { B v += 1.0; }'],
    ['while (v < 20.0) { v += 2.0; }', 'while (v < 20.0) { B v += 2.0; }'],
    ['do { v += 1.0; } while (v < 30.0);', 'do { B v += 1.0; } while (v < 30.0);'],
    ['do v += 1.0; while (v < 30.0); v = 2.0;', 'do { B v += 1.0; } while (v < 30.0); v = 2.0;'],
    ['while (true) { if (v > 3.0) break; }', 'while (true) { B if (v > 3.0) break; }'],
    [
      'for (int k = 0; k < 9; k++) if (k > 5) { v += 1.0; v = 9.0; } v = 7.0;',
      'for (int k = 0; k < 9; k++) { B if (k > 5) { v += 1.0; v = 9.0; } } v = 7.0;',
    ],
    [
      'for (;v < 9.0;) if (v > 5.0) v += 1.0; else if (v > 2.0) v += 2.0; else { v += 3.0; } v = 1.0;',
      'for (;v < 9.0;) { B if (v > 5.0) v += 1.0; else if (v > 2.0) v += 2.0; else { v += 3.0; } } v = 1.0;',
    ],
    [
      'for (int a = 0; a < 2; a++) for (int b = 0; b < 2; b++) v += f(a, vec2(b)[0]);',
      'for (int a = 0; a < 2; a++) { B for (int b = 0; b < 2; b++) { B v += f(a, vec2(b)[0]); } }',
    ],
    [
      'for (int a = 0; a < 2; a++) do while (v < 3.0) v++; while (v < 5.0); v = 0.0;',
      'for (int a = 0; a < 2; a++) { B do { B while (v < 3.0) { B v++; } } while (v < 5.0); } v = 0.0;',
    ],
    [
      'for (int a = 0; a < 2; a++) switch (a) { case 0: v = 1.0; break; default: v = 2.0; } v = 3.0;',
      'for (int a = 0; a < 2; a++) { B switch (a) { case 0: v = 1.0; break; default: v = 2.0; } } v = 3.0;',
    ],
    ['for (int a = 0; a < 2; a++);', 'for (int a = 0; a < 2; a++) { B ; }'],
    ['float fort = 1.0; float whiles = dot(a, b);', 'float fort = 1.0; float whiles = dot(a, b);'],
  ])('%s', (code, expected) => {
    const plain = (text: string): string => text.replace(/\s+/g, ' ').replace(/ ?([{;}]) ?/g, '$1');
    expect(plain(given(code))).toBe(plain(expected));
  });

  test('the budget has a name that the text does not hold', () => {
    const { code, budget } = withLoopBudget(
      'for (int k = 0; k < 9; k++) { turnsLeft0 = 4096; turnsLeft1 = 9; }',
    );
    expect(budget).toBe('turnsLeft2');
    expect(code).toContain('{ if (turnsLeft2-- <= 0) break; turnsLeft0 = 4096;');
    expect(mostTurns).toBeGreaterThan(100);
  });

  test('lines keep their numbers', () => {
    const code = 'float a() {\n  for (int k = 0;\n    k < 3; k++)\n    v += 1.0;\n  return v;\n}';
    expect(given(code).split('\n')).toHaveLength(6);
    expect(given(code).split('\n')[3]).toBe('    { B v += 1.0; }');
  });
});

describe('what would hide a loop, or where it ends, is refused with its line', () => {
  test.each([
    ['#define AGAIN for (int k = 0; k < 9; k++)\nAGAIN v += 1.0;', 1, /may hold no loop/],
    ['float v;\n#define if for', 2, /another meaning/],
    ['#define TWO v += 1.0; v = 2.0\nfor (;v < 9.0;) TWO;', 2, /needs braces/],
    ['#define BEGIN {\nfor (;v < 9.0;) BEGIN v++; }', 2, /needs braces/],
    ['for (;v < 9.0;)\n#ifdef A\nv++;\n#endif\n', 2, /needs braces/],
    ['for (int k = 0; k < 3; k++ { v++; }', 1, /closes nothing|never closed/],
    ['void f() {\nwhile (true) { v *= 2.0; }\n}', 2, /never ends/],
    ['void f() {\n\nfor (;;) v *= 2.0;\n}', 3, /never ends/],
    ['for (int k = 0; k < 3; k++) v++', 1, /no ;/],
    ['for (int k = 0; k < 3; k++)', 1, /no body/],
    ['do v++; until (v);', 1, /no while/],
    ['for int k', 1, /has to follow for/],
    ['for (;a;) '.repeat(300) + 'v++;', 1, /too deep/],
  ])('%j', (code, line, reason) => {
    let thrown: unknown;
    try {
      withLoopBudget(code);
    } catch (error) {
      thrown = error;
    }
    expect(thrown).toBeInstanceOf(LoopError);
    expect((thrown as LoopError).line).toBe(line);
    expect((thrown as LoopError).reason).toMatch(reason);
  });

  test('a #define of an expression, or one of statements inside of braces, is none of these', () => {
    const code =
      '#define SQ(x) ((x) * (x))\n#define TWO v += 1.0; v = SQ(2.0)\nfor (;v < 9.0;) { TWO; }\nfor (;v < 9.0;) v += SQ(v);';
    expect(given(code).match(/B/g)).toHaveLength(2);
  });
});

test('continued lines are joined, and their ends come after', () => {
  expect(joinLines('a\\\nb\nc')).toBe('ab\n\nc');
  expect(joinLines('// a \\\nb\r\nc\\\n\\\nd')).toBe('// a b\n\ncd\n\n');
});

describe('programs of any form', () => {
  interface Made {
    text: string;
    loops: number;
  }
  const leaf = fc.constantFrom<Made>(
    { text: 'v += 1.0;', loops: 0 },
    { text: 'v = max(v, f(1, vec2(2.0)[0]));', loops: 0 },
    { text: ';', loops: 0 },
    { text: '{ v++; v--; }', loops: 0 },
    { text: 'break;', loops: 0 },
  );
  const { statement } = fc.letrec<{ statement: Made }>((tie) => {
    const inner = tie('statement');
    const wrap = (of: (text: string) => string, loops: number) =>
      inner.map((made) => ({ text: of(made.text), loops: made.loops + loops }));
    return {
      statement: fc.oneof(
        { maxDepth: 5 },
        leaf,
        wrap((t) => `for (int k = 0; k < 3; k++) ${t}`, 1),
        wrap((t) => `while (v < 3.0)\n${t}`, 1),
        wrap((t) => `do ${t} while (v < 3.0);`, 1),
        wrap((t) => `{ ${t} v = 0.0; }`, 0),
        fc
          .tuple(inner, inner)
          .map(([a, b]) => ({ text: `if (v > 1.0) { ${a.text} } else ${b.text}`, loops: a.loops + b.loops })),
      ),
    };
  });

  test('taking the checks away again gives the program back, one for each loop', () => {
    fc.assert(
      fc.property(fc.array(statement, { maxLength: 4 }), (list) => {
        const code = list.map(({ text }) => text).join('\n');
        const out = given(code);
        expect(out.match(/B/g)?.length ?? 0).toBe(list.reduce((sum, { loops }) => sum + loops, 0));
        // Braces and blanks aside, nothing was added, lost or moved.
        const bare = (text: string): string => text.replace(/[\s{}]|B/g, '');
        expect(bare(out)).toBe(bare(code));
        expect(out.split('\n')).toHaveLength(code.split('\n').length);
      }),
      { seed: 3, numRuns: 400 },
    );
  });
});
