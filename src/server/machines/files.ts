import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rename, rm, stat } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Transform, type Readable } from 'node:stream';
import { fileNameOfDigest } from '../../core/show/file-name';

const mostBytes = 512 * 2 ** 20;

/** Why a file was not taken. */
export class FileError extends Error {
  constructor(
    readonly status: 400 | 413 | 507,
    message: string,
  ) {
    super(message);
  }
}

/** Files of shows on their way to other machines, by what they hold: they lie in a folder that goes with the server. */
export class SharedFiles {
  private folder: Promise<string> | null = null;
  private taken = 0;

  private get at(): Promise<string> {
    return (this.folder ??= mkdtemp(path.join(os.tmpdir(), 'pyrvel-files-')));
  }

  /** Where a file lies; null: it is not here. */
  async find(id: string): Promise<string | null> {
    if (!/^f[0-9a-f]{24}$/.test(id)) return null;
    const file = path.join(await this.at, id);
    return (await stat(file).catch(() => null)) ? file : null;
  }

  /** Takes a file, whole or not at all. Throws `FileError` where it is not what its name says, too large, or the disk is full. */
  async take(id: string, from: Readable): Promise<void> {
    const folder = await this.at;
    const part = path.join(folder, `part-${++this.taken}`);
    const digest = createHash('sha256');
    let bytes = 0;
    const watch = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        bytes += chunk.length;
        digest.update(chunk);
        done(bytes > mostBytes ? new FileError(413, 'This file is too large to be handed on.') : null, chunk);
      },
    });
    try {
      await pipeline(from, watch, createWriteStream(part));
      if (fileNameOfDigest(digest.digest()) !== id)
        throw new FileError(400, 'This file is not what its name says.');
      await rename(part, path.join(folder, id));
    } catch (error) {
      await rm(part, { force: true });
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
        throw new FileError(507, 'The disk of the main machine is full. Files do not reach the players.');
      throw error;
    }
  }

  async close(): Promise<void> {
    if (this.folder) await rm(await this.folder, { recursive: true, force: true });
  }
}
