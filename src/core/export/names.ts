import { framesOf, type ExportPlan } from './schedule';
import { endingOf, type ExportSpec } from './spec';

/** Name of the file of a frame in a sequence. */
export const frameName = ({ format }: Pick<ExportSpec, 'format'>, frame: number): string =>
  `frame-${String(frame).padStart(6, '0')}.${endingOf(format)}`;

/** Name of a piece in its folder, and of the sound beside it. */
export const pieceNameOf = (piece: number): string => `piece-${String(piece).padStart(6, '0')}`;
export const soundPieceName = 'sound';

/** Name of a checkpoint that was written for the pieces from a frame on, and of the last one of a run, which is written over again and again. */
export const checkpointNameOf = (frame: number): string => `checkpoint-${String(frame).padStart(6, '0')}`;
export const lastCheckpointName = 'checkpoint';

/** The name under which a finished piece lies: that of its frame, where it is an image. */
export const fileOfPiece = (
  spec: Pick<ExportSpec, 'format' | 'fps'>,
  plan: ExportPlan,
  piece: number,
): string =>
  spec.format.type === 'images' ? frameName(spec, framesOf(spec, plan, piece)[0]) : pieceNameOf(piece);
