import { flashGrid, FlashMeter } from './flash-meter';
import { patternShare } from './patterns';
import type { RoundMeasure, Strip } from './round-check';

/** Pixels of a frame that is measured: two a cell of the flash meter, so that small lights do not vanish between them. */
export const measuredSize = { width: 2 * flashGrid.width, height: 2 * flashGrid.height } as const;

/** Frames between two looks for patterns: they stay for a while, or they flash as well. */
const patternEvery = 6;
/** Points of a strip at most; of several frames the worst counts. */
const mostPoints = 240;

/** The worst of a list in so many parts of it. */
function worstOf(values: readonly number[], parts: number): number[] {
  return Array.from({ length: parts }, (_, k) => {
    const from = Math.floor((k * values.length) / parts);
    const to = Math.max(from + 1, Math.floor(((k + 1) * values.length) / parts));
    return values.slice(from, to).reduce((worst, v) => Math.max(worst, v), -Infinity);
  });
}

/** Measures a stretch of time from its frames, given in order. */
export class RoundMeter {
  private readonly flashes = new FlashMeter();
  private readonly bytes = new Uint8Array(flashGrid.width * flashGrid.height * 4);
  private first: Uint8ClampedArray | null = null;
  private seam: RoundMeasure['seam'] = null;
  private readonly general = { most: 0, at: 0 };
  private readonly red = { most: 0, at: 0 };
  private readonly pattern = { most: 0, at: 0 };
  private readonly counts: { general: number; red: number; light: number }[] = [];

  /**
   * Takes the next frame. `rgba`: `measuredSize` of bytes, rows from above; `seconds`: its time. `isApart`: it lies apart from the stretch, and is not on
   * its time line.
   */
  add(rgba: Uint8ClampedArray, seconds: number, isApart = false): void {
    const { width, height } = measuredSize;
    this.check(rgba);
    this.first ??= rgba.slice();
    const { bytes } = this;
    let light = 0;
    // Each cell is the mean of four pixels.
    for (let y = 0; y < flashGrid.height; y++)
      for (let x = 0; x < flashGrid.width; x++) {
        const from = 4 * (2 * y * width + 2 * x);
        const to = 4 * (y * flashGrid.width + x);
        for (let channel = 0; channel < 3; channel++) {
          const below = from + 4 * width + channel;
          const sum = rgba[from + channel] + rgba[from + 4 + channel] + rgba[below] + rgba[below + 4];
          bytes[to + channel] = (sum + 2) >> 2;
          light += sum;
        }
      }
    const { general, red } = this.flashes.add(bytes, seconds);
    const isLooked = !isApart && this.counts.length % patternEvery === 0;
    const pattern = isLooked ? patternShare(rgba, width, height) : 0;
    for (const [kept, most] of [
      [this.general, general],
      [this.red, red],
      [this.pattern, pattern],
    ] as const)
      if (most > kept.most) Object.assign(kept, { most, at: seconds });
    if (!isApart) this.counts.push({ general, red, light: light / (width * height * 3 * 255) });
  }

  /** Compares the first frame with the one that comes after the last, which should look the same. */
  meet(rgba: Uint8ClampedArray): void {
    this.check(rgba);
    const { width, height } = measuredSize;
    let [sum, worst, at] = [0, 0, 0];
    for (let k = 0; k < rgba.length; k++) {
      if (k % 4 === 3) continue;
      const apart = Math.abs(rgba[k] - this.first![k]);
      sum += apart;
      if (apart > worst) [worst, at] = [apart, k >> 2];
    }
    const place = [((at % width) + 0.5) / width, (Math.floor(at / width) + 0.5) / height] as const;
    this.seam = { mean: sum / (width * height * 3), worst, at: place };
  }

  private check(rgba: Uint8ClampedArray): void {
    const { width, height } = measuredSize;
    if (rgba.length !== width * height * 4) throw new TypeError(`A frame of ${width} x ${height} is needed.`);
  }

  /** What was measured in so many seconds. */
  result(seconds: number): RoundMeasure {
    const { general, red, pattern, seam, counts } = this;
    const points = Math.min(mostPoints, counts.length);
    const strip: Strip = {
      general: worstOf(
        counts.map((count) => count.general),
        points,
      ),
      red: worstOf(
        counts.map((count) => count.red),
        points,
      ),
      light: worstOf(
        counts.map((count) => count.light),
        points,
      ),
    };
    return { general, red, pattern, seam, strip, seconds };
  }
}
