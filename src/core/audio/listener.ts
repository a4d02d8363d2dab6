import { OnsetFinder, onsetRanges, type Onset, type OnsetRange } from './onsets';
import { binCount, hopSize, Spectrum } from './spectrum';
import { TempoFinder } from './tempo';

/** What is heard at a moment. */
export interface SoundState {
  /** Root mean square and peak of the last 512 samples; a full sine has 0.707 and 1. */
  level: number;
  peak: number;
  /** Power by frequency, see Spectrum. */
  power: Float32Array;
  /** Samples a second. */
  rate: number;
  onsets: Readonly<Record<OnsetRange, Readonly<Onset>>>;
  /** Beats a minute as heard, with 0..1 how sure that is; null while there is too little to hear. */
  bpm: number | null;
  confidence: number;
}

const none = { count: 0, strength: 0 };

export const silence: SoundState = {
  level: 0,
  peak: 0,
  power: new Float32Array(binCount),
  rate: 48000,
  onsets: { all: none, low: none, mid: none, high: none },
  bpm: null,
  confidence: 0,
};

/** Hears a stream of samples: the same code for what comes in live and for files. */
export class Listener {
  readonly state: SoundState;
  private readonly spectrum = new Spectrum();
  private readonly finders: OnsetFinder[];
  private readonly tempo: TempoFinder;

  constructor(rate: number) {
    const hopSeconds = hopSize / rate;
    this.finders = onsetRanges.map((range) => new OnsetFinder(range, rate, hopSeconds));
    this.tempo = new TempoFinder(hopSeconds);
    const onsets = Object.fromEntries(onsetRanges.map((range, k) => [range, this.finders[k].onset]));
    this.state = {
      ...silence,
      power: this.spectrum.power,
      rate,
      onsets: onsets as Record<OnsetRange, Onset>,
    };
  }

  push(samples: Float32Array): void {
    this.spectrum.push(samples, (meanSquare, peak) => {
      const { state } = this;
      state.level = Math.sqrt(meanSquare);
      state.peak = peak;
      for (const finder of this.finders) finder.hop(state.power);
      this.tempo.hop(this.finders[0].flux);
      state.bpm = this.tempo.bpm;
      state.confidence = this.tempo.confidence;
    });
  }
}

/** Seconds that are heard before a moment that was jumped to, so that tempo and onsets are there as if it had played. */
const prerollSeconds = 9;

/** Hears samples that are there as a whole, round and round, at the time of the show. */
export class SampleListener {
  private listener: Listener;
  /** Samples heard so far. */
  private heard = 0;

  constructor(
    private readonly samples: Float32Array,
    private readonly rate: number,
  ) {
    this.listener = new Listener(rate);
  }

  /** What is heard at a time in seconds. Ahead it goes on; a jump starts over a while before. */
  at(time: number): SoundState {
    const { samples, rate } = this;
    if (samples.length === 0) return silence;
    const goal = Math.max(0, Math.floor(time * rate + 1e-6));
    const start = Math.max(0, goal - prerollSeconds * rate);
    if (goal < this.heard || start > this.heard) {
      this.listener = new Listener(rate);
      // From a whole hop on, so that hops lie as if all had been heard.
      this.heard = Math.floor(start / hopSize) * hopSize;
    }
    while (this.heard < goal) {
      const from = this.heard % samples.length;
      const count = Math.min(goal - this.heard, samples.length - from);
      this.listener.push(samples.subarray(from, from + count));
      this.heard += count;
    }
    return this.listener.state;
  }
}
