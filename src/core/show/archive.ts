import crc32 from 'crc-32';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Show } from '../document/types';
import { ShowFileError, writeShow } from './validate';

const documentName = 'show.pyrvel.json';
const folder = 'files/';

/** A show file as it came: its document, and the bytes of its files by id. */
export interface Unpacked {
  text: string;
  files: ReadonlyMap<string, Uint8Array>;
}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** What a packed show may hold: enough for any real one, and less than would fill the memory. */
export const archiveLimits = {
  entries: 2000,
  documentBytes: 128 * 1024 * 1024,
  fileBytes: 512 * 1024 * 1024,
  allBytes: 2048 * 1024 * 1024,
  /** Unpacked over packed bytes, of what is larger than a megabyte. Real documents stay below 60. */
  ratio: 250,
};
type Limits = typeof archiveLimits;

/** Form of a file's id; the schema says the same. */
const idForm = /^[A-Za-z0-9_-]{1,64}$/;

const refuse = (what: string, where = ''): never => {
  throw new ShowFileError([{ level: 'error', where, what }]);
};

interface Entry {
  name: string;
  crc: number;
  packed: number;
  size: number;
}

/** The entries that the directory at the end of a zip lists (APPNOTE 4.3.12 and 4.3.16). */
function directoryOf(bytes: Uint8Array): Entry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const damaged = (): never => refuse('The packed show is damaged: it cannot be unpacked. Export it again.');
  let end = bytes.length - 22;
  const farthest = Math.max(0, end - 0xffff);
  while (end >= farthest && view.getUint32(end, true) !== 0x06054b50) end--;
  if (end < farthest || end < 0) damaged();
  const entries: Entry[] = [];
  let at = view.getUint32(end + 16, true);
  for (let k = view.getUint16(end + 10, true); k > 0; k--) {
    if (at + 46 > end || view.getUint32(at, true) !== 0x02014b50) damaged();
    const nameLength = view.getUint16(at + 28, true);
    const name = strFromU8(bytes.subarray(at + 46, at + 46 + nameLength));
    // The entry itself says its name once more: two names are a sign of damage, or of somebody's intent.
    const entry = view.getUint32(at + 42, true) + 30;
    if (strFromU8(bytes.subarray(entry, entry + nameLength)) !== name) damaged();
    entries.push({
      name,
      crc: view.getInt32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
    });
    at += 46 + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  return entries;
}

const megabytes = (count: number): string => `${Math.round(count / 1024 / 1024)} MB`;

/** Refuses what would fill the memory, by what the directory says, before anything is unpacked. */
function checkLimits(entries: readonly Entry[], limits: Limits): void {
  if (entries.length > limits.entries)
    refuse(`The packed show has ${entries.length} entries; up to ${limits.entries} are read.`);
  let all = 0;
  for (const { name, packed, size } of entries) {
    const most = name === documentName ? limits.documentBytes : limits.fileBytes;
    if (size > most) refuse(`It unpacks to ${megabytes(size)}; up to ${megabytes(most)} are read.`, name);
    if (size > 1024 * 1024 && size > packed * limits.ratio)
      refuse(
        `It unpacks to ${Math.round(size / Math.max(1, packed))} times its size, as no show does.`,
        name,
      );
    all += size;
  }
  if (all > limits.allBytes)
    refuse(`The packed show unpacks to ${megabytes(all)}; up to ${megabytes(limits.allBytes)} are read.`);
}

/**
 * The bytes of a show file: a document alone, or packed with its files. Nothing is unpacked beyond `limits`, and what is has
 * to have the checksum it was packed with. Throws ShowFileError.
 */
export function unpackShow(bytes: Uint8Array, limits: Limits = archiveLimits): Unpacked {
  if (!isZip(bytes)) return { text: strFromU8(bytes), files: new Map() };
  const isWanted = (name: string): boolean => name === documentName || name.startsWith(folder);
  const listed = directoryOf(bytes).filter(({ name }) => isWanted(name) && !name.endsWith('/'));
  checkLimits(listed, limits);
  let entries: Record<string, Uint8Array> = {};
  try {
    entries = unzipSync(bytes, { filter: ({ name }) => isWanted(name) });
  } catch {
    refuse('The packed show is damaged: it cannot be unpacked. Export it again.');
  }
  if (!Object.hasOwn(entries, documentName))
    refuse(`This is not a packed show of Pyrvel: it holds no ${documentName}.`);
  const files = new Map<string, Uint8Array>();
  for (const { name, crc } of listed) {
    const content = Object.hasOwn(entries, name) ? entries[name] : new Uint8Array();
    if (crc32.buf(content) !== crc)
      refuse(
        'It is damaged: its checksum differs from the one it was packed with. Export the show again.',
        name,
      );
    if (name === documentName) continue;
    const id = name.slice(folder.length).replace(/\.[^./]*$/, '');
    if (!idForm.test(id)) refuse('This is no id of a file: up to 64 letters, digits, - and _ are.', name);
    if (files.has(id)) refuse(`The file ${id} is there twice.`, name);
    files.set(id, content);
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
