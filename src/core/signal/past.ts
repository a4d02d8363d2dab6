import type { Row } from './rows';

/** Numbers kept at most, over all moments: eight megabytes. */
const mostNumbers = 1 << 21;

/** Where a wanted moment lies between two that are kept. */
export interface PastPlace {
  low: number;
  next: number;
  /** Share of `next`. */
  mix: number;
  /** Whether it is before all that is kept. */
  isEarly: boolean;
}

/** The last moments of a signal, found by time, so that a delay is as long at any frame rate. */
export class Past {
  private readonly times: number[] = [];
  private readonly values: Float32Array[] = [];
  /** Room of moments that are forgotten. */
  private readonly spare: Float32Array[] = [];
  private shape = '';
  private width = 1;

  /** Keeps this moment for `seconds`. What comes in another form, or earlier than the last, begins again. */
  push(time: number, rows: readonly Row[], width: number, seconds: number): void {
    const { times, values } = this;
    const shape = `${rows.length} ${width}`;
    this.width = width;
    if (this.shape !== shape || (times.length && time < times[times.length - 1])) {
      this.shape = shape;
      times.length = values.length = this.spare.length = 0;
    }
    // The same moment asked for again is written over.
    if (times.length && times[times.length - 1] === time) {
      times.pop();
      this.spare.push(values.pop()!);
    }
    const size = rows.length * width;
    // The oldest moment is written over once it is too old to be asked for.
    while (times.length > 1 && (times[1] <= time - seconds || (times.length + 1) * size > mostNumbers)) {
      times.shift();
      this.spare.push(values.shift()!);
    }
    const kept = this.spare.pop() ?? new Float32Array(size);
    rows.forEach(({ from }, k) => kept.set(from.subarray(0, width), k * width));
    times.push(time);
    values.push(kept);
  }

  /** Finds a moment by halving. */
  find(wanted: number): PastPlace {
    const { times } = this;
    let low = 0;
    let high = times.length - 1;
    // The last moment that is not later than the wanted one.
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (times[middle] <= wanted) low = middle;
      else high = middle - 1;
    }
    const next = Math.min(low + 1, times.length - 1);
    const gap = times[next] - times[low];
    const mix = gap > 0 ? Math.min(1, Math.max(0, (wanted - times[low]) / gap)) : 0;
    return { low, next, mix, isEarly: wanted < times[0] - 1e-6 };
  }

  /** The value there of the `i`-th sample of the `k`-th row; one sample serves all. */
  at(place: PastPlace, k: number, i: number): number {
    const at = k * this.width + (this.width > 1 ? i : 0);
    const low = this.values[place.low][at];
    return low + (this.values[place.next][at] - low) * place.mix;
  }
}
