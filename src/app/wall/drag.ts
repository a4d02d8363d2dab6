import type { PlanUnits } from './plan-frame';

/** What a drag on a drawing says: the place now and the way from its start, in the units of the drawing. */
export interface Drag {
  at: readonly [number, number];
  by: readonly [number, number];
  /** Without snapping. */
  free: boolean;
}

/**
 * Follows a pointer that went down on a drawing until it is up.
 */
export function followDrag(
  event: React.PointerEvent<Element>,
  frame: Element,
  { origin, units }: PlanUnits,
  move: (drag: Drag) => void,
  done: () => void,
): void {
  event.preventDefault();
  event.stopPropagation();
  const box = frame.getBoundingClientRect();
  const placeOf = ({ clientX, clientY }: { clientX: number; clientY: number }): [number, number] => [
    origin[0] + ((clientX - box.left) / box.width) * units[0],
    origin[1] + ((clientY - box.top) / box.height) * units[1],
  ];
  const start = placeOf(event);
  const target = event.currentTarget;
  target.setPointerCapture(event.pointerId);
  const follow = (e: Event): void => {
    const pointer = e as PointerEvent;
    const at = placeOf(pointer);
    move({ at, by: [at[0] - start[0], at[1] - start[1]], free: pointer.altKey });
  };
  const end = (): void => {
    target.removeEventListener('pointermove', follow);
    for (const over of ['pointerup', 'pointercancel']) target.removeEventListener(over, end);
    done();
  };
  target.addEventListener('pointermove', follow);
  for (const over of ['pointerup', 'pointercancel']) target.addEventListener(over, end);
}

const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Which way an arrow key moves: one step, with Shift ten; null: it is none. */
export function arrowOf(event: React.KeyboardEvent): readonly [number, number] | null {
  const way = arrows[event.key];
  if (!way || event.ctrlKey || event.altKey || event.metaKey) return null;
  event.preventDefault();
  event.stopPropagation();
  const steps = event.shiftKey ? 10 : 1;
  return [way[0] * steps, way[1] * steps];
}
