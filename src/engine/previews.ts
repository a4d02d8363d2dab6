import type { Gpu } from './gpu';
import type { PreviewCell } from './protocol';
import type { ScenePlayer } from './scene-player';

export const previewWidth = 152;
export const previewHeight = 86;
const columns = 4;
const most = 8;
/** Milliseconds between turns while the card has time, and while it has none. */
const easyTurn = 90;
const busyTurn = 700;

/**
 * Small pictures of the nodes in sight. They take turns, a few a time, after the stage was painted, and wait longer
 * when frames take long; all of one turn travel as one bitmap.
 */
export class Previews {
  private next = 0;
  private lastTurn = 0;

  constructor(
    private readonly gpu: Gpu,
    private readonly send: (bitmap: ImageBitmap, cells: PreviewCell[]) => void,
  ) {}

  turn(now: number, player: ScenePlayer, cards: readonly string[], easy: boolean): void {
    if (now - this.lastTurn < (easy ? easyTurn : busyTurn)) return;
    const images = cards.filter((id) => player.run.runs.get(id)?.plan.kind.output === 'image');
    if (images.length === 0) return;
    this.lastTurn = now;
    const count = Math.min(most, images.length);
    const rows = Math.ceil(count / columns);
    const { gpu } = this;
    gpu.resize(columns * previewWidth, rows * previewHeight);
    const cells: PreviewCell[] = [];
    const { renderer } = gpu;
    renderer.setRenderTarget(null);
    for (let k = 0; k < count; k++) {
      const node = images[(this.next + k) % images.length];
      const x = (k % columns) * previewWidth;
      const y = Math.floor(k / columns) * previewHeight;
      // The card counts rows from below, bitmaps from above.
      renderer.setViewport(x, (rows - 1) * previewHeight - y, previewWidth, previewHeight);
      if (player.peek(node, null)) cells.push({ node, x, y, width: previewWidth, height: previewHeight });
    }
    renderer.setViewport(0, 0, columns * previewWidth, rows * previewHeight);
    this.next = (this.next + count) % images.length;
    this.send(gpu.canvas.transferToImageBitmap(), cells);
  }
}
