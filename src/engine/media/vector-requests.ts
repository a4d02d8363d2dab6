import { MediaError } from './pictures';

/** Vector drawings that only a page can turn into pixels: asked for, and awaited. */
export class VectorRequests {
  private readonly waiting = new Map<
    number,
    { resolve(bitmap: ImageBitmap): void; reject(error: Error): void }
  >();
  private lastId = 0;

  constructor(private readonly ask: (id: number, file: Blob, height: number) => void) {}

  /** Rejects with a MediaError if it can't be drawn. */
  draw(file: Blob, height: number): Promise<ImageBitmap> {
    return new Promise((resolve, reject) => {
      const id = ++this.lastId;
      this.waiting.set(id, { resolve, reject });
      this.ask(id, file, height);
    });
  }

  /** The answer to a request; `message` says why there is no picture. */
  answer(id: number, bitmap: ImageBitmap | null, message: string): void {
    const request = this.waiting.get(id);
    this.waiting.delete(id);
    if (bitmap) request?.resolve(bitmap);
    else request?.reject(new MediaError(message));
  }
}
