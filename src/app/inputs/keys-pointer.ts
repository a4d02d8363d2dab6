import type { KeyState, PointerState } from '../../core/inputs/inputs';
import { controllers, controllersChanged, heard } from './controllers';

/** Whether a key belongs to a text that is being typed, or to a list that has the keyboard. */
export function isTyping(event: KeyboardEvent): boolean {
  const element = event.target as Partial<HTMLElement> | null;
  // Keys that write nothing are meant for commands wherever the focus is: a cue must not wait for it to leave a field.
  if (!element?.tagName || /^F\d+$/.test(event.key)) return false;
  // Letters choose in a list; nothing in one begins with these, and Add and the commands must be at hand after every choice.
  if (element.tagName === 'SELECT') return !['/', '?', 'Escape'].includes(event.key);
  if (element.isContentEditable || element.tagName === 'TEXTAREA') return true;
  return (
    element.tagName === 'INPUT' &&
    !['range', 'checkbox', 'button', 'color'].includes((element as HTMLInputElement).type)
  );
}

/** Whether a key presses the button that has the focus: then it is meant for that, and for nothing else. */
const isPressing = (event: KeyboardEvent): boolean =>
  (event.code === 'Space' || event.code === 'Enter') &&
  (event.target as Partial<HTMLElement> | null)?.closest?.('button, a, summary, [role="button"]') != null;

/** A key goes down or up: from the keyboard, or from its stand-in on the screen. */
export function moveKey(code: string, down: boolean): void {
  const before: KeyState = controllers.keys[code] ?? { down: false, presses: 0 };
  if (before.down === down) return;
  controllers.keys = { ...controllers.keys, [code]: { down, presses: before.presses + (down ? 1 : 0) } };
  heard({ type: 'key', code, down });
  controllersChanged();
}

/** Lets the keys pressed in a window play Keys nodes; gives what ends that. */
export function listenToKeys(target: Window): () => void {
  const press = (event: KeyboardEvent): void => {
    if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (isTyping(event) || isPressing(event)) return;
    moveKey(event.code, true);
  };
  const release = (event: KeyboardEvent): void => moveKey(event.code, false);
  // A key let go while another window had the keyboard would hang forever.
  const leave = (): void => {
    for (const code of Object.keys(controllers.keys)) moveKey(code, false);
    controllers.pointer = { ...controllers.pointer, down: false };
    controllers.pointers = [];
    touching.clear();
    controllersChanged();
  };
  target.addEventListener('keydown', press);
  target.addEventListener('keyup', release);
  target.addEventListener('blur', leave);
  return () => {
    target.removeEventListener('keydown', press);
    target.removeEventListener('keyup', release);
    target.removeEventListener('blur', leave);
  };
}

/** Pointers that touch the picture, in the order they came. */
const touching = new Map<number, PointerState>();

function movePointer(id: number, change: Partial<PointerState>): void {
  const now = { ...controllers.pointer, ...change };
  controllers.pointer = now;
  if (now.down) touching.set(id, now);
  else touching.delete(id);
  controllers.pointers = [...touching.values()];
  controllersChanged();
}

/** Lets the pointers over an element that shows a picture play Pointer nodes. */
export function listenToPointer(element: HTMLElement): () => void {
  const place = (event: PointerEvent): Pick<PointerState, 'x' | 'y'> => {
    const box = element.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width - 0.5) * (box.width / box.height),
      y: 0.5 - (event.clientY - box.top) / box.height,
    };
  };
  const lift = (event: PointerEvent): void => movePointer(event.pointerId, { down: false });
  const handlers: [string, (event: PointerEvent & WheelEvent) => void][] = [
    // Each finger is down or up by itself, though the last that moved is the pointer.
    [
      'pointermove',
      (event) => movePointer(event.pointerId, { ...place(event), down: touching.has(event.pointerId) }),
    ],
    [
      'pointerdown',
      (event) => {
        movePointer(event.pointerId, {
          ...place(event),
          down: true,
          presses: controllers.pointer.presses + 1,
        });
        heard({ type: 'pointer' });
        element.setPointerCapture?.(event.pointerId);
      },
    ],
    ['pointerup', lift],
    ['pointercancel', lift],
    [
      'pointerenter',
      () => ((controllers.pointer = { ...controllers.pointer, inside: true }), controllersChanged()),
    ],
    [
      'pointerleave',
      () => ((controllers.pointer = { ...controllers.pointer, inside: false }), controllersChanged()),
    ],
    [
      'wheel',
      (event) => {
        controllers.pointer = {
          ...controllers.pointer,
          wheel: controllers.pointer.wheel - Math.sign(event.deltaY),
        };
        controllersChanged();
      },
    ],
  ];
  for (const [type, handler] of handlers)
    element.addEventListener(type, handler as EventListener, { passive: true });
  return () => {
    for (const [type, handler] of handlers) element.removeEventListener(type, handler as EventListener);
  };
}
