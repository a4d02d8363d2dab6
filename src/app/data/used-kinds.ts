import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Kinds that are remembered as added last. */
const mostRecent = 6;

/** Node kinds that were added last, newest first, and those that were marked: by id, for this browser. */
export const usedKinds = create<{ recent: string[]; favourites: string[] }>()(
  persist(() => ({ recent: [] as string[], favourites: [] as string[] }), { name: 'pyrvel-kinds' }),
);

export const noteAdded = (kind: string): void =>
  void usedKinds.setState(({ recent }) => ({
    recent: [kind, ...recent.filter((id) => id !== kind)].slice(0, mostRecent),
  }));

export const toggleFavourite = (kind: string): void =>
  void usedKinds.setState(({ favourites }) => ({
    favourites: favourites.includes(kind) ? favourites.filter((id) => id !== kind) : [...favourites, kind],
  }));
