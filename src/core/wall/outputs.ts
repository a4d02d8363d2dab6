import type { Output, OutputPart, Show } from '../document/types';
import { ledPart } from './led';

export const outputOf = (show: Pick<Show, 'wall'>, id: string): Output | undefined =>
  show.wall.outputs.find((output) => output.id === id);

/** What an output takes of the canvas. */
export const partOf = (output: Output): OutputPart =>
  output.type === 'screen' ? output.part : ledPart(output);

/** Moves the upper left of an output's part (before it is turned) along an axis to a pixel of the canvas. Changes the output. */
export function moveOutput(output: Output, axis: 'x' | 'y', to: number): void {
  if (output.type === 'screen') output.part[axis] = to;
  else output.place[axis] += to - ledPart(output)[axis];
}

/** Pixels that the window of an output is made for. */
export function windowSizeOf(output: Output): [number, number] {
  if (output.type === 'led') return [output.raster.width, output.raster.height];
  const { width, height } = output.part;
  return output.quarterTurns % 2 ? [height, width] : [width, height];
}
