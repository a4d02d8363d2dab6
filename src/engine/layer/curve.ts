/** Pieces of a curve, each a cubic: x and y of its start, both of its handles, and its end. */
export type Curve = readonly number[];

const perCubic = 8;
/** Straight pieces that each cubic is drawn with. */
const pieces = 20;

/** A place on the cubic that begins at `from`, at 0..1 of it (Bernstein form). */
function cubicAt(curve: Curve, from: number, t: number): [number, number] {
  const s = 1 - t;
  const [a, b, c, d] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return [
    a * curve[from] + b * curve[from + 2] + c * curve[from + 4] + d * curve[from + 6],
    a * curve[from + 1] + b * curve[from + 3] + c * curve[from + 5] + d * curve[from + 7],
  ];
}

/** Places along a curve, x and y in turn. */
export function flatten(curve: Curve): Float32Array {
  const cubics = Math.floor(curve.length / perCubic);
  const places = new Float32Array(2 * (cubics * pieces + 1));
  for (let k = 0; k < cubics; k++)
    for (let j = k === 0 ? 0 : 1; j <= pieces; j++)
      places.set(cubicAt(curve, k * perCubic, j / pieces), 2 * (k * pieces + j));
  return places;
}

/** The place at a share of the length of places that follow each other. */
export function alongPlaces(places: Float32Array, share: number): [number, number] {
  let whole = 0;
  const count = places.length / 2;
  const step = (k: number): number =>
    Math.hypot(places[2 * k] - places[2 * k - 2], places[2 * k + 1] - places[2 * k - 1]);
  for (let k = 1; k < count; k++) whole += step(k);
  let left = whole * Math.min(1, Math.max(0, share));
  for (let k = 1; k < count; k++) {
    const length = step(k);
    if (left <= length || k === count - 1) {
      const t = length > 0 ? Math.min(1, left / length) : 0;
      return [
        places[2 * k - 2] + t * (places[2 * k] - places[2 * k - 2]),
        places[2 * k - 1] + t * (places[2 * k + 1] - places[2 * k - 1]),
      ];
    }
    left -= length;
  }
  return [places[0] ?? 0, places[1] ?? 0];
}
