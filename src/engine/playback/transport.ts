import type { Show } from '../../core/document/types';
import { longestStepSeconds, momentAt, type BeatOrigin, type Moment } from '../../core/time/clock';

/** Longest time in seconds by which the show follows the clock at once: a machine that slept does not play what it missed. */
export const longestCatchUpSeconds = 60;

/** Seconds by which a clock that is followed may be off before it is jumped to, and by how much a frame comes nearer. */
const followed = { jump: 0.1, step: 0.002 };

/** Seconds before a jump's goal of preroll, at most. */
const longestPrerollSeconds = 30;

/** Frames by which who is followed may be ahead at the end of a preroll: as many pass while one is drawn. */
const closeFrames = 3;

/** The last frame that is over at a time. */
const frameBefore = (time: number, fps: number): number => Math.ceil(time * fps - 1e-6) - 1;

/** The way to the goal of a jump, for scenes that have a memory. */
export interface Preroll {
  /** Frame to be worked out next, at the frame rate of the show, and the one before the goal. */
  next: number;
  last: number;
  first: number;
  /** Since when pictures that were never drawn are waited for. */
  waitsSince?: number;
  /** What is left was played elsewhere while the rest of the way was run: only its numbers count. */
  isLate?: boolean;
}

/** The show's time: it plays, stands, steps, jumps and goes round in a range. */
export class Transport {
  time = 0;
  playing = true;
  /** Seconds from the start between which it goes round; null: it goes on forever. */
  range: readonly [number, number] | null = null;
  preroll: Preroll | null = null;
  /** Seconds of the picture that pass in a second of the show: the master of speed. Beats and sound go on as they are. */
  speed = 1;
  /** Seconds that the picture is ahead of the show. */
  ahead = 0;
  private origin: BeatOrigin = { time: 0, beat: 0 };
  private pendingSteps = 0;

  open(time: number, playing: boolean): void {
    this.jump(time);
    this.playing = playing;
  }

  /** Goes to a time. Beats are counted as if the tempo had always been what it is. */
  jump(time: number): void {
    this.time = Math.max(0, time);
    this.ahead = 0;
    this.origin = { time: 0, beat: 0 };
    this.preroll = null;
  }

  /** Goes to a time after a preroll, as far as memories reach. */
  jumpExactly(time: number, fps: number): void {
    this.jump(time);
    const last = frameBefore(this.time, fps);
    const first = Math.max(0, last - Math.round(longestPrerollSeconds * fps));
    if (last >= first) this.preroll = { first, next: first, last };
  }

  /** At the end of a preroll: goes to the time of another machine, which went on meanwhile. What passed there may be a way to run again. */
  catchUp(time: number, fps: number): void {
    const way = this.preroll;
    if (!way) return;
    this.time = time;
    const last = frameBefore(time, fps);
    const missed = last - way.last;
    if (missed <= closeFrames || missed > longestPrerollSeconds * fps) this.preroll = null;
    else Object.assign(way, { last, isLate: true });
  }

  /** Follows the time of another machine: nearer by little steps, so that nothing is seen of what its clock is not sure of. */
  follow(time: number, beat: number): void {
    if (this.preroll) return;
    const apart = time - this.time;
    if (Math.abs(apart) > followed.jump || !this.playing) this.time = time;
    else this.time += Math.min(followed.step, Math.max(-followed.step, apart));
    this.origin = { time, beat };
  }

  step(): void {
    this.playing = false;
    this.pendingSteps++;
  }

  /** A change of tempo: beats go on from where they are. */
  changeTempo(before: Show['tempo']): void {
    const beat = this.origin.beat + ((this.time - this.origin.time) * before.bpm) / 60;
    this.origin = { time: this.time, beat };
  }

  /**
   * Takes a frame's real seconds; gives those that what has a memory goes on by. The show itself keeps to the clock however long a frame
   * took: beside sound that goes on, it would fall behind with every slow one.
   */
  advance(real: number, fps: number): number {
    let dt = 0;
    if (this.playing) dt = Math.min(real, longestCatchUpSeconds);
    else if (this.pendingSteps > 0) {
      this.pendingSteps--;
      dt = 1 / fps;
    }
    this.time += dt;
    this.ahead = Math.max(-this.time, this.ahead + dt * (this.speed - 1));
    if (this.range && dt > 0 && this.time >= this.range[1]) {
      const [start, end] = this.range;
      // Time goes round and what has a memory goes on: a preroll to the start would stop the picture at each round.
      this.time = start + ((this.time - start) % Math.max(1e-3, end - start));
      this.ahead = 0;
      this.origin = { time: 0, beat: 0 };
    }
    return Math.min(dt, longestStepSeconds);
  }

  /** The moment of the picture. Its beat is that of the show. */
  moment(dt: number, show: Pick<Show, 'canvas' | 'tempo'>): Moment {
    const origin = { time: this.origin.time + this.ahead, beat: this.origin.beat };
    return momentAt(this.time + this.ahead, dt * this.speed, show.canvas.fps, show.tempo, origin);
  }
}
