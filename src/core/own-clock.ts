/** Pages, workers and servers all have it. */
declare const performance: { readonly timeOrigin: number; now(): number };

/**
 * The clock that a page or worker goes by: milliseconds since 1970 that only run forward. Where the clock of the machine is set
 * meanwhile, it goes on as before; what begins later goes by the new one.
 */
export const ownClock = (): number => performance.timeOrigin + performance.now();

/** Milliseconds that the own clock is ahead of that of the machine, which may have been set: 0 where it was not. */
export const aheadOfMachine = (): number => ownClock() - Date.now();

/** Milliseconds below which two clocks of one machine are the same: more precisely they can't be compared. */
const sameMs = 5;

/** What is to be added to the own clock to give that of another page or worker of this machine, which is `ahead` of the machine's. */
export function toClockAhead(ahead: number): number {
  const shift = ahead - aheadOfMachine();
  return Math.abs(shift) < sameMs ? 0 : shift;
}
