import type { LedWall, Output, OutputPart, PixelString, ScreenOutput, Show } from '../document/types';
import { ledPart } from './led';
import { boxOfPoints } from './parts';

/** Outputs that are seen in a window. */
export type WindowOutput = ScreenOutput | LedWall;

export const hasWindow = (output: Output): output is WindowOutput => output.type !== 'string';

/** The output of that id that has a window. */
export const windowOutputOf = (show: Pick<Show, 'wall'>, id: string): WindowOutput | undefined =>
  show.wall.outputs.filter(hasWindow).find((output) => output.id === id);

/** The string of that id; null: there is none. */
export const stringOf = (show: Pick<Show, 'wall'>, id: string | null): PixelString | null =>
  show.wall.outputs.find((output): output is PixelString => output.id === id && output.type === 'string') ??
  null;

/** What the points of a string cover. */
function stringPart({ points, area }: PixelString): OutputPart {
  const { x, y, width, height } = boxOfPoints(points);
  return { x: x - area / 2, y: y - area / 2, width: width + area, height: height + area, turn: 0 };
}

/** What an output takes of the canvas. */
export function partOf(output: Output): OutputPart {
  switch (output.type) {
    case 'screen':
      return output.part;
    case 'led':
      return ledPart(output);
    case 'string':
      return stringPart(output);
  }
}

/** Moves the upper left of an output's part (before it is turned) along an axis to a pixel of the canvas. Changes the output. */
export function moveOutput(output: Output, axis: 'x' | 'y', to: number): void {
  const by = to - partOf(output)[axis];
  if (output.type === 'screen') output.part[axis] = to;
  else if (output.type === 'led') output.place[axis] += by;
  else for (const point of output.points) point[axis === 'x' ? 0 : 1] += by;
}

/** Pixels that the window of an output is made for. */
export function windowSizeOf(output: WindowOutput): [number, number] {
  if (output.type === 'led') return [output.raster.width, output.raster.height];
  const { width, height } = output.part;
  return output.quarterTurns % 2 ? [height, width] : [width, height];
}
