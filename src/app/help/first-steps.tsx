import clsx from 'clsx';
import { ArrowRight, Check, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { sceneAtHand } from '../commands/at-hand';
import { navigate } from '../actions/navigation';
import { firstSteps, goToStep, leaveSteps } from '../data/first-steps';
import { openHelp } from '../data/help-session';
import { sessionStore } from '../data/session';
import { showStore } from '../data/show-store';
import { openStages, watchStageCount } from '../data/stage-windows';
import { steps, type Doing } from './step-list';

const now = (): Doing => ({
  selection: sessionStore.getState().selection,
  scene: sceneAtHand(),
  stages: openStages(),
});

/** Milliseconds from one look at where the ring has to be to the next: panels are dragged and views change. */
const ringMs = 250;

/** A ring around what a step is about. */
function Ring({ at }: { at: string }) {
  const ring = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const place = (): void => {
      const box = document.querySelector(at)?.getBoundingClientRect();
      const { style } = ring.current!;
      style.display = box ? '' : 'none';
      if (!box) return;
      Object.assign(style, {
        left: `${box.left - 2}px`,
        top: `${box.top - 2}px`,
        width: `${box.width + 4}px`,
        height: `${box.height + 4}px`,
      });
    };
    place();
    const timer = setInterval(place, ringMs);
    return () => clearInterval(timer);
  }, [at]);
  return (
    <div
      ref={ring}
      aria-hidden
      className="pointer-events-none fixed z-40 rounded-md border-2 border-primary shadow-[0_0_0_4px_color-mix(in_oklab,var(--color-primary)_25%,transparent)]"
    />
  );
}

/** One step, ticked by itself once it was done. */
function Step({ at }: { at: number }) {
  const step = steps[at];
  const [isDone, setDone] = useState(false);
  useEffect(() => {
    if (!sceneAtHand()) navigate('/build');
    const before = now();
    const look = (): void => {
      if (step.isDone(before, now())) setDone(true);
    };
    const ends = [sessionStore.subscribe(look), showStore.subscribe(look), watchStageCount(look)];
    return () => ends.forEach((end) => end());
  }, [step]);
  const isLast = at === steps.length - 1;
  const next = (): void => (isLast ? leaveSteps() : goToStep(at + 1));
  return (
    <>
      <Ring at={step.at} />
      <h2 className="flex items-center gap-2 font-semibold">
        <span className={clsx(isDone && 'text-success')}>{step.title}</span>
        {isDone && <Check size={15} className="text-success" aria-label="done" />}
      </h2>
      <p>
        {step.text}
        {step.keys && <kbd className="figures ml-1.5 rounded border edge px-1">{step.keys}</kbd>}
      </p>
      <div className="flex items-center gap-1">
        <ol className="flex gap-1" aria-label={`Step ${at + 1} of ${steps.length}`}>
          {steps.map(({ title }, k) => (
            <li
              key={title}
              className={clsx('size-2 rounded-full', k <= at ? 'bg-primary' : 'bg-base-content/30')}
            />
          ))}
        </ol>
        <span className="grow" />
        {at > 0 && (
          <button type="button" className="tool" onClick={() => goToStep(at - 1)}>
            Back
          </button>
        )}
        <button
          type="button"
          className={clsx('btn btn-sm', isDone ? 'btn-primary' : 'border edge bg-base-100')}
          onClick={next}
        >
          {isLast ? 'Done' : isDone ? 'Next' : 'Skip'} {!isLast && <ArrowRight size={13} />}
        </button>
      </div>
    </>
  );
}

/** The first steps, and before them the offer to take them. They can be left at any time, and found again in Help. */
export default function FirstSteps() {
  const { at } = firstSteps();
  return (
    <aside
      aria-label="First steps"
      data-testid="first-steps"
      className="fixed bottom-3 left-3 z-40 flex w-96 flex-col gap-2 rounded-lg border border-primary/60 bg-base-200 p-3 shadow-2xl"
    >
      <header className="quiet flex items-center text-2xs font-semibold">
        <span className="grow">First steps{at !== null && ` · ${at + 1} of ${steps.length}`}</span>
        <button type="button" className="tool -m-1" aria-label="Leave the first steps" onClick={leaveSteps}>
          <X size={14} />
        </button>
      </header>
      {at === null ? (
        <>
          <p>New here? Six steps lead from this patch to a picture of your own on stage.</p>
          <div className="flex gap-1">
            <button type="button" className="btn btn-sm btn-primary" onClick={() => goToStep(0)}>
              Begin
            </button>
            <button
              type="button"
              className="btn btn-sm border edge bg-base-100"
              onClick={() => {
                leaveSteps();
                openHelp();
              }}
            >
              Read the guide
            </button>
            <span className="grow" />
            <button type="button" className="tool" onClick={leaveSteps}>
              Not now
            </button>
          </div>
        </>
      ) : (
        <Step key={at} at={at} />
      )}
    </aside>
  );
}
