import { database, type StoredShow } from './db';
import { clearJournal } from './journal';
import { dropScenePictures } from './scene-pictures';

/** Days that a deleted show can be brought back. */
export const binDays = 30;
const dayMs = 24 * 60 * 60 * 1000;

/** Whole days until a deleted show is gone for good. */
export const daysLeft = ({ deleted = 0 }: StoredShow): number =>
  Math.max(0, Math.ceil(binDays - (Date.now() - deleted) / dayMs));

export const moveToBin = (id: string): Promise<number> => database.shows.update(id, { deleted: Date.now() });

export const bringBack = (id: string): Promise<number> => database.shows.update(id, { deleted: undefined });

/** Removes a show, so that nothing of it is left. */
export async function deleteForGood(id: string): Promise<void> {
  await database.shows.delete(id);
  await dropScenePictures(id);
  await database.versions.where('show').equals(id).delete();
  await clearJournal(id);
}

/** Removes what has been deleted for longer than it is kept. */
export async function emptyBin(): Promise<void> {
  const old = await database.shows
    .filter(({ deleted }) => deleted !== undefined && deleted < Date.now() - binDays * dayMs)
    .primaryKeys();
  await Promise.all(old.map(deleteForGood));
}
