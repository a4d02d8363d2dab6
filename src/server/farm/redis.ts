import { createHash } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { Redis } from 'ioredis';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';

/** What a worker is given: pieces of an export, whose show lies under its key. */
export interface FarmJob {
  show: string;
  spec: ExportSpec;
  plan: ExportPlan;
  pieces: number[];
}

/** A farm can't be used, or is lost: says why in a sentence. */
export class FarmError extends Error {
  override name = 'FarmError';
}

/** Seconds that shows and pieces are kept, if nobody fetches them. */
export const keptSeconds = 24 * 3600;
/** Times that a job is tried: a worker that died costs a job one of them. */
export const attempts = 4;

/** Keys under which a farm keeps things: `show`, `piece`, `checkpoint`, each with the mark of its export and a name. */
export const keyOf = (...parts: string[]): string => ['pyrvel', ...parts].join(':');

/** What has to be the same on all machines for their pieces to fit: the app as it was built. Its scripts are named by what is in them. */
async function buildMark(): Promise<string> {
  const names = await readdir(path.resolve(import.meta.dirname, '../../../dist/assets'));
  return createHash('sha256').update(names.sort().join('\n')).digest('hex').slice(0, 12);
}

export const queueName = async (): Promise<string> => `pyrvel-pieces-${await buildMark()}`;

/** Connects. Throws FarmError where nobody answers. */
export async function connect(url: string): Promise<Redis> {
  const redis = new Redis(url, { maxRetriesPerRequest: null, lazyConnect: true, retryStrategy: () => 500 });
  // Whoever waits sees it by the status; a connection that is away is made again.
  redis.on('error', () => undefined);
  const probe = new Redis(url, { lazyConnect: true, retryStrategy: () => null, maxRetriesPerRequest: 0 });
  probe.on('error', () => undefined);
  try {
    await probe.connect();
    await probe.ping();
  } catch (error) {
    throw new FarmError(
      `No Redis answers at ${url} (${(error as Error).message}). Start redis-server, or name another address.`,
    );
  } finally {
    probe.disconnect();
  }
  await redis.connect();
  return redis;
}
