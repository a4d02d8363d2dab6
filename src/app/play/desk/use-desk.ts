import { useShallow } from 'zustand/react/shallow';
import { heldNumber, isWords, shareIn, storedValue } from '../../../core/desk/value';
import type { DeskControl, DeskValue } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { useShow } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { liveStore } from '../../engine/live';
import { useGrip } from '../use-grip';

const none: readonly number[] = [];

/** Where a desk control stands: as it was moved, else as the patches have it. */
export function useDeskValue(control: DeskControl): DeskValue {
  const scenes = useShow((show) => show.scenes);
  const moved = liveStore(useShallow((s) => s.desk.values[control.id]));
  return moved ?? storedValue({ scenes }, control, catalogue);
}

/** The numbers of a control, and a finger that moves it. */
export function useNumbers(control: DeskControl): ReturnType<typeof useGrip> {
  const said = useDeskValue(control);
  const grip = useGrip(isWords(said) ? none : said);
  return {
    ...grip,
    move(numbers) {
      // As the engine will say it: between its ends, on its steps.
      const value = numbers.map((one) => heldNumber(control, one));
      grip.move(value);
      perform({ type: 'desk', control: control.id, value });
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
