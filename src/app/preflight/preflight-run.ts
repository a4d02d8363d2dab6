import { create } from 'zustand';
import { machineFindings } from '../../core/preflight/machine-check';
import {
  byLevel,
  type Mend,
  type PreflightFinding,
  type Subject,
} from '../../core/preflight/preflight-finding';
import { rehearsalFindings, type FaultOutcome } from '../../core/preflight/rehearsal';
import type { PreflightReport } from '../../core/preflight/report';
import { checkSubject, subjectsOf, type SubjectReport } from '../../core/preflight/run';
import { standingFindings } from '../../core/preflight/standing';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { meansOf } from '../../engine/protocol/preflight';
import { database } from '../data/db';
import { editScene, showStore } from '../data/show-store';
import { engineFor } from '../exports/job-queue';
import type { EngineClient } from '../engine/client';
import { machineFacts } from './machine-facts';

/** Milliseconds that one answer may take: a frame at full size may be slow where the processor draws. */
const patienceMs = 600000;

interface PreflightState {
  /** Show that was looked at, as it stood then; null: none was. */
  show: Show | null;
  at: string;
  machine: string;
  /** What is being looked at, and the share of all that is done. */
  running: { name: string; done: number } | null;
  subjects: readonly Subject[];
  /** What was found without drawing, and about the machine. */
  standing: readonly PreflightFinding[];
  reports: readonly SubjectReport[];
  /** What the last rehearsal came to. */
  rehearsal: readonly FaultOutcome[];
}

const nothing: PreflightState = {
  show: null,
  at: '',
  machine: '',
  running: null,
  subjects: [],
  standing: [],
  reports: [],
  rehearsal: [],
};

/** What Preflight found last, and how far it is. */
export const preflightStore = create<PreflightState>()(() => nothing);

/** All findings, the worst first; those of the last rehearsal are among them. */
export const findingsOf = ({ standing, reports, rehearsal }: PreflightState): PreflightFinding[] =>
  byLevel([...standing, ...reports.flatMap(({ findings }) => findings), ...rehearsalFindings(rehearsal)]);

let client: EngineClient | null = null;
/** Counts the runs: what an older one still says is not heard. */
let runs = 0;

/** Ends what is under way; what was found stays. */
export function stopPreflight(): void {
  runs++;
  client?.close();
  client = null;
  preflightStore.setState({ running: null });
}

/**
 * Looks at the open show, in an engine of its own beside that of the stage. `skipped`: places of what is left out.
 * `withCost`: frames are also timed at full size.
 */
export async function startPreflight(skipped: ReadonlySet<string>, withCost: boolean): Promise<void> {
  stopPreflight();
  const run = runs;
  const isCurrent = (): boolean => run === runs;
  const { show } = showStore.getState();
  const subjects = subjectsOf(show, withCost).filter(({ where }) => !skipped.has(where));
  preflightStore.setState(({ rehearsal }) => ({
    ...nothing,
    rehearsal,
    show,
    subjects,
    at: new Date().toISOString(),
    running: { name: 'Machine', done: 0 },
  }));
  const kept = new Set(await database.files.toCollection().primaryKeys());
  const { facts, name } = await machineFacts();
  if (!isCurrent()) return;
  const chosen = show.scenes.filter(({ id }) =>
    subjects.some(({ type, at }) => type === 'scene' && at.scene === id),
  );
  preflightStore.setState({
    machine: name,
    standing: [
      ...standingFindings(show, chosen, catalogue, (file) => kept.has(file)),
      ...machineFindings(show, catalogue, facts),
    ],
  });
  const own = await engineFor(show);
  if (!isCurrent()) {
    own.close();
    return;
  }
  client = own;
  const means = meansOf((request) => own.request(request, patienceMs), withCost);
  for (const [k, subject] of subjects.entries()) {
    const tell = (done: number): void => {
      if (isCurrent())
        preflightStore.setState({ running: { name: subject.name, done: (k + done) / subjects.length } });
    };
    tell(0);
    const report = await checkSubject(show, catalogue, subject, means, tell);
    if (!isCurrent()) return;
    preflightStore.setState(({ reports }) => ({ reports: [...reports, report] }));
  }
  stopPreflight();
}

/** The last look as a report. */
export function currentReport(): PreflightReport | null {
  const state = preflightStore.getState();
  if (!state.show) return null;
  const { show, at, machine, reports, rehearsal } = state;
  const findings = findingsOf(state);
  return { show: show.name, at, machine, findings, subjects: [...reports], rehearsal: [...rehearsal] };
}

/** Does what a finding says would mend it, and takes the finding away. */
export async function mend(finding: PreflightFinding, how: Mend): Promise<void> {
  if (how.do === 'keep-storage') {
    if (!(await navigator.storage.persist())) return;
  } else if (how.do === 'lock-loop') editScene(how.scene, (scene) => void (scene.loop.lock = true));
  else editScene(how.scene, (scene) => void (scene.wires[how.wire].back!.guard = 'soft'));
  preflightStore.setState(({ standing }) => ({ standing: standing.filter((one) => one !== finding) }));
}
