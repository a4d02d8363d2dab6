/**
 * Milliseconds without a word after which an engine counts as hanging: at least and at most. Never short, since an engine that only takes long
 * would be replaced by one that takes as long. An engine that is gone is noticed at once by its lock.
 */
const silentMs = { least: 2500, most: 20000 } as const;
/** Times the longest pause between two words that is usual here. */
const pauses = 4;
/** Milliseconds over which pauses are looked at, and before which none is known. */
const windowMs = 30000;
const knownMs = 5000;
/** Milliseconds after an engine was replaced in which the next one is given all the time there is. */
const cautiousMs = 60000;

/** Says when an engine has been silent for longer than it ever is. */
export class Silence {
  private begunAt = 0;
  private heardAt = 0;
  private before: number | null = null;
  /** Longest pause of this window and of the one before. */
  private longest = 0;
  private lastLongest = 0;
  private windowAt = 0;
  private isMaking = false;

  /** An engine begins. */
  begin(now: number): void {
    this.before = this.begunAt || null;
    this.begunAt = this.heardAt = this.windowAt = now;
    this.longest = this.lastLongest = 0;
    this.isMaking = false;
  }

  /** It draws something for the first time, for which it is given all the time there is; or has done so. */
  setMaking(isMaking: boolean): void {
    this.isMaking = isMaking;
  }

  /** It has said something. */
  hear(now: number): void {
    if (now - this.windowAt > windowMs) {
      this.lastLongest = this.longest;
      this.longest = 0;
      this.windowAt = now;
    }
    this.longest = Math.max(this.longest, now - this.heardAt);
    this.heardAt = now;
  }

  isTooLong(now: number): boolean {
    return now - this.heardAt >= this.limit();
  }

  private limit(): number {
    const { begunAt, before, heardAt } = this;
    const isNew = heardAt - begunAt < knownMs;
    const isSuccessor = before !== null && heardAt - begunAt < cautiousMs;
    if (isNew || isSuccessor || this.isMaking) return silentMs.most;
    const pause = pauses * Math.max(this.longest, this.lastLongest);
    return Math.min(silentMs.most, Math.max(silentMs.least, pause));
  }
}
