import { create } from 'zustand';
import type { VariedValues } from '../../core/show/variations';

/** How variations are tried: no part of the show, and not kept. */
interface VariationSession {
  isOpen: boolean;
  /** 0..1: how far values go. */
  strength: number;
  /** Which nine are shown. */
  seed: number;
  /** Controls that stay, by node and control. */
  locked: ReadonlySet<string>;
  /** Two that are crossed, whose children are shown; null: none are. */
  parents: readonly [VariedValues, VariedValues] | null;
  /** States that were left for a variation, oldest first, by the place they are of. */
  tried: readonly { place: string; values: VariedValues }[];
}

export const variationSession = create<VariationSession>()(() => ({
  isOpen: false,
  strength: 0.35,
  seed: 1,
  locked: new Set<string>(),
  parents: null,
  tried: [],
}));
