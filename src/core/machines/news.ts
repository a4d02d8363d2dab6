import { performanceAt, type PerformanceState } from '../desk/performance-state';
import type { StateNews } from './link';

/** Tells what of a performance is other than when it was last told. */
export class NewsOfState {
  /** What was told of each part, as text: parts are small, and most of them stay as they are. */
  private told = new Map<string, string>();

  /** Everything is new again. */
  forget(): void {
    this.told.clear();
  }

  /** Parts that have changed; null: none has. */
  of(state: PerformanceState): StateNews | null {
    const news: Record<string, unknown> = {};
    for (const [key, value] of Object.entries(state)) {
      // They change with each report and say nothing by themselves.
      if (key === 'number' || key === 'at') continue;
      const text = JSON.stringify(value);
      if (this.told.get(key) === text) continue;
      this.told.set(key, text);
      news[key] = value;
    }
    if (Object.keys(news).length === 0) return null;
    return { ...news, number: state.number, at: state.at };
  }
}

/** How a performance stands by what was told of it. */
export class HeardState {
  private state: PerformanceState | null = null;

  constructor(
    /** From the clock of the server, by which it is told, to that of this machine. */
    private readonly clock: { toOwn(server: number): number },
  ) {}

  /** Nothing was told: another machine performs. */
  forget(): void {
    this.state = null;
  }

  /** Takes news; `isWhole`: they are all that there is. */
  take(news: StateNews, isWhole: boolean): void {
    this.state = { ...(isWhole || !this.state ? performanceAt('') : this.state), ...news };
  }

  /** All of it, by the clock of this machine as far as that is known now; null: nothing was told yet. */
  get here(): PerformanceState | null {
    return this.state && { ...this.state, at: this.clock.toOwn(this.state.at) };
  }
}
