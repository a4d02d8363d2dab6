import { useRef } from 'react';

/** Pixels that go through the whole range of a dial. */
const wholeWay = 160;

/** Pointer and keys for something that is turned or pushed between 0 and 1. */
export function useDragValue(
  value: number,
  onChange: (value: number) => void,
  /** The value as it is this very moment: keys that follow each other are quicker than what is shown. */
  now: () => number,
  place?: (event: React.PointerEvent) => number,
) {
  const from = useRef<{ y: number; value: number } | null>(null);
  const hold = (v: number): number => Math.min(1, Math.max(0, v));
  return {
    role: 'slider',
    tabIndex: 0,
    'aria-valuemin': 0,
    'aria-valuemax': 127,
    'aria-valuenow': Math.round(value * 127),
    onPointerDown(event: React.PointerEvent) {
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { y: event.clientY, value: now() };
      if (place) onChange(hold(place(event)));
    },
    onPointerMove(event: React.PointerEvent) {
      if (!from.current) return;
      const fine = event.shiftKey ? 0.1 : 1;
      onChange(
        hold(
          place ? place(event) : from.current.value + ((from.current.y - event.clientY) / wholeWay) * fine,
        ),
      );
    },
    onPointerUp() {
      from.current = null;
    },
    onKeyDown(event: React.KeyboardEvent) {
      const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[
        event.key
      ];
      if (by === undefined) return;
      event.preventDefault();
      onChange(hold(now() + by / 127));
    },
  } as const;
}
