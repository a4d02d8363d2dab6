import { afterEach, expect, jest, test } from '@jest/globals';
import { aheadOfMachine, ownClock, toClockAhead } from './own-clock';

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
