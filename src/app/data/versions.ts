import { differences } from '../../core/show/describe-change';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { engine } from '../engine/client';
import { database, type StoredVersion } from './db';
import { ownership } from './ownership';
import { showStore } from './show-store';

/** Minutes of editing after which a version is kept by itself. */
const everyMinutes = 10;
/** Versions of a show that are kept; the oldest go. */
const mostVersions = 60;

const sameShow = (a: Show, b: Show): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Versions of a show, newest first. */
export async function versionsOf(show: string): Promise<StoredVersion[]> {
  const all = await database.versions.where('show').equals(show).sortBy('at');
  return all.reverse();
}

/** Keeps how a show stands as a version, unless it stands as the last one. */
export async function keepVersion(id: string, show: Show, picture?: Blob): Promise<void> {
  const [last, ...older] = await versionsOf(id);
  if (last && sameShow(last.data, show)) return;
  await database.versions.add({ show: id, at: Date.now(), data: show, ...(picture ? { picture } : {}) });
  const old = older.slice(mostVersions - 2).flatMap((one) => one.id ?? []);
  await database.versions.bulkDelete(old);
}

/** What became of a show from one state to another, in a few lines. */
export function linesBetween(before: Show, after: Show): string[] {
  const names = new Map(after.scenes.map(({ id, name }) => [id, name]));
  return differences(before, after, catalogue).map(({ text, scene }) =>
    scene !== null && names.has(scene) ? `${names.get(scene)!}: ${text}` : text,
  );
}

async function pictureNow(): Promise<Blob | undefined> {
  try {
    const { show } = showStore.getState();
    const { png } = await engine().request(
      { type: 'picture', scene: show.scenes[0].id, width: 160, height: 90 },
      5000,
    );
    return new Blob([png], { type: 'image/png' });
  } catch {
    return undefined;
  }
}

/** Keeps versions of the open show by itself: as it was opened, and every few minutes while it is edited. Called once. */
export function keepVersions(): void {
  let lastKept: Show | null = null;
  const keep = async (withPicture: boolean): Promise<void> => {
    const { id, show } = showStore.getState();
    if (!id || show === lastKept || ownership.getState().elsewhere) return;
    lastKept = show;
    await keepVersion(id, show, withPicture ? await pictureNow() : undefined);
  };
  showStore.subscribe((now, before) => {
    if (now.id !== before.id && now.id) void keep(false);
  });
  void keep(false);
  setInterval(() => void keep(true), everyMinutes * 60000);
}
