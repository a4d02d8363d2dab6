import clsx from 'clsx';
import {
  CircleAlert,
  CircleCheck,
  Circle,
  Download,
  Flame,
  Info,
  LoaderCircle,
  Play,
  Printer,
  Square,
  TriangleAlert,
} from 'lucide-react';
import { useState } from 'react';
import { byLevel, levelNames, type PreflightFinding } from '../../core/preflight/preflight-finding';
import { reportPage, reportText } from '../../core/preflight/report';
import { subjectsOf, type SubjectReport } from '../../core/preflight/run';
import { navigate } from '../actions/navigation';
import { useShow } from '../data/show-store';
import { goTo } from '../editor/going-to';
import { openScene } from '../data/session';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { Toggle } from '../parts/rows';
import {
  currentReport,
  findingsOf,
  mend,
  preflightStore,
  startPreflight,
  stopPreflight,
} from './preflight-run';
import { RehearsalPanel } from './rehearsal-panel';
import { rehearsalStore, startRehearsal, stopRehearsal } from './rehearsal-run';
import { SubjectPanel } from './subject-panel';

const levels = {
  error: { icon: CircleAlert, tone: 'text-error', name: levelNames.error },
  warning: { icon: TriangleAlert, tone: 'text-warning', name: levelNames.warning },
  note: { icon: Info, tone: 'text-info', name: levelNames.note },
} as const;

const mends = {
  'lock-loop': 'Lock the loop',
  guard: 'Switch the guard on',
  'keep-storage': 'Ask to keep',
} as const;

function show({ at }: PreflightFinding): void {
  if (!at) return;
  if (at.scene && at.node) goTo(at.scene, at.node);
  else if (at.scene) openScene(at.scene);
  navigate(`/${at.view}`);
}

const places: Readonly<Record<string, string>> = {
  'inputs.midi': 'MIDI',
  'inputs.osc': 'OSC',
  'inputs.sound': 'Sound',
  'inputs.code': 'Time code',
  wall: 'Wall',
  cues: 'Running order',
  moves: 'Recorded moves',
};

/** A place of the document as a performer calls it. */
const nameOf = (where: string): string =>
  places[where] ?? where.replace(/^(scenes\[\d+\]|wall\.outputs\.\S+|rehearsal) |^files\./, '');

function FindingRow({ finding }: { finding: PreflightFinding }) {
  const { level, where, what, at, mend: how } = finding;
  const { icon: Icon, tone, name } = levels[level];
  return (
    <li className="flex items-start gap-2 border-b edge px-4 py-2" data-level={level}>
      <Icon size={15} className={clsx('mt-0.5 shrink-0', tone)} aria-label={name} />
      <p className="min-w-0 grow">
        <span className="font-semibold">{nameOf(where)}</span> {what}
      </p>
      {how && (
        <button type="button" className="tool shrink-0 text-primary" onClick={() => void mend(finding, how)}>
          {mends[how.do]}
        </button>
      )}
      {at && (
        <button
          type="button"
          className="tool shrink-0"
          onClick={() => show(finding)}
          aria-label={`Go to ${where}`}
        >
          Go there
        </button>
      )}
    </li>
  );
}

/** How a subject stands: a mark, and in words for who does not see it. */
function Mark({ report, isNow }: { report: SubjectReport | undefined; isNow: boolean }) {
  if (isNow) return <LoaderCircle size={14} className="shrink-0 text-primary" aria-label="Being looked at" />;
  if (!report) return <Circle size={14} className="quiet shrink-0 opacity-50" aria-label="Not looked at" />;
  const [worst] = byLevel(report.findings);
  if (!worst) return <CircleCheck size={14} className="shrink-0 text-success" aria-label="Fine" />;
  const { icon: Icon, tone, name } = levels[worst.level];
  return <Icon size={14} className={clsx('shrink-0', tone)} aria-label={name} />;
}

function keepReport(form: 'html' | 'json' | 'print'): void {
  const report = currentReport();
  const { show: looked } = preflightStore.getState();
  if (!report || !looked) return;
  const page = reportPage(report, looked.canvas.fps);
  if (form === 'json') saveAs(new Blob([reportText(report)], { type: 'application/json' }), 'preflight.json');
  else if (form === 'html') saveAs(new Blob([page], { type: 'text/html' }), 'preflight.html');
  else {
    const address = URL.createObjectURL(new Blob([page], { type: 'text/html' }));
    const window_ = window.open(address);
    if (!window_)
      say({ tone: 'warning', text: 'The browser let no window open. Save the report and print that.' });
    else window_.addEventListener('load', () => window_.print());
    setTimeout(() => URL.revokeObjectURL(address), 60000);
  }
}

/** What stands against the stage, in a few words. */
function verdict(findings: readonly PreflightFinding[], isDone: boolean): string {
  const count = (level: PreflightFinding['level']): number =>
    findings.filter((finding) => finding.level === level).length;
  const [errors, warnings] = [count('error'), count('warning')];
  const parts = [
    errors ? `${errors} must not go on stage` : '',
    warnings ? `${warnings} should be mended` : '',
  ].filter(Boolean);
  if (parts.length) return parts.join(' · ');
  return isDone ? 'Nothing stands against the stage' : 'Nothing found so far';
}

function Verdict() {
  const state = preflightStore();
  const findings = findingsOf(state);
  const isDone = state.running === null && state.reports.length === state.subjects.length;
  const tone = findings.some(({ level }) => level === 'error')
    ? 'text-error'
    : findings.some(({ level }) => level === 'warning')
      ? 'text-warning'
      : isDone && state.show
        ? 'text-success'
        : '';
  return (
    <div className="flex min-h-12 shrink-0 flex-wrap items-center gap-2 border-b edge px-4">
      <h2 className={clsx('grow text-base font-semibold', tone)} role="status">
        {state.show ? verdict(findings, isDone) : 'Known to be safe before doors'}
      </h2>
      {state.show && (
        <>
          <button type="button" className="tool" onClick={() => keepReport('print')}>
            <Printer size={14} /> Print
          </button>
          <button type="button" className="tool" onClick={() => keepReport('html')}>
            <Download size={14} /> Page
          </button>
          <button type="button" className="tool" onClick={() => keepReport('json')}>
            <Download size={14} /> JSON
          </button>
        </>
      )}
    </div>
  );
}

/** What is looked at, each with how it stands; pressed, its figures are shown. */
function Subjects({
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

/** Preflight: all checks of a show before the doors open, what they found, and what to do about it. */
export function PreflightView() {
  const opened = useShow((now) => now);
  const state = preflightStore();
  const [withCost, setCost] = useState(true);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<string | null>(null);
  const [isRehearsal, setRehearsal] = useState(() => rehearsalStore.getState().running !== null);
  const rehearsing = rehearsalStore((s) => s.running);
  const findings = findingsOf(state);
  const { running, reports } = state;
  const shown =
    reports.find(({ subject }) => subject.where === chosen) ??
    reports.find((report) => byLevel(report.findings)[0]?.level === 'error') ??
    reports.at(-1);
  const isNothing = subjectsOf(opened, withCost).every(({ where }) => skipped.has(where));
  const start = (): void => {
    setChosen(null);
    setRehearsal(false);
    void startPreflight(skipped, withCost).catch((error: Error) => {
      stopPreflight();
      say({ tone: 'error', text: `Preflight broke off: ${error.message}` });
    });
  };
  const rehearse = (): void => {
    setRehearsal(true);
    void startRehearsal().catch((error: Error) => {
      stopRehearsal();
      say({ tone: 'error', text: `The rehearsal broke off: ${error.message}` });
    });
  };
  return (
    <main className="flex h-full">
      <aside className="flex w-80 shrink-0 flex-col border-r edge bg-base-200" aria-label="Checks">
        <div className="flex flex-col gap-2 border-b edge px-4 py-3">
          {running ? (
            <button type="button" className="btn btn-outline btn-sm" onClick={stopPreflight}>
              <Square size={13} /> Stop
            </button>
          ) : (
            <button
              type="button"
              className="btn btn-primary btn-sm"
              disabled={isNothing || rehearsing !== null}
              onClick={start}
            >
              <Play size={13} /> Check the show
            </button>
          )}
          <Toggle
            label="Time frames at full size too"
            on={withCost}
            disabled={running !== null}
            set={setCost}
          />
          <div className="h-8">
            {running && (
              <>
                <progress
                  className="progress progress-primary h-1.5 w-full"
                  max={1}
                  value={running.done}
                  aria-label="Progress of Preflight"
                />
                <p className="quiet truncate text-2xs">{running.name}</p>
              </>
            )}
          </div>
        </div>
        <div className="flex flex-col gap-2 border-b edge px-4 py-3">
          {rehearsing ? (
            <button type="button" className="btn btn-outline btn-sm" onClick={stopRehearsal}>
              <Square size={13} /> Stop the rehearsal
            </button>
          ) : (
            <button
              type="button"
              className="btn btn-outline btn-sm"
              disabled={running !== null}
              title="The evening in a minute, with faults thrown in: what the stage shows of each"
              onClick={rehearse}
            >
              <Flame size={13} /> Rehearse faults
            </button>
          )}
        </div>
        <Subjects
          withCost={withCost}
          chosen={shown?.subject.where ?? null}
          choose={(where) => {
            setRehearsal(false);
            setChosen(where);
          }}
          skipped={skipped}
          skip={(where, isSkipped) =>
            setSkipped((now) => {
              const next = new Set(now);
              if (isSkipped) next.add(where);
              else next.delete(where);
              return next;
            })
          }
        />
      </aside>
      <section className="flex min-w-0 grow flex-col" aria-label="Findings">
        <Verdict />
        {isRehearsal ? (
          <RehearsalPanel />
        ) : findings.length ? (
          <ul className="min-h-0 grow overflow-y-auto" data-testid="findings">
            {findings.map((finding, k) => (
              <FindingRow key={`${finding.where} ${k}`} finding={finding} />
            ))}
          </ul>
        ) : (
          <div className="quiet grid min-h-0 grow place-items-center p-8 text-center">
            <p className="max-w-md">
              {state.show
                ? running
                  ? 'What is found is listed here while it is looked for.'
                  : 'Nothing was found.'
                : 'Draws every scene through its loop, and the running order with its transitions, as the stage would: flashes that can hurt, loops that do not close, what is missing, and what a frame costs at full size. The stage goes on meanwhile.'}
            </p>
          </div>
        )}
        {!isRehearsal && shown && state.show && <SubjectPanel report={shown} show={state.show} />}
      </section>
    </main>
  );
}
