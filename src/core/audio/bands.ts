import { binCount, windowSize } from './spectrum';

/** `count` + 1 frequencies from low to high, in hertz, by equal steps of pitch. */
export function bandEdges(count: number, lowHertz: number, highHertz: number): Float32Array {
  const edges = new Float32Array(count + 1);
  const low = Math.max(1, Math.min(lowHertz, highHertz));
  const ratio = Math.max(low * 1.0001, Math.max(lowHertz, highHertz)) / low;
  for (let k = 0; k <= count; k++) edges[k] = low * Math.pow(ratio, k / count);
  return edges;
}

/**
 * Amplitude of each band (index 0 is the lowest): the root of the power between its edges. A bin reaches half a bin to
 * both sides, and a band narrower than a bin gets its share of it.
 */
export function bandAmplitudes(
  power: Float32Array,
  rate: number,
  edges: Float32Array,
  out: Float32Array,
): void {
  const perHertz = windowSize / rate;
  for (let band = 0; band < out.length; band++) {
    const low = edges[band] * perHertz + 0.5;
    const high = Math.min(binCount, edges[band + 1] * perHertz + 0.5);
    let sum = 0;
    for (let bin = Math.floor(low); bin < high && bin < binCount; bin++)
      sum += power[bin] * Math.max(0, Math.min(high, bin + 1) - Math.max(low, bin));
    out[band] = Math.sqrt(sum);
  }
}

/** Decibels below full scale; silence is -200. */
export const decibels = (amplitude: number): number => 20 * Math.log10(Math.max(1e-10, amplitude));

export interface BandShape {
  /** Decibels for each octave above 1 kHz, as treble is weaker than bass in most music. */
  tilt: number;
  /** Decibels that become 0; 0 dB becomes 1. */
  floor: number;
  /** Decibels added below 250 Hz, between, and above 2,500 Hz. */
  gains: readonly [number, number, number];
}

/** Brings a band's amplitude into 0..1. */
export function bandLevel(amplitude: number, hertz: number, { tilt, floor, gains }: BandShape): number {
  const gain = hertz < 250 ? gains[0] : hertz < 2500 ? gains[1] : gains[2];
  const level = decibels(amplitude) + tilt * Math.log2(hertz / 1000) + gain;
  return Math.min(1, Math.max(0, (level - floor) / -floor));
}
