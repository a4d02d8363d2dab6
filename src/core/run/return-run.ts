import { SignalBuffer, type Signal } from '../signal/signal';
import type { Shape } from '../shape/shape';
import type { ReturnSettings, Wire } from '../document/types';
import { keepFor, type Moment } from '../time/clock';

/**
 * Soft limit: unchanged up to half of `limit`, then bending so that it never passes `limit`. Continuous in value and
 * slope; the same curve stands in the shader of image return wires.
 */
export function guardValue(value: number, limit: number): number {
  const knee = limit / 2;
  const size = Math.abs(value);
  if (size <= knee) return value;
  const over = (size - knee) / knee;
  return Math.sign(value) * (knee + knee * (over / (1 + over)));
}

/** The memory of one return wire that carries numbers or a shape, and the switch that clears it. */
export class ReturnRun {
  /** What the reader gets this frame. */
  readonly view = new SignalBuffer();
  shape: Shape | null = null;
  /** Set in frames in which the loop starts again; image loops read it as well. */
  clearing = true;
  private readonly kept = new SignalBuffer();
  private hasKept = false;
  private wasHigh = false;
  private asked = false;

  constructor(public wire: Wire) {}

  get settings(): ReturnSettings {
    return this.wire.back!;
  }

  /** Starts the loop again at the next frame: the Clear button. */
  clear(): void {
    this.asked = true;
  }

  restart(): void {
    this.hasKept = false;
    this.wasHigh = false;
    this.asked = true;
  }

  /** Set at the start of a frame; the first reader then calls `begin`, when what the loop starts from was worked out. */
  pending = true;

  /** Works out what readers get in this frame: `clearSignal` and `start` are this wire's own sources, if it has them. */
  begin(moment: Moment, clearSignal: Signal | null, start: Signal | null): void {
    this.pending = false;
    const high = (clearSignal?.lanes[0]?.samples[0] ?? 0) > 0.5;
    this.clearing = this.asked || (high && !this.wasHigh) || !this.hasKept;
    this.wasHigh = high;
    this.asked = false;
    if (this.clearing) {
      this.shape = null;
      if (start) this.view.copy(start);
      else if (this.kept.lanes.length) {
        this.view.copy(this.kept);
        for (const lane of this.view.lanes) lane.samples.fill(0);
      } else this.view.layout([], 0);
      return;
    }
    this.view.copy(this.kept);
    const { keep, guard, limit } = this.settings;
    const share = keepFor(keep, moment.dt);
    for (const { samples } of this.view.lanes) {
      for (let i = 0; i < samples.length; i++) {
        const value = samples[i] * share;
        samples[i] = guard === 'soft' ? guardValue(value, limit) : value;
      }
    }
  }

  /** Called once a frame after everything ran: keeps what the source gave. */
  end(signal: Signal | null, shape: Shape | null): void {
    if (signal) this.kept.copy(signal);
    this.shape = shape;
    this.hasKept = true;
  }
}
