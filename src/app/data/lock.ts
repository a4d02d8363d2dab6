import { create } from 'zustand';

const key = 'pyrvel.locked';

/** Whether the show is locked against edits on this machine: kept through a reload, since a night does not end with one. */
export const lockStore = create<{ locked: boolean }>()(() => ({
  locked: localStorage.getItem(key) === 'yes',
}));

export function setLocked(locked: boolean): void {
  lockStore.setState({ locked });
  if (locked) localStorage.setItem(key, 'yes');
  else localStorage.removeItem(key);
}
