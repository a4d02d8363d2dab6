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

/** Light of a value, 0..1, of sRGB (IEC 61966-2-1). */
export const linearOf = (v: number): number =>
  v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
const shownOf = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055);

/** A colour of a display (sRGB, 0..1) in OKLab (B. Ottosson, 2020), where equal steps look equal. */
export function toOklab(rgb: readonly number[]): [number, number, number] {
  const [r, g, b] = [linearOf(rgb[0]), linearOf(rgb[1]), linearOf(rgb[2])];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** The way back; what a display cannot show is held at 0 and 1. */
export function fromOklab([lightness, a, b]: readonly [number, number, number]): [number, number, number] {
  const l = Math.pow(lightness + 0.3963377774 * a + 0.2158037573 * b, 3);
  const m = Math.pow(lightness - 0.1055613458 * a - 0.0638541728 * b, 3);
  const s = Math.pow(lightness - 0.0894841775 * a - 1.291485548 * b, 3);
  const light = [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
  return light.map((v) => Math.min(1, Math.max(0, shownOf(Math.max(0, v))))) as [number, number, number];
}
