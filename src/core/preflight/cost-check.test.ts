import { describe, expect, test } from '@jest/globals';
import { costFindings, headroom, timesOf, type CostMeasure } from './cost-check';
import type { Subject } from './preflight-finding';

const subject: Subject = { type: 'scene', name: 'S', where: 'scenes[0]', at: { view: 'build', scene: 's' } };
const easy: CostMeasure = {
  size: [1920, 1080],
  frames: 20,
  median: 4,
  p95: 8,
  worst: 9,
  bytes: 2e8,
  nodes: [{ node: 'n1', ms: 3 }],
  holds: 1,
};
const of = (change: Partial<CostMeasure>) =>
  costFindings(subject, { ...easy, ...change }, 60, (node) => `node ${node}`);

test('times are told by their middle, their 95th of 100 and the worst', () => {
  const times = Array.from({ length: 100 }, (_, k) => 100 - k);
  expect(timesOf(times)).toEqual({ frames: 100, median: 50, p95: 95, worst: 100 });
  expect(timesOf([7])).toEqual({ frames: 1, median: 7, p95: 7, worst: 7 });
  expect(timesOf([])).toMatchObject({ frames: 0, median: 0 });
});

describe('what a scene costs', () => {
  test('is nothing to speak of where there is headroom', () => {
    expect(headroom(easy, 60)).toBeCloseTo(0.52);
    expect(of({})).toEqual([]);
  });
  test('is too much where frames take longer than they may, with what would hold and who is dear', () => {
    const [finding, ...rest] = of({ p95: 31, holds: 0.5 });
    expect(rest).toEqual([]);
    expect(finding).toMatchObject({ level: 'warning', at: { scene: 's', node: 'n1' } });
    expect(finding.what).toMatch(/31 ms a frame at 1920 x 1080, and 17 ms .* 60 frames/);
    expect(finding.what).toMatch(/keep up at 960 x 540\. The dearest: node n1, 3\.0 ms/);
    expect(of({ p95: 400, holds: null })[0].what).toContain('none of the sizes');
  });
  test('leaves little where it nearly fills the frame', () =>
    expect(of({ p95: 15.5 })[0].what).toMatch(/^Little headroom: 16 ms of 17 ms/));
  test('may be memory', () => expect(of({ bytes: 3.2e9 })[0].what).toMatch(/3\.2 GB/));
});
