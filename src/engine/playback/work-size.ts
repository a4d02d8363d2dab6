import type { WorkScale } from '../protocol/protocol';

/** Smallest share of the canvas that is drawn. */
const least = 0.125;

/**
 * How large a scene is drawn: whole on stage; on the desk as the performer says, or (`auto`) as large as the GPU keeps up
 * with. It begins small, as nobody knows the GPU yet.
 */
export class WorkSize {
  scale: WorkScale = 'auto';
  private auto = 0.25;
  private since = 0;
  private onStage = false;

  /** Chooses again: `frameMs` is what a frame costs now (0: not known yet), `budgetMs` what it may cost. */
  choose(now: number, onStage: boolean, frameMs: number, budgetMs: number): void {
    this.onStage = onStage;
    if (onStage) {
      this.auto = 1;
      this.since = now;
      return;
    }
    if (frameMs === 0 || now - this.since < (frameMs < budgetMs * 0.2 ? 300 : 1500)) return;
    // Below a quarter a picture looks coarse: only where it would hardly move otherwise.
    if (frameMs > budgetMs * (this.auto > 0.25 ? 1.6 : 8) && this.auto > least) this.change(0.5, now);
    else if (frameMs < budgetMs * (this.auto < 0.25 ? 1 : 0.2) && this.auto < 1) this.change(2, now);
  }

  private change(by: number, now: number): void {
    this.auto *= by;
    this.since = now;
  }

  /** The size that a canvas is drawn at. */
  of({ width, height }: { width: number; height: number }): { width: number; height: number } {
    const scale = this.onStage ? 1 : this.scale === 'auto' ? this.auto : this.scale;
    return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
  }
}
