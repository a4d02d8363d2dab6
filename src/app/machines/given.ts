import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/**
 * Which screen of the wall each player shows: by machine, the id of its output. It is a matter of the machines, not of the show, and is kept
 * by this one.
 */
export const givenStore = create<{ given: Readonly<Record<string, string>> }>()(
  persist(() => ({ given: {} }), { name: 'pyrvel.players' }),
);

/** The screen that a player was given; null: what is on air. */
export const givenTo = (machine: string): string | null => givenStore.getState().given[machine] ?? null;

export function keepGiven(machine: string, screen: string | null): void {
  const given = { ...givenStore.getState().given };
  if (screen === null) delete given[machine];
  else given[machine] = screen;
  givenStore.setState({ given });
}
