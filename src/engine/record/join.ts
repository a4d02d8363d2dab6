import {
  ALL_FORMATS,
  BufferSource,
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  WebMOutputFormat,
  type StreamTargetChunk,
} from 'mediabunny';
import { pieceNameOf, soundPieceName } from '../../core/export/names';
import { pieceCount, pieceFrames, type ExportPlan } from '../../core/export/schedule';
import { ExportError, type ExportSpec, type VideoSpec } from '../../core/export/spec';
import type { PixelString } from '../../core/document/types';
import { animatedGif, animatedWebp } from './animation';
import { csvHead, csvRows, recordedPackets } from './pixel-files';

/** What pieces are read from: the bytes of one, by its name. */
export type ReadPiece = (name: string) => Promise<Uint8Array<ArrayBuffer>>;

const bytesSame = (
  a: AllowSharedBufferSource | undefined,
  b: AllowSharedBufferSource | undefined,
): boolean => {
  if (!a || !b) return a === b;
  const [x, y] = [a, b].map((one) =>
    ArrayBuffer.isView(one)
      ? new Uint8Array(one.buffer, one.byteOffset, one.byteLength)
      : new Uint8Array(one),
  );
  return x.length === y.length && x.every((v, k) => v === y[k]);
};

/** Adds the packets of the sound of an export to a file. */
async function addSound(source: EncodedAudioPacketSource, sound: Input): Promise<void> {
  const track = (await sound.getPrimaryAudioTrack())!;
  const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
  const sink = new EncodedPacketSink(track);
  for await (const packet of sink.packets()) await source.add(packet, { decoderConfig });
}

/** Joins pieces of video and the sound without encoding anything again. `rest` is awaited after each piece. */
async function joinVideo(
  spec: VideoSpec,
  plan: ExportPlan,
  read: ReadPiece,
  target: WritableStream<StreamTargetChunk>,
  rest: (piece: number) => Promise<void>,
): Promise<void> {
  const { format, fps } = spec;
  const output = new Output({
    format: format.container === 'webm' ? new WebMOutputFormat() : new Mp4OutputFormat({ fastStart: false }),
    target: new StreamTarget(target, { chunked: true, chunkSize: 1 << 20 }),
  });
  const video = new EncodedVideoPacketSource(format.codec);
  output.addVideoTrack(video, { frameRate: fps });
  const sound =
    format.sound === 'none'
      ? null
      : new Input({ source: new BufferSource(await read(soundPieceName)), formats: ALL_FORMATS });
  const soundTrack = await sound?.getPrimaryAudioTrack();
  const audio = soundTrack ? new EncodedAudioPacketSource((await soundTrack.getCodec())!) : null;
  if (audio) output.addAudioTrack(audio);
  await output.start();
  const addVideo = async (): Promise<void> => {
    let first: VideoDecoderConfig | undefined;
    for (let piece = 0; piece < pieceCount(spec, plan); piece++) {
      const bytes = await read(pieceNameOf(piece));
      // A live recording may have had no time for any frame of a piece: the one before stays.
      if (bytes.length === 0) continue;
      const input = new Input({ source: new BufferSource(bytes), formats: ALL_FORMATS });
      const track = (await input.getPrimaryVideoTrack())!;
      const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
      first ??= decoderConfig;
      if (first?.codec !== decoderConfig?.codec || !bytesSame(first?.description, decoderConfig?.description))
        throw new ExportError(
          'Pieces of this video were encoded in different ways and cannot be joined. Start the export again on one browser.',
        );
      const start = piece * pieceFrames(spec);
      for await (const packet of new EncodedPacketSink(track).packets()) {
        // Times in a container are rounded: frames are counted.
        const frame = start + Math.round(packet.timestamp * fps);
        await video.add(packet.clone({ timestamp: frame / fps, duration: 1 / fps }), { decoderConfig });
      }
      input.dispose();
      await rest(piece);
    }
    video.close();
  };
  try {
    // Both at once: containers interleave them, and hold back the one that is ahead.
    await Promise.all([addVideo(), audio && addSound(audio, sound!).then(() => audio.close())]);
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  }
}

/** Writes parts one after the other. */
class Appender {
  private at = 0;
  private readonly writer: WritableStreamDefaultWriter<StreamTargetChunk>;

  constructor(target: WritableStream<StreamTargetChunk>) {
    this.writer = target.getWriter();
  }

  async add(data: Uint8Array<ArrayBuffer>): Promise<void> {
    await this.writer.write({ type: 'write', data, position: this.at });
    this.at += data.length;
  }

  close = (): Promise<void> => this.writer.close();
}

async function joinPixels(
  spec: ExportSpec,
  plan: ExportPlan,
  string: PixelString,
  read: ReadPiece,
  target: WritableStream<StreamTargetChunk>,
  rest: (piece: number) => Promise<void>,
): Promise<void> {
  const file = new Appender(target);
  const asCsv = spec.format.type === 'pixels' && spec.format.as === 'csv';
  const packets = recordedPackets(string, spec.fps);
  await file.add(asCsv ? csvHead(string) : packets.head());
  for (let piece = 0; piece < pieceCount(spec, plan); piece++) {
    const first = piece * pieceFrames(spec);
    const bytes = await read(pieceNameOf(piece));
    await file.add(asCsv ? csvRows(string, bytes, plan.first + first) : packets.frames(bytes, first));
    await rest(piece);
  }
  await file.close();
}

async function joinAnimation(
  spec: ExportSpec,
  plan: ExportPlan,
  read: ReadPiece,
  target: WritableStream<StreamTargetChunk>,
  rest: (piece: number) => Promise<void>,
): Promise<void> {
  const frames: Uint8Array[] = [];
  for (let piece = 0; piece < plan.count; piece++) {
    frames.push(await read(pieceNameOf(piece)));
    await rest(piece);
  }
  const file = new Appender(target);
  const isGif = spec.format.type === 'animation' && spec.format.image === 'gif';
  await file.add(isGif ? animatedGif(spec, frames) : animatedWebp(spec, frames));
  await file.close();
}

/**
 * Puts the pieces of an export together in one file. Runs wherever files can be read and written. `string`: whose pixels they are. `rest` is
 * awaited after each piece.
 */
export async function join(
  spec: ExportSpec,
  plan: ExportPlan,
  string: PixelString | null,
  read: ReadPiece,
  target: WritableStream<StreamTargetChunk>,
  rest: (piece: number) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const { format } = spec;
  if (format.type === 'video') await joinVideo({ ...spec, format }, plan, read, target, rest);
  else if (format.type === 'pixels') await joinPixels(spec, plan, string!, read, target, rest);
  else if (format.type === 'animation') await joinAnimation(spec, plan, read, target, rest);
  else throw new ExportError('Images of a sequence are files of their own.');
}
