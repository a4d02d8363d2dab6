import {
  ClampToEdgeWrapping,
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  NearestFilter,
  RGBAFormat,
  FloatType,
  Texture,
} from 'three';
import { CubeError, cubePixels, parseCube } from '../../core/image/cube';
import { exrHead } from '../../core/image/exr-header';
import { pictureForms, sniff } from '../../core/image/sniff';
import type { LightPixels } from './light-pixels';
import type { LightAnswer, LightRequest } from './light-worker';

/** The longest side a picture may have. */
export const longestSide = 8192;

/** A file that cannot be used; its message says what it is and what to do. */
export class MediaError extends Error {
  override name = 'MediaError';
}

/** Draws an SVG at a size, which only a page can do. */
export type DrawVector = (file: Blob, height: number) => Promise<ImageBitmap>;

function checkSide(width: number, height: number): void {
  if (width < 1 || height < 1) throw new MediaError('The picture has no pixels.');
  if (width > longestSide || height > longestSide)
    throw new MediaError(
      `The picture is ${width} x ${height} pixels, and at most ${longestSide} fit on a side. Make it smaller.`,
    );
}

export function bitmapTexture(bitmap: ImageBitmap): Texture {
  const texture = new Texture(bitmap);
  texture.flipY = false;
  texture.generateMipmaps = true;
  texture.minFilter = LinearMipmapLinearFilter;
  texture.magFilter = LinearFilter;
  texture.wrapS = texture.wrapT = ClampToEdgeWrapping;
  texture.needsUpdate = true;
  return texture;
}

/** How bitmaps have to come: lowest row first and premultiplied, as all pictures of the engine. */
const bitmapOptions: ImageBitmapOptions = {
  imageOrientation: 'flipY',
  premultiplyAlpha: 'premultiply',
};

/** Seconds after which a file that is still being decoded counts as damaged. */
const longestDecoding = 30;

/** A worker that has nothing to do: the frames of a sequence come one after the other. */
let idle: Worker | null = null;

/** Decodes a file of light in a worker, which is stopped when it does not come to an end. */
function decodeLight(request: LightRequest): Promise<LightPixels> {
  const worker = idle ?? new Worker(new URL('./light-worker.ts', import.meta.url), { type: 'module' });
  idle = null;
  return new Promise<LightPixels>((resolve, reject) => {
    const limit = setTimeout(() => {
      worker.terminate();
      reject(new Error('It never ended.'));
    }, longestDecoding * 1000);
    const end = (): void => {
      clearTimeout(limit);
      if (idle) worker.terminate();
      else idle = worker;
    };
    worker.onerror = (event) => {
      clearTimeout(limit);
      worker.terminate();
      reject(new Error(event.message));
    };
    worker.onmessage = ({ data }: MessageEvent<LightAnswer>) => {
      end();
      if ('error' in data) reject(new Error(data.error));
      else resolve(data);
    };
    worker.postMessage(request, [request.bytes]);
  });
}

async function readLight(blob: Blob, form: 'exr' | 'hdr'): Promise<Texture> {
  const bytes = await blob.arrayBuffer();
  if (form === 'exr') {
    const head = exrHead(new Uint8Array(bytes));
    if (!head) throw new Error('The header is cut off.');
    checkSide(head.width, head.height);
  }
  const { width, height, rgba } = await decodeLight({ bytes, form });
  checkSide(width, height);
  const texture = new DataTexture(rgba, width, height, RGBAFormat, FloatType);
  texture.minFilter = texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** Decodes a picture file. `vectorHeight`: pixels an SVG is drawn at. Throws MediaError. */
export async function readPicture(
  blob: Blob,
  drawVector: DrawVector,
  vectorHeight: number,
): Promise<{ texture: Texture; isVector: boolean }> {
  const form = sniff(new Uint8Array(await blob.slice(0, 4096).arrayBuffer()));
  if (!pictureForms.has(form)) {
    throw new MediaError(
      form === 'unknown'
        ? 'This is no picture that can be read here. Use PNG, JPEG, WebP, AVIF, SVG, EXR or HDR.'
        : `This is a ${form.toUpperCase()} file and no picture. Use PNG, JPEG, WebP, AVIF, SVG, EXR or HDR.`,
    );
  }
  try {
    if (form === 'exr' || form === 'hdr') return { texture: await readLight(blob, form), isVector: false };
    if (form === 'svg') {
      const bitmap = await drawVector(blob, vectorHeight);
      checkSide(bitmap.width, bitmap.height);
      return { texture: bitmapTexture(bitmap), isVector: true };
    }
    const bitmap = await createImageBitmap(blob, bitmapOptions);
    checkSide(bitmap.width, bitmap.height);
    return { texture: bitmapTexture(bitmap), isVector: false };
  } catch (error) {
    if (error instanceof MediaError) throw error;
    throw new MediaError(
      `This ${form.toUpperCase()} file is damaged or of a form that cannot be read here. Export it again, or save it as PNG.`,
    );
  }
}

/** Reads a .cube table into a texture: see `cubePixels`. Throws MediaError. */
export async function readLook(blob: Blob): Promise<Texture> {
  const form = sniff(new Uint8Array(await blob.slice(0, 4096).arrayBuffer()));
  if (form !== 'cube' && form !== 'unknown')
    throw new MediaError(`This is a ${form.toUpperCase()} file and no look. Use a .cube table.`);
  try {
    const { width, height, rgba } = cubePixels(parseCube(await blob.text()));
    const texture = new DataTexture(rgba, width, height, RGBAFormat, FloatType);
    texture.minFilter = texture.magFilter = NearestFilter;
    texture.needsUpdate = true;
    return texture;
  } catch (error) {
    throw new MediaError(error instanceof CubeError ? error.message : String(error));
  }
}
