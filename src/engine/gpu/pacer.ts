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
    private readonly tick: (now: number) => void,
    /** Milliseconds between frames when the timer has to do it. */
    public interval = 1000 / 60,
  ) {}

  start(): void {
    if (!this.stopped) return;
    this.stopped = false;
    this.last = performance.now();
    this.schedule();
  }

  stop(): void {
    this.stopped = true;
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
  }

  private schedule(): void {
    if (this.stopped) return;
    this.frame = requestAnimationFrame(() => this.fire());
    const wait = Math.max(0, this.last + this.interval * 1.5 - performance.now());
    this.timer = setTimeout(() => this.fire(), wait);
  }

  private fire(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
    const now = performance.now();
    // Displays faster than the show would only burn the GPU.
    if (now - this.last < this.interval * 0.6) {
      this.frame = requestAnimationFrame(() => this.fire());
      this.timer = setTimeout(() => this.fire(), this.interval);
      return;
    }
    this.last = now;
    try {
      this.tick(now);
    } finally {
      this.schedule();
    }
  }
}
