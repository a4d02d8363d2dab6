import { windowSize } from './spectrum';

const { log1p, sqrt } = Math;

export const onsetRanges = ['all', 'low', 'mid', 'high'] as const;
export type OnsetRange = (typeof onsetRanges)[number];

/** Hertz that the ranges reach from and to. */
const reach: Readonly<Record<OnsetRange, readonly [number, number]>> = {
  all: [30, 16000],
  low: [30, 160],
  mid: [160, 2500],
  high: [2500, 16000],
};
/** Hops that the usual unrest is taken from, about a second. */
const memory = 90;
/** Seconds after an onset in which there is no other. */
const restSeconds = 0.09;

export interface Onset {
  /** How many there have been: none is lost, however few frames are drawn. */
  count: number;
  /** How far the last one stood out, 0..1. */
  strength: number;
}

/**
 * Finds starts of notes by how much louder the parts of the spectrum become (log spectral flux: Dixon, Onset Detection
 * Revisited, DAFx 2006): a start is a peak well above what the last second was like.
 */
export class OnsetFinder {
  readonly onset: Onset = { count: 0, strength: 0 };
  /** How much louder it became in the last hop, of each of its bins in the mean. */
  flux = 0;
  private readonly past = new Float32Array(memory);
  private filled = 0;
  private before: Float32Array;
  private rest = 0;
  private readonly low: number;

  constructor(
    range: OnsetRange,
    rate: number,
    private readonly hopSeconds: number,
  ) {
    const perHertz = windowSize / rate;
    this.low = Math.max(1, Math.round(reach[range][0] * perHertz));
    const high = Math.min(windowSize / 2, Math.max(this.low + 2, Math.round(reach[range][1] * perHertz)));
    this.before = new Float32Array(high - this.low);
  }

  hop(power: Float32Array): void {
    const { before, low, past } = this;
    let flux = 0;
    for (let k = 0; k < before.length; k++) {
      const level = log1p(1000 * sqrt(power[low + k]));
      if (level > before[k]) flux += level - before[k];
      before[k] = level;
    }
    this.flux = flux / before.length;
    const known = Math.min(this.filled, memory);
    let mean = 0;
    for (let k = 0; k < known; k++) mean += past[k] / known;
    let spread = 0;
    for (let k = 0; k < known; k++) spread += (past[k] - mean) ** 2 / known;
    past[this.filled % memory] = this.flux;
    this.filled++;
    this.rest = Math.max(0, this.rest - this.hopSeconds);
    const above = this.flux - mean - 1.6 * Math.sqrt(spread);
    if (above > 0.04 && this.rest === 0 && known > 2) {
      this.rest = restSeconds;
      this.onset.count++;
      this.onset.strength = Math.min(1, above / 0.8);
    }
  }
}
