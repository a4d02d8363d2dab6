import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { packShow } from '../src/core/show/archive';
import { usedFiles } from '../src/core/show/used-files';
import type { Show } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { UsageError } from './arguments';

/** The bytes of the files a show uses, from a folder in which each stands under its name or its id. */
function filesFrom(folder: string, show: Show): Map<string, Uint8Array> {
  const entries = readdirSync(folder);
  const files = new Map<string, Uint8Array>();
  for (const id of usedFiles(show, catalogue)) {
    const { name } = show.files[id];
    const entry =
      entries.find((file) => file === name) ?? entries.find((file) => path.parse(file).name === id);
    if (entry === undefined) throw new UsageError(`There is no ${name} (or ${id}) in ${folder}.`);
    files.set(id, readFileSync(path.join(folder, entry)));
  }
  return files;
}

/** A show and its files as a zip. `bytes` of each file in the document are those that were found. */
export function pack(show: Show, folder: string): Uint8Array {
  const files = filesFrom(folder, show);
  for (const [id, bytes] of files) show.files[id].bytes = bytes.length;
  return packShow(show, files);
}
