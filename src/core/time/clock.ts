import type { SceneLoop } from '../document/types';

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
  beatsPerBar: number;
  /** Frame rate of the show. */
  fps: number;
  /** How often the loop of the scene has gone round since the start, with fractions. */
  loop: number;
  /** How long it takes to go round. */
  loopSeconds: number;
  /** Rates are rounded to whole cycles of the loop. */
  isLocked: boolean;
  /** Share of their amounts that motions move by: the master of the desk. Absent: all. */
  motion?: number;
  /** Where many moments are asked for at once: seconds from this one to that of each sample. */
  spread?: Float64Array;
}

/** A loop as scenes begin with. */
export const homeLoop: SceneLoop = { length: 16, unit: 'beats', lock: false };

export interface Tempo {
  bpm: number;
  beatsPerBar: number;
}

/** Where the beat was counted from: a change of tempo starts here, so that the beat goes on without a jump. */
export interface BeatOrigin {
  time: number;
  beat: number;
}

/** The moment at `time` seconds of a scene with that loop. */
export function momentAt(
  time: number,
  dt: number,
  fps: number,
  tempo: Tempo,
  origin: BeatOrigin = { time: 0, beat: 0 },
  loop: SceneLoop = homeLoop,
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
    beatsPerBar: tempo.beatsPerBar,
    fps,
    loopSeconds: loopSecondsOf(loop, tempo.bpm, fps),
    loop: roundsAt(time, beat, fps, loop),
    isLocked: loop.lock,
  };
}

/** Seconds that a loop takes. */
export function loopSecondsOf(loop: SceneLoop, bpm: number, fps: number): number {
  if (loop.unit === 'beats') return (loop.length * 60) / bpm;
  return loop.unit === 'frames' ? loop.length / fps : loop.length;
}

/** Frame f of a loop of N frames is f / N of a round. */
function roundsAt(time: number, beat: number, fps: number, { length, unit }: SceneLoop): number {
  return (unit === 'beats' ? beat : unit === 'frames' ? time * fps : time) / length;
}

/** The same moment in a scene that has another loop. */
export function inLoop(moment: Moment, loop: SceneLoop): Moment {
  return {
    ...moment,
    loopSeconds: loopSecondsOf(loop, moment.bpm, moment.fps),
    loop: roundsAt(moment.time, moment.beat, moment.fps, loop),
    isLocked: loop.lock,
  };
}

/** Longest step in seconds that what has a memory takes in a frame: after a stall it goes on instead of leaping. */
export const longestStepSeconds = 0.1;

/**
 * Beats a minute from taps (seconds, rising). Taps more than 2 s apart begin again; null until there are two. Averages
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

/** How much of a value survives a frame of `dt` seconds if `keep` of it survives 1/60 s. */
export function keepFor(keep: number, dt: number): number {
  return Math.pow(keep, 60 * dt);
}

/**
 * Share of the way that is done in `dt` seconds by what does 95 % of it in `seconds`: e^-3 is left then, however many
 * frames it took. 0 seconds do all of it at once.
 */
export const wayDone = (seconds: number, dt: number): number =>
  seconds > 0 ? 1 - Math.exp((-3 * dt) / seconds) : 1;

/** What a rate is given in: cycles a second, beats a cycle, cycles in each round of the scene's loop. */
export type RateUnit = 'hertz' | 'beats' | 'loop';

/** Cycles in each round of the loop. */
export function cyclesPerLoop(rate: number, unit: RateUnit, loopSeconds: number, bpm: number): number {
  if (unit === 'loop') return rate;
  if (unit === 'hertz') return rate * loopSeconds;
  return rate > 0 ? (loopSeconds * bpm) / 60 / rate : 0;
}

/** The nearest whole number of cycles, at least one either way; what stands still stays. */
export const wholeCycles = (cycles: number): number =>
  cycles === 0 ? 0 : Math.sign(cycles) * Math.max(1, Math.round(Math.abs(cycles)));

/** Cycles done at the moment of sample `i` by what has that rate. In a locked loop the rate is made to fit. */
export function cyclesAt(moment: Moment, rate: number, unit: RateUnit, i = 0): number {
  const later = moment.spread?.[i] ?? 0;
  if (moment.isLocked || unit === 'loop') {
    const cycles = cyclesPerLoop(rate, unit, moment.loopSeconds, moment.bpm);
    return (moment.isLocked ? wholeCycles(cycles) : cycles) * (moment.loop + later / moment.loopSeconds);
  }
  if (unit === 'hertz') return (moment.time + later) * rate;
  return rate > 0 ? (moment.beat + (later * moment.bpm) / 60) / rate : 0;
}

/**
 * Where a walker through noise is who goes `speed` a second: straight on, or, for a loop of `period` seconds, round a circle
 * as long as the way it would have gone. Without a period a locked loop is the loop.
 */
export function loopedWay(moment: Moment, speed: number, period = 0, i = 0): [number, number] {
  const round = period > 0 ? period : moment.isLocked ? moment.loopSeconds : 0;
  if (round === 0) return [timeOf(moment, i) * speed, 0];
  const angle = 2 * Math.PI * cyclesAt(moment, 1 / round, 'hertz', i);
  const radius = (speed * round) / (2 * Math.PI);
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
}

/** One of the counts of a moment, as it is `later` seconds after it. */
export function timeNamed(name: 'time' | 'beat' | 'bar' | 'frame', moment: Moment, later: number): number {
  switch (name) {
    case 'time':
      return moment.time + later;
    case 'frame':
      return Math.floor((moment.time + later) * moment.fps + 1e-6);
    case 'beat':
      return moment.beat + (later * moment.bpm) / 60;
    case 'bar':
      return (moment.beat + (later * moment.bpm) / 60) / moment.beatsPerBar;
  }
}

/** The moment `later` seconds after another, at the same tempo. */
export const momentLater = (moment: Moment, later: number): Moment => ({
  ...moment,
  time: moment.time + later,
  frame: timeNamed('frame', moment, later),
  beat: timeNamed('beat', moment, later),
  bar: timeNamed('bar', moment, later),
  loop: moment.loop + later / moment.loopSeconds,
});

/** Seconds since the start at the moment of sample `i`. */
const timeOf = (moment: Moment, i: number): number => moment.time + (moment.spread?.[i] ?? 0);

/**
 * Seconds after which cycles of these rates (in hertz, taken to a hundred-thousandth) are all where they began
 * together: 1 / their greatest common measure. Null if nothing turns.
 */
export function jointPeriod(hertz: readonly number[]): number | null {
  const measure = 1e5;
  let common = 0;
  for (const rate of hertz) {
    let [a, b] = [common, Math.round(Math.abs(rate) * measure)];
    while (b) [a, b] = [b, a % b];
    common = a;
  }
  return common ? measure / common : null;
}
