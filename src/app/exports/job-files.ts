import { Zip, ZipPassThrough } from 'fflate';
import { endingOf } from '../../core/export/spec';
import type { StoredJob } from '../data/db';

/** Where the folders of all exports lie. */
async function allFolders(): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory();
  return root.getDirectoryHandle('exports', { create: true });
}

/** Folder of this browser in which the pieces of an export lie. */
export async function folderOf(job: string): Promise<FileSystemDirectoryHandle> {
  return (await allFolders()).getDirectoryHandle(job, { create: true });
}

export async function dropFolder(job: string): Promise<void> {
  // What is being written cannot be removed: it is swept up when the app is opened again.
  await (await allFolders()).removeEntry(job, { recursive: true }).catch(() => undefined);
}

const lockOf = (job: string): string => `pyrvel-folder-${job}`;

/** Takes hold of a folder that a window writes into by itself, outside of the queue. Gives what lets it go, as the window does when it is gone. */
export function holdFolder(job: string): Promise<() => void> {
  return new Promise((resolve) => {
    void navigator.locks.request(lockOf(job), () => new Promise<void>((letGo) => resolve(letGo)));
  });
}

/** Does something to a folder unless a window holds it. */
export async function ifLetGo(job: string, what: () => Promise<unknown>): Promise<void> {
  await navigator.locks.request(lockOf(job), { ifAvailable: true }, async (lock) => {
    if (lock) await what();
  });
}

/** Removes folders that are left of what was broken off. `isKept`: whether there is an export to a folder. */
export async function sweepFolders(isKept: (job: string) => Promise<boolean>): Promise<void> {
  for (const job of await namesIn(await allFolders()))
    await ifLetGo(job, async () => {
      if (!(await isKept(job))) await dropFolder(job);
    });
}

/** Names of the files in a folder. */
export async function namesIn(folder: FileSystemDirectoryHandle): Promise<Set<string>> {
  const names = new Set<string>();
  for await (const name of (folder as unknown as { keys(): AsyncIterable<string> }).keys()) names.add(name);
  return names;
}

/** Name of the finished file in the folder of an export that is kept in this browser. */
export const resultName = ({ spec }: Pick<StoredJob, 'spec'>): string => `result.${endingOf(spec.format)}`;

/** What a file is called that is saved. */
export const savedName = ({ spec }: Pick<StoredJob, 'spec'>, ending = endingOf(spec.format)): string =>
  `${spec.name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'export'}.${ending}`;

/** Packs files of a folder into a zip beside them, one after the other, uncompressed: images are that already. */
export async function zipFolder(
  folder: FileSystemDirectoryHandle,
  names: readonly string[],
  name: string,
): Promise<void> {
  const target = await (await folder.getFileHandle(name, { create: true })).createWritable();
  let writing = Promise.resolve();
  let fault: Error | null = null;
  const zip = new Zip((error, data) => {
    if (error) fault = error;
    else writing = writing.then(() => target.write(data as Uint8Array<ArrayBuffer>));
  });
  try {
    for (const file of names) {
      const entry = new ZipPassThrough(file);
      zip.add(entry);
      entry.push(
        new Uint8Array(await (await (await folder.getFileHandle(file)).getFile()).arrayBuffer()),
        true,
      );
      await writing;
      if (fault) throw fault;
    }
    zip.end();
    await writing;
    await target.close();
  } catch (error) {
    await target.abort().catch(() => undefined);
    throw error;
  }
}

/** The finished file of an export that is kept in this browser. */
export async function resultOf(job: StoredJob): Promise<{ file: File; name: string }> {
  const folder = await folderOf(job.id);
  const isSequence = job.spec.format.type === 'images' && job.plan!.count > 1;
  const name = isSequence ? 'frames.zip' : resultName(job);
  const file = await (await folder.getFileHandle(name)).getFile();
  return { file, name: isSequence ? savedName(job, 'zip') : savedName(job) };
}
