import type { KeyState, PointerState } from '../../core/run/inputs';
import { engine } from './client';

const keys: Record<string, KeyState> = {};
const pointer: PointerState = { x: 0, y: 0, down: false, presses: 0, wheel: 0, inside: false };
let scheduled = false;

function send(): void {
  if (scheduled) return;
  scheduled = true;
  // Several events of one frame travel as one message; a timer, since animation frames stop in a hidden window.
  setTimeout(() => {
    scheduled = false;
    const copy = Object.fromEntries(Object.entries(keys).map(([code, state]) => [code, { ...state }]));
    engine().state({ type: 'live', live: { keys: copy, pointer: { ...pointer } } });
  }, 4);
}

/** Whether a key belongs to a text that is being typed, or to a list that has the keyboard. */
export function isTyping(event: KeyboardEvent): boolean {
  const element = event.target as Partial<HTMLElement> | null;
  if (!element?.tagName) return false;
  // Letters choose in a list; nothing in one begins with a slash, and Add must be at hand after every choice.
  if (element.tagName === 'SELECT') return event.key !== '/' && event.key !== 'Escape';
  if (element.isContentEditable || element.tagName === 'TEXTAREA') return true;
  return (
    element.tagName === 'INPUT' &&
    !['range', 'checkbox', 'button', 'color'].includes((element as HTMLInputElement).type)
  );
}

/** Lets the keys pressed in a window play Keys nodes. */
export function listenToKeys(target: Window): void {
  target.addEventListener('keydown', (event) => {
    if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
    const state = (keys[event.code] ??= { down: false, presses: 0 });
    state.down = true;
    state.presses++;
    send();
  });
  target.addEventListener('keyup', (event) => {
    const state = keys[event.code];
    if (!state?.down) return;
    state.down = false;
    send();
  });
  // A key let go while another window had the keyboard would hang for ever.
  target.addEventListener('blur', () => {
    for (const state of Object.values(keys)) state.down = false;
    pointer.down = false;
    send();
  });
}

/** Lets the pointer over an element that shows a picture play Pointer nodes. */
export function listenToPointer(element: HTMLElement): () => void {
  const place = (event: PointerEvent): void => {
    const box = element.getBoundingClientRect();
    pointer.x = ((event.clientX - box.left) / box.width - 0.5) * (box.width / box.height);
    pointer.y = 0.5 - (event.clientY - box.top) / box.height;
  };
  const handlers: [string, (event: PointerEvent & WheelEvent) => void][] = [
    ['pointermove', (event) => (place(event), send())],
    [
      'pointerdown',
      (event) => {
        place(event);
        pointer.down = true;
        pointer.presses++;
        element.setPointerCapture?.(event.pointerId);
        send();
      },
    ],
    ['pointerup', () => ((pointer.down = false), send())],
    ['pointercancel', () => ((pointer.down = false), send())],
    ['pointerenter', () => ((pointer.inside = true), send())],
    ['pointerleave', () => ((pointer.inside = false), send())],
    ['wheel', (event) => ((pointer.wheel -= Math.sign(event.deltaY)), send())],
  ];
  for (const [type, handler] of handlers)
    element.addEventListener(type, handler as EventListener, { passive: true });
  return () => {
    for (const [type, handler] of handlers) element.removeEventListener(type, handler as EventListener);
  };
}
