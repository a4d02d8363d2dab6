import { framesOf, type ExportPlan } from './schedule';
import type { ExportSpec } from './spec';

/** Pieces of images in a part: starting one costs as much as a few of them, and beginning from a checkpoint as much as many. */
const imagesOfPart = { plain: 8, checkpoints: 48 };

/** Parts that may wait for workers: checkpoints of more would only fill the memory of the farm. */
export const mostWaiting = 24;
/** Parts whose checkpoints are made at a stretch. */
export const partsAtOnce = 8;

/** A few pieces that a worker makes at once, and the frame before which it needs a checkpoint; null: none. */
export interface FarmPart {
  pieces: number[];
  checkpoint: number | null;
}

/** Parts of an export that workers take. */
export function partsOf(spec: ExportSpec, plan: ExportPlan, pieces: readonly number[]): FarmPart[] {
  const isLong = spec.format.type === 'video' || spec.format.type === 'pixels';
  const size = isLong ? 1 : plan.checkpoints ? imagesOfPart.checkpoints : imagesOfPart.plain;
  const parts: FarmPart[] = [];
  for (let at = 0; at < pieces.length; at += size) {
    const [first] = framesOf(spec, plan, pieces[at]);
    parts.push({
      pieces: pieces.slice(at, at + size),
      checkpoint: plan.checkpoints && first > 0 ? first : null,
    });
  }
  return parts;
}

/** What is told of a farm, and of an export on it. */
export interface FarmState {
  /** Workers of this build that listen; null: no farm is set up, or it does not answer. */
  workers: number | null;
  /** Why it cannot be used; null: it can. */
  fault: string | null;
}

export interface FarmOrderState {
  frames: number;
  /** Pieces that are ready to be fetched, by the names of their files. */
  pieces: string[];
  /** Parts that are not made yet. */
  waiting: number;
  /** What keeps it waiting; empty: nothing. */
  said: string;
  fault: string | null;
}
