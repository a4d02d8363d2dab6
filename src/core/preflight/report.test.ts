import { describe, expect, test } from '@jest/globals';
import { reportPage, reportText, type PreflightReport } from './report';

const report: PreflightReport = {
  show: 'Night <one>',
  at: '2031-05-02T20:00:00Z',
  findings: [
    { level: 'note', where: 'scenes[0]', what: 'A note.' },
    { level: 'error', where: 'scenes[1]', what: 'More than three flashes & more.' },
  ],
  subjects: [
    {
      subject: { type: 'scene', name: 'Haze', where: 'scenes[0] Haze', at: { view: 'build', scene: 'a' } },
      measure: {
        general: { most: 4, at: 1 },
        red: { most: 2, at: 0 },
        pattern: { most: 0, at: 0 },
        seam: { mean: 0.25, worst: 7, at: [0.5, 0.5] },
        strip: { general: [0, 4, 2], red: [0, 2, 0], light: [0, 1, 0] },
        seconds: 4,
      },
      cost: { size: [640, 360], frames: 3, median: 2, p95: 4, worst: 5, bytes: 3e6, nodes: [], holds: 1 },
      findings: [],
    },
  ],
};

describe('a report', () => {
  test('as JSON is read back as it was', () => expect(JSON.parse(reportText(report))).toEqual(report));
  test('as a page names what was found, the worst first, and figures', () => {
    const page = reportPage(report, 50);
    expect(page).toContain('Preflight of Night &lt;one&gt;');
    expect(page).not.toContain('<one>');
    expect(page.indexOf('flashes &amp; more')).toBeLessThan(page.indexOf('A note.'));
    expect(page).toContain(
      '<td>4 / 2</td><td>0.25 / 7</td><td>2.0 / 4.0 / 5.0</td><td>80 %</td><td>3 MB</td>',
    );
    expect(page.match(/<polyline/g)).toHaveLength(2);
  });
  test('without findings says so', () =>
    expect(reportPage({ ...report, findings: [] }, 60)).toContain('Nothing was found.'));
});
