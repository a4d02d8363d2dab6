import { applyChanges, changesBetween } from '../../core/show/changes';
import type { Show } from '../../core/document/types';
import { database, type StoredEdits } from './db';

/**
 * Edits since the whole show was last written, which takes long: too long for each move of a hand. They are noted twice. Local storage
 * has them at once, which a page needs that is reloaded or killed; but it reaches the disk seconds later, and then a browser that is
 * killed is late. The database takes a moment, and is on the disk then.
 */
export type Journal = Omit<StoredEdits, 'id'>;

/** A show as it is stored. */
interface Stored {
  show: Show;
  updated: number;
}

const keyOf = (id: string): string => `pyrvel.unsaved.${id}`;

/** How the show differs from what is stored. */
export const journalOf = ({ show, updated }: Stored, now: Show, edits: number): Journal => ({
  base: updated,
  edits,
  changes: changesBetween(show, now),
});

/** Notes edits in local storage; false if they are too much to be kept there. */
export function noteAtOnce(id: string, journal: Journal): boolean {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(journal));
    return true;
  } catch {
    localStorage.removeItem(keyOf(id));
    return false;
  }
}

/** Notes edits in the database. Throws if it takes none. */
export const noteOnDisk = (id: string, journal: Journal): Promise<unknown> =>
  database.edits.put({ id, ...journal });

export async function clearJournal(id: string): Promise<void> {
  localStorage.removeItem(keyOf(id));
  await database.edits.delete(id);
}

function notedAtOnce(id: string): Journal | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Journal | null;
  } catch {
    return null;
  }
}

/** The stored show with the edits that were noted on top of it, and how many these are. */
export async function withNoted(id: string, stored: Stored): Promise<{ show: Show; edits: number }> {
  const notes = [notedAtOnce(id), await database.edits.get(id)];
  // A note of an older version counts no edits.
  const [newest] = notes
    .filter((note) => note?.base === stored.updated)
    .sort((a, b) => (b!.edits ?? 0) - (a!.edits ?? 0));
  try {
    if (newest) return { show: applyChanges(stored.show, newest.changes), edits: newest.edits ?? 0 };
  } catch {
    // A damaged note: what is stored is whole.
  }
  return { show: stored.show, edits: 0 };
}
