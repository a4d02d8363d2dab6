import FFT from 'fft.js';

/** Samples that one spectrum is made of, and from one spectrum to the next. */
export const windowSize = 2048;
export const hopSize = 512;
export const binCount = windowSize / 2;
const beforeHop = windowSize - hopSize;

/** Equivalent noise bandwidth of the Hann window, in bins (Harris, Proc. IEEE 66, 1978). */
const noiseBandwidth = 1.5;

/**
 * Power spectra of a stream, one every 512 samples whatever the blocks are that come in. A sine of amplitude a has the
 * power a² over the bins it falls on.
 */
export class Spectrum {
  readonly power = new Float32Array(binCount);
  private readonly fft = new FFT(windowSize);
  /** The last samples: up to where a hop begins, and what came since. */
  private readonly past = new Float32Array(windowSize);
  private readonly frame = new Float32Array(windowSize);
  private readonly shape = new Float32Array(windowSize);
  private readonly out: number[];
  /** Samples since the last hop. */
  private fresh = 0;

  constructor() {
    this.out = this.fft.createComplexArray();
    for (let k = 0; k < windowSize; k++) this.shape[k] = 0.5 - 0.5 * Math.cos((2 * Math.PI * k) / windowSize);
  }

  /** Takes samples; `onHop` is called for each spectrum that is ready, with the last 512 samples' mean square and peak. */
  push(samples: Float32Array, onHop: (meanSquare: number, peak: number) => void): void {
    const { past } = this;
    for (let from = 0; from < samples.length;) {
      const take = Math.min(hopSize - this.fresh, samples.length - from);
      past.set(samples.subarray(from, from + take), beforeHop + this.fresh);
      from += take;
      this.fresh += take;
      if (this.fresh < hopSize) return;
      this.fresh = 0;
      this.transform();
      const { meanSquare, peak } = this.lastHop();
      onHop(meanSquare, peak);
      past.copyWithin(0, hopSize);
    }
  }

  private lastHop(): { meanSquare: number; peak: number } {
    let sum = 0;
    let peak = 0;
    for (let k = beforeHop; k < windowSize; k++) {
      const value = this.past[k];
      sum += value * value;
      peak = Math.max(peak, Math.abs(value));
    }
    return { meanSquare: sum / hopSize, peak };
  }

  private transform(): void {
    const { past, frame, shape, out, power } = this;
    for (let k = 0; k < windowSize; k++) frame[k] = past[k] * shape[k];
    this.fft.realTransform(out, frame);
    const scale = (4 / windowSize) ** 2 / noiseBandwidth;
    for (let k = 0; k < binCount; k++)
      power[k] = (out[2 * k] * out[2 * k] + out[2 * k + 1] * out[2 * k + 1]) * scale;
  }
}
