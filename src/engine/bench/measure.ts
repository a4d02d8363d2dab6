/** A ratio of two costs, measured in one run: median of paired rounds, with the quartiles as spread. */
export interface Ratio {
  median: number;
  low: number;
  high: number;
  /** Median milliseconds of a round of each. */
  ms: [number, number];
}

export const median = (values: readonly number[]): number => quantile(values, 0.5);

function quantile(values: readonly number[], at: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  const place = (sorted.length - 1) * at;
  const low = Math.floor(place);
  const high = Math.ceil(place);
  return sorted[low] + (sorted[high] - sorted[low]) * (place - low);
}

/** One thing to be measured: does its work, and waits until the card has done it. */
export interface Work {
  /** One frame. */
  frame(k: number): void;
  /** Returns when everything given to the card is done. */
  finish(): void;
}

function timed(work: Work, first: number, frames: number): number {
  const start = performance.now();
  for (let k = 0; k < frames; k++) work.frame(first + k);
  work.finish();
  return performance.now() - start;
}

/** Cost of `a` divided by that of `b`, in rounds that take turns about which goes first. */
export function compare(a: Work, b: Work, rounds: number, frames: number): Ratio {
  // Shaders are compiled and textures sent at first use.
  timed(a, 0, 2);
  timed(b, 0, 2);
  const ratios: number[] = [];
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    const at = 2 + round * frames;
    let ta: number;
    let tb: number;
    if (round % 2) {
      ta = timed(a, at, frames);
      tb = timed(b, at, frames);
    } else {
      tb = timed(b, at, frames);
      ta = timed(a, at, frames);
    }
    ratios.push(ta / tb);
    times[0].push(ta);
    times[1].push(tb);
  }
  return {
    median: median(ratios),
    low: quantile(ratios, 0.25),
    high: quantile(ratios, 0.75),
    ms: [median(times[0]) / frames, median(times[1]) / frames],
  };
}
