import { Flame, Play, Square } from 'lucide-react';
import { useState } from 'react';
import { byLevel } from '../../core/preflight/preflight-finding';
import { subjectsOf } from '../../core/preflight/run';
import { useShow } from '../data/show-store';
import { say } from '../parts/notices';
import { Toggle } from '../parts/rows';
import { FindingRow } from './finding-row';
import { findingsOf, preflightStore, startPreflight, stopPreflight } from './preflight-run';
import { RehearsalPanel } from './rehearsal-panel';
import { rehearsalStore, startRehearsal, stopRehearsal } from './rehearsal-run';
import { SubjectPanel } from './subject-panel';
import { Subjects } from './subjects';
import { Verdict } from './verdict';

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
