import type { FileEntry, ZipReader } from '@zip.js/zip.js';
import { Texture } from 'three';
import { exrHead } from '../../core/image/exr-header';
import type { MovingPictures } from './moving-pictures';
import { longestSide, MediaError, readPicture } from './pictures';

/** Frames a second of a sequence whose images do not say theirs. */
const usualFps = 30;
/** Frames that are kept decoded: the one shown, and those that come next. */
const mostKept = 4;

const isImage = /\.(exr|hdr|png|jpe?g|webp|avif)$/i;

const noVectors = (): Promise<ImageBitmap> => {
  throw new MediaError('Images of a sequence have to have pixels: SVG has none.');
};

/** The images of a zip, by their names, and how many of them make a second. Throws MediaError where there are none. */
async function openSequence(blob: Blob): Promise<{
  zip: ZipReader<unknown>;
  entries: FileEntry[];
  fps: number;
  read(entry: FileEntry): Promise<Blob>;
}> {
  // Few scenes play sequences, and few of these are packed otherwise than stored.
  const { BlobReader, BlobWriter, ZipReader, configure } = await import('@zip.js/zip.js');
  configure({ useWebWorkers: false });
  const zip = new ZipReader(new BlobReader(blob));
  let entries: FileEntry[];
  try {
    const all = await zip.getEntries();
    entries = all.filter((entry): entry is FileEntry => !entry.directory && isImage.test(entry.filename));
  } catch {
    throw new MediaError('This zip is damaged. Pack its images again.');
  }
  if (entries.length === 0)
    throw new MediaError(
      'This zip has no images in it. Pack EXR, PNG, JPEG or WebP images, named in their order.',
    );
  entries.sort((a, b) => a.filename.localeCompare(b.filename, 'en', { numeric: true }));
  const read = (entry: FileEntry): Promise<Blob> => entry.getData(new BlobWriter());
  const [first] = entries;
  const head = /\.exr$/i.test(first.filename)
    ? exrHead(new Uint8Array(await (await read(first)).arrayBuffer()))
    : null;
  return { zip, entries, fps: head?.fps ?? usualFps, read };
}

/** A sequence of images in a zip: each is a picture as a picture file is, of whole numbers or floats. */
export class SequencePlayer implements MovingPictures {
  texture = new Texture();
  size: [number, number] = [1, 1];
  hasFrame = false;
  duration = 0;
  error: string | null = null;
  private sequence: Awaited<ReturnType<typeof openSequence>> | null = null;
  private readonly kept = new Map<number, Texture>();
  private shown = -1;
  private wanted = 0;
  private work: Promise<void> | null = null;
  private isClosed = false;
  private readonly opening: Promise<void>;

  constructor(
    blob: Blob,
    private readonly arrived: () => void,
  ) {
    this.opening = this.open(blob);
  }

  private async open(blob: Blob): Promise<void> {
    try {
      this.sequence = await openSequence(blob);
      this.duration = this.sequence.entries.length / this.sequence.fps;
    } catch (error) {
      this.error = error instanceof Error ? error.message : String(error);
    }
    this.arrived();
  }

  want(seconds: number): void {
    if (!this.sequence || this.error) return;
    const { entries, fps } = this.sequence;
    this.wanted = Math.min(entries.length - 1, Math.max(0, Math.floor(seconds * fps + 1e-4)));
    this.show();
    this.work ??= this.fetch().finally(() => (this.work = null));
  }

  async reach(seconds: number): Promise<void> {
    await this.opening;
    while (this.work) await this.work;
    this.want(seconds);
    while (!this.error && this.shown !== this.wanted && this.work) await this.work;
  }

  /** Shows the frame that is wanted, where it is there. */
  private show(): void {
    const texture = this.kept.get(this.wanted);
    if (!texture || this.shown === this.wanted) return;
    this.texture = texture;
    const { width, height } = texture.image as { width: number; height: number };
    this.size = [width, height];
    this.hasFrame = true;
    this.shown = this.wanted;
  }

  /** Decodes the frame that is wanted, and the ones after it. */
  private async fetch(): Promise<void> {
    const { entries, read } = this.sequence!;
    try {
      for (let next = this.next(); next !== null && !this.isClosed; next = this.next()) {
        const { texture } = await readPicture(await read(entries[next]), noVectors, longestSide);
        if (this.isClosed) return texture.dispose();
        this.kept.set(next, texture);
        this.drop();
        if (next !== this.wanted) continue;
        this.show();
        this.arrived();
      }
    } catch (error) {
      this.error = `Frame ${this.wanted} of this sequence: ${error instanceof Error ? error.message : String(error)}`;
      this.arrived();
    }
  }

  private next(): number | null {
    const { length } = this.sequence!.entries;
    for (let k = 0; k < mostKept - 1; k++) {
      const at = (this.wanted + k) % length;
      if (!this.kept.has(at)) return at;
    }
    return null;
  }

  /** Lets go of what is neither shown nor comes next. */
  private drop(): void {
    const { length } = this.sequence!.entries;
    for (const [at, texture] of this.kept) {
      if (at === this.shown || (at - this.wanted + length) % length < mostKept - 1) continue;
      texture.dispose();
      this.kept.delete(at);
    }
  }

  dispose(): void {
    this.isClosed = true;
    for (const texture of this.kept.values()) texture.dispose();
    this.kept.clear();
    void this.sequence?.zip.close();
  }
}
