import { curvePoints, curvesShape, smoothCurve, type Curve } from './curves';
import { edgesOf, runsOf } from './measure';
import { checkPoints } from './repeat';
import { pickPoints, type Shape } from './shape';

type StrandsOf = 'rows' | 'columns' | 'both' | 'edges';

/** The lines of a shape alone: its rows, columns, both, or the edges of its faces; `between` points round each piece. */
export function strandsShape(shape: Shape, which: StrandsOf, between: number): Shape {
  if (which === 'edges') {
    const pairs = edgesOf(shape).flatMap(({ a, b }) => [a, b]);
    return dropLoose(shape, Uint32Array.from(pairs));
  }
  const curves: Curve[] = [];
  if (which !== 'columns') for (const run of runsOf(shape.rows)) curves.push(curvePoints(shape, run));
  if (which !== 'rows') for (const run of runsOf(shape.columns)) curves.push(curvePoints(shape, run));
  checkPoints(curves.reduce((sum, { points }) => sum + (points.length / 3) * (1 + between), 0));
  return curvesShape(curves.map((curve) => smoothCurve(curve, between)));
}

/** The points that lines lead to, and no others. */
function dropLoose(shape: Shape, pairs: Uint32Array): Shape {
  const place = new Map<number, number>();
  for (const index of pairs) if (!place.has(index)) place.set(index, place.size);
  return { ...pickPoints(shape, [...place.keys()]), rows: pairs.map((index) => place.get(index)!) };
}
