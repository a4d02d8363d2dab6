import type { OutputMapping } from '../protocol/protocol';

/** All of a picture, between bars. */
export const wholePicture: OutputMapping = { part: [0, 0, 1, 1], fit: 'whole' };

/**
 * How many times the width and the height of the mapped part an output is wide and high: above 1 there are bars, below 1
 * something is cut off. `aspect`: width over height of the whole picture.
 */
export function spanOf(
  aspect: number,
  output: { width: number; height: number },
  { part, fit }: OutputMapping,
): [number, number] {
  if (fit === 'stretch') return [1, 1];
  const wider = (aspect * part[2]) / part[3] / (output.width / output.height);
  const whole: [number, number] = wider > 1 ? [1, wider] : [1 / wider, 1];
  if (fit === 'whole') return whole;
  const most = Math.max(...whole);
  return [whole[0] / most, whole[1] / most];
}
