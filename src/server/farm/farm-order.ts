import { createHash } from 'node:crypto';
import { Queue, QueueEvents } from 'bullmq';
import type { Redis } from 'ioredis';
import { checkpointNameOf, fileOfPiece } from '../../core/export/names';
import type { FarmPart } from '../../core/export/farm';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';
import { attempts, connect, FarmError, keptSeconds, keyOf, queueName, type FarmJob } from './redis';

/** Milliseconds after which it is said that nothing moves. */
const silenceMs = 15000;
/** Milliseconds without a connection after which an export gives up; what is finished is kept. */
const longestAwayMs = 60000;

/** What an export hears of its pieces on a farm. */
export interface FarmListener {
  /** So many more frames are done. */
  frames(count: number): void;
  /** A piece is there, whole. */
  piece(name: string, bytes: Buffer): Promise<void>;
  /** Nothing more will come. */
  fault(error: Error): void;
  /** Something that a performer should know. */
  say(line: string): void;
}

/** The pieces of one export on a farm: hands them to all workers that listen at a Redis, and fetches what they have made. */
export class FarmOrder {
  private readonly open = new Map<string, FarmPart>();
  private readonly frames = new Map<string, number>();
  private heard = Date.now();
  private awaySince: number | null = null;
  private added = 0;
  private readonly watch = setInterval(() => this.look(), 1000);

  private constructor(
    private readonly url: string,
    private readonly redis: Redis,
    private readonly queue: Queue<FarmJob>,
    private readonly events: QueueEvents,
    private readonly mark: string,
    private readonly spec: ExportSpec,
    private readonly plan: ExportPlan,
    private readonly listener: FarmListener,
  ) {
    events.on('progress', ({ jobId, data }) => {
      this.heard = Date.now();
      if (!this.open.has(jobId)) return;
      const now = (data as { frames: number }).frames;
      listener.frames(now - (this.frames.get(jobId) ?? 0));
      this.frames.set(jobId, now);
    });
    events.on('completed', ({ jobId }) => {
      this.heard = Date.now();
      const part = this.open.get(jobId);
      if (part) this.fetch(jobId, part).catch((error: unknown) => this.fail(error as Error));
    });
    events.on('failed', ({ jobId, failedReason }) => {
      if (this.open.has(jobId)) this.fail(new FarmError(failedReason));
    });
  }

  /** Puts a packed show where workers find it. Throws FarmError where no Redis answers. */
  static async begin(
    url: string,
    packed: Buffer,
    spec: ExportSpec,
    plan: ExportPlan,
    listener: FarmListener,
  ): Promise<FarmOrder> {
    const redis = await connect(url);
    const name = await queueName();
    const queue = new Queue<FarmJob>(name, { connection: redis });
    const events = new QueueEvents(name, { connection: redis.duplicate() });
    const mark = createHash('sha256').update(packed).update(String(Date.now())).digest('hex').slice(0, 24);
    await events.waitUntilReady();
    await redis.set(keyOf('show', mark), packed, 'EX', keptSeconds);
    return new FarmOrder(url, redis, queue, events, mark, spec, plan, listener);
  }

  /** Parts that were handed over and are not there yet. */
  get waiting(): number {
    return this.open.size;
  }

  /** Hands a part to whoever is free; `checkpoint`: what it begins from. */
  async add(part: FarmPart, checkpoint: Uint8Array | null): Promise<void> {
    const { mark, spec, plan } = this;
    if (part.checkpoint !== null && checkpoint)
      await this.redis.set(this.keyOfCheckpoint(part.checkpoint), Buffer.from(checkpoint), 'EX', keptSeconds);
    const jobId = `${mark}-${this.added++}`;
    // Known before it can be done.
    this.open.set(jobId, part);
    await this.queue.add(
      'pieces',
      { show: mark, spec, plan, pieces: part.pieces },
      { jobId, attempts, removeOnComplete: true, removeOnFail: true },
    );
  }

  private keyOfCheckpoint = (frame: number): string =>
    keyOf('checkpoint', this.mark, checkpointNameOf(frame));

  private async fetch(job: string, { pieces, checkpoint }: FarmPart): Promise<void> {
    for (const piece of pieces) {
      const name = fileOfPiece(this.spec, this.plan, piece);
      const key = keyOf('piece', this.mark, name);
      const bytes = await this.redis.getBuffer(key);
      if (!bytes) throw new FarmError(`Piece ${piece} was made and is not there any more. Run it again.`);
      await this.listener.piece(name, bytes);
      await this.redis.del(key);
    }
    if (checkpoint !== null) await this.redis.del(this.keyOfCheckpoint(checkpoint));
    this.open.delete(job);
  }

  private fail(error: Error): void {
    clearInterval(this.watch);
    this.open.clear();
    this.listener.fault(error);
  }

  /** Says what keeps it waiting, and gives up where Redis stays away. */
  private look(): void {
    if (this.redis.status !== 'ready') {
      if (this.awaySince === null)
        this.listener.say('The connection to Redis is gone. Waiting for it to come back.');
      this.awaySince ??= Date.now();
      if (Date.now() - this.awaySince > longestAwayMs)
        this.fail(new FarmError('Redis has been away for a minute.'));
      return;
    }
    if (this.awaySince !== null) void this.comeBack();
    this.awaySince = null;
    if (Date.now() - this.heard < silenceMs || this.open.size === 0) return;
    this.heard = Date.now();
    this.queue.getWorkers().then(
      ({ length }) => {
        if (length === 0)
          this.listener.say(
            `No worker of this version listens at ${this.url} yet. Start one: pyrvel farm worker --redis ${this.url}`,
          );
      },
      () => undefined,
    );
  }

  /** A Redis that keeps nothing on disk and was started again knows of no export. */
  private async comeBack(): Promise<void> {
    const isKnown = await this.redis.exists(keyOf('show', this.mark)).catch(() => 1);
    if (!isKnown)
      this.fail(new FarmError('Redis came back without this export. Go on: what is finished is kept.'));
  }

  /** Takes back what nobody has begun. */
  async close(): Promise<void> {
    clearInterval(this.watch);
    const { redis, queue, events } = this;
    if (redis.status === 'ready') {
      for (const job of this.open.keys()) await queue.remove(job).catch(() => undefined);
      await redis.del(keyOf('show', this.mark)).catch(() => undefined);
    }
    await Promise.all([queue.close(), events.close()]).catch(() => undefined);
    redis.disconnect();
  }
}
