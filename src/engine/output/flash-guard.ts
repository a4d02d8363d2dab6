import type { FlashReport } from '../protocol/protocol';
import type { Gpu } from '../gpu/gpu';
import type { FlashLimiter } from './flash/flash-limiter';
import type { FlashWatch } from './flash/flash-watch';
import type { Presented } from './presenter';

/** Counts the flashes of what is on air, and holds them back where the show asks for it. Its parts are loaded when first needed. */
export class FlashGuard {
  private watch: FlashWatch | null = null;
  private limiter: FlashLimiter | null = null;
  private isComing = false;

  constructor(private readonly gpu: Gpu) {}

  private async load(): Promise<void> {
    if (this.isComing) return;
    this.isComing = true;
    const { FlashLimiter, FlashWatch } = await import('./flash/flash-parts');
    // The next context has a guard of its own.
    if (this.gpu.isLost) return;
    this.watch = new FlashWatch(this.gpu);
    this.limiter = new FlashLimiter(this.gpu);
  }

  /** What may be seen of what is on air. `frame` and `seconds`: number and time of the frame. */
  limit(shown: Presented, frame: number, seconds: number): Presented {
    if (this.limiter) return this.limiter.limit(shown, frame, seconds);
    void this.load();
    return shown;
  }

  /** Counts what leaves in this frame. `isLimited`: it has been through `limit`. */
  count(shown: Presented, seconds: number, isLimited: boolean): void {
    const { watch, limiter } = this;
    if (!watch || !limiter) return void this.load();
    if (watch.count.fails) limiter.tighten(seconds);
    watch.turn(shown, seconds, isLimited ? limiter.heldBack : null);
  }

  report(): FlashReport | null {
    if (!this.watch) return null;
    const { count, held } = this.watch;
    return { ...count, held };
  }
}
