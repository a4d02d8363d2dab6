import { useEffect, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { shareIn, storedValue } from '../../../core/desk/value';
import type { DeskControl, DeskValue } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { useShow } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { liveStore } from '../../engine/live';

/** Milliseconds that a control stays where a finger has left it: on another machine, what is said of it takes its way there and back. */
const settleMs = 120;

/** Where a desk control stands: as it was moved, else as the patches have it. */
export function useDeskValue(control: DeskControl): DeskValue {
  const scenes = useShow((show) => show.scenes);
  const moved = liveStore(useShallow((s) => s.desk.values[control.id]));
  return moved ?? storedValue({ scenes }, control, catalogue);
}

/**
 * The numbers of a control, and what moves one of them. While a finger holds it, it stands where the finger has put it and not where the
 * engine last said.
 */
export function useNumbers(control: DeskControl): {
  numbers: readonly number[];
  move(numbers: readonly number[]): void;
  grip(): void;
  release(): void;
} {
  const said = useDeskValue(control);
  const [held, setHeld] = useState<readonly number[] | null>(null);
  const isHeld = useRef(false);
  const settling = useRef(0);
  useEffect(() => () => clearTimeout(settling.current), []);
  return {
    numbers: held ?? (typeof said === 'string' ? [] : said),
    move(numbers) {
      if (isHeld.current) setHeld(numbers);
      perform({ type: 'desk', control: control.id, value: [...numbers] });
    },
    grip() {
      clearTimeout(settling.current);
      isHeld.current = true;
    },
    release() {
      isHeld.current = false;
      settling.current = window.setTimeout(() => setHeld(null), settleMs);
    },
  };
}

/** Share of the range that a number stands at. */
export const shareOf = ({ range }: DeskControl, value: number): number => shareIn(range, value);

/** The number at a share of the range. */
export const numberAt = ({ range: [low, high] }: DeskControl, share: number): number =>
  low + Math.min(1, Math.max(0, share)) * (high - low);

const keyWays: Readonly<Record<string, number>> = {
  ArrowUp: 1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowLeft: -1,
  PageUp: 10,
  PageDown: -10,
};

/**
 * What a key does to one number of a control: a hundredth of the way, or a step. It is told as a way from where the control stands, since
 * keys follow each other quicker than the engine answers. Whether it was a key for that.
 */
export function turnByKey(control: DeskControl, from: number, event: React.KeyboardEvent): boolean {
  const way = keyWays[event.key];
  if (!way) return false;
  event.preventDefault();
  event.stopPropagation();
  const [low, high] = control.range;
  const by = way * Math.max(high === low ? 0 : control.step / Math.abs(high - low), 0.01);
  perform({ type: 'turn-by', control: control.id, from, by });
  return true;
}

/** A control goes home. */
export const sendHome = (control: DeskControl): void => perform({ type: 'desk-home', control: control.id });
