/** Milliseconds until it is looked again whether a frame can be drawn. */
const pollMs = 3;

/**
 * Calls a function once a display frame. Animation frames stop while the editor's window is hidden, but the stage must
 * not: a timer that is late by a little steps in whenever they stay away.
 */
export class Pacer {
  private frame = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stopped = true;
  private last = 0;

  constructor(
    /** Gives whether it could not draw yet: then it is called again within a few milliseconds, as a slow frame ends at any moment. */
    private readonly tick: (now: number) => boolean,
    /** Milliseconds between frames when the timer has to do it. */
    public interval = 1000 / 60,
  ) {}

  start(): void {
    if (!this.stopped) return;
    this.stopped = false;
    this.last = performance.now();
    this.schedule(this.interval);
  }

  stop(): void {
    this.stopped = true;
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
  }

  private schedule(wait: number): void {
    if (this.stopped) return;
    this.frame = requestAnimationFrame(() => this.fire());
    this.timer = setTimeout(() => this.fire(), Math.max(0, wait));
  }

  private fire(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
    const now = performance.now();
    // Displays faster than the show would only burn the GPU.
    if (now - this.last < this.interval * 0.6) {
      this.schedule(this.interval);
      return;
    }
    let waits = false;
    try {
      waits = this.tick(now);
    } finally {
      if (!waits) this.last = now;
      this.schedule(waits ? pollMs : now + this.interval * 1.5 - performance.now());
    }
  }
}
