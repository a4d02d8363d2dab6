import { create } from 'zustand';

/** A stage window that is open. */
interface OpenStage {
  window: Window;
  /** Screen of the wall that it shows; null: the whole canvas. */
  screen: string | null;
  /** Pixels. */
  width: number;
  height: number;
  /** Refreshes a second of its display; null: not known yet. */
  hertz: number | null;
}

/** Stage windows that are open, by the id of their output in the engine. */
const stageStore = create<{ open: Readonly<Record<string, OpenStage>> }>()(() => ({ open: {} }));

export const setStage = (id: string, stage: OpenStage | null): void =>
  stageStore.setState(({ open: { [id]: gone, ...rest } }) => {
    void gone;
    return { open: stage ? { ...rest, [id]: stage } : rest };
  });

export function setHertz(id: string, hertz: number | null): void {
  const stage = stageStore.getState().open[id];
  if (stage && stage.hertz !== hertz) setStage(id, { ...stage, hertz });
}

/** Which screen of the wall a stage page was opened for. */
export const screenIn = (stage: Window): string | null =>
  new URLSearchParams(stage.location.search).get('screen');

const stageOf = (open: Readonly<Record<string, OpenStage>>, screen: string): OpenStage | undefined =>
  Object.values(open).find((stage) => stage.screen === screen && !stage.window.closed);

/** The window of a screen of the wall, if it is open. */
export const windowOf = (screen: string): Window | undefined =>
  stageOf(stageStore.getState().open, screen)?.window;

/** The same for what is shown of it. */
export const useStage = (screen: string): OpenStage | undefined => stageStore((s) => stageOf(s.open, screen));

export const openStages = (): number => Object.keys(stageStore.getState().open).length;

/** Calls back whenever a stage window is opened or closed; gives what ends that. */
export const watchStageCount = (listener: () => void): (() => void) => stageStore.subscribe(listener);

/** Calls back with whether any stage window is open, now and whenever that changes. */
export function watchStages(listener: (isOpen: boolean) => void): () => void {
  let last: boolean | null = null;
  const look = (): void => {
    const isOpen = openStages() > 0;
    if (isOpen !== last) listener((last = isOpen));
  };
  look();
  return stageStore.subscribe(look);
}
