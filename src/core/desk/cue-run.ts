import type { Cue, Show } from '../document/types';

/** Most cues that begin in one frame: cues that follow each other at once must not run for ever. */
const mostAtOnce = 32;
/** Seconds of time code further than which it has jumped rather than gone on. */
const codeJumpSeconds = 2;

/** How far the running order is. The engine owns it; it is plain data. */
export interface CueState {
  /** The cue that was begun last; null: none yet. */
  at: string | null;
  /** Seconds and beats of the show at which it began. */
  started: number;
  startedBeat: number;
  /** Cues that would begin by themselves wait: a hand has interrupted. Seconds and beats at which it did. */
  held: { time: number; beat: number } | null;
  /** How often each cue has sent the running order back. */
  rounds: Readonly<Record<string, number>>;
}

export const beforeCues: CueState = { at: null, started: 0, startedBeat: 0, held: null, rounds: {} };

/** What a running order looks at. */
export interface CueClock {
  /** Seconds and beats of the show. */
  time: number;
  beat: number;
  /** Second of the sound; null: there is none that has places. */
  sound: number | null;
  /** Hits of MIDI notes since the start, by `channel/note`; channel 0 is any. */
  notes: Readonly<Record<string, number>>;
  /** Seconds of time code; null: none has come. */
  code: number | null;
}

/** The cue that comes after one: the one it goes back to while it has rounds left, else the next in the list. Null at the end. */
export function cueAfter(cues: readonly Cue[], { at, rounds }: CueState, leavesLoop = false): Cue | null {
  if (at === null) return cues[0] ?? null;
  const index = cues.findIndex(({ id }) => id === at);
  const now = cues[index];
  const back = leavesLoop ? null : now?.back;
  if (back && (back.times === 0 || (rounds[now.id] ?? 0) < back.times)) {
    const goal = cues.find(({ id }) => id === back.cue);
    if (goal) return goal;
  }
  return cues[index + 1] ?? null;
}

/** Seconds until the next cue begins by itself; null: it waits for something else. */
export function secondsLeft(
  show: Pick<Show, 'cues'>,
  state: CueState,
  { time, beat, bpm }: { time: number; beat: number; bpm: number },
): number | null {
  const next = cueAfter(show.cues, state);
  if (next?.go.type !== 'after' || state.at === null) return null;
  const { length, unit } = next.go;
  const since = state.held ?? { time, beat };
  const left =
    unit === 'beats'
      ? ((state.startedBeat + length - since.beat) * 60) / bpm
      : state.started + length - since.time;
  return Math.max(0, left);
}

/** Goes through a running order. Time comes from outside, so the same clock gives the same cues. */
export class CueRun {
  state: CueState = beforeCues;
  private last: CueClock | null = null;

  open(state: CueState = beforeCues): void {
    this.state = state;
    this.last = null;
  }

  /** Cues that are gone are left: the running order stands before its first then. */
  keepTo(cues: readonly Cue[]): void {
    if (this.state.at !== null && !cues.some(({ id }) => id === this.state.at)) this.state = beforeCues;
  }

  /** A cue begins; gives it. `time` and `beat`: when it was due, which may be a little before this frame. */
  private begin(cue: Cue, time: number, beat: number): Cue {
    const { rounds } = this.state;
    this.state = { at: cue.id, started: time, startedBeat: beat, held: null, rounds };
    return cue;
  }

  /** By hand: the next cue. `leavesLoop`: the one after it in the list, whatever it goes back to. */
  go(cues: readonly Cue[], { time, beat }: CueClock, leavesLoop = false): Cue | null {
    const next = cueAfter(cues, this.state, leavesLoop);
    return next && this.step(cues, next, time, beat);
  }

  private step(cues: readonly Cue[], next: Cue, time: number, beat: number): Cue {
    const { at, rounds } = this.state;
    const now = cues.find(({ id }) => id === at);
    const isRound = now?.back?.cue === next.id;
    const cue = this.begin(next, time, beat);
    // A loop that was left can be gone through again from the start.
    if (now?.back)
      this.state = {
        ...this.state,
        rounds: { ...rounds, [now.id]: isRound ? (rounds[now.id] ?? 0) + 1 : 0 },
      };
    return cue;
  }

  /** By hand: the cue before in the list. */
  back(cues: readonly Cue[], { time, beat }: CueClock): Cue | null {
    const index = cues.findIndex(({ id }) => id === this.state.at);
    return index > 0 ? this.begin(cues[index - 1], time, beat) : null;
  }

  /** By hand: any cue. */
  jump(cues: readonly Cue[], id: string, { time, beat }: CueClock): Cue | null {
    const cue = cues.find((one) => one.id === id);
    return cue ? this.begin(cue, time, beat) : null;
  }

  /** A hand interrupts: what would come by itself waits. */
  hold({ time, beat }: CueClock): void {
    if (this.state.at !== null && !this.state.held) this.state = { ...this.state, held: { time, beat } };
  }

  /** Goes on from where it was held, with the time that was left then. */
  resume({ time, beat }: CueClock): void {
    const { held, started, startedBeat } = this.state;
    if (held)
      this.state = {
        ...this.state,
        started: started + time - held.time,
        startedBeat: startedBeat + beat - held.beat,
        held: null,
      };
  }

  /** Goes on to a moment; gives the cues that begin by then, in their order. */
  advance(cues: readonly Cue[], now: CueClock): Cue[] {
    const before = this.last;
    this.last = now;
    if (this.state.at !== null && now.time < this.state.started && !this.state.held)
      // The show was sent back in time: what is under way begins again here.
      this.state = { ...this.state, started: now.time, startedBeat: now.beat };
    if (!before || this.state.held) return [];
    const chased = this.chase(cues, before, now);
    if (chased) return [this.begin(chased, now.time, now.beat)];
    const begun: Cue[] = [];
    while (begun.length < mostAtOnce) {
      const next = cueAfter(cues, this.state);
      const due = next && this.dueAt(next, before, now, begun.length > 0);
      if (!next || !due) break;
      begun.push(this.step(cues, next, due.time, due.beat));
    }
    return begun;
  }

  /** When the next cue was due between two moments; null: not yet. `isSecond`: another has just begun. */
  private dueAt(
    { go }: Cue,
    before: CueClock,
    now: CueClock,
    isSecond: boolean,
  ): { time: number; beat: number } | null {
    const here = { time: now.time, beat: now.beat };
    switch (go.type) {
      case 'hand':
        return null;
      case 'after': {
        if (this.state.at === null) return null;
        // From when the one before was due and not from when its frame came: cues never drift against the clock.
        const { started, startedBeat } = this.state;
        const beatsPerSecond =
          now.time > before.time ? (now.beat - before.beat) / (now.time - before.time) : 0;
        if (go.unit === 'beats') {
          const beat = startedBeat + go.length;
          if (now.beat < beat - 1e-6) return null;
          return {
            beat,
            time: beatsPerSecond > 0 ? now.time - (now.beat - beat) / beatsPerSecond : now.time,
          };
        }
        const time = started + go.length;
        if (now.time < time - 1e-6) return null;
        return { time, beat: now.beat - (now.time - time) * beatsPerSecond };
      }
      case 'sound':
        return !isSecond && crossed(before.sound, now.sound, go.at) ? here : null;
      case 'note': {
        const key = `${go.channel}/${go.note}`;
        return !isSecond && (now.notes[key] ?? 0) > (before.notes[key] ?? 0) ? here : null;
      }
      case 'code':
        return !isSecond && crossed(before.code, now.code, go.at) ? here : null;
    }
  }

  /** Time code that has jumped leads to the last cue that it has passed there. */
  private chase(cues: readonly Cue[], before: CueClock, now: CueClock): Cue | null {
    if (now.code === null || now.code === before.code) return null;
    if (before.code !== null && now.code >= before.code && now.code - before.code < codeJumpSeconds)
      return null;
    let goal: Cue | null = null;
    for (const cue of cues) if (cue.go.type === 'code' && cue.go.at <= now.code) goal = cue;
    return goal && goal.id !== this.state.at ? goal : null;
  }
}

/** Whether a clock that may go round has come to a place between two moments. */
function crossed(before: number | null, now: number | null, at: number): boolean {
  if (now === null || before === null) return false;
  if (now >= before) return before < at && at <= now;
  // It went round, or was sent back: only from its start to here.
  return at <= now;
}
