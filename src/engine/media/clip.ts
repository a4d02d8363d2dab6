import type { VideoSample, VideoSampleSink } from 'mediabunny';
import { ClampToEdgeWrapping, LinearFilter, VideoFrameTexture, type Texture } from 'three';
import { MediaError } from './pictures';

/** A jump of more seconds than this is looked up again; less is reached by going on. */
const longestRun = 1;

/** Opens a video file. Throws MediaError if it holds no pictures that can be decoded here. */
export async function openClip(
  blob: Blob,
): Promise<{ sink: VideoSampleSink; duration: number; first: number }> {
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
export class ClipPlayer {
  readonly texture: Texture & { setFrame(frame: VideoFrame): void };
  error: string | null = null;
  /** 0 until the video is open. */
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
    blob: Promise<Blob>,
    private readonly arrived: () => void,
  ) {
    this.texture = new VideoFrameTexture();
    this.texture.minFilter = this.texture.magFilter = LinearFilter;
    this.texture.wrapS = this.texture.wrapT = ClampToEdgeWrapping;
    this.texture.generateMipmaps = false;
    this.opening = this.open(blob);
  }

  private async open(blob: Promise<Blob>): Promise<void> {
    try {
      const video = await openClip(await blob);
      this.video = video;
      this.duration = video.duration - Math.max(0, video.first);
    } catch (error) {
      this.error = error instanceof Error ? error.message : String(error);
    }
    this.arrived();
  }

  /** Whether a frame is there to be seen. */
  get hasFrame(): boolean {
    return this.frame !== null;
  }

  /** Asks for the frame at a second of the video; it comes when it is decoded. */
  want(seconds: number): void {
    this.wanted = seconds;
    if (!this.video || this.work || this.error) return;
    if (this.isShown(seconds)) return;
    this.work = this.fetch().finally(() => (this.work = null));
  }

  /** Resolves when the frame at exactly that second is there, or the video has failed. */
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
