import { framesOf, type ExportPlan } from './schedule';
import { endingOf, type ExportSpec } from './spec';

/** A name with a number, so that names are in the order of their numbers. */
export const numbered = (name: string, k: number): string => `${name}-${String(k).padStart(6, '0')}`;

/** Name of the file of a frame in a sequence. */
export const frameName = ({ format }: Pick<ExportSpec, 'format'>, frame: number): string =>
  `${numbered('frame', frame)}.${endingOf(format)}`;

/** Name of a piece in its folder, and of the sound beside it. */
export const pieceNameOf = (piece: number): string => numbered('piece', piece);
export const soundPieceName = 'sound';

/** Name of a checkpoint that was written for the pieces from a frame on, and of the last one of a run, which is written over again and again. */
export const checkpointNameOf = (frame: number): string => numbered('checkpoint', frame);
export const lastCheckpointName = 'checkpoint';

/** The name under which a finished piece lies: that of its frame, where it is an image. */
export const fileOfPiece = (
  spec: Pick<ExportSpec, 'format' | 'fps'>,
  plan: ExportPlan,
  piece: number,
): string =>
  spec.format.type === 'images' ? frameName(spec, framesOf(spec, plan, piece)[0]) : pieceNameOf(piece);
