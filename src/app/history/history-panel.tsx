import { X } from 'lucide-react';
import clsx from 'clsx';
import { useEffect, useMemo, useRef } from 'react';
import { useStore } from 'zustand';
import { historySession } from '../data/history-session';
import { redo, showStore, undo, useShow } from '../data/show-store';
import { stepsOf } from './steps';

const close = (): void => historySession.setState({ isOpen: false });

/** Goes so many steps back, or on. */
function goBack(steps: number): void {
  for (let k = 0; k < steps; k++) undo();
  for (let k = 0; k > steps; k--) redo();
}

/** The steps of undo by name, newest first: a click goes to the state after it. */
export default function HistoryPanel() {
  const show = useShow((s) => s);
  const past = useStore(showStore.temporal, (s) => s.pastStates);
  const future = useStore(showStore.temporal, (s) => s.futureStates);
  const list = useRef<HTMLOListElement>(null);
  const steps = useMemo(
    () =>
      stepsOf(
        past.flatMap((state) => state.show ?? []),
        show,
        future.flatMap((state) => state.show ?? []),
      ),
    [past, show, future],
  );
  const names = new Map(show.scenes.map(({ id, name }) => [id, name]));
  useEffect(() => list.current?.querySelector<HTMLElement>('[aria-current]')?.focus(), []);
  return (
    <aside
      aria-label="Steps"
      data-testid="history"
      className="fixed top-12 right-2 z-40 flex max-h-[70vh] w-80 flex-col rounded-lg border edge bg-base-200 shadow-2xl"
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
        event.stopPropagation();
      }}
    >
      <div className="flex items-center border-b edge px-3 py-1.5">
        <h2 className="grow font-semibold">Steps</h2>
        <button type="button" className="tool" aria-label="Close the steps" onClick={close}>
          <X size={14} />
        </button>
      </div>
      <ol ref={list} className="min-h-0 overflow-y-auto p-1">
        {steps.map(({ text, scene, back }) => (
          <li key={back}>
            <button
              type="button"
              aria-current={back === 0 ? 'step' : undefined}
              className={clsx(
                'flex w-full items-baseline gap-2 rounded px-2 py-0.5 text-left hover:bg-base-300',
                back === 0 && 'bg-base-300 font-semibold text-primary',
                back < 0 && 'quiet',
              )}
              onClick={() => goBack(back)}
            >
              <span className="min-w-0 grow truncate" title={text}>
                {text}
              </span>
              {scene !== null && names.get(scene) && (
                <span className="quiet shrink-0 text-2xs">{names.get(scene)}</span>
              )}
            </button>
          </li>
        ))}
      </ol>
    </aside>
  );
}
