/** Steps of a second in which it is looked for. */
const steps = 10;

/** When the loudest second of a sound begins, in seconds to a tenth: that with the most power. A sound of less than a second begins at 0. */
export function loudestSecond(samples: Float32Array, rate: number): number {
  const part = Math.max(1, Math.round(rate / steps));
  const powers: number[] = [];
  for (let from = 0; from < samples.length; from += part) {
    let power = 0;
    for (const v of samples.subarray(from, from + part)) power += v * v;
    powers.push(power);
  }
  let [most, at, sum] = [-1, 0, 0];
  powers.forEach((power, k) => {
    sum += power - (powers[k - steps] ?? 0);
    // Rounding of a running sum must not move it from one silence to another.
    if (k >= steps - 1 && sum > most * (1 + 1e-9)) [most, at] = [sum, k - steps + 1];
  });
  return at / steps;
}

/**
 * When the loudest second of a sound that goes round comes next, not before a time; null: it lies wholly within what was looked at, from `from`
 * to `to` seconds.
 */
export function nextLoudest(
  loudest: number,
  length: number,
  { from, to }: { from: number; to: number },
  notBefore: number,
): number | null {
  const first = loudest + Math.ceil((from - loudest) / length) * length;
  if (first >= from && first + 1 <= to) return null;
  return loudest + Math.max(0, Math.ceil((notBefore - loudest) / length)) * length;
}
