import { toOklab } from '../colour';
import type { Rgba, Stop } from '../document/types';

interface Box {
  /** Places of pixels, in OKLab, with the number of each pixel. */
  pixels: { at: [number, number, number]; rgb: [number, number, number] }[];
}

/** How far apart colours lie at least, in OKLab, to count as two. */
const leastApart = 0.03;

/** Most pixels that are looked at: more of them change nothing that is seen. */
const mostPixels = 8192;

function spread({ pixels }: Box): { axis: number; length: number } {
  let best = { axis: 0, length: -1 };
  for (let axis = 0; axis < 3; axis++) {
    let [low, high] = [Infinity, -Infinity];
    for (const { at } of pixels) {
      low = Math.min(low, at[axis]);
      high = Math.max(high, at[axis]);
    }
    if (high - low > best.length) best = { axis, length: high - low };
  }
  return best;
}

/**
 * The colours of a picture, from dark to light: its pixels parted where they differ most until there are `count` parts (median cut,
 * P. Heckbert, 1982, in OKLab), the mean of each. `rgba`: bytes, four a pixel; what is more than half transparent does not count.
 * Fewer than `count` come from a picture that has fewer.
 */
export function coloursOf(rgba: Uint8ClampedArray, count: number): Rgba[] {
  const step = Math.max(1, Math.floor(rgba.length / 4 / mostPixels));
  const all: Box = { pixels: [] };
  for (let k = 0; k < rgba.length; k += 4 * step) {
    if (rgba[k + 3] < 128) continue;
    const rgb: [number, number, number] = [rgba[k] / 255, rgba[k + 1] / 255, rgba[k + 2] / 255];
    all.pixels.push({ at: toOklab(rgb), rgb });
  }
  if (!all.pixels.length) return [];
  const boxes = [all];
  while (boxes.length < count) {
    const spreads = boxes.map((box) => ({ box, ...spread(box) }));
    const widest = spreads.reduce((a, b) =>
      b.length * Math.sqrt(b.box.pixels.length) > a.length * Math.sqrt(a.box.pixels.length) ? b : a,
    );
    if (widest.length < leastApart) break;
    const { axis } = widest;
    const sorted = widest.box.pixels.sort((a, b) => a.at[axis] - b.at[axis]);
    // Alike pixels stay together: a picture of two colours gives two.
    let cut = Math.floor(sorted.length / 2);
    while (cut < sorted.length && sorted[cut].at[axis] === sorted[cut - 1]?.at[axis]) cut++;
    if (cut >= sorted.length) {
      cut = Math.floor(sorted.length / 2);
      while (cut > 0 && sorted[cut].at[axis] === sorted[cut - 1]?.at[axis]) cut--;
    }
    if (cut === 0) cut = 1;
    boxes.splice(
      boxes.indexOf(widest.box),
      1,
      { pixels: sorted.slice(0, cut) },
      { pixels: sorted.slice(cut) },
    );
  }
  return boxes
    .filter(({ pixels }) => pixels.length > 0)
    .map(({ pixels }) => {
      const mean = [0, 1, 2].map((c) => pixels.reduce((sum, { rgb }) => sum + rgb[c], 0) / pixels.length);
      return { light: toOklab(mean)[0], colour: [...mean.map((v) => Number(v.toFixed(4))), 1] as Rgba };
    })
    .sort((a, b) => a.light - b.light)
    .map(({ colour }) => colour);
}

/** A gradient through the colours of a picture, from dark to light, evenly. Two stops at least; null where it has no colours. */
export function gradientFrom(rgba: Uint8ClampedArray, count: number): Stop[] | null {
  const colours = coloursOf(rgba, count);
  if (!colours.length) return null;
  if (colours.length === 1) colours.push([...colours[0]]);
  return colours.map((colour, k) => ({ at: Number((k / (colours.length - 1)).toFixed(3)), colour }));
}
