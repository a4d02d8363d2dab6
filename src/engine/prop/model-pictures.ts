import {
  DataArrayTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  RepeatWrapping,
  WebGLArrayRenderTarget,
  type Texture,
} from 'three';
import type { Gpu } from '../gpu/gpu';

/** A picture from a file: there, failed, or (neither) on its way. */
export interface FilePicture {
  texture: Texture | null;
  error: string | null;
}

/** Pixels that the pictures of one model take at most, together: 64 MB. */
const mostPixels = 4096 * 4096;
const longestSide = 2048;

const sizeOf = ({ image }: Texture): { width: number; height: number } =>
  image as { width: number; height: number };

/** Side of each of so many layers, so that all fit. */
export const layerSide = (wanted: number, layers: number): number =>
  Math.max(1, Math.min(wanted, longestSide, Math.floor(Math.sqrt(mostPixels / layers))));

/**
 * The pictures of a model as layers of one texture, which its faces choose from; they repeat beyond their edges, as models
 * expect. Layers are as large as the largest picture. One that cannot be read stays white.
 */
export class ModelPictures {
  private target: WebGLArrayRenderTarget | null = null;
  /** What the layers were drawn from. */
  private from: readonly (Texture | null)[] = [];
  private readonly white = new DataArrayTexture(new Uint8Array(4).fill(255), 1, 1, 1);

  constructor(private readonly gpu: Gpu) {
    this.white.needsUpdate = true;
  }

  /** White until all of them are there; then they are drawn once. */
  texture(pictures: readonly FilePicture[]): Texture {
    if (pictures.some(({ texture, error }) => !texture && !error)) return this.target?.texture ?? this.white;
    const from = pictures.map(({ texture }) => texture);
    if (this.target && from.length === this.from.length && from.every((v, k) => v === this.from[k]))
      return this.target.texture;
    this.draw(from);
    return this.target!.texture;
  }

  private draw(from: readonly (Texture | null)[]): void {
    const { gpu } = this;
    const sizes = from.map((texture) => (texture ? sizeOf(texture) : { width: 1, height: 1 }));
    const [width, height] = (['width', 'height'] as const).map((side) =>
      layerSide(Math.max(...sizes.map((size) => size[side])), from.length),
    );
    this.target?.dispose();
    const target = new WebGLArrayRenderTarget(width, height, from.length, {
      minFilter: LinearMipmapLinearFilter,
      magFilter: LinearFilter,
      wrapS: RepeatWrapping,
      wrapT: RepeatWrapping,
      depthBuffer: false,
    });
    from.forEach((texture, layer) => {
      // Smaller versions are made once, when all layers are there.
      target.texture.generateMipmaps = layer === from.length - 1;
      gpu.copy(texture ?? gpu.white, target, layer);
    });
    this.target = target;
    this.from = from;
  }

  dispose(): void {
    this.target?.dispose();
    this.white.dispose();
  }
}
