/** One moment of a show: everything that time is to a node. */
export interface Moment {
  /** Seconds since the start. */
  time: number;
  /** Seconds since the frame before, 0 while time stands still. */
  dt: number;
  /** Frames since the start at the frame rate of the show, whole. */
  frame: number;
  /** Beats since the start, with fractions. */
  beat: number;
  /** Bars since the start, with fractions. */
  bar: number;
  bpm: number;
}

export interface Tempo {
  bpm: number;
  beatsPerBar: number;
}

/** Where the beat was counted from: a change of tempo starts here, so that the beat goes on without a jump. */
export interface BeatOrigin {
  time: number;
  beat: number;
}

/** The moment at `time` seconds. */
export function momentAt(
  time: number,
  dt: number,
  fps: number,
  tempo: Tempo,
  origin: BeatOrigin = { time: 0, beat: 0 },
): Moment {
  const beat = origin.beat + ((time - origin.time) * tempo.bpm) / 60;
  // The small addition keeps frame 7 of 60 from being 6.9999999.
  return {
    time,
    dt,
    frame: Math.floor(time * fps + 1e-6),
    beat,
    bar: beat / tempo.beatsPerBar,
    bpm: tempo.bpm,
  };
}

/** Longest step a frame may take, in seconds: after a stall, time goes on instead of leaping. */
export const longestStepSeconds = 0.1;

/**
 * Beats a minute from taps (seconds, rising). Taps more than 2 s apart begin anew; null until there are two. Averages
 * over up to eight taps.
 */
export function tempoFromTaps(taps: readonly number[]): number | null {
  let first = taps.length - 1;
  while (first > 0 && taps[first] - taps[first - 1] <= 2 && taps.length - first < 8) first--;
  const spans = taps.length - 1 - first;
  if (spans < 1) return null;
  const seconds = (taps[taps.length - 1] - taps[first]) / spans;
  return seconds > 0 ? Math.min(400, Math.max(10, 60 / seconds)) : null;
}

/** K27: how much of a value survives a frame of `dt` seconds if `keep` of it survives 1/60 s. */
export function keepFor(keep: number, dt: number): number {
  return Math.pow(keep, 60 * dt);
}

/**
 * Share of the way that is done in `dt` seconds by what does 95 % of it in `seconds`: e^-3 is left then, however many
 * frames it took. 0 seconds do all of it at once.
 */
export const wayDone = (seconds: number, dt: number): number =>
  seconds > 0 ? 1 - Math.exp((-3 * dt) / seconds) : 1;

/** Cycles done at a moment by what makes `rate` of them a second, or takes `rate` beats for each. */
export function cyclesAt(moment: Moment, rate: number, unit: 'hertz' | 'beats'): number {
  if (unit === 'hertz') return moment.time * rate;
  return rate > 0 ? moment.beat / rate : 0;
}
