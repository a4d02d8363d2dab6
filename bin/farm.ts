import { createHash } from 'node:crypto';
import { mkdtemp, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Queue, QueueEvents, UnrecoverableError, Worker, type Job } from 'bullmq';
import { Redis } from 'ioredis';
import { fileOfPiece } from '../src/core/export/names';
import type { ExportPlan } from '../src/core/export/schedule';
import type { ExportSpec } from '../src/core/export/spec';
import { packShow, unpackShow } from '../src/core/show/archive';
import { readShow } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { UsageError } from './arguments';
import type { Renderer } from './browser';
import { EngineFault, EnginePage } from './engine-page';
import type { PieceRunner } from './export';

/** What a worker is given: pieces of an export, whose show lies under its key. */
interface FarmJob {
  show: string;
  spec: ExportSpec;
  plan: ExportPlan;
  pieces: number[];
}

/** Seconds that shows and pieces are kept, if nobody fetches them. */
const keptSeconds = 24 * 3600;
/** Pieces of images in a job: starting one costs as much as a few of them. */
const imagesOfJob = 8;
/** Times that a job is tried: a worker that died costs a job one of them. */
const attempts = 4;
/** Milliseconds after which a worker that says nothing has lost its job to others. */
const lockMs = 20000;
/** Milliseconds after which it is said that nothing moves. */
const silenceMs = 15000;
/** Milliseconds without a connection after which an export gives up; what is finished is kept. */
const longestAwayMs = 60000;

const key = (...parts: string[]): string => ['pyrvel', ...parts].join(':');

/** What has to be the same on all machines for their pieces to fit: the app as it was built. Its scripts are named by what is in them. */
async function buildMark(): Promise<string> {
  const names = await readdir(path.resolve(import.meta.dirname, '../dist/assets'));
  return createHash('sha256').update(names.sort().join('\n')).digest('hex').slice(0, 12);
}

const queueName = async (): Promise<string> => `pyrvel-pieces-${await buildMark()}`;

/** Connects, or says in a sentence that nobody answers there. */
async function connect(url: string): Promise<Redis> {
  const redis = new Redis(url, { maxRetriesPerRequest: null, lazyConnect: true, retryStrategy: () => 500 });
  // Heard below and by whoever waits; a connection that is away is made again.
  redis.on('error', () => undefined);
  const probe = new Redis(url, { lazyConnect: true, retryStrategy: () => null, maxRetriesPerRequest: 0 });
  probe.on('error', () => undefined);
  try {
    await probe.connect();
    await probe.ping();
  } catch (error) {
    throw new UsageError(
      `No Redis answers at ${url} (${(error as Error).message}). Start redis-server, or name another address by --redis.`,
    );
  } finally {
    probe.disconnect();
  }
  await redis.connect();
  return redis;
}

/** Jobs of a few pieces each. */
export function jobsOf(spec: ExportSpec, pieces: readonly number[]): number[][] {
  const size = spec.format.type === 'video' || spec.format.type === 'pixels' ? 1 : imagesOfJob;
  const jobs: number[][] = [];
  for (let at = 0; at < pieces.length; at += size) jobs.push(pieces.slice(at, at + size));
  return jobs;
}

/** Hands pieces to all workers that listen at a Redis, and fetches what they have made. */
export const farmRunner =
  (url: string, say: (line: string) => void): PieceRunner =>
  async ({ show, files, spec, plan, folder }, pieces, done) => {
    const redis = await connect(url);
    const name = await queueName();
    const queue = new Queue<FarmJob>(name, { connection: redis });
    const events = new QueueEvents(name, { connection: redis.duplicate() });
    const packed = Buffer.from(packShow(show, files));
    const mark = createHash('sha256').update(packed).update(String(Date.now())).digest('hex').slice(0, 24);
    try {
      await events.waitUntilReady();
      await redis.set(key('show', mark), packed, 'EX', keptSeconds);
      await new Promise<void>((resolve, reject) => {
        const open = new Map<string, readonly number[]>();
        const frames = new Map<string, number>();
        let heard = Date.now();
        let away: number | null = null;
        const watch = setInterval(() => {
          if (redis.status !== 'ready') {
            if (away === null) say('The connection to Redis is gone. Waiting for it to come back.');
            away ??= Date.now();
            if (Date.now() - away > longestAwayMs)
              end(() => reject(new EngineFault('Redis has been away for a minute.')));
            return;
          }
          away = null;
          if (Date.now() - heard < silenceMs) return;
          heard = Date.now();
          void queue.getWorkers().then((workers) => {
            if (workers.length === 0)
              say(
                `No worker of this version listens at ${url} yet. Start one: pyrvel farm worker --redis ${url}`,
              );
          });
        }, 1000);
        const end = (finish: () => void): void => {
          clearInterval(watch);
          finish();
        };
        const fail = (error: unknown): void => end(() => reject(error as Error));
        const fetchPieces = async (job: string): Promise<void> => {
          for (const piece of open.get(job) ?? []) {
            const file = fileOfPiece(spec, plan, piece);
            const bytes = await redis.getBuffer(key('piece', mark, file));
            if (!bytes)
              throw new EngineFault(`Piece ${piece} was made and is not there any more. Run it again.`);
            await writeFile(path.join(folder, `${file}.part`), bytes);
            await rename(path.join(folder, `${file}.part`), path.join(folder, file));
            await redis.del(key('piece', mark, file));
          }
          open.delete(job);
          if (open.size === 0) end(resolve);
        };
        events.on('progress', ({ jobId, data }) => {
          heard = Date.now();
          if (!open.has(jobId)) return;
          const now = (data as { frames: number }).frames;
          done(now - (frames.get(jobId) ?? 0));
          frames.set(jobId, now);
        });
        events.on('completed', ({ jobId }) => {
          heard = Date.now();
          if (open.has(jobId)) fetchPieces(jobId).catch(fail);
        });
        events.on('failed', ({ jobId, failedReason }) => {
          if (open.has(jobId)) fail(new EngineFault(failedReason));
        });
        const jobs = jobsOf(spec, pieces).map((part) => ({
          name: 'pieces',
          data: { show: mark, spec, plan, pieces: part },
          opts: { attempts, removeOnComplete: true, removeOnFail: true },
        }));
        queue
          .addBulk(jobs)
          .then((added) => {
            for (const job of added) open.set(job.id!, job.data.pieces);
          })
          .catch(fail);
      });
    } finally {
      await queue.drain().catch(() => undefined);
      await redis.del(key('show', mark)).catch(() => undefined);
      await Promise.all([queue.close(), events.close()]).catch(() => undefined);
      redis.disconnect();
    }
    return [];
  };

/** A worker of a farm: draws pieces with a browser of its own until it is stopped. */
export async function farmWorker(
  url: string,
  renderer: Renderer | undefined,
  say: (line: string) => void,
): Promise<{ close(): Promise<void> }> {
  const redis = await connect(url);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'pyrvel-farm-'));
  let open: { show: string; page: EnginePage } | null = null;

  const pageFor = async (mark: string): Promise<EnginePage> => {
    if (open?.show === mark) return open.page;
    await open?.page.close();
    open = null;
    const packed = await redis.getBuffer(key('show', mark));
    if (!packed) throw new Error('The show of this export is not there any more: the export was broken off.');
    const { text, files } = unpackShow(packed);
    const { show } = readShow(text, catalogue);
    open = { show: mark, page: await EnginePage.open(show, files, { renderer, pieces: folder }) };
    return open.page;
  };

  const work = async (job: Job<FarmJob>): Promise<void> => {
    const { show, spec, plan, pieces } = job.data;
    try {
      const page = await pageFor(show);
      await page.order({ do: 'pieces', spec, plan: { ...plan, meets: null }, pieces }, ({ frames }) => {
        void job.updateProgress({ frames }).catch(() => undefined);
      });
    } catch (error) {
      // What the engine has to say it would say again.
      if (error instanceof EngineFault || error instanceof UsageError)
        throw new UnrecoverableError(error.message);
      // Whatever happened to its browser: the next try begins with another.
      await open?.page.close();
      open = null;
      throw error;
    }
    for (const piece of pieces) {
      const file = path.join(folder, fileOfPiece(spec, plan, piece));
      await redis.set(key('piece', show, path.basename(file)), await readFile(file), 'EX', keptSeconds);
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
      await open?.page.close();
      redis.disconnect();
      await rm(folder, { recursive: true, force: true });
    },
  };
}
