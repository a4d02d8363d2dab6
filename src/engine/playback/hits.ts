import type { Hit } from '../../core/desk/command';

/**
 * Most flashes in any second: WCAG 2.3.1 and ITU-R BT.1702-3 allow three. A flash is a pair of changes, so what a pad makes is counted when
 * it begins and may not end at once.
 */
const flashesPerSecond = 3;
/** Seconds that a change lasts at least. */
const leastSeconds = 1 / (2 * flashesPerSecond);

/** What hits do to the picture now. */
export interface HitLook {
  /** Brightness, 0 or 1. */
  level: number;
  invert: boolean;
  /** White that is laid over, 0..1. */
  flash: number;
}

const untouched: HitLook = { level: 1, invert: false, flash: 0 };

/** Momentary pads on the whole picture, never quicker than is safe to look at. Times are seconds of any clock that does not stop. */
export class Hits {
  private readonly held = new Map<Hit, number>();
  private begun: number[] = [];
  /** When the last change was made, and whether the picture is changed now. */
  private changedAt = Number.NEGATIVE_INFINITY;
  private shown: HitLook = untouched;

  press(hit: Hit, on: boolean, now: number): void {
    if (on) this.held.set(hit, now);
    else this.held.delete(hit);
  }

  clear(): void {
    this.held.clear();
  }

  get active(): readonly Hit[] {
    return [...this.held.keys()];
  }

  /** How the picture is changed at a time. */
  at(now: number): HitLook {
    const wanted = this.wanted(now);
    const differs =
      wanted.level !== this.shown.level ||
      wanted.invert !== this.shown.invert ||
      wanted.flash > 0 !== this.shown.flash > 0;
    if (!differs) return (this.shown = { ...this.shown, flash: wanted.flash });
    if (now - this.changedAt < leastSeconds - 1e-6) return this.shown;
    const begins = wanted.level < 1 || wanted.invert || wanted.flash > 0;
    this.begun = this.begun.filter((at) => now - at < 1 - 1e-6);
    // A fourth flash in a second is held back until it is none.
    if (begins && this.begun.length >= flashesPerSecond) return this.shown;
    if (begins) this.begun.push(now);
    this.changedAt = now;
    return (this.shown = wanted);
  }

  private wanted(now: number): HitLook {
    const strobe = this.held.get('strobe');
    const flash = this.held.get('flash');
    // Dark first, so that the hand sees at once that it has hit.
    const isDark = strobe !== undefined && Math.floor((now - strobe) / leastSeconds + 1e-6) % 2 === 0;
    return {
      level: isDark ? 0 : 1,
      invert: this.held.has('invert'),
      flash: flash === undefined ? 0 : Math.max(0.15, 1 - (now - flash) / 0.5),
    };
  }
}
