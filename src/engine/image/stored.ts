import type { Texture, WebGLRenderTarget } from 'three';
import type { Bits, Gpu } from '../gpu/gpu';
import type { Shader } from '../shader/shader';

/** One stored picture. Those read by a return wire have two targets and show the one before while drawing the other. */
export interface Stored {
  bits: Bits;
  target: WebGLRenderTarget | null;
  before: WebGLRenderTarget | null;
  double: boolean;
  /** What draws it; a kind with several passes has one each. */
  shaders: Shader[];
  /** What will draw it as soon as the compiler is done. */
  coming: { shaders: Shader[]; key: string } | null;
  /** Its shaders are of a plan that no longer is: they must not draw any more, and the picture stays. */
  outdated: boolean;
  data: Texture | null;
  /** Values that stand in the code of its shader: formulas, options. */
  key: string;
  drawn: boolean;
  /** It changed in a frame in which it was not drawn. */
  missed: boolean;
  /** Which parts of it are drawn, as a text; empty: all. */
  parts: string;
}

export const newStored = (bits: Bits): Stored => ({
  bits,
  target: null,
  before: null,
  double: false,
  shaders: [],
  coming: null,
  outdated: false,
  data: null,
  key: '',
  drawn: false,
  missed: false,
  parts: '',
});

/**
 * Sees to it that the target has the right size and format, and, while `moving`, exchanges the two of a picture that is
 * read as it was before. `depth`: what is drawn into it hides what lies behind.
 */
export function fitStored(
  gpu: Gpu,
  stored: Stored,
  width: number,
  height: number,
  moving: boolean,
  depth = false,
): void {
  if (
    stored.target &&
    !(gpu.fits(stored.target, width, height, stored.bits) && stored.target.depthBuffer === depth)
  ) {
    const kept = stored.double ? stored.target : null;
    if (stored.before) gpu.release(stored.before);
    stored.before = null;
    if (!kept) gpu.release(stored.target);
    stored.target = null;
    if (kept) {
      // The loop goes on at the new size from what it held.
      const moved = gpu.acquire(width, height, stored.bits, depth);
      gpu.copy(kept.texture, moved);
      gpu.release(kept);
      stored.target = moved;
    }
  }
  if (stored.double) {
    // While time stands still, an edit draws this frame once more and the loop must not move on.
    if (moving) [stored.target, stored.before] = [stored.before, stored.target];
  } else if (stored.before) {
    gpu.release(stored.before);
    stored.before = null;
  }
  stored.target ??= gpu.acquire(width, height, stored.bits, depth);
}

/** Frees the shaders of `old` that are not among `kept`. */
export function dropShaders(old: readonly Shader[], kept: readonly Shader[]): void {
  for (const shader of old) if (!kept.includes(shader)) shader.material.dispose();
}

export function freeStored(gpu: Gpu, stored: Stored): void {
  if (stored.target) gpu.release(stored.target);
  if (stored.before) gpu.release(stored.before);
  stored.data?.dispose();
  dropShaders(stored.coming?.shaders ?? [], stored.shaders);
  dropShaders(stored.shaders, []);
}
