import { endingOf, type ExportSpec } from './spec';

/** Name of the file of a frame in a sequence. */
export const frameName = ({ format }: Pick<ExportSpec, 'format'>, frame: number): string =>
  `frame-${String(frame).padStart(6, '0')}.${endingOf(format)}`;
