import type { WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { LookOrder } from '../protocol/protocol';

/** Quality of the small pictures, 0..1. */
const quality = 0.7;

/** Takes small pictures of what is on air, for those who look on from other machines. No frame waits for one. */
export class ProgramLook {
  private readonly canvas: OffscreenCanvas;
  private readonly context: OffscreenCanvasRenderingContext2D;
  /** Whose picture is on its way: one that is lost never gives it. */
  private busy: Gpu | null = null;
  private last = -Infinity;

  constructor(
    private readonly order: LookOrder,
    private readonly tell: (jpeg: ArrayBuffer) => void,
  ) {
    this.canvas = new OffscreenCanvas(order.width, order.height);
    this.context = this.canvas.getContext('2d', { willReadFrequently: true })!;
  }

  /** Takes the next picture, if it is time for it and the last one is done. `draw`: draws what is on air; false: it stands as it is. */
  turn(now: number, gpu: Gpu, draw: (target: WebGLRenderTarget) => boolean): void {
    if (this.busy === gpu || now - this.last < 1000 / this.order.perSecond) return;
    this.last = now;
    const { width, height } = this.order;
    const target = gpu.acquire(width, height, '8');
    if (!draw(target)) {
      gpu.release(target);
      return;
    }
    this.busy = gpu;
    gpu
      .takeBytes(target)
      .then((pixels) => this.encode(pixels))
      .then(this.tell, () => undefined) // The GPU was lost meanwhile; the next one is asked for the next picture.
      .finally(() => {
        if (this.busy === gpu) this.busy = null;
      });
  }

  private async encode(pixels: Uint8Array): Promise<ArrayBuffer> {
    const { width, height } = this.order;
    const image = new ImageData(width, height);
    // Rows of the GPU begin below.
    for (let y = 0; y < height; y++)
      image.data.set(pixels.subarray(4 * width * (height - 1 - y), 4 * width * (height - y)), 4 * width * y);
    this.context.putImageData(image, 0, 0);
    const blob = await this.canvas.convertToBlob({ type: 'image/jpeg', quality });
    return blob.arrayBuffer();
  }
}
