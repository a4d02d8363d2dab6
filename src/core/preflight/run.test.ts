import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene, makeShow } from '../show/create';
import { addScreen } from '../show/edit-wall';
import type { CostMeasure } from './cost-check';
import type { RoundMeasure } from './round-check';
import { checkSubject, subjectsOf, type PreflightMeans } from './run';
import { performanceSubjects, sceneSubject } from './standing';

const show = { ...makeShow(catalogue, 'Night'), scenes: [makeScene(catalogue, 's', 'Haze')] };
const calm: RoundMeasure = {
  general: { most: 0, at: 0 },
  red: { most: 0, at: 0 },
  pattern: { most: 0, at: 0 },
  seam: { mean: 0, worst: 0, at: [0, 0] },
  strip: { general: [], red: [], light: [] },
  seconds: 4,
};
const cheap: CostMeasure = {
  size: [1920, 1080],
  frames: 4,
  median: 1,
  p95: 2,
  worst: 2,
  bytes: 1,
  nodes: [],
  holds: 1,
};
addScreen(show);
const subject = sceneSubject(show, show.scenes[0]);

describe('a subject', () => {
  test('is looked at until it is done, and told how far that is', async () => {
    const asked: boolean[] = [];
    const told: number[] = [];
    const means: PreflightMeans = {
      measure: (measured, _longest, isNew) => {
        expect(measured).toEqual({ source: { type: 'scene', scene: 's', node: null }, output: null });
        asked.push(isNew);
        return Promise.resolve({ done: asked.length / 3, measure: asked.length === 3 ? calm : null });
      },
      cost: () => Promise.resolve(cheap),
    };
    const report = await checkSubject(show, catalogue, subject, means, (done) => told.push(done));
    expect(asked).toEqual([true, false, false]);
    expect(told.at(-1)).toBe(1);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    expect(report).toMatchObject({ measure: calm, cost: cheap, findings: [] });
  });
  test('that cannot be drawn is an error with its reason', async () => {
    const means = { measure: () => Promise.reject(new Error('Own: Line 3: no such thing.')) };
    const { findings, cost } = await checkSubject(show, catalogue, subject, means);
    expect(findings).toEqual([
      {
        level: 'error',
        where: subject.where,
        at: subject.at,
        what: 'It cannot be drawn. Own: Line 3: no such thing.',
      },
    ]);
    expect(cost).toBeNull();
  });
  test('that is an output is timed and not looked at', async () => {
    const [output] = subjectsOf(show, true).filter(({ type }) => type === 'output');
    const means: PreflightMeans = {
      measure: () => Promise.reject(new Error('not asked')),
      cost: (measured) => {
        expect(measured.output).toBe(output.output);
        return Promise.resolve({ ...cheap, p95: 40, holds: 0.5 });
      },
    };
    const { findings } = await checkSubject(show, catalogue, output, means);
    expect(findings).toMatchObject([{ level: 'warning', where: output.where }]);
  });
});

test('a show with cues and moves has a running order and recorded moves to look at', () => {
  expect(performanceSubjects(show)).toEqual([]);
  const played = { ...show, cues: [{}], moves: [{}] } as unknown as typeof show;
  expect(performanceSubjects(played).map(({ type }) => type)).toEqual(['cues', 'moves']);
});
