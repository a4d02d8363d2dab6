import { randomAt } from '../random';
import { crossOf } from './measure';
import { emptyShape, pointShape, type Shape } from './shape';

/**
 * Points in a grid, row by row from the lower left, layer by layer from the back, `apart` from each other and centred. With
 * `staggered` every second row is half a step aside, as the cells of a comb are. Lines join rows and columns.
 */
export function pointGrid(
  counts: readonly [number, number, number],
  apart: readonly [number, number, number],
  staggered: boolean,
): Shape {
  const [nx, ny, nz] = counts;
  const positions = new Float32Array(3 * nx * ny * nz);
  const rows: number[] = [];
  const columns: number[] = [];
  const indent = staggered && ny > 1 ? 0.25 : 0;
  for (let z = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      for (let x = 0; x < nx; x++) {
        const i = (z * ny + y) * nx + x;
        const aside = indent === 0 ? 0 : y % 2 ? indent : -indent;
        positions[3 * i] = (x - (nx - 1) / 2 + aside) * apart[0];
        positions[3 * i + 1] = (y - (ny - 1) / 2) * apart[1];
        positions[3 * i + 2] = (z - (nz - 1) / 2) * apart[2];
        if (x + 1 < nx) rows.push(i, i + 1);
        if (y + 1 < ny) columns.push(i, i + nx);
      }
    }
  }
  const shape = pointShape(positions, Uint32Array.from(rows));
  for (let i = 0; i < shape.count; i++) {
    shape.uvs[2 * i] = nx > 1 ? (i % nx) / (nx - 1) : 0.5;
    shape.uvs[2 * i + 1] = ny > 1 ? (Math.floor(i / nx) % ny) / (ny - 1) : 0.5;
  }
  return { ...shape, columns: Uint32Array.from(columns) };
}

export type Volume = 'box' | 'ball' | 'disc' | 'surface';

interface Candidate {
  place: readonly [number, number, number];
  normal: readonly [number, number, number];
  uv: readonly [number, number];
}

/** A random place on the faces of a shape, as likely everywhere. */
function onSurface(shape: Shape, seed: number): (i: number) => Candidate {
  const { triangles, positions: p, normals: n, uvs: t } = shape;
  const sums = new Float64Array(triangles.length / 3);
  let sum = 0;
  for (let k = 0; k < sums.length; k++) {
    sum += Math.hypot(...crossOf(p, triangles[3 * k], triangles[3 * k + 1], triangles[3 * k + 2]));
    sums[k] = sum;
  }
  return (i) => {
    const wanted = randomAt(4 * i, seed) * sum;
    let [low, high] = [0, sums.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (sums[middle] < wanted) low = middle + 1;
      else high = middle;
    }
    const root = Math.sqrt(randomAt(4 * i + 1, seed));
    const r = randomAt(4 * i + 2, seed);
    const shares = [1 - root, root * (1 - r), root * r];
    const corners = [triangles[3 * low], triangles[3 * low + 1], triangles[3 * low + 2]];
    const mix = (from: Float32Array, width: number, k: number): number =>
      corners.reduce((total, corner, c) => total + from[width * corner + k] * shares[c], 0);
    const normal = [mix(n, 3, 0), mix(n, 3, 1), mix(n, 3, 2)];
    const long = Math.hypot(...normal) || 1;
    return {
      place: [mix(p, 3, 0), mix(p, 3, 1), mix(p, 3, 2)],
      normal: [normal[0] / long, normal[1] / long, normal[2] / long],
      uv: [mix(t, 2, 0), mix(t, 2, 1)],
    };
  };
}

function inVolume(
  form: Exclude<Volume, 'surface'>,
  size: readonly number[],
  seed: number,
): (i: number) => Candidate {
  return (i) => {
    const [a, b, c] = [randomAt(4 * i, seed), randomAt(4 * i + 1, seed), randomAt(4 * i + 2, seed)];
    let place: [number, number, number] = [a - 0.5, b - 0.5, c - 0.5];
    if (form === 'ball') {
      // Even in the ball: the cube root of the radius, the sine of the height.
      const r = 0.5 * Math.cbrt(a);
      const y = 2 * b - 1;
      const flat = Math.sqrt(1 - y * y);
      place = [r * flat * Math.cos(2 * Math.PI * c), r * y, r * flat * Math.sin(2 * Math.PI * c)];
    } else if (form === 'disc') {
      const r = 0.5 * Math.sqrt(a);
      place = [r * Math.cos(2 * Math.PI * b), r * Math.sin(2 * Math.PI * b), 0];
    }
    place = [place[0] * size[0], place[1] * size[1], place[2] * size[2]];
    return { place, normal: [0, 0, 1], uv: [a, b] };
  };
}

/**
 * Chooses points that keep their distance (Poisson disc sampling by dart throwing: Cook, "Stochastic sampling in computer
 * graphics", 1986): the distance is lowered until enough of a fixed set of places remain. Order: as they were taken.
 */
function keepApart(at: (i: number) => Candidate, count: number): Candidate[] {
  const places = Array.from({ length: count * 6 }, (_, i) => at(i));
  const low = [0, 1, 2].map((k) => Math.min(...sample(places, k)));
  const high = [0, 1, 2].map((k) => Math.max(...sample(places, k)));
  let apart = Math.hypot(...high.map((v, k) => v - low[k])) / Math.cbrt(Math.max(1, count));
  const taken: Candidate[] = [];
  const left = new Set(places.keys());
  while (taken.length < count && left.size > 0) {
    const cells = new Map<string, Candidate[]>();
    const cellOf = (v: number): number => Math.floor(v / apart);
    const put = (c: Candidate): void => {
      const key = c.place.map(cellOf).join();
      const cell = cells.get(key);
      if (cell) cell.push(c);
      else cells.set(key, [c]);
    };
    taken.forEach(put);
    for (const i of left) {
      const candidate = places[i];
      const [x, y, z] = candidate.place;
      let free = true;
      for (let a = -1; a <= 1 && free; a++)
        for (let b = -1; b <= 1 && free; b++)
          for (let c = -1; c <= 1 && free; c++)
            free = !(cells.get(`${cellOf(x) + a},${cellOf(y) + b},${cellOf(z) + c}`) ?? []).some(
              ({ place }) => Math.hypot(place[0] - x, place[1] - y, place[2] - z) < apart,
            );
      if (!free) continue;
      put(candidate);
      taken.push(candidate);
      left.delete(i);
      if (taken.length === count) break;
    }
    apart *= 0.86;
    if (apart < 1e-7) for (const i of left) if (taken.length < count) taken.push(places[i]);
    if (apart < 1e-7) break;
  }
  return taken;
}

/** A few hundred of the values on one axis: enough to know how far they reach. */
const sample = (places: readonly Candidate[], k: number): number[] =>
  places.slice(0, 512).map((candidate) => candidate.place[k]);

/**
 * Random points in a box, a ball or a disc of that size, or on the faces of a shape; `even` keeps them apart from each
 * other. The same seed gives the same points.
 */
export function scatterPoints(
  form: Volume,
  size: readonly number[],
  surface: Shape | null,
  count: number,
  even: boolean,
  seed: number,
): Shape {
  if (form === 'surface' && !surface?.triangles.length) return emptyShape;
  const at = form === 'surface' ? onSurface(surface!, seed) : inVolume(form, size, seed);
  const chosen = even ? keepApart(at, count) : Array.from({ length: count }, (_, i) => at(i));
  const shape = pointShape(new Float32Array(3 * chosen.length));
  chosen.forEach(({ place, normal, uv }, i) => {
    shape.positions.set(place, 3 * i);
    shape.normals.set(normal, 3 * i);
    shape.uvs.set(uv, 2 * i);
  });
  return shape;
}
