import type { Show } from '../../core/document/types';
import { database } from '../data/db';
import { say } from '../parts/notices';

/** Files that the server has. */
const shared = new Set<string>();

/** Hands the files of a show to the server, from where players fetch what they have not. Those that it has already stay. */
export async function shareFiles({ files }: Show): Promise<void> {
  for (const id of Object.keys(files)) {
    if (shared.has(id)) continue;
    shared.add(id);
    const address = `/machines/files/${id}`;
    try {
      const there = await fetch(address, { method: 'HEAD' });
      if (there.ok) continue;
      const stored = await database.files.get(id);
      if (!stored) continue;
      const response = await fetch(address, { method: 'PUT', body: stored.blob });
      if (!response.ok) throw new Error(await response.text());
    } catch (error) {
      // Tried again with the next change of the show.
      shared.delete(id);
      if (!(error instanceof TypeError)) say({ tone: 'warning', text: (error as Error).message });
    }
  }
}
