import type { Show } from '../../core/document/types';
import { database } from '../data/db';
import { idOf } from '../data/files';
import { engine } from '../engine/client';

/** Milliseconds until a file that could not be fetched is asked for again. */
const retryMs = 2000;

/** Fetches the files of a show that are not here from the server, looks whether they are what they should be, and keeps them. */
export class FileFetcher {
  /** Files that are here, or on their way. */
  private readonly known = new Set<string>();

  constructor(
    /** What this machine was let in with; empty on the machine of the server itself. */
    private readonly token: string,
    /** Hears what is lacking, by what it is of; empty: nothing any more. */
    private readonly lack: (of: string, sentence: string) => void,
  ) {}

  async fetch({ files }: Pick<Show, 'files'>): Promise<void> {
    for (const [id, { name, type }] of Object.entries(files)) {
      if (this.known.has(id)) continue;
      this.known.add(id);
      const kept = await database.files.get(id).catch(() => undefined);
      if (kept) {
        engine().giveFile(id, name, kept.blob);
        continue;
      }
      try {
        const response = await fetch(`/machines/files/${id}`, {
          headers: this.token ? { Authorization: `Bearer ${this.token}` } : {},
        });
        if (!response.ok) throw new Error(await response.text());
        const blob = new Blob([await response.arrayBuffer()], { type });
        if ((await idOf(blob)) !== id) throw new Error('it came damaged');
        engine().giveFile(id, name, blob);
        this.lack(id, '');
        // It plays from memory where the disk is full.
        await database.files
          .put({ id, blob })
          .catch(() => this.lack('disk', 'The disk is full: files are fetched again with each start.'));
      } catch (error) {
        this.known.delete(id);
        this.lack(id, `The file ${name} is missing here (${(error as Error).message})`);
        setTimeout(() => void this.fetch({ files: { [id]: files[id] } }), retryMs);
      }
    }
  }
}
