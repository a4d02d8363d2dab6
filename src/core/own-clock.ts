/** Pages, workers and servers all have it. */
declare const performance: { readonly timeOrigin: number; now(): number };

/**
 * The clock that a page or worker goes by: milliseconds since 1970 that only run forward. Where the clock of the machine is set
 * meanwhile, it goes on as before; what begins later goes by the new one.
 */
export const ownClock = (): number => performance.timeOrigin + performance.now();

/** How often two clocks are read to compare them. */
const reads = 5;

/** Milliseconds that the own clock is ahead of that of the machine, which may have been set: about 0 where it was not. */
export function aheadOfMachine(): number {
  // Who is interrupted between the two reads them apart by that, on a busy machine by tenths of a second: the quickest pair counts.
  let quickest = { took: Infinity, ahead: 0 };
  for (let k = 0; k < reads; k++) {
    const own = ownClock();
    const ahead = own - Date.now();
    const took = ownClock() - own;
    if (took < quickest.took) quickest = { took, ahead };
  }
  return quickest.ahead;
}

/** Milliseconds below which two clocks of one machine are the same: more precisely they can't be compared. */
const sameMs = 5;
const unlessSame = (shift: number): number => (Math.abs(shift) < sameMs ? 0 : shift);

/** What is to be added to the own clock to give that of another page or worker of this machine, which is `ahead` of the machine's. */
export const toClockAhead = (ahead: number): number => unlessSame(ahead - aheadOfMachine());

/** A moment of the own clock by that of the machine, as a page that comes later can read it; and back. */
export const byMachine = (at: number): number => at - unlessSame(aheadOfMachine());
export const fromMachine = (at: number): number => at + unlessSame(aheadOfMachine());
