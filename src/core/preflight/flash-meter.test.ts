import { describe, expect, test } from '@jest/globals';
import { flashGrid, FlashMeter } from './flash-meter';

const { width, height } = flashGrid;
type Colour = readonly [number, number, number];
const black: Colour = [0, 0, 0];
const white: Colour = [255, 255, 255];

/** A picture of one colour with a part of another, from the upper left, so wide and high as shares. */
function picture(ground: Colour, part: Colour = ground, wide = 1, high = 1): Uint8Array {
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      rgba.set([...(x < wide * width && y < high * height ? part : ground), 255], 4 * (y * width + x));
  return rgba;
}

/** The most changes in a second, and whether it failed, over two seconds of a picture at 60 frames a second. */
function over(at: (seconds: number) => Uint8Array): { general: number; red: number; fails: boolean } {
  const meter = new FlashMeter();
  const most = { general: 0, red: 0, fails: false };
  for (let frame = 0; frame < 120; frame++) {
    const { general, red, fails } = meter.add(at(frame / 60), frame / 60);
    most.general = Math.max(most.general, general);
    most.red = Math.max(most.red, red);
    most.fails ||= fails;
  }
  return most;
}

/** On for the first half of each period. */
const square =
  (hertz: number, on: Uint8Array, off: Uint8Array) =>
  (seconds: number): Uint8Array =>
    (seconds * hertz) % 1 < 0.5 ? on : off;

describe('general flashes', () => {
  test('three in a second pass, four fail', () => {
    expect(over(square(3, picture(white), picture(black)))).toMatchObject({ general: 6, fails: false });
    expect(over(square(4, picture(white), picture(black)))).toMatchObject({ general: 8, fails: true });
  });
  test('a change below a tenth of the light does not count, nor does one between two bright pictures', () => {
    // Relative luminance 0.214 and 0.292, then 0.214 and 0.323.
    expect(over(square(8, picture([127, 127, 127]), picture([147, 147, 147]))).general).toBe(0);
    expect(over(square(8, picture([127, 127, 127]), picture([154, 154, 154]))).fails).toBe(true);
    expect(over(square(8, picture([255, 255, 255]), picture([232, 232, 232]))).general).toBe(0);
  });
  test('an area of less than a quarter of a field passes, one of more fails', () => {
    const flash = (wide: number, high: number): boolean =>
      over(square(8, picture(black, white, wide, high), picture(black))).fails;
    // A third of width and height is a field; a quarter of that is half of each.
    expect(flash(0.13, 0.14)).toBe(false);
    expect(flash(0.21, 0.23)).toBe(true);
  });
  test('what fades over a few frames is one flash, and what turns slowly is none', () => {
    const wave =
      (hertz: number) =>
      (seconds: number): Uint8Array => {
        const v = Math.round(127.5 + 127.5 * Math.sin(2 * Math.PI * hertz * seconds));
        return picture([v, v, v]);
      };
    expect(over(wave(2)).fails).toBe(false);
    expect(over(wave(6)).fails).toBe(true);
    expect(over(() => picture(white)).general).toBe(0);
  });
  test('opposite halves that change places flash together', () =>
    expect(over(square(8, picture(black, white, 0.5), picture(white, black, 0.5))).fails).toBe(true));
});

describe('red flashes', () => {
  const red: Colour = [255, 0, 0];
  // Dark enough that no general flash is in it: 0.0722 of light.
  const blue: Colour = [0, 0, 255];
  const dim: Colour = [150, 0, 0];
  test('a saturated red counts where no change of light does', () => {
    const seen = over(square(4, picture(dim), picture(black)));
    expect(seen).toMatchObject({ general: 0, fails: true });
    expect(seen.red).toBeGreaterThan(6);
    expect(over(square(3, picture(dim), picture(black))).fails).toBe(false);
  });
  test('a red that is not saturated, and other colours, do not', () => {
    expect(over(square(8, picture([150, 110, 110]), picture([140, 120, 120]))).red).toBe(0);
    expect(over(square(8, picture(blue), picture(black))).red).toBe(0);
  });
  test('a red that fades over many frames counts', () => {
    const fading = (seconds: number): Uint8Array =>
      picture([Math.round(75 + 75 * Math.cos(2 * Math.PI * 4 * seconds)), 0, 0]);
    expect(over(fading)).toMatchObject({ general: 0, fails: true });
  });
  test('red against another colour counts', () =>
    expect(over(square(4, picture(red), picture(blue))).red).toBeGreaterThan(6));
});

test('a frame of another size is refused', () =>
  expect(() => new FlashMeter().add(new Uint8Array(4), 0)).toThrow('48 x 27'));
