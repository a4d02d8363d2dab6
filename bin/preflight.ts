import { byLevel, mustNotGoOn, type PreflightFinding } from '../src/core/preflight/preflight-finding';
import { reportPage, reportText, type PreflightReport } from '../src/core/preflight/report';
import { checkSubject, subjectsOf } from '../src/core/preflight/run';
import { standingFindings } from '../src/core/preflight/standing';
import type { Show } from '../src/core/document/types';
import { meansOf } from '../src/engine/protocol/preflight';
import { catalogue } from '../src/nodes/catalogue';
import type { Options } from './arguments';
import { readRenderer } from './browser';
import { findScene } from './find';
import { withEngine } from './render';

const line = ({ level, where, what }: PreflightFinding): string => `${level}: ${where}: ${what}`;

/**
 * Checks a show before it goes on stage: scenes of that name, or all of them with the running order and recorded moves. `--cost` also
 * times every frame at full size on this machine. `say` is told each finding as it is found. `keep` is given a report
 * as a file, where one is asked for.
 */
export async function preflight(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  say: (line: string) => void,
  keep: (name: string, text: string) => void = () => undefined,
): Promise<boolean> {
  const withCost = options.get('cost') !== undefined;
  const names = options.all('scene');
  const scenes = names.length ? names.map((name) => findScene(show, name)) : show.scenes;
  const report: PreflightReport = { show: show.name, findings: [], subjects: [] };
  const tell = (findings: readonly PreflightFinding[]): void => {
    report.findings.push(...findings);
    for (const finding of byLevel(findings)) say(line(finding));
  };
  tell(standingFindings(show, scenes, catalogue, (id) => files.has(id)));
  // Where scenes are named, nothing else is looked at.
  const subjects = subjectsOf(show, withCost).filter(
    ({ type, at }) => !names.length || (type === 'scene' && scenes.some(({ id }) => id === at.scene)),
  );
  await withEngine(
    show,
    files,
    async (ask) => {
      for (const subject of subjects) {
        const means = meansOf((request) => ask(subject.name, 'preflight', request), withCost);
        const checked = await checkSubject(show, catalogue, subject, means);
        report.subjects.push(checked);
        tell(checked.findings);
        if (!checked.findings.length) say(`fine: ${subject.where}`);
      }
    },
    readRenderer(options.get('renderer')),
  );
  const kept = options.get('report');
  if (kept) keep(kept, kept.endsWith('.json') ? reportText(report) : reportPage(report, show.canvas.fps));
  return mustNotGoOn(report.findings);
}
