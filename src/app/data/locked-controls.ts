import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Controls whose parts keep their proportions when one of them is moved, as "kind control"; kept in this browser. */
export const lockedControls = create<{ locked: readonly string[] }>()(
  persist(() => ({ locked: [] as readonly string[] }), { name: 'pyrvel-proportions' }),
);

export const toggleLocked = (key: string): void =>
  void lockedControls.setState(({ locked }) => ({
    locked: locked.includes(key) ? locked.filter((one) => one !== key) : [...locked, key],
  }));
