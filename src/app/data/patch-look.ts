import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** How patches are drawn; kept in this browser, no part of the show. */
interface PatchLook {
  /** A small map of the whole patch. */
  map: boolean;
  /** Wires out of one port run together until they part. */
  bundles: boolean;
  /** What does not hang together with the chosen nodes steps back. */
  focus: boolean;
}

export const patchLook = create<PatchLook>()(
  persist((): PatchLook => ({ map: false, bundles: false, focus: false }), { name: 'pyrvel-patch' }),
);

export const toggleLook = (key: keyof PatchLook): void =>
  void patchLook.setState((now) => ({ [key]: !now[key] }));
