import type { WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import { makeOpaque, upsideDown } from '../gpu/page-pixels';
import type { PreviewCell } from '../protocol/protocol';
import type { ScenePlayer } from '../playback/scene-player';

const previewWidth = 152;
const previewHeight = 86;
const columns = 4;
const most = 8;
const sheet = { width: columns * previewWidth, height: Math.ceil(most / columns) * previewHeight };
/** Milliseconds between turns while the GPU has time, and while it has none. */
const easyTurn = 90;
const busyTurn = 700;

/**
 * Small pictures of the nodes in sight. They take turns, a few a time, and wait longer when frames take long. All of one
 * turn travel as one block of pixels, read when the GPU is done with them: a bitmap would make the page wait for the
 * GPU when it is drawn.
 */
export class Previews {
  private next = 0;
  private lastTurn = 0;
  private reading = false;
  private target: WebGLRenderTarget | null = null;

  constructor(
    private readonly gpu: Gpu,
    private readonly send: (
      pixels: Uint8ClampedArray<ArrayBuffer>,
      width: number,
      cells: PreviewCell[],
    ) => void,
  ) {}

  turn(now: number, player: ScenePlayer, cards: readonly string[], easy: boolean): void {
    if (this.reading || now - this.lastTurn < (easy ? easyTurn : busyTurn)) return;
    const images = cards.filter((id) => {
      const output = player.run.runs.get(id)?.plan.kind.output;
      return output === 'image' || output === 'field';
    });
    if (images.length === 0) return;
    this.lastTurn = now;
    const count = Math.min(most, images.length);
    const target = (this.target ??= this.gpu.acquire(sheet.width, sheet.height, '8'));
    const cells: PreviewCell[] = [];
    for (let k = 0; k < count; k++) {
      const node = images[(this.next + k) % images.length];
      const x = (k % columns) * previewWidth;
      const y = Math.floor(k / columns) * previewHeight;
      target.viewport.set(x, y, previewWidth, previewHeight);
      if (player.peek(node, target, upsideDown))
        cells.push({ node, x, y, width: previewWidth, height: previewHeight });
    }
    this.next = (this.next + count) % images.length;
    void this.read(target, Math.ceil(count / columns) * previewHeight, cells);
  }

  private async read(target: WebGLRenderTarget, height: number, cells: PreviewCell[]): Promise<void> {
    this.reading = true;
    const pixels = new Uint8ClampedArray(4 * sheet.width * height);
    try {
      await this.gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, sheet.width, height, pixels);
      makeOpaque(pixels);
      this.send(pixels, sheet.width, cells);
    } catch {
      // The GPU was lost meanwhile; the next one gets previews of its own.
    } finally {
      this.reading = false;
    }
  }
}
