/** Beats a minute that are looked for. */
const slowest = 60;
const fastest = 190;
/** The tempo that is taken where two fit alike, and how strongly (in octaves): most people tap near it. */
const favourite = 120;
const favour = 0.9;
/** Seconds that are looked back over, and from one look to the next. */
const lookBack = 8;
const lookEvery = 0.5;

/** Tempo of a row of onset strengths, by how well it fits itself when it is shifted by a beat. */
export class TempoFinder {
  /** Null until there is enough to hear. */
  bpm: number | null = null;
  /** 0..1: how well the beats fit. */
  confidence = 0;
  private readonly past: Float32Array;
  private filled = 0;
  private sinceLook = 0;

  constructor(private readonly hopSeconds: number) {
    this.past = new Float32Array(Math.round(lookBack / hopSeconds));
  }

  hop(flux: number): void {
    this.past[this.filled++ % this.past.length] = flux;
    this.sinceLook += this.hopSeconds;
    if (this.sinceLook < lookEvery || this.filled < this.past.length / 2) return;
    this.sinceLook = 0;
    this.look();
  }

  private look(): void {
    const { past, hopSeconds, filled } = this;
    const n = Math.min(filled, past.length);
    const row = new Float32Array(n);
    let mean = 0;
    for (let k = 0; k < n; k++) mean += past[k] / n;
    for (let k = 0; k < n; k++) row[k] = past[(filled - n + k) % past.length] - mean;
    const fit = (lag: number): number => {
      let sum = 0;
      for (let k = lag; k < n; k++) sum += row[k] * row[k - lag];
      return sum / (n - lag);
    };
    const whole = fit(0);
    // A held tone only trembles.
    if (whole < 1e-6) {
      this.confidence = 0;
      return;
    }
    const shortest = Math.floor(60 / fastest / hopSeconds);
    const longest = Math.min(Math.floor(n / 2), Math.ceil(60 / slowest / hopSeconds));
    const fits = new Float32Array(longest + 2);
    for (let lag = shortest - 1; lag <= longest + 1; lag++) fits[lag] = fit(lag);
    let best = 0;
    let bestScore = -Infinity;
    for (let lag = shortest; lag <= longest; lag++) {
      const octaves = Math.log2(60 / (lag * hopSeconds) / favourite);
      const score = fits[lag] * Math.exp(-0.5 * (octaves / favour) ** 2);
      if (score > bestScore) [best, bestScore] = [lag, score];
    }
    // A beat seldom lasts a whole number of hops: the top of the parabola through the best and its neighbours.
    const [a, b, c] = [fits[best - 1], fits[best], fits[best + 1]];
    const bend = a - 2 * b + c;
    const lag = bend < 0 ? best + (0.5 * (a - c)) / bend : best;
    this.bpm = this.refined(lag, fit, n);
    this.confidence = Math.min(1, Math.max(0, b / whole));
  }

  /** A multiple of the beat as long as the row allows is known as many times better. */
  private refined(lag: number, fit: (lag: number) => number, n: number): number {
    let found = lag;
    for (const times of [2, 4, 8]) {
      const centre = Math.round(found * times);
      if (centre + 3 >= n * 0.75) break;
      let best = centre;
      for (let k = centre - 2; k <= centre + 2; k++) if (fit(k) > fit(best)) best = k;
      const [a, b, c] = [fit(best - 1), fit(best), fit(best + 1)];
      const bend = a - 2 * b + c;
      if (b <= 0 || bend >= 0) break;
      found = (best + (0.5 * (a - c)) / bend) / times;
    }
    return 60 / (found * this.hopSeconds);
  }
}
