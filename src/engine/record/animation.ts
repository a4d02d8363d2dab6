import * as gifenc from 'gifenc';
import { joined } from './png';

// Bundlers take the module of this package, and Node what it has as a default.
const { GIFEncoder, applyPalette, quantize } =
  'GIFEncoder' in gifenc ? gifenc : (gifenc as { default: typeof gifenc }).default;

/** Writes parts of a RIFF file: a name, a length, and a byte more where that is odd. */
function riff(name: string, ...parts: readonly Uint8Array[]): Uint8Array {
  const body = joined(parts);
  const out = new Uint8Array(8 + body.length + (body.length & 1));
  for (let k = 0; k < 4; k++) out[k] = name.charCodeAt(k);
  new DataView(out.buffer).setUint32(4, body.length, true);
  out.set(body, 8);
  return out;
}

const three = (value: number): number[] => [value & 255, (value >> 8) & 255, (value >> 16) & 255];

/** The picture of a still WebP, with its alpha, without what stands around them. */
function pictureOf(webp: Uint8Array): Uint8Array {
  const view = new DataView(webp.buffer, webp.byteOffset, webp.byteLength);
  const found: Uint8Array[] = [];
  for (let at = 12; at + 8 <= webp.length;) {
    const name = String.fromCharCode(...webp.subarray(at, at + 4));
    const length = view.getUint32(at + 4, true);
    const end = at + 8 + length + (length & 1);
    if (name === 'ALPH' || name === 'VP8 ' || name === 'VP8L') found.push(webp.subarray(at, end));
    at = end;
  }
  return joined(found);
}

/** Still WebPs as one that moves for ever (WebP container specification). Durations are kept to the millisecond over all. */
export function animatedWebp(
  { width, height, fps }: { width: number; height: number; fps: number },
  stills: readonly Uint8Array[],
): Uint8Array<ArrayBuffer> {
  const alpha = 0x10;
  const moves = 0x02;
  const head = riff('VP8X', Uint8Array.of(alpha | moves, 0, 0, 0, ...three(width - 1), ...three(height - 1)));
  const colours = riff('ANIM', Uint8Array.of(0, 0, 0, 0, 0, 0));
  const frames = stills.map((still, k) => {
    const ms = Math.round(((k + 1) * 1000) / fps) - Math.round((k * 1000) / fps);
    // Drawn in place of the one before, and not over it.
    const how = 0x02;
    const place = [...three(0), ...three(0), ...three(width - 1), ...three(height - 1), ...three(ms), how];
    return riff('ANMF', Uint8Array.from(place), pictureOf(still));
  });
  return riff('RIFF', new TextEncoder().encode('WEBP'), head, colours, ...frames) as Uint8Array<ArrayBuffer>;
}

const colours = 256;

/** A picture in as few colours as a GIF has: their number, the colours, and the number of one for each pixel. */
export function indexed(rgba: Uint8Array): Uint8Array<ArrayBuffer> {
  const palette = quantize(rgba, colours);
  return joined([
    Uint8Array.of(palette.length - 1),
    Uint8Array.from(palette.flatMap(([r, g, b]) => [r, g, b])),
    applyPalette(rgba, palette),
  ]);
}

/** Such pictures as a GIF that moves for ever. Its times are hundredths of a second: they are kept over all. */
export function animatedGif(
  { width, height, fps }: { width: number; height: number; fps: number },
  pictures: readonly Uint8Array[],
): Uint8Array<ArrayBuffer> {
  const gif = GIFEncoder();
  pictures.forEach((picture, k) => {
    const count = picture[0] + 1;
    const palette = Array.from({ length: count }, (_, c) => [...picture.subarray(1 + 3 * c, 4 + 3 * c)]);
    const hundredths = Math.round(((k + 1) * 100) / fps) - Math.round((k * 100) / fps);
    gif.writeFrame(picture.subarray(1 + 3 * count), width, height, { palette, delay: hundredths * 10 });
  });
  gif.finish();
  return gif.bytes() as Uint8Array<ArrayBuffer>;
}
