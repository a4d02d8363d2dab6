import type { CurveKey } from '../document/types';

/** Slope of a smooth key from those of the lines to its neighbours: flat at a turn, else their weighted harmonic mean. */
function smoothSlope(before: number, after: number, gapBefore: number, gapAfter: number): number {
  if (before * after <= 0) return 0;
  const w1 = 2 * gapAfter + gapBefore;
  const w2 = gapAfter + 2 * gapBefore;
  return (w1 + w2) / (w1 / before + w2 / after);
}

const lineSlope = (a: CurveKey | undefined, b: CurveKey | undefined): number =>
  a && b && b.at > a.at ? (b.value - a.value) / (b.at - a.at) : 0;

/** Slope of the curve before (side 0) or after (side 1) its `k`-th key. */
export function slopeAt(keys: readonly CurveKey[], k: number, side: 0 | 1): number {
  const key = keys[k];
  if (key.form === 'free' && key.slopes) return key.slopes[side];
  const before = lineSlope(keys[k - 1], key);
  const after = lineSlope(key, keys[k + 1]);
  if (key.form !== 'smooth') return side ? after : before;
  if (k === 0 || k === keys.length - 1) return 0;
  return smoothSlope(before, after, key.at - keys[k - 1].at, keys[k + 1].at - key.at);
}

/**
 * Value of a drawn curve at a time: cubic Hermite between keys, the outer keys' values beyond them. Smooth keys take the
 * slopes of Fritsch and Butland (SIAM J. Sci. Stat. Comput. 5, 1984), which never overshoot. Without keys: 0. Where two keys
 * stand at one time, the later in the list counts from there on.
 */
export function curveAt(keys: readonly CurveKey[], at: number): number {
  if (keys.length === 0) return 0;
  let low = 0;
  let high = keys.length - 1;
  if (at < keys[0].at) return keys[0].value;
  if (at >= keys[high].at) return keys[high].value;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (keys[middle].at <= at) low = middle;
    else high = middle;
  }
  const a = keys[low];
  const b = keys[high];
  const span = b.at - a.at;
  if (a.form === 'hold' || span <= 0) return a.value;
  const t = (at - a.at) / span;
  if (a.form === 'straight' && b.form !== 'smooth' && b.form !== 'free')
    return a.value + (b.value - a.value) * t;
  const rise = slopeAt(keys, low, 1) * span;
  const fall = slopeAt(keys, high, 0) * span;
  const s = 1 - t;
  return a.value * (1 + 2 * t) * s * s + rise * t * s * s + b.value * t * t * (3 - 2 * t) - fall * t * t * s;
}

/** Keys in the order of time, those at the same time in the order they had. */
export const inOrder = (keys: readonly CurveKey[]): CurveKey[] =>
  keys.map((key) => ({ ...key })).sort((a, b) => a.at - b.at);

/** The chosen keys moved by so much in time and value. */
export const moveKeys = (
  keys: readonly CurveKey[],
  chosen: ReadonlySet<number>,
  by: { at: number; value: number },
): CurveKey[] =>
  keys.map((key, k) => (chosen.has(k) ? { ...key, at: key.at + by.at, value: key.value + by.value } : key));

/** The chosen keys stretched in time from the first of them; slopes flatten along. */
export function stretchKeys(
  keys: readonly CurveKey[],
  chosen: ReadonlySet<number>,
  factor: number,
): CurveKey[] {
  const start = Math.min(...[...chosen].map((k) => keys[k].at));
  return keys.map((key, k) => {
    if (!chosen.has(k)) return key;
    const at = start + (key.at - start) * factor;
    return key.slopes
      ? { ...key, at, slopes: [key.slopes[0] / factor, key.slopes[1] / factor] as [number, number] }
      : { ...key, at };
  });
}

/** How the way from one key to the next can be eased. */
export type Easing = 'line' | 'in' | 'out' | 'both' | 'hold';

/** The curve with the way from the `k`-th key to the next eased; `in` starts slowly, `out` ends slowly. */
export function easeKeys(keys: readonly CurveKey[], k: number, easing: Easing): CurveKey[] {
  const a = keys[k];
  const b = keys[k + 1];
  if (!a || !b) return [...keys];
  if (easing === 'hold') return keys.map((key, j) => (j === k ? { ...key, form: 'hold' as const } : key));
  const line = lineSlope(a, b);
  // The end that is not slow leaves twice as steeply as the straight way: a parabola.
  const [start, end] = {
    line: [line, line],
    in: [0, 2 * line],
    out: [2 * line, 0],
    both: [0, 0],
  }[easing];
  return keys.map((key, j) => {
    if (j === k)
      return { ...key, form: 'free' as const, slopes: [slopeAt(keys, k, 0), start] as [number, number] };
    if (j === k + 1)
      return { ...key, form: 'free' as const, slopes: [end, slopeAt(keys, k + 1, 1)] as [number, number] };
    return key;
  });
}

/** Least and greatest value of the keys of some curves; 0 to 1 without keys, and opened where they are all alike. */
export function valuesOfCurves(lanes: readonly { keys: readonly CurveKey[] }[]): [number, number] {
  const values = lanes.flatMap((lane) => lane.keys.map((key) => key.value));
  if (!values.length) return [0, 1];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return high > low ? [low, high] : [Math.min(0, low), Math.max(1, high)];
}
