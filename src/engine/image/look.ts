import type { Texture } from 'three';

/** A picture as an output shows it: over a background where it is see-through, and as bright as that. */
export interface Look {
  texture: Texture;
  background: readonly number[];
  brightness: number;
}

/** A picture that is whole by itself. */
export const plainLook = (texture: Texture): Look => ({ texture, background: [0, 0, 0], brightness: 1 });
