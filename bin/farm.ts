import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { UnrecoverableError, Worker, type Job } from 'bullmq';
import { mostWaiting, partsAtOnce, partsOf } from '../src/core/export/farm';
import { checkpointNameOf, fileOfPiece } from '../src/core/export/names';
import { framesOf } from '../src/core/export/schedule';
import { packShow, unpackShow } from '../src/core/show/archive';
import { readShow } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { FarmOrder } from '../src/server/farm/farm-order';
import {
  attempts,
  connect,
  FarmError,
  keptSeconds,
  keyOf,
  queueName,
  type FarmJob,
} from '../src/server/farm/redis';
import { UsageError } from './arguments';
import type { Renderer } from './browser';
import { EngineFault, EnginePage, takePiece } from './engine-page';
import type { PieceRunner } from './export';

/** Milliseconds after which a worker that says nothing has lost its job to others. */
const lockMs = 10000;
const asUsage = (error: unknown): never => {
  throw error instanceof FarmError ? new UsageError(error.message) : error;
};

/** Hands pieces to all workers that listen at a Redis, and fetches what they have made. */
export const farmRunner =
  (url: string, say: (line: string) => void): PieceRunner =>
  async ({ show, files, spec, plan, folder }, pieces, done, page) => {
    const packed = Buffer.from(packShow(show, files));
    const parts = partsOf(spec, plan, pieces);
    let fault: Error | null = null;
    let changed = (): void => undefined;
    const order = await FarmOrder.begin(url, packed, spec, plan, {
      frames: done,
      piece: async (name, bytes) => {
        await takePiece(folder, name, bytes);
        changed();
      },
      fault: (error) => {
        fault = error;
        changed();
      },
      say,
    }).catch(asUsage);
    /** Waits until no more than so many parts are on their way. */
    const until = async (most: number): Promise<void> => {
      while (!fault && order.waiting > most)
        await new Promise<void>((resolve) => {
          changed = resolve;
          setTimeout(resolve, 500);
        });
      if (fault) throw new EngineFault((fault as Error).message);
    };
    try {
      for (let at = 0; at < parts.length; at += partsAtOnce) {
        await until(mostWaiting);
        const next = parts.slice(at, at + partsAtOnce);
        const frames = next.flatMap(({ checkpoint }) => (checkpoint === null ? [] : [checkpoint]));
        // One fast run draws only what is remembered; each part is handed over as soon as its checkpoint is there.
        const isThere = (part: (typeof next)[number]): boolean =>
          part.checkpoint === null || existsSync(path.join(folder, checkpointNameOf(part.checkpoint)));
        const handOver = async (): Promise<void> => {
          while (next.length && isThere(next[0])) {
            const part = next.shift()!;
            if (part.checkpoint === null) await order.add(part, null);
            else {
              const file = path.join(folder, checkpointNameOf(part.checkpoint));
              await order.add(part, await readFile(file));
              await rm(file);
            }
          }
        };
        await handOver();
        if (frames.length) {
          let handing = Promise.resolve();
          await page.order({ do: 'checkpoints', spec, plan, frames }, () => {
            handing = handing.then(handOver);
          });
          await handing;
          await handOver();
        }
      }
      await until(0);
    } finally {
      await order.close();
    }
    return [];
  };

/** A worker of a farm: draws pieces with a browser of its own until it is stopped. */
export async function farmWorker(
  url: string,
  renderer: Renderer | undefined,
  say: (line: string) => void,
): Promise<{ close(): Promise<void> }> {
  const redis = await connect(url).catch(asUsage);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'pyrvel-farm-'));
  let open: { show: string; page: EnginePage; folder: string } | null = null;

  const closePage = async (): Promise<void> => {
    const closing = open;
    open = null;
    await closing?.page.close();
    if (closing) await rm(closing.folder, { recursive: true, force: true });
  };

  const openFor = async (mark: string): Promise<{ page: EnginePage; folder: string }> => {
    if (open?.show === mark) return open;
    await closePage();
    const packed = await redis.getBuffer(keyOf('show', mark));
    if (!packed) throw new Error('The show of this export is not there any more: the export was broken off.');
    const { text, files } = unpackShow(packed);
    const { show } = readShow(text, catalogue);
    const own = path.join(folder, mark);
    await mkdir(own, { recursive: true });
    open = { show: mark, folder: own, page: await EnginePage.open(show, files, { renderer, pieces: own }) };
    return open;
  };

  const work = async (job: Job<FarmJob>): Promise<void> => {
    const { show, spec, plan, pieces } = job.data;
    let own: string;
    try {
      const opened = await openFor(show);
      own = opened.folder;
      const checkpoint = checkpointNameOf(framesOf(spec, plan, pieces[0])[0]);
      const begins = await redis.getBuffer(keyOf('checkpoint', show, checkpoint));
      if (begins) await writeFile(path.join(own, checkpoint), begins);
      await opened.page.order(
        { do: 'pieces', spec, plan: { ...plan, meets: null }, pieces },
        ({ frames }) => void job.updateProgress({ frames }).catch(() => undefined),
      );
      await rm(path.join(own, checkpoint), { force: true });
    } catch (error) {
      // What the engine has to say it would say again.
      if (error instanceof EngineFault || error instanceof UsageError)
        throw new UnrecoverableError(error.message);
      // Whatever happened to its browser: the next try begins with another.
      await closePage();
      throw error;
    }
    for (const piece of pieces) {
      const file = path.join(own, fileOfPiece(spec, plan, piece));
      await redis.set(keyOf('piece', show, path.basename(file)), await readFile(file), 'EX', keptSeconds);
      await rm(file);
    }
  };

  const worker = new Worker<FarmJob>(await queueName(), work, {
    connection: redis.duplicate(),
    concurrency: 1,
    lockDuration: lockMs,
    stalledInterval: lockMs / 2,
    maxStalledCount: attempts,
  });
  worker.on('error', () => undefined);
  worker.on('active', ({ data }) => say(`${data.spec.name}: pieces ${data.pieces.join(', ')}`));
  worker.on('failed', (job, { message }) => say(`${job?.data.spec.name ?? 'A job'} failed: ${message}`));
  await worker.waitUntilReady();
  say(`Waiting for pieces at ${url}. Ctrl+C ends it after the one under way.`);
  return {
    close: async () => {
      await worker.close();
      await closePage();
      redis.disconnect();
      await rm(folder, { recursive: true, force: true });
    },
  };
}
