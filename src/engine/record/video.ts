import { BufferTarget, Output, Quality, VideoSample, VideoSampleSource, type VideoCodec } from 'mediabunny';
import type { ExportSpec, VideoFormat } from '../../core/export/spec';
import { paddedSize } from './grabber';
import { pieceFormat } from './sound';

type VideoSpec = Pick<ExportSpec, 'fps' | 'width' | 'height'> & { format: VideoFormat };

const qualityOf = ({ quality }: VideoFormat): Quality =>
  typeof quality === 'number'
    ? new Quality({ bitrate: quality, bitrateMode: 'variable' })
    : new Quality(quality);

/** How planes lie in what the grabber gives. */
function layoutOf(width: number, height: number, alpha: boolean): PlaneLayout[] {
  const [stride, rows] = paddedSize(width, height);
  const luma = stride * rows;
  const layout = [
    { offset: 0, stride },
    { offset: luma, stride: stride / 2 },
    { offset: luma * 1.25, stride: stride / 2 },
  ];
  return alpha ? [...layout, { offset: luma * 1.5, stride }] : layout;
}

/** Encodes frames of a piece of video, which begins with a key frame and can be joined to others. */
export class VideoPiece {
  private readonly target = new BufferTarget();
  private readonly output: Output;
  private readonly source: VideoSampleSource;
  private frames = 0;

  constructor(private readonly spec: VideoSpec) {
    const { format, fps } = spec;
    this.output = new Output({ format: pieceFormat(format), target: this.target });
    this.source = new VideoSampleSource({
      codec: format.codec as VideoCodec,
      quality: qualityOf(format),
      // One key frame, at its start: where pieces are joined there is another.
      keyFrameInterval: 3600,
      latencyMode: format.effort === 'realtime' ? 'realtime' : 'quality',
      alpha: format.alpha ? 'keep' : 'discard',
    });
    this.output.addVideoTrack(this.source, { frameRate: fps });
  }

  /** Adds a frame, by its number in the piece; resolves when another can be taken, so that frames never pile up. */
  async add(planes: Uint8Array<ArrayBuffer>, frame = this.frames): Promise<void> {
    const { width, height, fps, format } = this.spec;
    if (this.frames === 0) await this.output.start();
    const sample = new VideoSample(planes, {
      format: format.alpha ? 'I420A' : 'I420',
      codedWidth: width,
      codedHeight: height,
      layout: layoutOf(width, height, format.alpha),
      timestamp: frame / fps,
      duration: 1 / fps,
      colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
    });
    this.frames++;
    await this.source.add(sample);
    sample.close();
  }

  async finish(): Promise<Uint8Array<ArrayBuffer>> {
    await this.output.finalize();
    return new Uint8Array(this.target.buffer!);
  }

  async cancel(): Promise<void> {
    await this.output.cancel();
  }
}
