import clsx from 'clsx';
import { Circle, CircleAlert, CircleCheck, LoaderCircle, TriangleAlert } from 'lucide-react';
import { useEffect, useRef } from 'react';
import {
  rehearsedFaults,
  stoodStill,
  wentDark,
  type FaultOutcome,
  type RehearsedFault,
} from '../../core/preflight/rehearsal';
import { useShow } from '../data/show-store';
import { preflightStore } from './preflight-run';
import { rehearsalStore } from './rehearsal-run';

const seconds = (ms: number): string => `${(ms / 1000).toFixed(ms < 9950 ? 1 : 0)} s`;

function Mark({ outcome, isNow }: { outcome: FaultOutcome | undefined; isNow: boolean }) {
  if (isNow) return <LoaderCircle size={14} className="text-primary" aria-label="Under way" />;
  if (!outcome || outcome.skipped !== undefined)
    return <Circle size={14} className="quiet opacity-50" aria-label="Not rehearsed" />;
  if (wentDark(outcome)) return <CircleAlert size={14} className="text-error" aria-label="Went dark" />;
  if (stoodStill(outcome))
    return <TriangleAlert size={14} className="text-warning" aria-label="Stood still for too long" />;
  return <CircleCheck size={14} className="text-success" aria-label="Held" />;
}

function FaultRow({
  fault,
  outcome,
  isNow,
}: {
  fault: RehearsedFault;
  outcome: FaultOutcome | undefined;
  isNow: boolean;
}) {
  return (
    <tr className="border-b edge align-top" data-fault={fault}>
      <td className="w-9 py-2.5 pl-4">
        <Mark outcome={outcome} isNow={isNow} />
      </td>
      <th scope="row" className="py-2 pr-3 text-left font-semibold">
        {rehearsedFaults[fault]}
      </th>
      {outcome?.skipped !== undefined ? (
        <td colSpan={4} className="quiet py-2">
          {outcome.skipped}
        </td>
      ) : (
        <>
          <td className="py-2 pr-3">{outcome?.scene}</td>
          <td className={clsx('figures py-2 pr-3', outcome && stoodStill(outcome) && 'text-warning')}>
            {outcome && `${seconds(outcome.stillMs)} (usually ${seconds(outcome.usualMs)})`}
          </td>
          <td className={clsx('figures py-2 pr-3', outcome && wentDark(outcome) && 'text-error')}>
            {outcome && `${outcome.leastMean.toFixed(0)} (usually ${outcome.usualMean.toFixed(0)})`}
          </td>
          <td className="quiet py-2 pr-4">{outcome?.said}</td>
        </>
      )}
    </tr>
  );
}

/** The stage of a rehearsal, and what each fault did to it. */
export function RehearsalPanel() {
  const { running, stage } = rehearsalStore();
  const outcomes = preflightStore((s) => s.rehearsal);
  const canvas = useShow((show) => show.canvas);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (stage) box.current?.replaceChildren(stage);
  }, [stage]);
  return (
    <div className="min-h-0 grow overflow-y-auto" data-testid="rehearsal">
      {stage && (
        <div className="flex items-start gap-4 border-b edge p-4">
          <div
            ref={box}
            className="relative w-80 shrink-0 overflow-hidden rounded-md border-2 border-primary bg-black"
            style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}
            role="img"
            aria-label="Stage of the rehearsal"
          />
          <p className="quiet max-w-sm">
            The evening in a minute, small, in an engine of its own. Stage windows go on meanwhile. The desk
            does not respond for the second in which it is blocked.
          </p>
        </div>
      )}
      <table className="w-full text-xs" aria-label="Rehearsed faults">
        <thead className="quiet text-left">
          <tr className="border-b edge">
            <th />
            <th className="py-2 font-normal">Fault</th>
            <th className="py-2 font-normal">On air</th>
            <th className="py-2 font-normal">Longest still picture</th>
            <th className="py-2 font-normal">Least light of 255</th>
            <th className="py-2 font-normal">What is said</th>
          </tr>
        </thead>
        <tbody>
          {(Object.keys(rehearsedFaults) as RehearsedFault[]).map((fault) => (
            <FaultRow
              key={fault}
              fault={fault}
              outcome={outcomes.find((one) => one.fault === fault)}
              isNow={running?.fault === fault}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}
