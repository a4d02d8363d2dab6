import type { PixelString } from '../../document/types';

/** Orders in which nodes expect the channels of a pixel. */
export const pixelOrders: readonly PixelString['order'][] = [
  'RGB',
  'RBG',
  'GRB',
  'GBR',
  'BRG',
  'BGR',
  'RGBW',
  'GRBW',
  'WRGB',
];

/** Channels of DMX512 in a universe. */
export const universeChannels = 512;

/** Where the pixels of a string lie on the canvas: x and y for each, pixels from its top left. */
export function pixelPlaces({ layout, points, closed, reversed, pixels }: PixelString): Float32Array {
  let places: Float32Array;
  if (layout === 'points') places = new Float32Array(points.flat());
  else {
    const line = closed ? [...points, points[0]] : points;
    const lengths = line.slice(1).map(([x, y], k) => Math.hypot(x - line[k][0], y - line[k][1]));
    const whole = lengths.reduce((sum, length) => sum + length, 0);
    places = new Float32Array(2 * pixels);
    let leg = 0;
    let before = 0;
    for (let k = 0; k < pixels; k++) {
      // Each stands in the middle of its share of the line.
      const at = ((k + 0.5) / pixels) * whole;
      while (leg < lengths.length - 1 && before + lengths[leg] < at) before += lengths[leg++];
      const t = lengths[leg] > 0 ? (at - before) / lengths[leg] : 0;
      const [[x, y], [nx, ny]] = [line[leg], line[leg + 1] ?? line[leg]];
      places.set([x + t * (nx - x), y + t * (ny - y)], 2 * k);
    }
  }
  if (!reversed) return places;
  const back = new Float32Array(places.length);
  for (let k = 0; k < places.length; k += 2) back.set(places.subarray(k, k + 2), places.length - 2 - k);
  return back;
}

export const pixelCount = ({ layout, points, pixels }: PixelString): number =>
  layout === 'points' ? points.length : pixels;

/** Bytes of one pixel. */
export const bytesOfPixel = ({ order, bits }: Pick<PixelString, 'order' | 'bits'>): number =>
  order.length * (bits / 8);

/** A run of pixels in one universe: the first byte of the string's data, how many, and the channel (from 1) where they begin. */
export interface Patch {
  universe: number;
  channel: number;
  from: number;
  bytes: number;
}

/** The universes of a string. A pixel never lies across two. */
export function patchOf(string: PixelString): Patch[] {
  const each = bytesOfPixel(string);
  const patches: Patch[] = [];
  let left = pixelCount(string) * each;
  let from = 0;
  let { universe, channel } = string.send;
  while (left > 0) {
    const room = Math.floor((universeChannels - channel + 1) / each) * each;
    const bytes = Math.min(left, room);
    if (bytes > 0) patches.push({ universe, channel, from, bytes });
    from += bytes;
    left -= bytes;
    universe++;
    channel = 1;
  }
  return patches;
}

/**
 * Colours of pixels (red, green, blue and alpha, 0..1 as they are shown) as the bytes that nodes expect: in the order of their
 * channels, through gamma, no brighter than the limits allow. White of RGBW is what red, green and blue have in common.
 * Gives the amperes that the string is estimated to draw.
 */
export function packPixels(string: PixelString, rgba: Float32Array, into: Uint8Array): number {
  const { order, bits, gamma, brightness, milliamperes, mostAmperes } = string;
  const count = pixelCount(string);
  const letters = [...order];
  const channels = letters.length;
  const values = new Float32Array(channels);
  const level = (value: number): number => Math.min(1, Math.max(0, value)) ** gamma * brightness;
  const colour = (k: number): void => {
    const [r, g, b] = [level(rgba[4 * k]), level(rgba[4 * k + 1]), level(rgba[4 * k + 2])];
    const white = channels === 4 ? Math.min(r, g, b) : 0;
    letters.forEach((letter, c) => {
      values[c] =
        letter === 'R' ? r - white : letter === 'G' ? g - white : letter === 'B' ? b - white : white;
    });
  };
  let sum = 0;
  for (let k = 0; k < count; k++) {
    colour(k);
    for (let c = 0; c < channels; c++) sum += values[c];
  }
  const amperes = (sum * milliamperes) / 1000;
  const held = mostAmperes > 0 && amperes > mostAmperes ? mostAmperes / amperes : 1;
  let at = 0;
  for (let k = 0; k < count; k++) {
    colour(k);
    for (let c = 0; c < channels; c++) {
      const value = values[c] * held;
      if (bits === 8) into[at++] = Math.round(value * 255);
      else {
        const wide = Math.round(value * 65535);
        into[at++] = wide >> 8;
        into[at++] = wide & 0xff;
      }
    }
  }
  return amperes * held;
}
