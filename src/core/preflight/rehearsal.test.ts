import { expect, test } from '@jest/globals';
import { outcomeOf, rehearsalFindings, stoodStill, wentDark, type StageSample } from './rehearsal';

/** Samples every 50 ms; a picture changes where its letter does. */
const samples = (pictures: string, mean: number | ((k: number) => number) = 80, from = 0): StageSample[] =>
  [...pictures].map((letter, k) => ({
    at: from + 50 * k,
    mean: typeof mean === 'number' ? mean : mean(k),
    print: letter.charCodeAt(0),
  }));
const of = (before: StageSample[], after: StageSample[]) => outcomeOf('crash', 'Bees', before, after, '');

test('tells for how long the last picture stood', () => {
  const outcome = of(samples('abcdef'), samples(`${'f'.repeat(12)}ghi`));
  expect(outcome).toMatchObject({ usualMs: 0, stillMs: 550 });
  expect(stoodStill(outcome)).toBe(false);
  expect(rehearsalFindings([outcome])).toEqual([]);
});

test('a picture that never moves again stood until the end', () => {
  const outcome = of(samples('abcdef'), samples('f'.repeat(41)));
  expect(outcome.stillMs).toBe(2000);
  expect(rehearsalFindings([outcome])[0]).toMatchObject({
    level: 'warning',
    where: 'rehearsal Engine gone',
    what: expect.stringMatching(/“Bees” stood for 2\.0 s/),
  });
});

test('a scene that moves as slowly by itself is no fault', () => {
  const slow = `${'a'.repeat(21)}${'b'.repeat(21)}`;
  expect(stoodStill(of(samples(slow), samples('b'.repeat(50))))).toBe(false);
  expect(stoodStill(of(samples(slow), samples('b'.repeat(80))))).toBe(true);
});

test('a stage that went dark must not go on', () => {
  const outcome = of(
    samples('abcdef'),
    samples('fghij', (k) => (k === 2 ? 0 : 80)),
  );
  expect(wentDark(outcome)).toBe(true);
  expect(rehearsalFindings([outcome])[0].level).toBe('error');
});

test('a scene that is dark by itself did not go dark', () => {
  expect(wentDark(of(samples('abc', 2), samples('def', 0)))).toBe(false);
});

test('what could not be thrown in says nothing', () => {
  const outcome = { ...of(samples('abc'), samples('ccc', 0)), skipped: 'There is no file.' };
  expect(rehearsalFindings([outcome])).toEqual([]);
});
