import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../../core/random';
import { copyGlsl, copyHelpers, copyMaps, type CopyForm } from './copy-glsl';

const plain: CopyForm = {
  many: [false, false, false, false],
  turned: false,
  anchored: false,
  points: null,
  facing: 'none',
  pixels: null,
  palette: null,
  part: null,
  region: null,
  outward: false,
  start: null,
};
const all = { line: true, normal: true, uv: true };
const none = { line: false, normal: false, uv: false };

/** Names of uniforms that the code of a level declares, and those that it reads. */
function namesIn(code: string): { declared: string[]; read: Set<string> } {
  const declared = [...code.matchAll(/uniform (?:highp )?\w+ (\w+_1);/g)].map(([, name]) => name);
  const body = code.slice(code.indexOf('void stand_1'));
  const read = new Set([...body.matchAll(/\b([a-z]\w*_1)\b/gi)].map(([, name]) => name));
  read.delete('stand_1');
  return { declared, read };
}

/** A form whose every choice is drawn by lot. */
function formOf(seed: number): CopyForm {
  let draws = 0;
  const one = <T>(...from: readonly T[]): T => from[Math.floor(randomAt(draws++, seed) * from.length)];
  const flag = (): boolean => one(true, false);
  return {
    many: [flag(), flag(), flag(), flag()],
    turned: flag(),
    anchored: flag(),
    points: one(null, 'exact', 'stretch', 'repeat', 'mirror', 'hold'),
    facing: one('none', 'camera', 'normal', 'direction', 'outward'),
    pixels: one(null, true, true)
      ? {
          mode: one('places', 'tints', 'rows'),
          rows: [flag(), flag(), flag(), flag()],
          spread: one('exact', 'stretch', 'repeat', 'mirror', 'hold'),
        }
      : null,
    palette: one(null, 'once', 'repeat', 'mirror'),
    part: one(null, 'cells', 'cells each', 'place'),
    region: one(null, 'ball', 'box'),
    outward: flag(),
    start: one(null, 'one', 'many'),
  };
}

describe('the code of copies', () => {
  test('whatever is chosen, all that is read is declared, once, and brackets close', () => {
    for (let seed = 0; seed < 400; seed++) {
      const form = formOf(seed);
      const code = copyGlsl(form, 1, seed % 2 ? all : none);
      const { declared, read } = namesIn(code);
      expect(new Set(declared).size).toBe(declared.length);
      for (const name of read) expect(declared).toContain(name);
      for (const [open, close] of ['()', '{}', '[]'])
        expect(code.split(open).length).toBe(code.split(close).length);
      expect(code).not.toMatch(/undefined|null|NaN|\[object/);
    }
  });

  test('maps have the names that are bound before the first frame', () => {
    for (let seed = 0; seed < 100; seed++)
      for (const [, name] of copyGlsl(formOf(seed), 1, all).matchAll(/sampler2D (\w+)_1/g))
        expect(copyMaps).toContain(name);
  });

  test('plain copies read a place and a size and turn nothing', () => {
    const { read } = namesIn(copyGlsl(plain, 1, none));
    expect([...read].sort()).toEqual(['placeOne_1', 'sizeOne_1', 'tintOne_1']);
    expect(copyGlsl(plain, 1, none)).not.toContain('mat3 m');
  });

  test('what a body has not is not moved', () => {
    const code = copyGlsl({ ...plain, turned: true }, 1, none);
    expect(code).not.toMatch(/\bq = |\bn = |\bat = /);
    const full = copyGlsl({ ...plain, turned: true, part: 'cells' }, 1, all);
    expect(full).toMatch(/q = m \* \(q \* size\) \+ move/);
    expect(full).toContain('n = m *');
    expect(full).toContain('at = (at + vec2(');
  });

  test('as many places as copies are read one by one, others as their spread says', () => {
    const on = (points: CopyForm['points']): string => copyGlsl({ ...plain, points }, 1, none);
    expect(on('exact')).toContain('int on = i;');
    expect(on('repeat')).toContain('repeatTo(i, points_1)');
    expect(on('mirror')).toContain('mirrorTo(i, points_1)');
    expect(on('stretch')).toContain('stretchTo(i, copies_1, points_1)');
  });

  test('copies whose place is no number are left out', () => {
    const pixels = { mode: 'places' as const, rows: [], spread: 'exact' as const };
    expect(copyGlsl({ ...plain, pixels }, 1, none)).toContain('size = vec3(0.0)');
    expect(copyGlsl({ ...plain, pixels: { ...pixels, mode: 'tints' } }, 1, none)).not.toContain('1e9');
  });

  test('every spread has its function', () => {
    for (const spread of ['stretch', 'repeat', 'mirror', 'hold'])
      expect(copyHelpers).toMatch(new RegExp(`\\b${spread}To\\(int i, int`));
  });
});
