import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { kindOf, type Catalogue } from '../kind/kind';
import type { Show } from './types';
import { ShowFileError, writeShow } from './validate';

const documentName = 'show.pyrvel.json';
const folder = 'files/';

/** A show file as it came: its document, and the bytes of its files by id. */
export interface Unpacked {
  text: string;
  files: ReadonlyMap<string, Uint8Array>;
}

/** Ids of the files that nodes and inputs of a show really use, without those that ship with the app. */
export function usedFiles(show: Show, catalogue: Catalogue): string[] {
  const used = new Set<string>();
  for (const scene of show.scenes) {
    for (const node of Object.values(scene.nodes)) {
      for (const [name, spec] of Object.entries(kindOf(catalogue, node)?.controls ?? {})) {
        const value = node.controls[name];
        if (spec.type === 'file' && typeof value === 'string' && Object.hasOwn(show.files, value))
          used.add(value);
      }
    }
  }
  for (const file of [show.inputs.sound.file, show.inputs.midi.file])
    if (Object.hasOwn(show.files, file)) used.add(file);
  return [...used];
}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** The bytes of a show file: a document alone, or packed with its files. Throws ShowFileError. */
export function unpackShow(bytes: Uint8Array): Unpacked {
  if (!isZip(bytes)) return { text: strFromU8(bytes), files: new Map() };
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes);
  } catch {
    throw new ShowFileError([
      {
        level: 'error',
        where: '',
        what: 'The packed show is damaged: it cannot be unpacked. Export it again.',
      },
    ]);
  }
  if (!Object.hasOwn(entries, documentName))
    throw new ShowFileError([
      {
        level: 'error',
        where: '',
        what: `This is not a packed show of Pyrvel: it holds no ${documentName}.`,
      },
    ]);
  const files = new Map<string, Uint8Array>();
  for (const [name, content] of Object.entries(entries)) {
    const id = name.startsWith(folder) ? name.slice(folder.length).split('.')[0] : '';
    if (id) files.set(id, content);
  }
  return { text: strFromU8(entries[documentName]), files };
}

/** A show with the files it uses as a zip (APPNOTE 6.3). Media are packed as they are: they are small already. */
export function packShow(show: Show, files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const entries: Record<string, [Uint8Array, { level: 0 | 6 }]> = {
    [documentName]: [strToU8(writeShow(show)), { level: 6 }],
  };
  for (const [id, bytes] of files) {
    const ending = /\.[A-Za-z0-9]{1,8}$/.exec(show.files[id]?.name ?? '')?.[0] ?? '';
    entries[`${folder}${id}${ending}`] = [bytes, { level: 0 }];
  }
  // A fixed date: the same show gives the same bytes.
  return zipSync(entries, { mtime: '2020-01-01T00:00:00' });
}
