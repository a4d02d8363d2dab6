import { useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { Grip } from '../../core/desk/grip';

/** Most milliseconds that a control stays where a finger has left it while what is said of it does not come there: what was done may be lost. */
const lostMs = 2000;

/** A control that is said to stand at `said`, and a finger on it: it stands where that has put it until this is what is said. */
export function useGrip(said: readonly number[]): {
  numbers: readonly number[];
  /** The finger comes, moves it and goes. */
  take(): void;
  move(numbers: readonly number[]): void;
  letGo(): void;
} {
  const [grip] = useState(() => new Grip());
  const [, show] = useReducer((n: number) => n + 1, 0);
  const losing = useRef(0);
  useEffect(() => grip.hear(said), [grip, said]);
  useEffect(() => () => clearTimeout(losing.current), []);
  return {
    numbers: grip.stands(said),
    take() {
      clearTimeout(losing.current);
      grip.take(said);
    },
    move(numbers) {
      grip.move(numbers);
      show();
    },
    letGo() {
      grip.letGo();
      show();
      losing.current = window.setTimeout(() => {
        grip.forget();
        show();
      }, lostMs);
    },
  };
}

/** The same for a lever of the page: what it stands at, and what its element does. `put` is what moving it does. */
export function useLever(said: number, put: (to: number) => void) {
  const { numbers, take, move, letGo } = useGrip(useMemo(() => [said], [said]));
  return {
    value: numbers[0],
    lever: {
      value: numbers[0],
      onPointerDown(): void {
        take();
        // The pointer may leave the element while it drags.
        const ended = new AbortController();
        for (const end of ['pointerup', 'pointercancel'])
          addEventListener(end, () => (ended.abort(), letGo()), { signal: ended.signal });
      },
      onChange(event: React.ChangeEvent<HTMLInputElement>): void {
        const to = Number(event.target.value);
        move([to]);
        put(to);
      },
    },
  };
}
