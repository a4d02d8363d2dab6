import type { GrabbedImage } from './images';
import type { EncodedImage } from './image-worker';

/** Workers at most: each has a frame in memory. */
const mostWorkers = 4;

/** Compresses images beside the engine, several at once. */
export class ImagePool {
  private readonly idle: Worker[] = [];
  private readonly all: Worker[] = [];
  private readonly waiting: ((worker: Worker) => void)[] = [];
  private readonly limit = Math.max(1, Math.min(mostWorkers, navigator.hardwareConcurrency));

  private async worker(): Promise<Worker> {
    const ready = this.idle.pop();
    if (ready) return ready;
    if (this.all.length < this.limit) {
      const worker = new Worker(new URL('./image-worker.ts', import.meta.url), { type: 'module' });
      this.all.push(worker);
      return worker;
    }
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  /** Waits for a free worker, and gives what will be the file: frames never pile up before it. */
  async encode(image: GrabbedImage): Promise<{ file: Promise<Uint8Array<ArrayBuffer>> }> {
    const worker = await this.worker();
    const file = new Promise<Uint8Array<ArrayBuffer>>((resolve, reject) => {
      const done = (): void => {
        const next = this.waiting.shift();
        if (next) next(worker);
        else this.idle.push(worker);
      };
      worker.onmessage = ({ data }: MessageEvent<EncodedImage>) => {
        done();
        if ('bytes' in data) resolve(data.bytes);
        else reject(new Error(data.fault));
      };
      worker.onerror = (event) => {
        done();
        reject(new Error(event.message || 'An image could not be compressed.'));
      };
    });
    const { pixels, depth } = image;
    worker.postMessage(image, depth ? [pixels.buffer, depth.buffer] : [pixels.buffer]);
    return { file };
  }

  dispose(): void {
    for (const worker of this.all) worker.terminate();
  }
}
