import { choice } from '../../core/kind/controls';
import { randomAt } from '../../core/random';

/** Orders in which a row of samples can be gone through. */
const orders = {
  first: 'The first',
  last: 'The last',
  centre: 'The centre',
  edges: 'Both ends',
  random: 'At random',
} as const;

export type SampleOrder = keyof typeof orders;

/** Whether it runs to or from both sides at once, in half as many steps. */
export const isTwoSided = (order: SampleOrder): boolean => order === 'centre' || order === 'edges';

/** The control that chooses where in a row something begins. */
export const sampleOrder = (help: string) =>
  choice({ label: 'Begins at', help, options: orders, default: 'first' });

/**
 * The turn of each of n samples, 0 to n - 1: which comes at once, and which last. From the centre and from both ends, two
 * that are as far from there have the same turn, and the last of them comes at n - 1.
 */
export function placesInOrder(order: SampleOrder, n: number, seed = 1): Float32Array {
  const places = new Float32Array(n);
  const half = Math.max(1, Math.ceil(n / 2) - 1);
  const shuffle = order === 'random' ? shuffled(n, seed) : null;
  for (let i = 0; i < n; i++) {
    if (shuffle) places[shuffle[i]] = i;
    else if (order === 'first') places[i] = i;
    else if (order === 'last') places[i] = n - 1 - i;
    else {
      const steps = Math.abs(i - (n - 1) / 2) - (n % 2 ? 0 : 0.5);
      places[i] = n > 2 ? ((order === 'centre' ? steps : half - steps) / half) * (n - 1) : 0;
    }
  }
  return places;
}

/** The turns of the samples of one node, recomputed only when they change. */
export class Places {
  private order: SampleOrder = 'first';
  private places: Float32Array = new Float32Array(0);

  of(order: SampleOrder, n: number): Float32Array {
    if (order !== this.order || n !== this.places.length) {
      this.order = order;
      this.places = placesInOrder(order, n);
    }
    return this.places;
  }
}

/** Places 0 to n - 1 in an order that only the seed decides. */
export function shuffled(n: number, seed: number): number[] {
  const order = Array.from({ length: n }, (_, i) => i);
  for (let i = n - 1; i > 0; i--) {
    const other = Math.floor(randomAt(i, seed) * (i + 1));
    [order[i], order[other]] = [order[other], order[i]];
  }
  return order;
}

/**
 * Places in the order of their distance from one of them. In a spiral those of one ring (as wide as the nearest two are
 * apart) follow each other by their angle about z. `lanes`: x, y and, if there is one, z.
 */
export function nearFirst(
  lanes: readonly ArrayLike<number>[],
  from: readonly number[],
  spiral: boolean,
): number[] {
  const [xs, ys] = lanes;
  const far = Array.from(xs, (_, i) => Math.hypot(...lanes.map((lane, k) => lane[i] - (from[k] ?? 0))));
  const turn = Array.from(
    xs,
    (_, i) => (Math.atan2(ys[i] - from[1], xs[i] - from[0]) + 2 * Math.PI) % (2 * Math.PI),
  );
  const apart = [...far].sort((a, b) => a - b).find((d) => d > 1e-6) ?? 1;
  const ring = far.map((d) => (spiral ? Math.round(d / apart) : d));
  return far.map((_, i) => i).sort((a, b) => ring[a] - ring[b] || turn[a] - turn[b] || a - b);
}
