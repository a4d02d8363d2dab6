import type { WebGLRenderTarget } from 'three';
import { pieceFrames } from '../../core/export/schedule';
import type { VideoSpec } from '../../core/export/spec';
import type { Gpu } from '../gpu/gpu';
import type { ExportEvent, LiveOrder } from '../protocol/export';
import type { LiveInputs } from '../playback/live-inputs';
import { Grabber } from './grabber';
import { finishLive, LiveFolder } from './live-folder';
import { joined } from './png';
import { VideoPiece } from './video';

/** Milliseconds between two reports. */
const reportMs = 500;
/** Share of the time that a recording may take where the stage has none to spare. */
const busyShare = 0.06;
/** Frames that may wait for the encoder. */
const mostWaiting = 2;

/**
 * Records what is on air while it is played. A frame is taken only when the one before has left the GPU and the encoder keeps up: the stage
 * never waits, and frames that were left out are counted.
 */
export class LiveRecorder {
  private readonly grabber: Grabber;
  private readonly spec: VideoSpec;
  private readonly startedAt: number;
  private isGrabbing = false;
  private waiting = 0;
  private last = -1;
  private dropped = 0;
  private piece: { number: number; video: VideoPiece } | null = null;
  private readonly folder: LiveFolder;
  private chain: Promise<void> = Promise.resolve();
  private fault: Error | null = null;
  private reportedAt = 0;
  /** When the last frame was taken, and milliseconds until it had left the GPU and the encoder. */
  private takenAt = 0;
  private costMs = 0;
  /** Second of the show at each frame; NaN: it stood. */
  private readonly places: number[] = [];
  private raw: { rate: number; chunks: Float32Array[] } | null = null;

  constructor(
    private readonly gpu: Gpu,
    private readonly order: LiveOrder,
    private readonly inputs: LiveInputs,
    private readonly tell: (job: string, event: ExportEvent) => void,
    now: number,
  ) {
    const { spec } = order;
    if (spec.format.type !== 'video') throw new Error('A live recording is a video.');
    this.spec = { ...spec, format: spec.format };
    this.grabber = new Grabber(gpu, spec);
    this.folder = new LiveFolder({ type: 'folder', folder: order.folder });
    this.startedAt = now;
    if (this.spec.format.sound !== 'none')
      inputs.tap = (samples, rate) => {
        this.raw ??= { rate, chunks: [] };
        this.raw.chunks.push(samples.slice());
      };
  }

  /** Whether it goes on with another graphics context: its pictures lived in the one that is gone. */
  isFor = (gpu: Gpu): boolean => gpu === this.gpu;

  /** Whether it can't go on, as where the disk is full. What was written until then is there. */
  get hasFailed(): boolean {
    // What was waited for when the graphics card was lost fails without a word, which is no fault of the recording.
    return Boolean(this.fault);
  }

  /**
   * Takes a frame, if it is time for one. `draw` gives false where the picture stands; `time`: second of the show, null while that stands;
   * `isEasy`: the stage has time to spare.
   */
  frame(
    now: number,
    time: number | null,
    isEasy: boolean,
    draw: (target: WebGLRenderTarget) => boolean,
  ): void {
    const { spec } = this;
    const index = Math.floor(((now - this.startedAt) * spec.fps) / 1000 + 1e-6);
    while (this.places.length <= index) this.places.push(time ?? Number.NaN);
    if (index <= this.last || this.hasFailed || this.isGrabbing || this.waiting > mostWaiting) return;
    // What a frame costs is taken from the stage there: it is made up for by leaving out the next ones.
    if (!isEasy && (this.waiting > 0 || now - this.takenAt < this.costMs / busyShare)) return;
    const target = this.grabber.target();
    if (!draw(target)) {
      this.gpu.release(target);
      // Nothing was left out: the picture before is the one that is seen.
      this.last = index;
      return;
    }
    this.grabber.add(target);
    this.dropped += index - this.last - 1;
    this.last = index;
    this.isGrabbing = true;
    this.waiting++;
    this.takenAt = now;
    const planes = this.grabber.take().finally(() => (this.isGrabbing = false));
    this.chain = this.chain
      .then(async () => this.add(index, (await planes) as Uint8Array<ArrayBuffer>))
      .catch((error: Error) => {
        this.fault ??= error;
      })
      .finally(() => {
        this.waiting--;
        this.costMs = performance.now() - now;
      });
    this.report(now);
  }

  private report(now: number): void {
    if (now - this.reportedAt < reportMs) return;
    this.reportedAt = now;
    const { job } = this.order;
    this.tell(job, { what: 'progress', frames: this.last + 1 });
    this.tell(job, { what: 'dropped', frames: this.dropped });
  }

  private async add(index: number, planes: Uint8Array<ArrayBuffer>): Promise<void> {
    const size = pieceFrames(this.spec);
    const number = Math.floor(index / size);
    if (this.piece && this.piece.number !== number) await this.endPiece((this.piece.number + 1) * size);
    this.piece ??= { number, video: new VideoPiece(this.spec) };
    await this.piece.video.add(planes, index - number * size);
  }

  /** `mostFrames`: those of the whole recording that this piece and all before it hold. */
  private async endPiece(mostFrames = Infinity): Promise<void> {
    const { piece, raw, places, dropped } = this;
    if (!piece) return;
    this.piece = null;
    const frames = Math.min(this.last + 1, mostFrames);
    const bytes = await piece.video.finish();
    const heard = raw && {
      rate: raw.rate,
      samples: joined(raw.chunks.splice(0).map((chunk) => new Uint8Array(chunk.buffer))),
    };
    await this.folder.add(piece.number, bytes, heard, { frames, dropped, places });
  }

  /** Ends the recording: what was taken is written, then its sound. */
  async stop(): Promise<void> {
    this.inputs.tap = null;
    const { job, folder } = this.order;
    await this.chain;
    try {
      await this.endPiece();
      if (this.fault) throw this.fault;
      const done = await finishLive(this.spec, { type: 'folder', folder }, this.inputs.whole);
      this.tell(job, { what: 'recorded', ...done });
    } catch (error) {
      const { message } = error instanceof Error ? error : new Error(String(error));
      this.tell(job, { what: 'failed', message, frame: this.last });
    } finally {
      this.grabber.dispose();
    }
  }
}
