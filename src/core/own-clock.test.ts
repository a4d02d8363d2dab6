import { afterEach, expect, jest, test } from '@jest/globals';
import { aheadOfMachine, byMachine, fromMachine, ownClock, toClockAhead } from './own-clock';

afterEach(() => void jest.restoreAllMocks());

/** Sets the clock of the machine by that many milliseconds. */
const setClock = (ms: number): void =>
  void jest.spyOn(Date, 'now').mockImplementation(() => performance.timeOrigin + performance.now() + ms);

test('a clock that was set leaves the own one where it was, and is told by what that is ahead', () => {
  setClock(0);
  const before = ownClock();
  expect(aheadOfMachine()).toBeCloseTo(0, 0);
  setClock(-7200000);
  expect(ownClock()).toBeGreaterThanOrEqual(before);
  expect(ownClock() - before).toBeLessThan(60000);
  expect(aheadOfMachine() / 7200000).toBeCloseTo(1, 3);
});

test('a worker that began after the clock was set can go by that of its page', () => {
  setClock(0);
  expect(toClockAhead(7200000) / 7200000).toBeCloseTo(1, 3);
  expect(toClockAhead(-3600000) / -3600000).toBeCloseTo(1, 3);
  // Beyond what can be compared there is no difference.
  expect(toClockAhead(2)).toBe(0);
});

test('who is interrupted between the two clocks does not take that for a difference', () => {
  let reads = 0;
  jest.spyOn(Date, 'now').mockImplementation(() => {
    // The first is read 30 ms after the own clock.
    const late = performance.now() + (reads++ === 0 ? 30 : 0);
    while (performance.now() < late);
    return performance.timeOrigin + performance.now();
  });
  expect(Math.abs(aheadOfMachine())).toBeLessThan(15);
  expect(reads).toBeGreaterThan(1);
});

test('a moment that is kept through a reload is by the clock of the machine, however far the own one is from it', () => {
  setClock(-7200000);
  const kept = byMachine(1e12);
  expect((1e12 - kept) / 7200000).toBeCloseTo(1, 3);
  // The clock of the page that comes is another one, off by itself.
  setClock(350);
  expect(fromMachine(kept) - kept).toBeCloseTo(-350, -1);
  setClock(0);
  expect([byMachine(1e12), fromMachine(1e12)]).toEqual([1e12, 1e12]);
});
