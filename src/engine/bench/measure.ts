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

/** A work whose result is a picture. */
export interface Drawing extends Work {
  /** Share of the picture that is not empty, 0..1. */
  covered(): number;
}

/** How much of a picture is not empty: red, green, blue and alpha of each pixel. What a copy smears aside does not count. */
export const coverOf = (rgba: Float32Array): number => {
  let full = 0;
  for (let k = 3; k < rgba.length; k += 4) if (rgba[k] > 0.05) full++;
  return full / (rgba.length / 4);
};

/** Two works that are to be compared, once it is seen that they draw as much at frame 2. */
export function alike(a: Drawing, b: Drawing): [Work, Work] {
  const [ca, cb] = [a, b].map((work) => {
    for (let k = 0; k < 3; k++) work.frame(k);
    return work.covered();
  });
  if (ca < 0.01 || Math.abs(ca / cb - 1) > 0.05)
    throw new Error(`Not the same picture: ${ca.toFixed(3)} of it is drawn, by hand ${cb.toFixed(3)}.`);
  return [a, b];
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
