import { screenIn, setHertz, setStage } from '../data/stage-windows';
import type { EngineClient } from '../engine/client';
import { engine } from '../engine/client';
import { listenToKeys, listenToPointer } from '../inputs/keys-pointer';
import { listenToCommandKeys } from '../commands/listen';

/**
 * Stage windows. Each has a small page of its own that shows nothing but a canvas; this window hands the canvas to the
 * engine, which paints it from then on. A stage window outlives a reload of the editor: it holds the last picture and
 * announces itself to the new one.
 */
const known = new Map<Window, { page: string; output: string }>();

/** What a stage page lets the editor do. */
export interface StagePage {
  pyrvelStage?: {
    /** Another for each load of the page: a window that was reloaded has lost its canvas. */
    page: string;
    /** A fresh canvas that fills the window; older ones stay until `settle`. */
    makeCanvas(): { canvas: HTMLCanvasElement; width: number; height: number };
    /** The newest canvas has a picture, in that share of its bitmap. */
    settle(share: readonly [number, number]): void;
    onSize(listener: (width: number, height: number) => void): void;
    /** Refreshes a second of the display it is on; null: not known yet. */
    hertz(): number | null;
  };
}

function forget(stage: Window, output: string, client: EngineClient): void {
  client.removeOutput(output);
  known.delete(stage);
  setStage(output, null);
}

function adopt(stage: Window & StagePage, client: EngineClient): void {
  const page = stage.pyrvelStage;
  const before = known.get(stage);
  if (!page || before?.page === page.page) return;
  if (before) forget(stage, before.output, client);
  const screen = screenIn(stage);
  const id = client.addOutput({
    source: screen === null ? { type: 'program' } : { type: 'screen', id: screen },
    use: 'stage',
    make() {
      if (stage.closed || !stage.pyrvelStage) return null;
      const { canvas, width, height } = stage.pyrvelStage.makeCanvas();
      queueMicrotask(() => setStage(id, { window: stage, screen, width, height, hertz: page.hertz() }));
      return { canvas: canvas.transferControlToOffscreen(), width, height };
    },
  });
  known.set(stage, { page: page.page, output: id });
  page.onSize((width, height) => {
    client.resizeOutput(id, width, height);
    setStage(id, { window: stage, screen, width, height, hertz: page.hertz() });
  });
  listenToKeys(stage);
  listenToCommandKeys(stage, true);
  listenToPointer(stage.document.body);
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
  client.on('output-painted', ({ id, share }) => {
    for (const [stage, { output }] of known)
      if (output === id) (stage as Window & StagePage).pyrvelStage?.settle(share);
  });
  setInterval(() => {
    for (const [stage, { output }] of known) {
      if (stage.closed) forget(stage, output, client);
      else setHertz(output, (stage as Window & StagePage).pyrvelStage?.hertz() ?? null);
    }
  }, 1000);
  // Stage windows that were open before a reload hear this and announce themselves.
  new BroadcastChannel('pyrvel').postMessage('editor-here');
}
