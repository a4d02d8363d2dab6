import clsx from 'clsx';
import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import { levelNames, type PreflightFinding } from '../../core/preflight/preflight-finding';
import { navigate } from '../actions/navigation';
import { openScene } from '../data/session';
import { goTo } from '../editor/going-to';
import { mend } from './preflight-run';

/** How grades of findings look. */
export const levels = {
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

/** A finding, with what leads to its place and what mends it. */
export function FindingRow({ finding }: { finding: PreflightFinding }) {
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
