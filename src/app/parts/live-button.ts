import type { MouseEvent } from 'react';

/**
 * Takes the keyboard away from a button that was clicked with a pointer: on stage, Space is for the music and must not press
 * what was touched last. Who works with keys keeps the focus.
 */
export function dropFocus(event: MouseEvent): void {
  if (event.detail > 0 && document.activeElement instanceof HTMLElement) document.activeElement.blur();
}
