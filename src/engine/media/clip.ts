import type { VideoSample, VideoSampleSink } from 'mediabunny';
import { ClampToEdgeWrapping, LinearFilter, VideoFrameTexture, type Texture } from 'three';
import { sniff } from '../../core/image/sniff';
import type { MovingPictures } from './moving-pictures';
import { MediaError } from './pictures';

/** A jump of more seconds than this is looked up again; less is reached by going on. */
const longestRun = 1;

/** Opens a video file. Throws MediaError if it holds no pictures that can be decoded here. */
async function openClip(blob: Blob): Promise<{ sink: VideoSampleSink; duration: number; first: number }> {
  // As large as the rest of the worker, and few scenes play videos.
  const { ALL_FORMATS, BlobSource, Input, VideoSampleSink } = await import('mediabunny');
  let track;
  let duration = 0;
  const input = new Input({ source: new BlobSource(blob), formats: ALL_FORMATS });
  try {
    track = await input.getPrimaryVideoTrack();
    duration = track ? await track.computeDuration() : 0;
  } catch {
    throw new MediaError('This video is damaged or of a form that cannot be read here. Use MP4 or WebM.');
  }
  if (!track) throw new MediaError('This file has no moving pictures in it. Use an MP4 or WebM video.');
  if (!(duration > 0)) throw new MediaError('This video has no frames. Export it again.');
  if (!(await track.canDecode()))
    throw new MediaError(
      `This browser cannot decode its pictures (${track.codec ?? 'unknown'}). Export it as H.264 MP4 or VP9 WebM.`,
    );
  return { sink: new VideoSampleSink(track), duration, first: await track.getFirstTimestamp() };
}

/** The frames of one video for one node: holds the newest that is there and fetches the next beside the frame loop. */
class VideoPlayer implements MovingPictures {
  readonly texture: Texture & { setFrame(frame: VideoFrame): void };
  error: string | null = null;
  duration = 0;
  size: [number, number] = [1, 1];
  private video: Awaited<ReturnType<typeof openClip>> | null = null;
  private frames: AsyncGenerator<VideoSample, void, unknown> | null = null;
  private ahead: VideoSample | null = null;
  private shown = Number.NaN;
  private wanted = 0;
  private work: Promise<void> | null = null;
  private closed = false;
  private frame: VideoFrame | null = null;
  private readonly opening: Promise<void>;

  constructor(
    blob: Blob,
    private readonly arrived: () => void,
  ) {
    this.texture = new VideoFrameTexture();
    this.texture.minFilter = this.texture.magFilter = LinearFilter;
    this.texture.wrapS = this.texture.wrapT = ClampToEdgeWrapping;
    this.texture.generateMipmaps = false;
    this.opening = this.open(blob);
  }

  private async open(blob: Blob): Promise<void> {
    try {
      const video = await openClip(blob);
      this.video = video;
      this.duration = video.duration - Math.max(0, video.first);
    } catch (error) {
      this.error = error instanceof Error ? error.message : String(error);
    }
    this.arrived();
  }

  get hasFrame(): boolean {
    return this.frame !== null;
  }

  want(seconds: number): void {
    this.wanted = seconds;
    if (!this.video || this.work || this.error) return;
    if (this.isShown(seconds)) return;
    this.work = this.fetch().finally(() => (this.work = null));
  }

  async reach(seconds: number): Promise<void> {
    await this.opening;
    while (this.work) await this.work;
    this.want(seconds);
    while (this.work) await this.work;
  }

  private isShown(seconds: number): boolean {
    const end = this.ahead?.timestamp ?? Infinity;
    const at = seconds + Math.max(0, this.video!.first);
    return this.shown <= at + 1e-6 && at < end - 1e-6 && this.frames !== null;
  }

  private async fetch(): Promise<void> {
    const video = this.video!;
    try {
      // The wish may have moved on while a frame was decoded: reach the latest.
      for (let turns = 0; turns < 400 && !this.closed && !this.isShown(this.wanted); turns++) {
        const at = this.wanted + Math.max(0, video.first);
        if (!this.frames || at < this.shown || at > this.shown + longestRun) await this.lookUp(at);
        else await this.step();
      }
    } catch (error) {
      this.error = `A frame could not be decoded (${error instanceof Error ? error.message : String(error)}). Export the video again.`;
    }
    this.arrived();
  }

  private async lookUp(at: number): Promise<void> {
    await this.frames?.return();
    this.ahead?.close();
    this.ahead = null;
    this.frames = this.video!.sink.samples(at);
    const first = await this.frames.next();
    if (first.done) throw new Error('it ends before');
    this.show(first.value);
    await this.readAhead();
  }

  private async step(): Promise<void> {
    if (!this.ahead) return;
    this.show(this.ahead);
    await this.readAhead();
  }

  private async readAhead(): Promise<void> {
    const next = await this.frames!.next();
    this.ahead = next.done ? null : next.value;
  }

  private show(sample: VideoSample): void {
    this.shown = sample.timestamp;
    this.size = [sample.displayWidth, sample.displayHeight];
    const frame = sample.toVideoFrame();
    sample.close();
    this.texture.setFrame(frame);
    this.frame?.close();
    this.frame = frame;
  }

  dispose(): void {
    this.closed = true;
    void this.frames?.return();
    this.ahead?.close();
    this.frame?.close();
    this.texture.dispose();
  }
}

/** A video or a sequence of images: what it is shows when its file is here. */
export class ClipPlayer {
  private player: MovingPictures | null = null;
  private fault: string | null = null;
  private isClosed = false;
  private readonly opening: Promise<void>;

  constructor(blob: Promise<Blob>, arrived: () => void) {
    this.opening = this.open(blob, arrived);
  }

  private async open(coming: Promise<Blob>, arrived: () => void): Promise<void> {
    try {
      const blob = await coming;
      const form = sniff(new Uint8Array(await blob.slice(0, 4096).arrayBuffer()));
      // Few scenes play sequences.
      const Player = form === 'zip' ? (await import('./sequence')).SequencePlayer : VideoPlayer;
      if (!this.isClosed) this.player = new Player(blob, arrived);
    } catch (error) {
      this.fault = error instanceof Error ? error.message : String(error);
    }
    arrived();
  }

  /** The frame to be seen, and its size; null: none is there yet. */
  get frame(): { texture: Texture; size: [number, number] } | null {
    return this.player?.hasFrame ? this.player : null;
  }

  get duration(): number {
    return this.player?.duration ?? 0;
  }

  get error(): string | null {
    return this.fault ?? this.player?.error ?? null;
  }

  want = (seconds: number): void => this.player?.want(seconds);

  async reach(seconds: number): Promise<void> {
    await this.opening;
    await this.player?.reach(seconds);
  }

  dispose(): void {
    this.isClosed = true;
    this.player?.dispose();
  }
}
