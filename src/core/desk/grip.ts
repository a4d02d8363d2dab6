import { sameValue as same } from './value';

type Numbers = readonly number[];

/** Most places of one way that are known again: older ones have long been said. */
const mostPlaces = 500;

/**
 * A finger on a control whose place is said by somebody else: an engine, or another machine. What was done takes its way there, and what is said of
 * it its way back; meanwhile the control stands where the finger has put it, and does not go back along its way. It follows what is said as
 * soon as that has come there, or is a place where the finger has never been: somebody else moves it.
 */
export class Grip {
  private places: Numbers[] = [];
  private isHeld = false;

  /** The finger is on the control, of which is said that it stands at `said`. */
  take(said: Numbers): void {
    this.places = [said];
    this.isHeld = true;
  }

  /** It was moved to `numbers`; without a finger on it nothing is held. */
  move(numbers: Numbers): void {
    if (this.isHeld) this.places = [...this.places.slice(1 - mostPlaces), numbers];
  }

  letGo(): void {
    this.isHeld = false;
  }

  /** What is said is believed from here on. */
  forget(): void {
    this.places = [];
    this.isHeld = false;
  }

  /** It is said that the control stands at `said`. */
  hear(said: Numbers): void {
    // What has been said does not come again: who is at a place before it, is somebody else.
    const passed = this.places.findIndex((place) => same(said, place));
    if (this.isAway(said)) this.places.splice(0, Math.max(0, passed));
    else this.places = [];
  }

  /** Where the control stands while `said` is what was said of it last. */
  stands(said: Numbers): Numbers {
    const last = this.places.at(-1);
    return last && this.isAway(said) ? last : said;
  }

  /** Whether what the finger has done last is still on its way. */
  private isAway(said: Numbers): boolean {
    const last = this.places.at(-1);
    if (!last || this.isHeld) return this.isHeld;
    return !same(said, last) && this.places.some((place) => same(said, place));
  }
}
