import type { Shape } from '../shape';

/** A part of a model: what its file keeps as a mesh, object or group of its own. */
export interface ModelPart {
  name: string;
  shape: Shape;
  /** Which of the model's pictures lies on it; null: none. */
  picture: number | null;
}

export interface Model {
  parts: ModelPart[];
  pictures: { bytes: Uint8Array<ArrayBuffer>; type: string }[];
  /** What was missing or left out, a sentence each. */
  notes: string[];
}

/** A file that is no model, or a damaged one. */
export class ModelError extends Error {
  override name = 'ModelError';
}

/** More than this does not go onto a stage. */
const mostTriangles = 4_000_000;
export const mostModelBytes = 256 * 1024 * 1024;

/** Throws if a file tells of more faces than can be played. */
export function checkTriangles(count: number): void {
  if (count > mostTriangles)
    throw new ModelError(
      `The model has ${count.toLocaleString('en')} triangles; at most ${mostTriangles.toLocaleString('en')} can be played. Reduce it first.`,
    );
}
