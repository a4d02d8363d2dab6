import clsx from 'clsx';
import { Circle, CircleCheck, LoaderCircle } from 'lucide-react';
import { byLevel } from '../../core/preflight/preflight-finding';
import { subjectsOf, type SubjectReport } from '../../core/preflight/run';
import { useShow } from '../data/show-store';
import { levels } from './finding-row';
import { preflightStore } from './preflight-run';

/** How a subject stands: a mark, and in words for who does not see it. */
function Mark({ report, isNow }: { report: SubjectReport | undefined; isNow: boolean }) {
  if (isNow) return <LoaderCircle size={14} className="shrink-0 text-primary" aria-label="Being looked at" />;
  if (!report) return <Circle size={14} className="quiet shrink-0 opacity-50" aria-label="Not looked at" />;
  const [worst] = byLevel(report.findings);
  if (!worst) return <CircleCheck size={14} className="shrink-0 text-success" aria-label="Fine" />;
  const { icon: Icon, tone, name } = levels[worst.level];
  return <Icon size={14} className={clsx('shrink-0', tone)} aria-label={name} />;
}

/** What is looked at, each with how it stands; pressed, its figures are shown. */
export function Subjects({
  withCost,
  chosen,
  choose,
  skipped,
  skip,
}: {
  withCost: boolean;
  chosen: string | null;
  choose(where: string): void;
  skipped: ReadonlySet<string>;
  skip(where: string, isSkipped: boolean): void;
}) {
  const opened = useShow((now) => now);
  const running = preflightStore((s) => s.running);
  const reports = preflightStore((s) => s.reports);
  const subjects = preflightStore((s) => s.subjects);
  const listed = subjectsOf(opened, withCost);
  return (
    <ul className="min-h-0 grow overflow-y-auto py-1" aria-label="What is looked at">
      {listed.map((subject) => {
        const { where, name, type } = subject;
        const report = reports.find((one) => one.subject.where === where);
        const isNow = running !== null && subjects[reports.length]?.where === where;
        return (
          <li key={where} className={clsx('flex items-center gap-2 px-4', chosen === where && 'bg-base-300')}>
            <Mark report={report} isNow={isNow} />
            <button
              type="button"
              className="flex min-h-7 min-w-0 grow items-center gap-2 text-left"
              aria-pressed={chosen === where}
              onClick={() => choose(where)}
            >
              <span className="min-w-0 truncate">{name}</span>
              {type !== 'scene' && (
                <span className="quiet text-2xs">{type === 'output' ? 'output' : 'with transitions'}</span>
              )}
            </button>
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              aria-label={`Look at ${name}`}
              checked={!skipped.has(where)}
              onChange={(event) => skip(where, !event.target.checked)}
            />
          </li>
        );
      })}
    </ul>
  );
}
