import { assertNever } from '../assert-never';
import type { Move } from '../document/types';

/** What a move is a move of: later moves of the same replace what it did. */
export function trackOf(move: Move): string {
  switch (move.type) {
    case 'desk':
      return `desk ${move.control}`;
    case 'take':
    case 'crossfade':
      return 'program';
    case 'tempo':
      return 'tempo';
    case 'cue':
      return 'cues';
    case 'recall':
      return 'snapshots';
    case 'master':
      return move.master;
    case 'layer':
      return 'layer';
    case 'hit':
      return move.hit;
    case 'switch':
      return move.what;
    default:
      return assertNever(move);
  }
}

/** Moves of one track out of all, or of all tracks. */
export const movesWithout = (moves: readonly Move[], track: string | null): Move[] =>
  track === null ? [] : moves.filter((move) => trackOf(move) !== track);

/**
 * Moves with those of a new round laid over: what a track did before stays up to the first touch of the round, and comes back after its
 * end.
 */
export function overdubbed(moves: readonly Move[], fresh: readonly Move[], end: number): Move[] {
  const first = new Map<string, number>();
  for (const move of fresh) {
    const track = trackOf(move);
    first.set(track, Math.min(first.get(track) ?? Number.POSITIVE_INFINITY, move.at));
  }
  const kept = moves.filter((move) => {
    const from = first.get(trackOf(move));
    return from === undefined || move.at < from || move.at > end;
  });
  return [...kept, ...fresh].sort((a, b) => a.at - b.at);
}

/** Notes what hands do against the time of the show. */
export class MoveRecorder {
  private noted: Move[] = [];
  private readonly lastOf = new Map<string, number>();

  note(move: Move): void {
    const track = trackOf(move);
    const before = this.lastOf.get(track);
    // Of several moves of a control in one frame the last one counts.
    if (before !== undefined && this.noted[before]?.at === move.at && this.noted[before].type === move.type)
      this.noted[before] = move;
    else {
      this.lastOf.set(track, this.noted.length);
      this.noted.push(move);
    }
  }

  get count(): number {
    return this.noted.length;
  }

  take(): Move[] {
    const { noted } = this;
    this.noted = [];
    this.lastOf.clear();
    return noted;
  }
}

/** Plays moves again. */
export class MovePlayer {
  private next = 0;
  private time = Number.NaN;
  private of: readonly Move[] | null = null;

  /**
   * The moves that are due at a time of the show. After a jump, and at the start: the last one of each track up to there, so that all
   * stands as it did.
   */
  at(moves: readonly Move[], time: number, jumpSeconds = 1): Move[] {
    const goesOn = this.of === moves && time >= this.time && time - this.time < jumpSeconds;
    const from = this.next;
    this.of = moves;
    this.time = time;
    this.next = upTo(moves, time);
    if (goesOn) return moves.slice(from, this.next);
    const last = new Map<string, Move>();
    for (let k = 0; k < this.next; k++) {
      const track = trackOf(moves[k]);
      last.delete(track);
      last.set(track, moves[k]);
    }
    return [...last.values()];
  }

  stop(): void {
    this.of = null;
  }
}

/** How many moves are due at a time. */
function upTo(moves: readonly Move[], time: number): number {
  let [low, high] = [0, moves.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (moves[middle].at <= time + 1e-9) low = middle + 1;
    else high = middle;
  }
  return low;
}
