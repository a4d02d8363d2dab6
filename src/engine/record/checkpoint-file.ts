import { checkpointNameOf, lastCheckpointName } from '../../core/export/names';
import { storedArrays, type StoredPixels } from '../gpu/stored-pixels';
import type { Checkpoint } from '../image/checkpoint';
import type { ExportSink } from '../protocol/export';
import { fetchFrom } from './sink';

type WithoutPixels<T> = Omit<T, 'pixels'>;

interface Head {
  step: number;
  pictures: WithoutPixels<Checkpoint['pictures'][number]>[];
  pasts: WithoutPixels<Checkpoint['pasts'][number]>[];
}

async function through(
  bytes: Uint8Array<ArrayBuffer>,
  by: CompressionStream | DecompressionStream,
): Promise<Uint8Array<ArrayBuffer>> {
  return new Uint8Array(await new Response(new Blob([bytes]).stream().pipeThrough(by)).arrayBuffer());
}

const bytesOf = ({ pixels }: StoredPixels): Uint8Array<ArrayBuffer> =>
  new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.byteLength);

const withoutPixels = <T extends StoredPixels>({ pixels: _, ...rest }: T): WithoutPixels<T> => rest;

/** A checkpoint as a file: the length of its head (4 bytes, low first), its head as JSON, and all pixels, compressed as a whole. */
export async function writeCheckpoint({
  step,
  pictures,
  pasts,
}: Checkpoint): Promise<Uint8Array<ArrayBuffer>> {
  const head: Head = { step, pictures: pictures.map(withoutPixels), pasts: pasts.map(withoutPixels) };
  const words = new TextEncoder().encode(JSON.stringify(head));
  const parts = [new Uint8Array(new Uint32Array([words.length]).buffer), words];
  for (const held of [...pictures, ...pasts]) parts.push(bytesOf(held));
  const whole = new Uint8Array(await new Blob(parts as BlobPart[]).arrayBuffer());
  return through(whole, new CompressionStream('gzip'));
}

/** Reads what `writeCheckpoint` wrote. Throws where it was cut off. */
async function readCheckpoint(file: Uint8Array<ArrayBuffer>): Promise<Checkpoint> {
  const bytes = await through(file, new DecompressionStream('gzip'));
  const length = new DataView(bytes.buffer).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + length))) as Head;
  let at = 4 + length;
  const withPixels = <T extends WithoutPixels<StoredPixels>>(held: T): T & StoredPixels => {
    const Pixels = storedArrays[held.bits];
    const size = 4 * held.width * held.height * Pixels.BYTES_PER_ELEMENT;
    const pixels = new Pixels(bytes.slice(at, at + size).buffer);
    at += size;
    return { ...held, pixels };
  };
  return { step: head.step, pictures: head.pictures.map(withPixels), pasts: head.pasts.map(withPixels) };
}

/** The first frame that is not contained in a checkpoint. */
export const frameAfter = ({ step }: Pick<Checkpoint, 'step'>, subframes: number): number =>
  Math.floor(step / subframes) + 1;

/** The checkpoint that saves most on the way to a frame: its own, or the last of a run that was broken off before it. Null: there is none. */
export async function checkpointFor(
  sink: ExportSink,
  frame: number,
  subframes: number,
): Promise<Checkpoint | null> {
  for (const name of [checkpointNameOf(frame), lastCheckpointName]) {
    const file = await fetchFrom(sink, name);
    const checkpoint = file && (await readCheckpoint(file));
    if (checkpoint && frameAfter(checkpoint, subframes) <= frame) return checkpoint;
  }
  return null;
}
