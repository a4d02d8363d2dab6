import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { HDRLoader } from 'three/examples/jsm/loaders/HDRLoader.js';

/** A picture of light above 1: red, green, blue and alpha of each pixel, the lowest row first. */
export interface LightPixels {
  width: number;
  height: number;
  rgba: Float32Array<ArrayBuffer>;
}

/** Decodes an OpenEXR or Radiance file. Throws what the decoder throws. */
export function lightPixels(bytes: ArrayBuffer, form: 'exr' | 'hdr'): LightPixels {
  const loader = form === 'exr' ? new EXRLoader() : new HDRLoader();
  loader.setDataType(FloatType);
  const { width, height, data } = loader.parse(bytes) as {
    width: number;
    height: number;
    data: Float32Array;
  };
  const rgba = new Float32Array(width * height * 4);
  const channels = data.length / (width * height);
  for (let y = 0; y < height; y++) {
    // The two readers count rows from opposite ends.
    const from = form === 'hdr' ? height - 1 - y : y;
    for (let x = 0; x < width; x++) {
      const at = 4 * (y * width + x);
      const source = channels * (from * width + x);
      for (let c = 0; c < 3; c++) rgba[at + c] = data[source + (channels >= 3 ? c : 0)];
      rgba[at + 3] = channels === 4 && form === 'exr' ? data[source + 3] : 1;
    }
  }
  return { width, height, rgba };
}
