import type { Spread } from '../document/types';

/** Index into m samples that serves place i of n (for mirror); not for `stretch`, which mixes two. */
export function spreadIndex(spread: Exclude<Spread, 'stretch'>, i: number, m: number): number {
  if (m <= 1) return 0;
  if (spread === 'repeat') return i % m;
  if (spread === 'hold') return i < m ? i : m - 1;
  const k = i % (2 * m);
  return k < m ? k : 2 * m - 1 - k;
}

/**
 * Writes n = `out.length` values from the samples of `from`. `stretch` keeps both ends and mixes linearly between; one
 * sample serves all places alike.
 */
export function spreadInto(out: Float32Array, from: Float32Array, spread: Spread): void {
  const n = out.length;
  const m = from.length;
  if (m === n) out.set(from);
  else if (m === 0) out.fill(0);
  else if (m === 1) out.fill(from[0]);
  else if (spread === 'stretch') {
    const step = n > 1 ? (m - 1) / (n - 1) : 0;
    for (let i = 0; i < n; i++) {
      const at = i * step;
      const low = Math.min(Math.floor(at), m - 2);
      out[i] = from[low] + (from[low + 1] - from[low]) * (at - low);
    }
  } else {
    for (let i = 0; i < n; i++) out[i] = from[spreadIndex(spread, i, m)];
  }
}
