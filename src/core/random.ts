/**
 * Integer hash with full avalanche (the "lowbias32" constants found by exhaustive search, Chris Wellons, public domain).
 * Used for everything that looks random, so the same seed gives the same picture everywhere.
 */
export function hash(value: number): number {
  let x = value | 0;
  x ^= x >>> 16;
  x = Math.imul(x, 0x7feb352d);
  x ^= x >>> 15;
  x = Math.imul(x, 0x846ca68b);
  x ^= x >>> 16;
  return x >>> 0;
}

/** Fixed random number 0..1 (1 excluded) for an index and a seed. */
export function randomAt(index: number, seed = 0): number {
  return hash(Math.imul(index | 0, 0x9e3779b1) ^ hash(seed)) / 4294967296;
}

/** Fixed random number of a normal distribution, mean 0, deviation 1 (Box and Muller). */
export function normalAt(index: number, seed = 0): number {
  const a = Math.max(randomAt(index * 2, seed), 1e-9);
  const b = randomAt(index * 2 + 1, seed);
  return Math.sqrt(-2 * Math.log(a)) * Math.cos(2 * Math.PI * b);
}
