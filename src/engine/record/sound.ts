import {
  ALL_FORMATS,
  AudioSample,
  AudioSampleSink,
  AudioSampleSource,
  BlobSource,
  BufferTarget,
  Input,
  Mp4OutputFormat,
  Output,
  Quality,
  WebMOutputFormat,
  type AudioCodec,
} from 'mediabunny';
import type { ExportPlan } from '../../core/export/schedule';
import { ExportError, type ExportSpec, type SoundCodecName, type VideoFormat } from '../../core/export/spec';

/** Sound that goes round, read in order. */
export interface SoundReader {
  rate: number;
  channels: number;
  /** Samples of each channel from a place in the sound on. */
  read(from: number, count: number): Promise<Float32Array[]>;
}

/** Sound that is there as a whole, in one channel. */
export function samplesReader({ rate, samples }: { rate: number; samples: Float32Array }): SoundReader {
  return {
    rate,
    channels: 1,
    read: (from, count) => {
      const out = new Float32Array(count);
      for (let k = 0; k < count; k++) out[k] = samples[(from + k) % samples.length];
      return Promise.resolve([out]);
    },
  };
}

/** Longest time, in seconds, by which frames may come early or late before the sound is taken to have jumped. */
const jumpSeconds = 0.08;

/** Sound as it was heard while a show was played: `places` is where the show was at each frame, NaN where it stood. */
export function runsReader(sound: SoundReader, places: readonly number[], fps: number): SoundReader {
  const { rate, channels } = sound;
  /** Samples of the recording from which on the sound goes on from a place; null: silence. */
  const runs: { from: number; place: number | null }[] = [];
  let expected: number | null = Number.NaN;
  places.forEach((place, frame) => {
    const isSilent = Number.isNaN(place);
    const goesOn = isSilent
      ? expected === null
      : expected !== null && Math.abs(place - expected) < jumpSeconds;
    if (!goesOn) {
      runs.push({
        from: Math.round((frame / fps) * rate),
        place: isSilent ? null : Math.round(place * rate),
      });
      expected = isSilent ? null : place;
    }
    if (expected !== null) expected += 1 / fps;
  });
  return {
    rate,
    channels,
    read: async (from, count) => {
      const out = Array.from({ length: channels }, () => new Float32Array(count));
      for (let k = 0; k < runs.length; k++) {
        const { from: start, place } = runs[k];
        const first = Math.max(from, start);
        const last = Math.min(from + count, runs[k + 1]?.from ?? Infinity);
        if (place === null || last <= first) continue;
        const part = await sound.read(place + first - start, last - first);
        part.forEach((samples, channel) => out[channel].set(samples, first - from));
      }
      return out;
    },
  };
}

/** Sound of a file, decoded as it is needed, so that an hour of it is never in memory. */
export async function fileReader(file: Blob, name: string): Promise<SoundReader> {
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  const track = await input.getPrimaryAudioTrack();
  if (!track || !(await track.canDecode()))
    throw new ExportError(`The sound of ${name} cannot be decoded here. Use WAV, MP3, OGG or FLAC.`);
  const { sampleRate: rate, numberOfChannels } = track;
  const channels = Math.min(2, numberOfChannels);
  const length = Math.round((await track.computeDuration()) * rate);
  const sink = new AudioSampleSink(track);
  return {
    rate,
    channels,
    read: async (from, count) => {
      const out = Array.from({ length: channels }, () => new Float32Array(count));
      for (let done = 0; done < count;) {
        const at = (from + done) % length;
        const part = Math.min(count - done, length - at);
        for await (const sample of sink.samples(at / rate, (at + part) / rate)) {
          place(sample, Math.round(sample.timestamp * rate) - at + done, done, done + part, out);
          sample.close();
        }
        done += part;
      }
      return out;
    },
  };
}

/** Copies what of a decoded block lies between two places. `at`: where its first sample belongs. */
function place(block: AudioSample, at: number, from: number, to: number, out: readonly Float32Array[]): void {
  const first = Math.max(from, at);
  const last = Math.min(to, at + block.numberOfFrames);
  if (last <= first) return;
  out.forEach((channel, planeIndex) =>
    block.copyTo(channel.subarray(first, last), {
      planeIndex,
      format: 'f32-planar',
      frameOffset: first - at,
      frameCount: last - first,
    }),
  );
}

const codecOf: Record<Exclude<SoundCodecName, 'none'>, AudioCodec> = {
  opus: 'opus',
  aac: 'aac',
  pcm: 'pcm-s16',
};

/** What a piece of a video is written as, in memory. */
export const pieceFormat = ({
  container,
}: Pick<VideoFormat, 'container'>): WebMOutputFormat | Mp4OutputFormat =>
  container === 'webm' ? new WebMOutputFormat() : new Mp4OutputFormat({ fastStart: 'in-memory' });

/**
 * Encodes the sound of an export: as long as its pictures to the sample, from where the show is at the first of them. `rest` is awaited
 * after each second.
 */
export async function soundPiece(
  { fps, format }: Pick<ExportSpec, 'fps'> & { format: VideoFormat },
  { first, count }: ExportPlan,
  sound: SoundReader,
  rest: () => Promise<void>,
): Promise<Uint8Array<ArrayBuffer>> {
  const { rate, channels } = sound;
  const begin = Math.round((first / fps) * rate);
  const all = Math.round((count / fps) * rate);
  const target = new BufferTarget();
  const output = new Output({ format: pieceFormat(format), target });
  const source = new AudioSampleSource({
    codec: codecOf[format.sound as Exclude<SoundCodecName, 'none'>],
    quality: new Quality('high'),
    // Opus knows a few rates only.
    transform: format.sound === 'opus' && rate !== 48000 ? { sampleRate: 48000 } : undefined,
  });
  output.addAudioTrack(source);
  await output.start();
  for (let done = 0; done < all;) {
    const part = Math.min(rate, all - done);
    const planes = await sound.read(begin + done, part);
    const data = new Float32Array(part * channels);
    planes.forEach((plane, channel) => data.set(plane, channel * part));
    const sample = new AudioSample({
      data,
      format: 'f32-planar',
      numberOfChannels: channels,
      sampleRate: rate,
      timestamp: done / rate,
    });
    await source.add(sample);
    sample.close();
    done += part;
    await rest();
  }
  await output.finalize();
  return new Uint8Array(target.buffer!);
}
