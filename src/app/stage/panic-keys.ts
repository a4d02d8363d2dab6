import { sessionStore } from '../data/session';

/** Keys for when it matters, in every view and on stage windows; nothing else uses them. */
export const panicKeys = { blackout: 'F9', freeze: 'F8' } as const;

export function listenToPanicKeys(target: Window): () => void {
  const onKey = (event: KeyboardEvent): void => {
    if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.code === panicKeys.blackout) sessionStore.setState((s) => ({ blackout: !s.blackout }));
    else if (event.code === panicKeys.freeze) sessionStore.setState((s) => ({ freeze: !s.freeze }));
    else return;
    event.preventDefault();
  };
  target.addEventListener('keydown', onKey);
  return () => target.removeEventListener('keydown', onKey);
}
