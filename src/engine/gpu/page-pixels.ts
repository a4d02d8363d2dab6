/** The whole of a picture, upside down: the GPU counts rows from below, pictures on the page from above. */
export const upsideDown: readonly number[] = [0, 1, 1, -1];

/** Lets nothing shine through: pages show pictures on black, as the stage does. Changes the pixels (red, green, blue, alpha). */
export function makeOpaque(pixels: Uint8ClampedArray): void {
  for (let k = 3; k < pixels.length; k += 4) pixels[k] = 255;
}
