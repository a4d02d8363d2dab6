import type { AnimationFormat, ImagesFormat } from '../../core/export/spec';
import { indexed } from './animation';
import { exrOf } from './exr';
import { pngOf } from './png';

/** A frame as it came off the GPU: red, green, blue and alpha of each pixel, rows from above. */
export interface GrabbedImage {
  width: number;
  height: number;
  format: ImagesFormat | AnimationFormat;
  pixels: Uint8Array<ArrayBuffer> | Float32Array<ArrayBuffer>;
  /** Frames a second of the sequence it is one of. */
  fps: number;
  /** Distance of each pixel, where that is wanted. */
  depth: Float32Array<ArrayBuffer> | null;
}

/** How good images are that lose something. */
const lossyQuality = 0.94;

/** Numbers 0..1 as whole numbers of 16 bits, the high byte first. */
export function sixteenBits(rgba: Float32Array, channels: 3 | 4): Uint8Array {
  const out = new Uint8Array((rgba.length / 4) * channels * 2);
  let at = 0;
  for (let k = 0; k < rgba.length; k += 4)
    for (let c = 0; c < channels; c++, at += 2) {
      const value = Math.round(Math.min(1, Math.max(0, rgba[k + c])) * 65535);
      out[at] = value >> 8;
      out[at + 1] = value & 255;
    }
  return out;
}

function plane(rgba: Float32Array, channel: number): Float32Array {
  const out = new Float32Array(rgba.length / 4);
  for (let k = 0; k < out.length; k++) out[k] = rgba[4 * k + channel];
  return out;
}

async function byBrowser(
  { width, height }: GrabbedImage,
  rgba: Uint8Array<ArrayBuffer>,
  type: 'image/png' | 'image/jpeg' | 'image/webp',
): Promise<Uint8Array<ArrayBuffer>> {
  const canvas = new OffscreenCanvas(width, height);
  const isOpaque = type === 'image/png' || type === 'image/jpeg';
  const pixels = new ImageData(new Uint8ClampedArray(rgba.buffer), width, height);
  canvas.getContext('2d', { alpha: !isOpaque })!.putImageData(pixels, 0, 0);
  const blob = await canvas.convertToBlob({ type, quality: lossyQuality });
  return new Uint8Array(await blob.arrayBuffer());
}

/** A frame as the file that is wanted of it. */
export async function encodeImage(image: GrabbedImage): Promise<Uint8Array<ArrayBuffer>> {
  const { width, height, format, fps, pixels, depth } = image;
  const name = format.image;
  const alpha = format.type === 'images' && format.alpha;
  const channels = alpha ? 4 : 3;
  if (name === 'exr16' || name === 'exr32') {
    const rgba = pixels as Float32Array;
    const planes: Record<string, Float32Array> = { R: plane(rgba, 0), G: plane(rgba, 1), B: plane(rgba, 2) };
    if (alpha) planes.A = plane(rgba, 3);
    if (depth) planes.Z = depth;
    return exrOf({ width, height, bits: name === 'exr16' ? 16 : 32, fps }, planes);
  }
  if (name === 'png16')
    return pngOf({ width, height, bits: 16, channels }, sixteenBits(pixels as Float32Array, channels));
  const bytes = pixels as Uint8Array<ArrayBuffer>;
  // Browsers are quicker at it than we are, but give see-through colours back rounded.
  if (name === 'png')
    return alpha ? pngOf({ width, height, bits: 8, channels }, bytes) : byBrowser(image, bytes, 'image/png');
  if (name === 'gif') return indexed(bytes);
  return byBrowser(image, bytes, name === 'jpeg' ? 'image/jpeg' : 'image/webp');
}
