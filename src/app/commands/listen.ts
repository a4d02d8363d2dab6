import { isTyping } from '../inputs/keys-pointer';
import { commandFor } from './registry';

/** Runs commands by their keys in a window. `onlyUrgent`: only those for what can't wait, as in a stage window. */
export function listenToCommandKeys(target: Window, onlyUrgent = false): () => void {
  const onKey = (event: KeyboardEvent): void => {
    if (event.defaultPrevented || event.repeat) return;
    const command = commandFor(event, isTyping(event));
    // A dialog has the keyboard to itself, but for what can't wait.
    const isHeld = onlyUrgent || target.document.querySelector('dialog[open]') !== null;
    if (!command || (isHeld && !command.everywhere)) return;
    event.preventDefault();
    command.run();
  };
  target.addEventListener('keydown', onKey);
  return () => target.removeEventListener('keydown', onKey);
}
