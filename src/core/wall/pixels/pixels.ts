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

/** The gamma of a string put to what is shown: light, 0..1. Alpha stays. */
export function lightOf({ gamma }: Pick<PixelString, 'gamma'>, rgba: Float32Array): Float32Array {
  return rgba.map((value, k) => (k % 4 === 3 ? value : Math.min(1, Math.max(0, value)) ** gamma));
}

/**
 * Light of pixels (red, green, blue and alpha, 0..1) as the bytes that nodes expect: in the order of their channels, no brighter than the
 * limits allow. White of RGBW is what red, green and blue have in common. Gives the amperes that the string is estimated to draw.
 */
export function packPixels(string: PixelString, light: Float32Array, into: Uint8Array): number {
  const { order, bits, brightness, milliamperes, mostAmperes } = string;
  const count = pixelCount(string);
  const hasWhite = order.length === 4;
  let sum = 0;
  for (let k = 0; k < 4 * count; k += 4) sum += light[k] + light[k + 1] + light[k + 2];
  // What red, green and blue have in common goes through one channel instead of three.
  if (hasWhite)
    for (let k = 0; k < 4 * count; k += 4) sum -= 2 * Math.min(light[k], light[k + 1], light[k + 2]);
  const amperes = (sum * brightness * milliamperes) / 1000;
  const held = mostAmperes > 0 && amperes > mostAmperes ? mostAmperes / amperes : 1;
  const full = (bits === 8 ? 255 : 65535) * brightness * held;
  const red = order.indexOf('R');
  const green = order.indexOf('G');
  const blue = order.indexOf('B');
  const white = order.indexOf('W');
  const channels = order.length;
  // Plain loops over numbers: a hundred thousand pixels have to fit into a small part of a frame.
  if (bits === 8) {
    for (let k = 0, at = 0; k < 4 * count; k += 4, at += channels) {
      const common = hasWhite ? Math.min(light[k], light[k + 1], light[k + 2]) : 0;
      into[at + red] = (light[k] - common) * full + 0.5;
      into[at + green] = (light[k + 1] - common) * full + 0.5;
      into[at + blue] = (light[k + 2] - common) * full + 0.5;
      if (hasWhite) into[at + white] = common * full + 0.5;
    }
    return amperes * held;
  }
  const view = new DataView(into.buffer, into.byteOffset, into.byteLength);
  for (let k = 0, at = 0; k < 4 * count; k += 4, at += 2 * channels) {
    const common = hasWhite ? Math.min(light[k], light[k + 1], light[k + 2]) : 0;
    view.setUint16(at + 2 * red, (light[k] - common) * full + 0.5);
    view.setUint16(at + 2 * green, (light[k + 1] - common) * full + 0.5);
    view.setUint16(at + 2 * blue, (light[k + 2] - common) * full + 0.5);
    if (hasWhite) view.setUint16(at + 2 * white, common * full + 0.5);
  }
  return amperes * held;
}
