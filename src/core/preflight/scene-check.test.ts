import { describe, expect, test } from '@jest/globals';
import { sceneFindings, type SceneMeasure } from './scene-check';

const calm: SceneMeasure = {
  general: { most: 6, at: 1 },
  red: { most: 0, at: 0 },
  seam: { mean: 0.4, worst: 20 },
  seconds: 8,
  remembers: false,
};

describe('what Preflight says of a scene', () => {
  test('nothing of one that is calm and closes', () => expect(sceneFindings('scenes[0]', calm)).toEqual([]));
  test('flashes are errors, and say when', () => {
    const [finding, ...rest] = sceneFindings('scenes[0]', { ...calm, general: { most: 9, at: 3.25 } });
    expect(rest).toEqual([]);
    expect(finding).toMatchObject({ level: 'error', where: 'scenes[0]' });
    expect(finding.what).toMatch(/three flashes in a second: 9 changes .* up to 3.25 s, 6 are allowed/);
    expect(sceneFindings('s', { ...calm, red: { most: 7, at: 1 } })[0].what).toMatch(/three red flashes/);
  });
  test('a loop that does not close is a warning, by its mean or by one place', () => {
    const mean = sceneFindings('s', { ...calm, seam: { mean: 12.345, worst: 30 } });
    expect(mean).toMatchObject([{ level: 'warning' }]);
    expect(mean[0].what).toMatch(/loop of 8 s .* 12.3 of 255 .* 30 at most.*inspector/);
    expect(sceneFindings('s', { ...calm, seam: { mean: 0.1, worst: 200 } })).toHaveLength(1);
    expect(sceneFindings('s', { ...calm, seam: { mean: 9, worst: 9 }, remembers: true })[0].what).toMatch(
      /memory/,
    );
  });
});
