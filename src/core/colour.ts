import type { Rgba, Stop } from './document/types';

/** `#rrggbb` of a colour, alpha left out. */
export function toHex(colour: readonly number[]): string {
  const part = (v: number): string =>
    Math.round(Math.min(1, Math.max(0, v)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${part(colour[0])}${part(colour[1])}${part(colour[2])}`;
}

/** Colour of `#rgb` or `#rrggbb` (the # may be missing); null if it is neither. */
export function fromHex(text: string): [number, number, number] | null {
  const match = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(text.trim());
  if (!match) return null;
  const digits = match[1].length === 3 ? [...match[1]].map((d) => d + d).join('') : match[1];
  const at = (k: number): number => parseInt(digits.slice(k, k + 2), 16) / 255;
  return [at(0), at(2), at(4)];
}

/** Colour of a gradient at t, straight between stops, held beyond the ends. Stops may stand in any order. */
export function gradientAt(stops: readonly Stop[], t: number): Rgba {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  if (sorted.length === 0) return [0, 0, 0, 0];
  if (t <= sorted[0].at) return [...sorted[0].colour];
  for (let k = 1; k < sorted.length; k++) {
    const low = sorted[k - 1];
    const high = sorted[k];
    if (t <= high.at) {
      const share = high.at === low.at ? 1 : (t - low.at) / (high.at - low.at);
      return low.colour.map((v, c) => v + (high.colour[c] - v) * share) as Rgba;
    }
  }
  return [...sorted[sorted.length - 1].colour];
}
