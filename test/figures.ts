import { PNG } from 'pngjs';

export interface PictureFigures {
  /** Mean brightness, 0..255. */
  mean: number;
  /** Mean of each channel, 0..255. */
  red: number;
  green: number;
  blue: number;
  /** Share of pixels brighter than a dark grey. */
  lit: number;
}

/** Sum of the three channels from which on a pixel is lit. */
const litFrom = 73;

/** Figures of a PNG, as base64. */
export function figuresOf(png: string): PictureFigures {
  const { data } = PNG.sync.read(Buffer.from(png, 'base64'));
  const sums = [0, 0, 0];
  let lit = 0;
  for (let k = 0; k < data.length; k += 4) {
    for (const c of [0, 1, 2]) sums[c] += data[k + c];
    if (data[k] + data[k + 1] + data[k + 2] >= litFrom) lit++;
  }
  const pixels = data.length / 4;
  const [red, green, blue] = sums.map((sum) => sum / pixels);
  return { red, green, blue, mean: (red + green + blue) / 3, lit: lit / pixels };
}
