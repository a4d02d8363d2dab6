import { randomAt } from '../random';

/** Ticks that are worked through at most after a leap in time; earlier ones are left out. */
const mostTicks = 20000;

export interface WalkShape {
  low: number;
  high: number;
  /** The most that is moved at a tick, up or down. */
  step: number;
  /** Ticks a second. */
  rate: number;
  seed: number;
  /** Whether it glides from tick to tick. */
  smooth: boolean;
}

/**
 * Values that take a random step at every tick and turn back at their ends. They start in the middle at time 0 and only
 * ticks move them, so that they are the same at any frame rate.
 */
export class Walk {
  private tick = -1;
  private now = new Float64Array(0);
  private before = new Float64Array(0);
  private seed = Number.NaN;

  /** Writes the values at `time` seconds, one for each place of `into`. */
  at(time: number, shape: WalkShape, into: Float32Array): void {
    const { low, high, step } = shape;
    const at = time * shape.rate + 1e-9;
    const tick = Math.floor(at);
    if (this.seed !== shape.seed || this.now.length !== into.length || tick < this.tick || this.tick < 0) {
      this.seed = shape.seed;
      this.tick = Math.max(0, tick - mostTicks);
      this.now = new Float64Array(into.length).fill((low + high) / 2);
      this.before = this.now.slice();
    }
    this.tick = Math.max(this.tick, tick - mostTicks);
    while (this.tick < tick) {
      this.tick++;
      this.before.set(this.now);
      for (let i = 0; i < into.length; i++) {
        let next = this.now[i] + (randomAt(this.tick * 7919 + i, shape.seed) * 2 - 1) * step;
        if (next > high) next = 2 * high - next;
        if (next < low) next = 2 * low - next;
        this.now[i] = Math.min(high, Math.max(low, next));
      }
    }
    const share = shape.smooth ? at - tick : 1;
    for (let i = 0; i < into.length; i++) into[i] = this.before[i] + (this.now[i] - this.before[i]) * share;
  }
}
