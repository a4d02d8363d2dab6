import {
  ALL_FORMATS,
  BufferSource,
  BufferTarget,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  Output,
  Quality,
  VideoSample,
  VideoSampleSource,
  type VideoCodec,
} from 'mediabunny';
import type { ExportSpec, VideoFormat } from '../../core/export/spec';
import { paddedSize } from './grabber';
import { pieceFormat } from './sound';

type VideoSpec = Pick<ExportSpec, 'fps' | 'width' | 'height'> & { format: VideoFormat };

const qualityOf = ({ quality }: VideoFormat): Quality =>
  typeof quality === 'number'
    ? new Quality({ bitrate: quality, bitrateMode: 'variable' })
    : new Quality(quality);

/** How planes of luma and chroma lie in what the grabber gives. */
function layoutOf(width: number, height: number): PlaneLayout[] {
  const [stride, rows] = paddedSize(width, height);
  const luma = stride * rows;
  return [
    { offset: 0, stride },
    { offset: luma, stride: stride / 2 },
    { offset: luma * 1.25, stride: stride / 2 },
  ];
}

/** Encodes frames without alpha into a file in memory. */
class OpaquePiece {
  private readonly target = new BufferTarget();
  private readonly output: Output;
  private readonly source: VideoSampleSource;
  private isStarted = false;

  constructor(private readonly spec: VideoSpec) {
    const { format, fps } = spec;
    this.output = new Output({ format: pieceFormat(format), target: this.target });
    this.source = new VideoSampleSource({
      codec: format.codec as VideoCodec,
      quality: qualityOf(format),
      // One key frame, at its start: where pieces are joined there is another.
      keyFrameInterval: 3600,
      latencyMode: format.effort === 'realtime' ? 'realtime' : 'quality',
    });
    this.output.addVideoTrack(this.source, { frameRate: fps });
  }

  async add(planes: Uint8Array<ArrayBuffer>, frame: number): Promise<void> {
    const { width, height, fps } = this.spec;
    if (!this.isStarted) await this.output.start();
    this.isStarted = true;
    const sample = new VideoSample(planes, {
      format: 'I420',
      codedWidth: width,
      codedHeight: height,
      layout: layoutOf(width, height),
      timestamp: frame / fps,
      duration: 1 / fps,
      colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
    });
    await this.source.add(sample);
    sample.close();
  }

  async finish(): Promise<Uint8Array<ArrayBuffer>> {
    await this.output.finalize();
    return new Uint8Array(this.target.buffer!);
  }

  cancel = (): Promise<void> => this.output.cancel();
}

/** The alpha of frames as a picture in grey. */
function alphaPlanes(planes: Uint8Array<ArrayBuffer>, { width, height }: VideoSpec): Uint8Array<ArrayBuffer> {
  const [stride, rows] = paddedSize(width, height);
  const luma = stride * rows;
  const grey = new Uint8Array(luma * 1.5).fill(128);
  grey.set(planes.subarray(luma * 1.5, luma * 2.5));
  return grey;
}

/** Colours and alpha that were encoded apart, as one: the alpha of each packet goes beside it (WebM, BlockAdditional). */
async function withAlpha(
  { format, fps }: VideoSpec,
  colours: Uint8Array<ArrayBuffer>,
  alpha: Uint8Array<ArrayBuffer>,
): Promise<Uint8Array<ArrayBuffer>> {
  const target = new BufferTarget();
  const output = new Output({ format: pieceFormat(format), target });
  const source = new EncodedVideoPacketSource(format.codec as VideoCodec);
  output.addVideoTrack(source, { frameRate: fps });
  await output.start();
  const [one, other] = await Promise.all(
    [colours, alpha].map(async (bytes) => {
      const input = new Input({ source: new BufferSource(bytes), formats: ALL_FORMATS });
      return (await input.getPrimaryVideoTrack())!;
    }),
  );
  const decoderConfig = (await one.getDecoderConfig()) ?? undefined;
  const beside = new EncodedPacketSink(other).packets();
  for await (const packet of new EncodedPacketSink(one).packets()) {
    const { value } = await beside.next();
    await source.add(packet.clone({ sideData: { alpha: value?.data } }), { decoderConfig });
  }
  await output.finalize();
  return new Uint8Array(target.buffer!);
}

/** Encodes frames of a piece of video, which begins with a key frame and can be joined to others. */
export class VideoPiece {
  private readonly colours: OpaquePiece;
  /** Encoded apart, so that neither has to be taken out of the other again. */
  private readonly alpha: OpaquePiece | null;
  private frames = 0;

  constructor(private readonly spec: VideoSpec) {
    this.colours = new OpaquePiece(spec);
    this.alpha = spec.format.alpha ? new OpaquePiece(spec) : null;
  }

  /** Adds a frame, by its number in the piece; resolves when another can be taken, so that frames never pile up. */
  async add(planes: Uint8Array<ArrayBuffer>, frame = this.frames): Promise<void> {
    this.frames++;
    await Promise.all([
      this.colours.add(planes, frame),
      this.alpha?.add(alphaPlanes(planes, this.spec), frame),
    ]);
  }

  async finish(): Promise<Uint8Array<ArrayBuffer>> {
    const [colours, alpha] = await Promise.all([this.colours.finish(), this.alpha?.finish()]);
    return alpha ? withAlpha(this.spec, colours, alpha) : colours;
  }

  async cancel(): Promise<void> {
    await Promise.all([this.colours.cancel(), this.alpha?.cancel()]);
  }
}
