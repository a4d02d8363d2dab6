import type { StreamTargetChunk } from 'mediabunny';
import type { ExportSink } from '../protocol/export';

/** Says of a fault of the disk what to do. */
export function sayDiskFault(error: unknown): Error {
  const name = error instanceof Error ? error.name : '';
  if (name === 'QuotaExceededError')
    return new Error('There is no space left. Free some, then go on: what is finished is kept.');
  if (name === 'NotFoundError')
    return new Error('The folder of this export is gone. Choose another one, or start again.');
  if (name === 'NotAllowedError')
    return new Error('This page may not write there any more. Allow it, then go on.');
  return error instanceof Error ? error : new Error(String(error));
}

async function toFolder(
  folder: FileSystemDirectoryHandle,
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<void> {
  const file = await folder.getFileHandle(name, { create: true });
  // What is written appears under its name when it is whole, and not before.
  const writable = await file.createWritable();
  try {
    await writable.write(bytes);
    await writable.close();
  } catch (error) {
    await writable.abort().catch(() => undefined);
    throw error;
  }
}

async function toAddress(address: string, name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  const response = await fetch(`${address}/${name}`, { method: 'PUT', body: bytes });
  if (response.status === 507) throw new Error(await response.text());
  if (!response.ok) throw new Error(await response.text());
}

/** Puts a whole file under a name. Throws a sentence where there is no space. */
export async function put(sink: ExportSink, name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  try {
    if (sink.type === 'folder') await toFolder(sink.folder, name, bytes);
    else await toAddress(sink.address, name, bytes);
  } catch (error) {
    throw sayDiskFault(error);
  }
}

/** The file that lies under a name; null if there is none. */
export async function fetchFrom(sink: ExportSink, name: string): Promise<Uint8Array<ArrayBuffer> | null> {
  try {
    if (sink.type === 'folder')
      return new Uint8Array(await (await (await sink.folder.getFileHandle(name)).getFile()).arrayBuffer());
    const response = await fetch(`${sink.address}/${name}`);
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
  } catch (error) {
    if (error instanceof Error && error.name === 'NotFoundError') return null;
    throw sayDiskFault(error);
  }
}

/** A file that is written piece by piece, and appears when it is closed. */
export async function streamTo(file: FileSystemFileHandle): Promise<WritableStream<StreamTargetChunk>> {
  const writable = await file.createWritable();
  return new WritableStream<StreamTargetChunk>({
    write: ({ data, position }) =>
      writable.write({ type: 'write', data, position }).catch((error: unknown) => {
        throw sayDiskFault(error);
      }),
    close: () => writable.close(),
    abort: () => writable.abort().catch(() => undefined),
  });
}
