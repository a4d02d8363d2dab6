import type { WebGLRenderTarget } from 'three';
import type { Past } from './sheets';

/** Where a renderer holds what later frames may need of earlier ones. */
export interface Remembered {
  pictures: ReadonlyMap<string, WebGLRenderTarget>;
  pasts: ReadonlyMap<string, Past>;
}
