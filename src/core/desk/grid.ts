import type { DeskControl } from '../document/types';

/** Columns of a page of the desk. */
export const deskColumns = 10;

type Lying = Pick<DeskControl, 'place' | 'size'>;

/** Whether two controls cover a cell together. */
export const overlap = (a: Lying, b: Lying): boolean =>
  a.place[0] < b.place[0] + b.size[0] &&
  b.place[0] < a.place[0] + a.size[0] &&
  a.place[1] < b.place[1] + b.size[1] &&
  b.place[1] < a.place[1] + a.size[1];

/** The first place where a control of that size covers no other: row by row. */
export function mostFree(
  controls: readonly Lying[],
  size: readonly [number, number] | number[],
): [number, number] {
  const [width, height] = size;
  for (let row = 0; row < 64; row++)
    for (let column = 0; column + width <= deskColumns; column++) {
      const here = { place: [column, row] as [number, number], size: [width, height] as [number, number] };
      if (!controls.some((other) => overlap(here, other))) return here.place;
    }
  return [0, 63];
}

/** A place held inside of the page. */
export const heldPlace = ([column, row]: readonly [number, number], width: number): [number, number] => [
  Math.min(deskColumns - width, Math.max(0, Math.round(column))),
  Math.min(63, Math.max(0, Math.round(row))),
];
