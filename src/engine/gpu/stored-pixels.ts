import { DataTexture, RGBAFormat, type WebGLRenderTarget } from 'three';
import { bitTypes, type Bits, type Gpu } from './gpu';

/** The pixels of a target as they are stored: bytes, half floats or floats by its bits; the lowest row first. */
export interface StoredPixels {
  width: number;
  height: number;
  bits: Bits;
  pixels: Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer> | Float32Array<ArrayBuffer>;
}

/** Arrays in which pixels of so many bits a channel are read. */
export const storedArrays = { '8': Uint8Array, '16': Uint16Array, '32': Float32Array } as const;

/** The pixels of a target, once the GPU is done. */
export async function readStored(gpu: Gpu, target: WebGLRenderTarget): Promise<StoredPixels> {
  const { width, height } = target;
  const { bits } = target.texture.userData as { bits: Bits };
  const pixels = new storedArrays[bits](4 * width * height);
  await gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, pixels);
  return { width, height, bits, pixels };
}

/** Puts pixels into a target, whatever its bits and size are. */
export function writeStored(
  gpu: Gpu,
  { width, height, bits, pixels }: StoredPixels,
  target: WebGLRenderTarget,
): void {
  const texture = new DataTexture(pixels, width, height, RGBAFormat, bitTypes[bits]);
  texture.needsUpdate = true;
  gpu.copy(texture, target);
  texture.dispose();
}
