/** Lets nothing shine through: pages show pictures on black, as the stage does. Changes the pixels (red, green, blue, alpha). */
export function makeOpaque(pixels: Uint8ClampedArray): void {
  for (let k = 3; k < pixels.length; k += 4) pixels[k] = 255;
}
