import { FaceList } from './face-list';
import { sub, cross, unit, towards } from './vec';
import { edgesOf, facesOf, type Face } from './measure';
import type { Shape } from './shape';
import { checkPoints } from './repeat';

export type StrutForm = 'bars' | 'spindles' | 'diamonds';

/**
 * The edges of a shape as thin solids. bars: prisms of `sides` sides, `width` across, closed. spindles: two pyramids that
 * meet in the middle of the edge. diamonds: flat rhombs between the ends of an edge and the middles of the faces beside
 * it, which tile the surface in another way. `gap` shortens each, 0 to 1.
 */
export function strutsShape(shape: Shape, form: StrutForm, width: number, sides: number, gap: number): Shape {
  const edges = edgesOf(shape);
  checkPoints(edges.length * (form === 'bars' ? 6 * sides : 24));
  const faces = form === 'diamonds' ? facesOf(shape) : [];
  const list = new FaceList();
  const place = (i: number): number[] => [...shape.positions.subarray(3 * i, 3 * i + 3)];
  for (const edge of edges) {
    const middle = towards(place(edge.a), place(edge.b), 0.5);
    const [a, b] = [towards(place(edge.a), middle, gap), towards(place(edge.b), middle, gap)];
    const way = sub(b, a);
    if (Math.hypot(...way) < 1e-9) continue;
    if (form === 'diamonds') {
      diamond(
        list,
        a,
        b,
        middle,
        edge.faces.map((face) => faces[face]),
        gap,
      );
      continue;
    }
    const along = unit(way);
    const side = unit(cross(Math.abs(along[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0], along));
    const other = cross(along, side);
    const count = form === 'bars' ? sides : 4;
    const ring = (at: readonly number[], k: number): number[] => {
      const turn = (2 * Math.PI * (k + 0.5)) / count;
      return [0, 1, 2].map(
        (axis) => at[axis] + (width / 2) * (side[axis] * Math.cos(turn) + other[axis] * Math.sin(turn)),
      );
    };
    for (let k = 0; k < count; k++) {
      if (form === 'bars') list.add([ring(a, k), ring(a, k + 1), ring(b, k + 1), ring(b, k)]);
      else {
        list.add([a, ring(middle, k + 1), ring(middle, k)]);
        list.add([b, ring(middle, k), ring(middle, k + 1)]);
      }
    }
    if (form === 'bars') {
      const turn = Array.from({ length: count }, (_, k) => k);
      list.add(turn.map((k) => ring(b, k)));
      list.add(turn.reverse().map((k) => ring(a, k)));
    }
  }
  return list.shape();
}

function diamond(
  list: FaceList,
  a: readonly number[],
  b: readonly number[],
  middle: readonly number[],
  faces: readonly (Face | undefined)[],
  gap: number,
): void {
  const [one, two] = faces;
  if (!one) return;
  const left = towards(one.middle, middle, gap);
  const right = two ? towards(two.middle, middle, gap) : [...middle];
  // The first face has the edge from a to b on its left, so that its middle lies to the left of it.
  const corners = [a, right, b, left];
  list.add(two ? corners : [a, b, left]);
}
