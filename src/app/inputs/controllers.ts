import { useSyncExternalStore } from 'react';
import { idleControllers, type ControllerState, type InputEvent } from '../../core/inputs/inputs';
import { engine } from '../engine/client';

type Changing<T> = { -readonly [K in keyof T]: T[K] };

/** What hands and devices do, as it stands: each source writes its own part and says so. */
export const controllers: Changing<ControllerState> = idleControllers();

const listeners = new Set<(event: InputEvent) => void>();
const watchers = new Set<() => void>();
let scheduled = false;
let shown: ControllerState = { ...controllers };

/** Tells the engine and the desk that a part has changed. Parts are replaced, never written into. */
export function controllersChanged(): void {
  if (scheduled) return;
  scheduled = true;
  // Several events of one frame travel as one message; a timer, since animation frames stop in a hidden window.
  setTimeout(() => {
    scheduled = false;
    shown = { ...controllers };
    engine().set({ type: 'controllers', controllers: shown });
    for (const watcher of watchers) watcher();
  }, 4);
}

/** Says what was just done, for what waits to learn it. */
export function heard(event: InputEvent): void {
  for (const listener of [...listeners]) listener(event);
}

/** Called with everything that hands and devices do, until the function it gives is called. */
export function onHeard(listener: (event: InputEvent) => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** Called after each change, until the function it gives is called. */
export function onHand(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
}

/** What stands now, for the desk. */
export function useHand<T>(pick: (hand: ControllerState) => T): T {
  return useSyncExternalStore(onHand, () => pick(shown));
}
