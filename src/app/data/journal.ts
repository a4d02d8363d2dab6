import { applyChanges, changesBetween, type ShowChange } from '../../core/show/changes';
import type { Show } from '../../core/document/types';

/**
 * Edits that are not in the database yet. The database takes a moment, which a page that is reloaded or killed may not
 * have; local storage is written at once. What stands there counts only on top of the very state it was made from.
 */
interface Journal {
  /** `updated` of the stored show that the changes belong to. */
  base: number;
  changes: ShowChange[];
}

const keyOf = (id: string): string => `pyrvel.unsaved.${id}`;

export const clearJournal = (id: string): void => localStorage.removeItem(keyOf(id));

/** Notes how the show differs from what is stored; false if it is too much to be kept so. */
export function noteChanges(id: string, stored: { show: Show; updated: number }, now: Show): boolean {
  const journal: Journal = { base: stored.updated, changes: changesBetween(stored.show, now) };
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(journal));
    return true;
  } catch {
    clearJournal(id);
    return false;
  }
}

/** The stored show with the edits that did not reach the database. */
export function withNoted(id: string, stored: { show: Show; updated: number }): Show {
  try {
    const journal = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Journal | null;
    return journal?.base === stored.updated ? applyChanges(stored.show, journal.changes) : stored.show;
  } catch {
    return stored.show;
  }
}
