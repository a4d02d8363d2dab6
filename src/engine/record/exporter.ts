import {
  checkpointNameOf,
  frameName,
  lastCheckpointName,
  pieceNameOf,
  soundPieceName,
} from '../../core/export/names';
import { ExportError, checkSpec, longestSide, type ExportSpec } from '../../core/export/spec';
import { framesOf } from '../../core/export/schedule';
import type { Show } from '../../core/document/types';
import type { Gpu } from '../gpu/gpu';
import type { ExportEvent, ExportOrder } from '../protocol/export';
import type { MediaLibrary } from '../media/library';
import type { LiveInputs } from '../playback/live-inputs';
import { joined } from './png';
import { stringOf } from '../../core/wall/outputs';
import { checkpointFor, frameAfter, writeCheckpoint } from './checkpoint-file';
import { compareFrames } from './compare-frames';
import { ExportRun, type ExportMeans } from './export-run';
import { Grabber } from './grabber';
import { ImagePool } from './image-pool';
import { join } from './join';
import { largeStill } from './large-still';
import { finishLive } from './live-folder';
import { put, sayDiskFault, streamTo } from './sink';
import { fileReader, samplesReader, soundPiece, type SoundReader } from './sound';
import { VideoPiece } from './video';

type Work = Exclude<ExportOrder, { do: 'cancel' }>;

/** Milliseconds between two reports of how far it is, and between two small pictures. */
const reportMs = 250;
const pictureMs = 1000;
/** Longest side of the small picture. */
const smallSide = 192;
/** Milliseconds of work that are lost at most when an export of pictures that remember is broken off. */
const checkpointMs = 10000;

/** An order was taken back. */
class Cancelled extends Error {
  override name = 'Cancelled';
}

/** Carries out the orders of exports, one job at a time, beside whatever else the engine does. */
export class Exporter {
  /** Share of the time that exports may take. */
  share = 1;
  private job: string | null = null;
  private isCancelled = false;
  private kept: { spec: string; show: Show; gpu: Gpu; run: ExportRun } | null = null;
  private readonly pool = new ImagePool();
  private workedSince = performance.now();
  private reportedAt = 0;
  private picturedAt = 0;
  private frame: number | null = null;
  private checkpointAt = performance.now();

  constructor(
    private readonly tell: (job: string, event: ExportEvent) => void,
    private readonly media: MediaLibrary,
  ) {}

  /** Takes an order; `means` and `show` as they are now. */
  take(order: ExportOrder, show: Show, means: ExportMeans): void {
    switch (order.do) {
      case 'cancel':
        if (order.job === this.job) this.isCancelled = true;
        break;
      default:
        void this.work(order, show, means);
    }
  }

  private async work(order: Work, show: Show, means: ExportMeans): Promise<void> {
    if (this.job !== null) {
      this.tell(order.job, {
        what: 'failed',
        message: 'Another export is under way.',
        frame: null,
      });
      return;
    }
    this.job = order.job;
    this.isCancelled = false;
    this.frame = null;
    this.workedSince = performance.now();
    try {
      checkSpec(show, order.spec);
      if (order.do === 'pieces') await this.pieces(order, show, means);
      else if (order.do === 'checkpoints') await this.checkpoints(order, show, means);
      else if (order.do === 'sound') await this.sound(order, show, means.inputs);
      else if (order.do === 'recover') await this.recover(order, means.inputs);
      else await this.join(order, show);
      this.job = null;
      this.tell(order.job, { what: 'done' });
    } catch (error) {
      this.job = null;
      if (error instanceof Cancelled) return;
      // What was waited for then fails without a word.
      const isLost = means.gpu.isLost || error === undefined;
      const { message } = error instanceof Error ? error : new Error(String(error));
      this.tell(order.job, {
        what: 'failed',
        message: isLost ? 'The graphics card was lost.' : message,
        frame: this.frame,
        ...(isLost && { isLost: true }),
      });
    }
  }

  /** Leaves others their turn. Throws Cancelled. */
  private rest = async (): Promise<void> => {
    const worked = performance.now() - this.workedSince;
    if (this.share < 1) await new Promise((done) => setTimeout(done, worked * (1 / this.share - 1)));
    if (this.isCancelled) throw new Cancelled();
    this.workedSince = performance.now();
  };

  private progress(frames: number, isLast = false): void {
    const now = performance.now();
    if (!isLast && now - this.reportedAt < reportMs) return;
    this.reportedAt = now;
    this.tell(this.job!, { what: 'progress', frames });
  }

  private async pieces(
    order: Extract<ExportOrder, { do: 'pieces' }>,
    show: Show,
    means: ExportMeans,
  ): Promise<void> {
    const { spec, plan, sink, pieces } = order;
    const { format, width, height } = spec;
    if (Math.max(width, height) > longestSide.images) {
      await this.large(order, show, means);
      return;
    }
    let run = this.takeKept(spec, show, means);
    const grabber = new Grabber(means.gpu, spec);
    let done = 0;
    const written: Promise<void>[] = [];
    try {
      for (const piece of pieces) {
        const [from, to] = framesOf(spec, plan, piece);
        run = await this.runTo(from, run, order, show, means);
        const draw = this.drawer(run, grabber);
        const isShown = (): Promise<void> => this.picture(grabber);
        const count = (): void => this.progress(++done);
        if (format.type === 'video') {
          const bytes = await this.videoPiece(
            { ...spec, format },
            run,
            grabber,
            [from, to],
            draw,
            isShown,
            count,
          );
          await put(sink, pieceNameOf(piece), bytes);
        } else if (format.type === 'pixels') {
          const parts: Uint8Array[] = [];
          for (let frame = from; frame < to; frame++) {
            this.frame = frame;
            await run.frame(frame, () => undefined, this.rest);
            parts.push(await run.pixels());
            count();
          }
          await put(sink, pieceNameOf(piece), joined(parts));
        } else {
          this.frame = from;
          await run.frame(from, draw, this.rest);
          await isShown();
          const depth = format.type === 'images' && format.depth ? await run.depth() : null;
          const pixels = await grabber.take();
          const { file } = await this.pool.encode({ width, height, format, fps: spec.fps, pixels, depth });
          const name = format.type === 'images' ? frameName(spec, from) : pieceNameOf(piece);
          written.push(file.then((bytes) => put(sink, name, bytes)));
          // A fault is heard below; until then nobody may call it unhandled.
          written.at(-1)!.catch(() => undefined);
          if (written.length > 8) await written.shift();
          count();
        }
        if (plan.checkpoints && order.checkpoints && performance.now() - this.checkpointAt > checkpointMs) {
          await put(order.checkpoints, lastCheckpointName, await writeCheckpoint(await run.checkpoint()));
          this.checkpointAt = performance.now();
        }
        await this.rest();
      }
      await Promise.all(written);
      this.progress(done, true);
      if (plan.meets !== null && pieces.includes(0)) {
        const [first, after] = [plan.first, plan.meets];
        this.frame = after;
        const { mean, worst } = await compareFrames(means, show, spec, [first, after], this.rest);
        this.tell(this.job!, { what: 'loop', mean, worst });
      }
      if (run) this.kept = { spec: JSON.stringify(spec), show, gpu: means.gpu, run };
      run = null;
    } finally {
      run?.dispose();
      grabber.dispose();
    }
  }

  /** A run that can go on to a frame: the one there is, or one that begins from a checkpoint, where that saves frames on the way. */
  private async runTo(
    frame: number,
    before: ExportRun | null,
    { spec, plan, checkpoints }: Extract<ExportOrder, { do: 'pieces' }>,
    show: Show,
    means: ExportMeans,
  ): Promise<ExportRun> {
    const isHere = before !== null && before.canReach(frame);
    if (isHere && before.at === frame - 1) return before;
    const start =
      plan.checkpoints && checkpoints ? await checkpointFor(checkpoints, frame, spec.subframes) : null;
    if (isHere && (!start || frameAfter(start, spec.subframes) - 1 <= before.at)) return before;
    before?.dispose();
    const run = new ExportRun(means, show, spec);
    if (start) run.beginFrom(start);
    return run;
  }

  /** Runs through a scene, drawing only what it remembers, and leaves a checkpoint before each of some frames. */
  private async checkpoints(
    { spec, frames, sink }: Extract<ExportOrder, { do: 'checkpoints' }>,
    show: Show,
    means: ExportMeans,
  ): Promise<void> {
    let run = this.takeKept(spec, show, means);
    if (run && !run.canReach(frames[0])) {
      run.dispose();
      run = null;
    }
    run ??= new ExportRun(means, show, spec);
    try {
      for (const [k, frame] of frames.entries()) {
        this.frame = frame;
        const checkpoint = await run.before(frame, this.rest);
        await put(sink, checkpointNameOf(frame), await writeCheckpoint(checkpoint));
        this.progress(k + 1, true);
      }
      this.kept = { spec: JSON.stringify(spec), show, gpu: means.gpu, run };
      run = null;
    } finally {
      run?.dispose();
    }
  }

  /** The run of the order before, if it was of the same export: the next pieces may lie ahead of it, and save a preroll. */
  private takeKept(spec: ExportSpec, show: Show, { gpu }: ExportMeans): ExportRun | null {
    const { kept } = this;
    this.kept = null;
    if (kept?.gpu === gpu && kept.show === show && kept.spec === JSON.stringify(spec)) return kept.run;
    if (kept && !kept.gpu.isLost) kept.run.dispose();
    return null;
  }

  private drawer(run: ExportRun, grabber: Grabber): () => void {
    return () => {
      const target = grabber.target();
      run.draw(target);
      grabber.add(target);
    };
  }

  private async videoPiece(
    spec: ConstructorParameters<typeof VideoPiece>[0],
    run: ExportRun,
    grabber: Grabber,
    [from, to]: readonly [number, number],
    draw: () => void,
    isShown: () => Promise<void>,
    count: () => void,
  ): Promise<Uint8Array<ArrayBuffer>> {
    const video = new VideoPiece(spec);
    try {
      // While a frame comes off the GPU and is encoded, the next one is drawn.
      let coming: Promise<void> | null = null;
      for (let frame = from; frame < to; frame++) {
        this.frame = frame;
        await run.frame(frame, draw, this.rest);
        await isShown();
        const planes = grabber.take();
        await coming;
        coming = planes.then((bytes) => video.add(bytes as Uint8Array<ArrayBuffer>));
        coming.catch(() => undefined);
        count();
        await this.rest();
      }
      await coming;
      return await video.finish();
    } catch (error) {
      await video.cancel().catch(() => undefined);
      throw error;
    }
  }

  /** Shows the page what the last frame looks like, now and then. */
  private async picture(grabber: Grabber): Promise<void> {
    const now = performance.now();
    const texture = grabber.picture;
    if (!texture || now - this.picturedAt < pictureMs) return;
    this.picturedAt = now;
    const { width, height } = texture.image as { width: number; height: number };
    const scale = Math.min(1, smallSide / Math.max(width, height));
    const [w, h] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
    const rgba = await grabber.small(texture, w, h);
    this.tell(this.job!, { what: 'picture', width: w, height: h, rgba: new Uint8ClampedArray(rgba.buffer) });
  }

  private async large(
    order: Extract<ExportOrder, { do: 'pieces' }>,
    show: Show,
    means: ExportMeans,
  ): Promise<void> {
    const { spec, plan, sink } = order;
    this.frame = plan.first;
    await largeStill(means, show, spec, plan.first, sink, frameName(spec, plan.first), this.rest);
    this.progress(1, true);
  }

  private async soundOf(show: Show, inputs: LiveInputs): Promise<SoundReader> {
    const { from, file } = show.inputs.sound;
    if (inputs.loop) return samplesReader(inputs.loop);
    if (from !== 'file')
      throw new ExportError('Sound of a device cannot be exported. Choose a file under Inputs.');
    const blob = await this.media.blobOf(file);
    return fileReader(blob, show.files[file]?.name ?? 'this file');
  }

  private async sound(
    { spec, plan, sink }: Extract<ExportOrder, { do: 'sound' }>,
    show: Show,
    inputs: LiveInputs,
  ): Promise<void> {
    const { format } = spec;
    if (format.type !== 'video' || format.sound === 'none') return;
    const bytes = await soundPiece({ ...spec, format }, plan, await this.soundOf(show, inputs), this.rest);
    await put(sink, soundPieceName, bytes);
  }

  private async recover(
    { job, spec, folder }: Extract<ExportOrder, { do: 'recover' }>,
    { whole }: LiveInputs,
  ): Promise<void> {
    const { format } = spec;
    if (format.type !== 'video') throw new Error('A live recording is a video.');
    const done = await finishLive({ ...spec, format }, { type: 'folder', folder }, whole);
    this.tell(job, { what: 'recorded', ...done });
  }

  private async join(order: Extract<ExportOrder, { do: 'join' }>, show: Show): Promise<void> {
    const { spec, plan, folder, to } = order;
    const read = async (name: string): Promise<Uint8Array<ArrayBuffer>> => {
      const file = await (await folder.getFileHandle(name)).getFile();
      return new Uint8Array(await file.arrayBuffer());
    };
    const target = await streamTo(to);
    try {
      await join(spec, plan, stringOf(show, spec.output), read, target, async (piece) => {
        this.progress(piece + 1);
        await this.rest();
      });
    } catch (error) {
      await target.abort().catch(() => undefined);
      throw sayDiskFault(error);
    }
  }

  dispose(): void {
    this.isCancelled = true;
    this.pool.dispose();
  }
}
