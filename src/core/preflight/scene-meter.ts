import { flashGrid, FlashMeter } from './flash-meter';
import type { SceneMeasure } from './scene-check';

/** Pixels of a frame that is measured: two a cell of the flash meter, so that small lights do not vanish between them. */
export const measuredSize = { width: 2 * flashGrid.width, height: 2 * flashGrid.height } as const;

/** Measures one round of a scene from its frames, given in order, the one after the last included. */
export class SceneMeter {
  private readonly flashes = new FlashMeter();
  private readonly cells = new Float32Array(flashGrid.width * flashGrid.height * 4);
  private first: Uint8ClampedArray | null = null;
  private seam: SceneMeasure['seam'] = { mean: 0, worst: 0 };
  private readonly general = { most: 0, at: 0 };
  private readonly red = { most: 0, at: 0 };

  /** `rgba`: `measuredSize` of bytes; `seconds`: its time. */
  add(rgba: Uint8ClampedArray, seconds: number): void {
    const { width, height } = measuredSize;
    if (rgba.length !== width * height * 4) throw new TypeError(`A frame of ${width} x ${height} is needed.`);
    this.first ??= rgba.slice();
    let [sum, worst] = [0, 0];
    this.cells.fill(0);
    for (let k = 0; k < rgba.length; k++) {
      const channel = k % 4;
      const pixel = (k - channel) / 4;
      const [x, y] = [pixel % width, Math.floor(pixel / width)];
      this.cells[4 * ((y >> 1) * flashGrid.width + (x >> 1)) + channel] += rgba[k] / 4;
      if (channel === 3) continue;
      const apart = Math.abs(rgba[k] - this.first[k]);
      sum += apart;
      worst = Math.max(worst, apart);
    }
    this.seam = { mean: sum / (width * height * 3), worst };
    const { general, red } = this.flashes.add(Uint8Array.from(this.cells, Math.round), seconds);
    for (const [kept, count] of [
      [this.general, general],
      [this.red, red],
    ] as const)
      if (count > kept.most) Object.assign(kept, { most: count, at: seconds });
  }

  /** What was measured; the last frame given is the one after the last of the round. */
  result(seconds: number, remembers: boolean): SceneMeasure {
    return { general: this.general, red: this.red, seam: this.seam, seconds, remembers };
  }
}
