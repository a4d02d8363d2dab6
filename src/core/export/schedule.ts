import type { ExportSpec } from './spec';

/** When the frames of an export are worked out: several moments each, where movement is blurred. */
export class Timing {
  constructor(
    private readonly fps: number,
    readonly subframes: number = 1,
    private readonly shutter: number = 360,
  ) {}

  static of({ fps, subframes, shutter }: Pick<ExportSpec, 'fps' | 'subframes' | 'shutter'>): Timing {
    return new Timing(fps, subframes, shutter);
  }

  /** Seconds from the start of the show at a step. Frame f is made of the steps from `f * subframes` on. */
  timeOf(step: number): number {
    const { fps, subframes, shutter } = this;
    const part = step % subframes;
    return ((step - part) / subframes + (part / subframes) * (shutter / 360)) / fps;
  }

  /** Seconds since the step before. */
  dtOf(step: number): number {
    if (step === 0) return 0;
    return this.subframes === 1 ? 1 / this.fps : this.timeOf(step) - this.timeOf(step - 1);
  }
}

/** Frames of an export, and the pieces it is made in. */
export interface ExportPlan {
  /** First frame, counted from the start of the show, and how many there are. */
  first: number;
  count: number;
  /** Frame that should look like the first, where a loop is exported; it is drawn only to be compared. */
  meets: number | null;
  /** What is worth knowing before it begins. */
  remarks: string[];
  /** Pictures of earlier frames count for later ones: a piece may begin from a checkpoint. Absent: none can. */
  checkpoints?: boolean;
}

/** Seconds of video between two pieces: each begins with a key frame, and is lost as a whole. */
const pieceSeconds = 2;
const mostPieceFrames = 240;

/** Frames of each piece: a still or an image of a sequence is one by itself, a video is cut where it can be joined again. */
export function pieceFrames({ format, fps }: Pick<ExportSpec, 'format' | 'fps'>): number {
  if (format.type === 'images' || format.type === 'animation') return 1;
  return Math.min(mostPieceFrames, Math.max(1, Math.round(pieceSeconds * fps)));
}

/** How many pieces there are. */
export const pieceCount = (spec: Pick<ExportSpec, 'format' | 'fps'>, { count }: ExportPlan): number =>
  Math.ceil(count / pieceFrames(spec));

/** The frames of a piece, counted from the start of the show: from, and up to but not including. */
export function framesOf(
  spec: Pick<ExportSpec, 'format' | 'fps'>,
  plan: ExportPlan,
  piece: number,
): [number, number] {
  const size = pieceFrames(spec);
  const from = plan.first + piece * size;
  return [from, Math.min(plan.first + plan.count, from + size)];
}

/** All pieces, by their numbers. */
export const piecesOf = (spec: Pick<ExportSpec, 'format' | 'fps'>, plan: ExportPlan): number[] =>
  Array.from({ length: pieceCount(spec, plan) }, (_, piece) => piece);

/** How many frames some pieces have. */
export const framesIn = (
  spec: Pick<ExportSpec, 'format' | 'fps'>,
  plan: ExportPlan,
  pieces: readonly number[],
): number =>
  pieces.reduce((sum, piece) => {
    const [from, to] = framesOf(spec, plan, piece);
    return sum + to - from;
  }, 0);
