import { describe, expect, test } from '@jest/globals';
import { byLevel, mustNotGoOn, type Subject } from './preflight-finding';
import { roundFindings, type RoundMeasure } from './round-check';

const calm: RoundMeasure = {
  general: { most: 6, at: 1 },
  red: { most: 0, at: 0 },
  pattern: { most: 0.2, at: 0 },
  seam: { mean: 0.4, worst: 20, at: [0.1, 0.9] },
  strip: { general: [], red: [], light: [] },
  seconds: 8,
};
const subject: Subject = { type: 'scene', name: 'S', where: 'scenes[0]', at: { view: 'build', scene: 's' } };
const of = (change: Partial<RoundMeasure>, isLocked = true) =>
  roundFindings(subject, { ...calm, ...change }, { seconds: 8, isLocked });

describe('what Preflight says of what it saw', () => {
  test('nothing of a scene that is calm and closes', () => expect(of({})).toEqual([]));
  test('flashes are errors, and say when', () => {
    const [finding, ...rest] = of({ general: { most: 9, at: 3.25 } });
    expect(rest).toEqual([]);
    expect(finding).toMatchObject({ level: 'error', where: 'scenes[0]', at: { scene: 's' } });
    expect(finding.what).toMatch(/three flashes in a second: 9 changes .* up to 3.25 s, 6 are allowed/);
    expect(of({ red: { most: 7, at: 1 } })[0].what).toMatch(/three red flashes/);
  });
  test('a locked loop that does not close is a warning, by its mean or by one place', () => {
    const mean = of({ seam: { mean: 12.345, worst: 30, at: [0.9, 0.1] } });
    expect(mean).toMatchObject([{ level: 'warning' }]);
    expect(mean[0].what).toMatch(
      /loop of 8 s .* 12.3 of 255 .* 30 at most, at the upper right.*formulas of time/,
    );
    expect(of({ seam: { mean: 0.1, worst: 200, at: [0.5, 0.5] } })[0].what).toContain('at the middle.');
  });
  test('one that promises nothing is a note: on stage nothing jumps', () => {
    const found = of({ seam: { mean: 12, worst: 30, at: [0.9, 0.1] } }, false);
    expect(found).toMatchObject([{ level: 'note' }]);
    expect(found[0].what).toMatch(/exported as a loop it would/);
  });
  test('where there is no loop there is no seam', () => {
    const seam = { mean: 90, worst: 200, at: [0.5, 0.5] as const };
    expect(roundFindings(subject, { ...calm, seam }, null)).toEqual([]);
    expect(of({ seam: null })).toEqual([]);
  });
  test('bars over much of the picture are a note', () => {
    const found = of({ pattern: { most: 0.61, at: 2 } });
    expect(found).toMatchObject([{ level: 'note' }]);
    expect(found[0].what).toMatch(/cover 61 % of the picture at 2 s; over 25 %/);
    expect(mustNotGoOn(found)).toBe(false);
  });
});

test('the worst findings come first', () => {
  const level = (name: 'error' | 'warning' | 'note', where: string) => ({ level: name, where, what: '' });
  const sorted = byLevel([
    level('note', 'a'),
    level('error', 'b'),
    level('warning', 'c'),
    level('error', 'd'),
  ]);
  expect(sorted.map(({ where }) => where)).toEqual(['b', 'd', 'c', 'a']);
  expect(mustNotGoOn(sorted)).toBe(true);
});
