import type { EngineClient } from '../engine/client';
import { engine } from '../engine/client';
import { listenToKeys, listenToPointer } from '../inputs/keys-pointer';
import { say } from '../parts/notices';
import { listenToPanicKeys } from './panic-keys';

/**
 * Stage windows. Each has a small page of its own that shows nothing but a canvas; this window hands the canvas to the
 * engine, which paints it from then on. A stage window outlives a reload of the editor: it holds the last picture and
 * announces itself to the new one.
 */
const known = new Map<Window, { page: string; surface: string }>();

/** What a stage page lets the editor do. */
export interface StagePage {
  pyrvelStage?: {
    /** Another for each load of the page: a window that was reloaded has lost its canvas. */
    page: string;
    /** A fresh canvas that fills the window; older ones stay until `settle`. */
    makeCanvas(): { canvas: HTMLCanvasElement; width: number; height: number };
    settle(): void;
    onSize(listener: (width: number, height: number) => void): void;
  };
}

function adopt(stage: Window & StagePage, client: EngineClient): void {
  const page = stage.pyrvelStage;
  const before = known.get(stage);
  if (!page || before?.page === page.page) return;
  if (before) client.removeSurface(before.surface);
  const id = client.addSurface({
    role: 'stage',
    make() {
      if (stage.closed || !stage.pyrvelStage) return null;
      const { canvas, width, height } = stage.pyrvelStage.makeCanvas();
      return { canvas: canvas.transferControlToOffscreen(), width, height };
    },
  });
  known.set(stage, { page: page.page, surface: id });
  page.onSize((width, height) => client.resizeSurface(id, width, height));
  listenToKeys(stage);
  listenToPanicKeys(stage);
  listenToPointer(stage.document.body);
}

export function openStage(): void {
  // A name of its own: one that is taken would load that window again instead of opening another.
  const name = `pyrvel-stage-${crypto.randomUUID()}`;
  const stage = window.open('/stage.html', name, 'popup,width=960,height=540');
  if (!stage)
    say({
      tone: 'warning',
      text: 'The browser held the stage window back. Allow pop-ups for this address and press Stage again.',
    });
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
  client.on('surface-painted', ({ id }) => {
    for (const [stage, { surface }] of known)
      if (surface === id) (stage as Window & StagePage).pyrvelStage?.settle();
  });
  setInterval(() => {
    for (const [stage, { surface }] of known) {
      if (!stage.closed) continue;
      client.removeSurface(surface);
      known.delete(stage);
    }
  }, 1000);
  // Stage windows that were open before a reload hear this and announce themselves.
  new BroadcastChannel('pyrvel').postMessage('editor-here');
}
