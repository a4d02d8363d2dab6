import { numbered, pieceNameOf, soundPieceName } from '../../core/export/names';
import { pieceFrames, type ExportPlan } from '../../core/export/schedule';
import type { VideoSpec } from '../../core/export/spec';
import type { ExportSink } from '../protocol/export';
import { fetchFrom, put } from './sink';
import { runsReader, samplesReader, soundPiece, type SoundReader } from './sound';

/** What is noted of a live recording with each of its pieces, so that it can be finished by who did not make it. */
interface PieceNotes {
  /** Frames of the whole recording so far. */
  frames: number;
  /** How many of them were left out. */
  dropped: number;
  /** Second of the show at each frame since the notes before; null: it stood. */
  places: (number | null)[];
  /** Samples a second of the sound of a device; null: none was heard. */
  rate: number | null;
  /** Pieces of that sound so far. */
  sounds: number;
}

const notesName = (k: number): string => numbered('notes', k);
const soundName = (k: number): string => numbered('raw', k);

/** The folder of a live recording, as it is written. */
export class LiveFolder {
  private pieces = 0;
  private notes = 0;
  private sounds = 0;
  private placed = 0;

  constructor(private readonly sink: ExportSink) {}

  /**
   * Writes a piece, what was heard meanwhile, and what is noted of both: only with that do they count. `places`: second of the show at each
   * frame of the recording, NaN where it stood.
   */
  async add(
    piece: number,
    bytes: Uint8Array<ArrayBuffer>,
    heard: { rate: number; samples: Uint8Array<ArrayBuffer> } | null,
    all: { frames: number; dropped: number; places: readonly number[] },
  ): Promise<void> {
    const { sink } = this;
    // There was no time for any frame of these: the one before stays.
    for (; this.pieces < piece; this.pieces++) await put(sink, pieceNameOf(this.pieces), new Uint8Array(0));
    await put(sink, pieceNameOf(piece), bytes);
    this.pieces = piece + 1;
    if (heard) await put(sink, soundName(this.sounds++), heard.samples);
    const places = all.places.slice(this.placed, all.frames).map((at) => (Number.isNaN(at) ? null : at));
    this.placed += places.length;
    const notes: PieceNotes = {
      frames: all.frames,
      dropped: all.dropped,
      places,
      rate: heard?.rate ?? null,
      sounds: this.sounds,
    };
    await put(sink, notesName(this.notes++), new TextEncoder().encode(JSON.stringify(notes)));
  }
}

/** Sound of a device, as it lies in the folder: read once, from its start to its end. */
function keptReader(sink: ExportSink, rate: number, count: number): SoundReader {
  let held = new Float32Array(0);
  let next = 0;
  let start = 0;
  return {
    rate,
    channels: 1,
    read: async (from, length) => {
      const out = new Float32Array(length);
      for (let done = 0; done < length;) {
        const at = from + done - start;
        if (at >= held.length) {
          if (next >= count) break;
          start += held.length;
          held = new Float32Array((await fetchFrom(sink, soundName(next++)))!.buffer);
          continue;
        }
        const part = held.subarray(at, at + length - done);
        out.set(part, done);
        done += part.length;
      }
      return [out];
    },
  };
}

/**
 * Finishes a live recording by what lies in its folder, whoever wrote that and however it ended. `whole`: the sound of the show that is there as a
 * whole; null: there is none. Throws where nothing was recorded.
 */
export async function finishLive(
  spec: VideoSpec,
  sink: ExportSink,
  whole: { rate: number; samples: Float32Array } | null,
): Promise<{ plan: ExportPlan; dropped: number }> {
  let last: PieceNotes | null = null;
  let rate: number | null = null;
  const places: number[] = [];
  for (let k = 0; ; k++) {
    const bytes = await fetchFrom(sink, notesName(k));
    if (!bytes) break;
    last = JSON.parse(new TextDecoder().decode(bytes)) as PieceNotes;
    rate ??= last.rate;
    for (const place of last.places) places.push(place ?? Number.NaN);
  }
  if (!last) throw new Error('Nothing was recorded: it ended before its first seconds were written.');
  const plan: ExportPlan = { first: 0, count: last.frames, meets: null, remarks: [] };
  // A picture that stood at the end was seen all that time.
  for (let piece = Math.ceil(last.frames / pieceFrames(spec)) - 1; piece >= 0; piece--) {
    if (await fetchFrom(sink, pieceNameOf(piece))) break;
    await put(sink, pieceNameOf(piece), new Uint8Array(0));
  }
  if (spec.format.sound !== 'none') {
    const reader = rate
      ? keptReader(sink, rate, last.sounds)
      : runsReader(samplesReader(whole ?? { rate: 48000, samples: new Float32Array(1) }), places, spec.fps);
    await put(sink, soundPieceName, await soundPiece(spec, plan, reader, () => Promise.resolve()));
  }
  return { plan, dropped: last.dropped };
}
