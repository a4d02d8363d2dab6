import { beforeEach, describe, expect, it } from '@jest/globals';
import { ClockRounds } from './clock-rounds';

describe('rounds of the clock', () => {
  let now: number;
  let waiting: { at: number; run: () => void }[];
  const time = {
    now: () => now,
    later: (run: () => void, ms: number) => {
      const entry = { at: now + ms, run };
      waiting.push(entry);
      return () => void (waiting = waiting.filter((one) => one !== entry));
    },
  };
  /** Lets time go by. */
  const pass = (ms: number): void => {
    const end = now + ms;
    for (;;) {
      const next = waiting.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
      if (!next) break;
      now = next.at;
      waiting = waiting.filter((one) => one !== next);
      next.run();
    }
    now = end;
  };
  beforeEach(() => {
    now = 1000;
    waiting = [];
  });

  it('come quickly at first, then once a second, and measure the other clock', () => {
    const asked: number[] = [];
    const rounds = new ClockRounds((answer) => {
      asked.push(now);
      // Four milliseconds there and as many back.
      time.later(() => time.later(() => answer(now - 4 + 250), 4), 4);
    }, time);
    rounds.begin();
    pass(10_000);
    expect(asked.slice(0, 4).map((at) => at - 1000)).toEqual([0, 60, 120, 180]);
    expect(asked.at(-1)! - asked.at(-2)!).toBe(1000);
    expect(rounds.counts).toEqual({ asked: asked.length, lost: 0 });
    expect(rounds.clock.state!.offset).toBeCloseTo(250, 6);
    rounds.end();
    pass(10_000);
    expect(rounds.counts.asked).toBe(asked.length);
  });

  it('count as lost what is not answered in time, and heed no late answer', () => {
    let late: ((server: number) => void) | null = null;
    const rounds = new ClockRounds((answer) => (late ??= answer), time);
    rounds.begin();
    pass(1000);
    expect(rounds.counts).toEqual({ asked: 0, lost: 0 });
    pass(2000);
    const { asked, lost } = rounds.counts;
    expect(asked).toBeGreaterThan(7);
    expect(lost).toBe(asked);
    late!(5);
    expect(rounds.counts.lost).toBe(lost);
    expect(rounds.clock.state).toBeNull();
  });
});
