import { linear } from './flash-meter';

/**
 * Stripes and checks that can hurt though nothing flashes: more than five pairs of light and dark at even distances, over a quarter of the
 * picture. After ITU-R BT.1702-3 (2023), annex 1.
 */

/** Light and dark after one another that make a pattern: five pairs and one half more. */
const leastBars = 11;
/** Change of relative luminance from a bar to the next, where the darker of both is below the other number. */
const change = 0.1;
const darkerBelow = 0.8;
/** How far the width of a bar may be from the mean of its row, as a share of that, for the row to look even. */
const uneven = 0.5;
/** Share of the picture from which a pattern is too large. */
export const mostPattern = 0.25;

/** Places along a line at which light turns to dark or back, by a change that counts. */
function turnsOf(values: Float32Array): number[] {
  const turns: number[] = [];
  let [low, high, lowAt, highAt] = [values[0], values[0], 0, 0];
  let way = 0;
  for (let k = 1; k < values.length; k++) {
    const v = values[k];
    if (v < low) [low, lowAt] = [v, k];
    if (v > high) [high, highAt] = [v, k];
    const rises = way <= 0 && v - low >= change && low < darkerBelow;
    const falls = way >= 0 && high - v >= change && v < darkerBelow;
    if (!rises && !falls) continue;
    turns.push(rises ? lowAt : highAt);
    way = rises ? 1 : -1;
    [low, high, lowAt, highAt] = [v, v, k, k];
  }
  if (way !== 0) turns.push(way > 0 ? highAt : lowAt);
  return turns;
}

/** Marks the stretches of a line that are crossed by bars at even distances. */
function markEven(turns: readonly number[], mark: (place: number) => void): void {
  let from = 0;
  for (let to = 1; to <= turns.length; to++) {
    const mean = (turns[to - 1] - turns[from]) / Math.max(1, to - 1 - from);
    const width = to < turns.length ? turns[to] - turns[to - 1] : NaN;
    const goesOn = to - 1 === from || Math.abs(width - mean) <= Math.max(1, uneven * mean);
    if (to < turns.length && goesOn) continue;
    if (to - 1 - from >= leastBars)
      for (let place = turns[from]; place <= turns[to - 1]; place++) mark(place);
    from = to - 1;
  }
}

/** Share of a picture, 0..1, that is covered by bars at even distances, in whichever way they lie. `rgba`: bytes (sRGB), row by row. */
export function patternShare(rgba: ArrayLike<number>, width: number, height: number): number {
  const light = new Float32Array(width * height);
  for (let k = 0; k < light.length; k++)
    light[k] =
      0.2126 * linear[rgba[4 * k]] + 0.7152 * linear[rgba[4 * k + 1]] + 0.0722 * linear[rgba[4 * k + 2]];
  const marked = new Uint8Array(light.length);
  const follow = (start: number, step: number, count: number): void => {
    if (count <= leastBars) return;
    const values = Float32Array.from({ length: count }, (_, k) => light[start + k * step]);
    markEven(turnsOf(values), (place) => void (marked[start + place * step] = 1));
  };
  for (let y = 0; y < height; y++) follow(y * width, 1, width);
  for (let x = 0; x < width; x++) follow(x, width, height);
  return marked.reduce((sum, one) => sum + one, 0) / marked.length;
}
