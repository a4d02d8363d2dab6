/** A ratio of two costs, measured in one run: median of paired rounds, with the quartiles as spread. */
export interface Ratio {
  median: number;
  low: number;
  high: number;
  /** Median milliseconds of a frame of each; of a figure that is no ratio, the second is 1. */
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

/** The figures of paired costs. */
export const ratioOf = (a: readonly number[], b: readonly number[]): Ratio => {
  const ratios = a.map((ms, k) => ms / b[k]);
  return {
    median: median(ratios),
    low: quantile(ratios, 0.25),
    high: quantile(ratios, 0.75),
    ms: [median(a), median(b)],
  };
};

/** A figure that is no ratio. */
export const plainOf = (values: readonly number[]): Ratio => ({
  median: median(values),
  low: quantile(values, 0.25),
  high: quantile(values, 0.75),
  ms: [median(values), 1],
});

/** One thing to be measured: does its work, and waits until the GPU has done it. */
export interface Work {
  /** One frame. */
  frame(k: number): void;
  /** Returns when everything given to the GPU is done. */
  finish(): void;
}

/** A work that ends on a surface, as a stage window shows it. */
export interface Shown extends Work {
  /** The surface after the last frame: RGBA, 8 bits, the lowest row first. */
  pixels(): Uint8Array;
  readonly size: { width: number; height: number };
}

/** Frames at which two pictures are compared. */
const comparedFrames = [2, 31];
/** Mean difference of a channel, of 255, above which two pictures are not the same. */
const mostApart = 2;
/** Difference to a neighbour, of 255, at which a pixel counts as part of an edge. */
const edge = 48;
/** Share of the pixels that have to be left without those at edges. */
const leastCompared = 0.2;

/** Which pixels lie at no edge of a picture: none of their neighbours is far from them. */
function awayFromEdges(rgba: Uint8Array, width: number, height: number, flat: Uint8Array): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const right = x + 1 < width ? at + 1 : at;
      const above = y + 1 < height ? at + width : at;
      for (let c = 0; c < 3; c++) {
        if (Math.abs(rgba[4 * at + c] - rgba[4 * right + c]) > edge) flat[at] = flat[right] = 0;
        if (Math.abs(rgba[4 * at + c] - rgba[4 * above + c]) > edge) flat[at] = flat[above] = 0;
      }
    }
  }
}

/** Mean absolute difference of red, green and blue, of 255: of all pixels, and of those away from edges (null: too few). */
export function apart(
  a: Uint8Array,
  b: Uint8Array,
  { width, height }: Shown['size'],
): { all: number; flat: number | null } {
  const flat = new Uint8Array(width * height).fill(1);
  awayFromEdges(a, width, height, flat);
  awayFromEdges(b, width, height, flat);
  let [all, away, count] = [0, 0, 0];
  for (let k = 0; k < flat.length; k++) {
    let by = 0;
    for (let c = 0; c < 3; c++) by += Math.abs(a[4 * k + c] - b[4 * k + c]) / 3;
    all += by;
    if (flat[k]) {
      away += by;
      count++;
    }
  }
  return { all: all / flat.length, flat: count < leastCompared * flat.length ? null : away / count };
}

/** Two works, once it is seen that both draw the same picture. `made` is told how far apart they are. */
export function alike(
  a: Shown,
  b: Shown,
  made: (sentence: string) => void = () => undefined,
): [Shown, Shown] {
  let k = 0;
  for (const frame of comparedFrames) {
    for (; k <= frame; k++) {
      a.frame(k);
      b.frame(k);
    }
    const [ours, theirs] = [a.pixels(), b.pixels()];
    const lit = ours.filter((v, at) => at % 4 !== 3 && v > 8).length / (0.75 * ours.length);
    if (lit < 0.005) throw new Error(`Nothing is drawn at frame ${frame}.`);
    const { all, flat } = apart(ours, theirs, a.size);
    const counted = Math.min(all, flat ?? all);
    made(
      `frame ${frame}: ${all.toFixed(2)} of 255 apart, ${flat?.toFixed(2) ?? 'no pixels'} away from edges`,
    );
    if (counted > mostApart)
      throw new Error(`Not the same picture at frame ${frame}: ${counted.toFixed(2)} of 255 apart.`);
  }
  return [a, b];
}

export function timed(work: Work, first: number, frames: number): number {
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
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    const at = 2 + round * frames;
    const order = round % 2 ? [0, 1] : [1, 0];
    for (const side of order) times[side].push(timed(side ? b : a, at, frames) / frames);
  }
  return ratioOf(times[0], times[1]);
}
