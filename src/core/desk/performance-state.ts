import type { Layer, Transition } from '../document/types';
import { beforeCues, type CueState } from './cue-run';
import type { Hit } from './command';
import type { DeskValues } from './desk-run';

interface TransportState {
  playing: boolean;
  /** Seconds from the start. */
  time: number;
  /** Seconds that the picture is ahead of it, by the master of speed. */
  ahead: number;
  frame: number;
  beat: number;
  range: readonly [number, number] | null;
  /** Share of the preroll after a jump that is done; 1: memories are up to date. */
  done: number;
  bpm: number;
}

export interface ProgramState {
  /** Scene on air, or the one being left during a transition. */
  program: string;
  /** Scene that a transition leads to. */
  incoming: string | null;
  /** 0..1 of the transition. */
  fade: number;
  next: string | null;
  /** How long all of the transition lasts. */
  seconds: number;
  /** A hand holds the transition where it is. */
  byHand: boolean;
  /** How the transition looks; null: as the show says. */
  look: Transition | null;
  /** A take that begins when a beat has come. */
  waiting: { scene: string; seconds: number; beat: number; look: Transition | null } | null;
}

/** A scene on air and nothing else. */
export const onlyProgram = (program: string): ProgramState => ({
  program,
  incoming: null,
  fade: 0,
  next: null,
  seconds: 0,
  byHand: false,
  look: null,
  waiting: null,
});

/** All of a performance that is not in the show. The engine owns it; the interface keeps no copy but the last report. */
export interface PerformanceState {
  /** Counts the reports of this engine. */
  number: number;
  /** Milliseconds of the clock of this machine at which it stood so; 0: not known. */
  at: number;
  transport: TransportState;
  program: ProgramState;
  blackout: boolean;
  freeze: boolean;
  desk: DeskState;
  cues: CueState;
  masters: { speed: number; motion: number };
  layer: Layer | null;
  /** Hits that are held. */
  hits: readonly Hit[];
  /** Tempo that a cue or a move has set; null: that of the show. */
  bpm: number | null;
  /** What happens to moves. `fresh`: how many were noted in this round. */
  moves: { recording: boolean; replaying: boolean; fresh: number };
}

/** A performance that has not begun: a scene on air, and nothing was touched. */
export const performanceAt = (program: string): PerformanceState => ({
  number: 0,
  at: 0,
  transport: { playing: true, time: 0, ahead: 0, frame: 0, beat: 0, range: null, done: 1, bpm: 120 },
  program: onlyProgram(program),
  blackout: false,
  freeze: false,
  desk: { version: 0, values: {}, canUndo: false, underWay: [] },
  cues: beforeCues,
  masters: { speed: 1, motion: 1 },
  layer: null,
  hits: [],
  bpm: null,
  moves: { recording: false, replaying: false, fresh: 0 },
});

/** Where the desk stands. */
interface DeskState {
  /** Rises with each change of `values`. */
  version: number;
  /** Controls that were moved; all others stand where the patches have them. */
  values: DeskValues;
  canUndo: boolean;
  /** Controls that move by themselves to where a recall or cue sends them. */
  underWay: readonly string[];
}

/** Longest time in seconds for which a show goes on by itself while whoever performs it is away. */
const longestAwaySeconds = 10;

/** What time of the show it is by what was last reported of it. `now`: milliseconds of the clock that `at` is of. */
export function timeAt({ transport: { time, playing }, at }: PerformanceState, now: number): number {
  const away = playing && at > 0 ? (now - at) / 1000 : 0;
  return time + Math.min(longestAwaySeconds, Math.max(0, away));
}
