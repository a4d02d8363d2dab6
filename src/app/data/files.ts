import { nameOfDigest } from '../../core/show/file-name';
import { renameFiles, usedFiles } from '../../core/show/used-files';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { engine } from '../engine/client';
import { database } from './db';
import { editShow } from './show-store';

/** Bytes above which a file is refused: the browser would have to hold it several times. */
const largestFile = 512 * 1024 * 1024;

export class FileError extends Error {
  override name = 'FileError';
}

/** What names bytes by what they are: the same bytes, the same name. */
export async function nameOf(blob: Blob): Promise<string> {
  return nameOfDigest(new Uint8Array(await crypto.subtle.digest('SHA-256', await blob.arrayBuffer())));
}

/** What a file is called in this browser: by what it holds, so that no other file can ever stand under that name. */
export const idOf = async (blob: Blob): Promise<string> => `f${await nameOf(blob)}`;

/** Keeps a file in this browser and enters it in the open show; gives its id. Throws FileError. */
export async function addFile(file: File): Promise<string> {
  if (file.size === 0) throw new FileError(`${file.name} is empty.`);
  if (file.size > largestFile)
    throw new FileError(`${file.name} is larger than ${largestFile / 1024 / 1024} MB. Make it smaller.`);
  // The same file is kept once, whatever show uses it.
  const id = await idOf(file);
  const blob = new Blob([file], { type: file.type });
  await database.files.put({ id, blob });
  engine().giveFile(id, file.name, blob);
  editShow(
    (show) => void (show.files[id] = { name: file.name.slice(0, 120), type: file.type, bytes: file.size }),
  );
  return id;
}

/**
 * Keeps the files that came with a show file. One that goes by another name than what it holds gives it is renamed in the
 * show: an archive can never put its file in the place of another.
 */
export async function keepFiles(files: ReadonlyMap<string, Uint8Array>, show: Show): Promise<void> {
  const names = new Map<string, string>();
  for (const [given, bytes] of files) {
    if (!Object.hasOwn(show.files, given)) continue;
    const blob = new Blob([bytes as Uint8Array<ArrayBuffer>], { type: show.files[given].type });
    const id = await idOf(blob);
    await database.files.put({ id, blob });
    if (id !== given) names.set(given, id);
  }
  if (names.size) renameFiles(show, catalogue, names);
}

/** Hands the files of a show to the engine, or says that they are not here. */
export async function giveFiles(show: Show): Promise<void> {
  for (const [id, { name }] of Object.entries(show.files)) {
    const stored = await database.files.get(id);
    engine().giveFile(id, name, stored?.blob ?? null);
  }
}

/** The bytes of the files a show uses, as far as they are here. */
export async function filesOf(show: Show): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  for (const id of usedFiles(show, catalogue)) {
    const stored = await database.files.get(id);
    if (stored) files.set(id, new Uint8Array(await stored.blob.arrayBuffer()));
  }
  return files;
}
