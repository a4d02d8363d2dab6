import { screenIn, setHertz, setStage } from '../data/stage-windows';
import type { EngineClient } from '../engine/client';
import { engine } from '../engine/client';
import { listenToKeys, listenToPointer } from '../inputs/keys-pointer';
import { listenToCommandKeys } from '../commands/listen';

/**
 * Stage windows. Each has a small page of its own that is nothing but a place for a canvas; this window puts one there and hands it to
 * the engine, which paints it from then on. A stage window outlives a reload of the editor: it holds the last picture and
 * announces itself to the new one.
 */
const known = new Map<Window, { page: string; output: string; stop(): void }>();

/** What a stage page lets the editor do. */
export interface StagePage {
  pyrvelStage?: {
    /** Another for each load of the page: a window that was reloaded has lost its canvas. */
    page: string;
    /** What the picture fills. */
    box: HTMLElement;
    /** Pixels of the window. */
    size(): { width: number; height: number };
    /** null: nobody is to be told. */
    onSize(listener: ((width: number, height: number) => void) | null): void;
    /** Refreshes a second of the display it is on; null: not known yet. */
    hertz(): number | null;
  };
}

function forget(stage: Window, output: string, client: EngineClient): void {
  client.outputs.remove(output);
  known.get(stage)?.stop();
  known.delete(stage);
  setStage(output, null);
}

function adopt(stage: Window & StagePage, client: EngineClient): void {
  const page = stage.pyrvelStage;
  const before = known.get(stage);
  if (!page || before?.page === page.page) return;
  if (before) forget(stage, before.output, client);
  const screen = screenIn(stage);
  const id = client.outputs.add({
    source: screen === null ? { type: 'program' } : { type: 'screen', id: screen },
    use: 'stage',
    // The page of a window that is closed or reloaded is gone.
    box: () => (!stage.closed && stage.pyrvelStage === page ? page.box : null),
    size: page.size,
  });
  setStage(id, { window: stage, screen, ...page.size(), hertz: page.hertz() });
  page.onSize((width, height) => {
    client.outputs.resize(id, width, height);
    setStage(id, { window: stage, screen, width, height, hertz: page.hertz() });
  });
  const listening = [
    listenToKeys(stage),
    listenToCommandKeys(stage, true),
    listenToPointer(stage.document.body),
    () => page.onSize(null),
  ];
  known.set(stage, { page: page.page, output: id, stop: () => listening.forEach((stop) => stop()) });
}

/** Takes in stage windows as they announce themselves, old and new; called once. */
export function welcomeStages(): void {
  const client = engine();
  window.addEventListener('message', (event) => {
    if (
      event.origin !== location.origin ||
      (event.data as { pyrvel?: string } | null)?.pyrvel !== 'stage-here'
    )
      return;
    adopt(event.source as Window & StagePage, client);
  });
  setInterval(() => {
    for (const [stage, { output }] of known) {
      if (stage.closed) forget(stage, output, client);
      else setHertz(output, (stage as Window & StagePage).pyrvelStage?.hertz() ?? null);
    }
  }, 1000);
  // A stage window that is still there keeps this page in memory for as long as it has anything of it.
  window.addEventListener('pagehide', ({ persisted }) => {
    if (!persisted) for (const { stop } of known.values()) stop();
  });
  // Stage windows that were open before a reload hear this and announce themselves.
  new BroadcastChannel('pyrvel').postMessage('editor-here');
}
