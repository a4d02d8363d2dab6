import type { Carries } from '../../core/kind/kind';
import type { Patch, Wire } from '../../core/document/types';
import { cardSize } from './flow-model';

type Point = readonly [number, number];

/** Curves are cubics, one after the other: x and y of the start, of both handles, and of the end. */
export type Curve = number[];

/** How far below both cards a wire that goes back runs. */
export const returnDepth = 92;

/** A wire that goes back: below both cards, so that it can be told from the others at a glance. Two cubics. */
export function returnCurve([sx, sy]: Point, [tx, ty]: Point): Curve {
  const low = Math.max(sy, ty) + returnDepth;
  const middle = (sx + tx) / 2;
  // The second leaves the middle in the direction in which the first arrives.
  const mirrored = 2 * middle - (sx + 70);
  return [sx, sy, sx + 70, sy, sx + 70, low, middle, low, middle, low, mirrored, low, tx - 70, ty, tx, ty];
}

/** A wire that runs with others to the joint where they part. Two cubics; those of signals rise. */
export function bundledCurve([sx, sy]: Point, [jx, jy]: Point, [tx, ty]: Point, rises: boolean): Curve {
  if (rises) {
    const [first, second] = [(jy - sy) / 2, (ty - jy) / 2];
    return [sx, sy, sx, sy + first, jx, jy - first, jx, jy, jx, jy, jx, jy + second, tx, ty - second, tx, ty];
  }
  const [first, second] = [(jx - sx) / 2, (tx - jx) / 2];
  return [sx, sy, sx + first, sy, jx - first, jy, jx, jy, jx, jy, jx + second, jy, tx - second, ty, tx, ty];
}

/** Cubics as the path of an SVG. */
export function pathOf(curve: Curve): string {
  let path = '';
  for (let k = 0; k < curve.length; k += 8) {
    const [sx, sy, ax, ay, bx, by, tx, ty] = curve.slice(k, k + 8);
    path += `${k === 0 ? `M ${sx} ${sy} ` : ''}C ${ax} ${ay}, ${bx} ${by}, ${tx} ${ty} `;
  }
  return path;
}

/** Patch pixels that wires need to their nearest end to run together at all. */
const leastRun = 60;

/**
 * Where wires out of one port part, by the id of the wire: half-way to the nearest of their ends. Wires that go back, that lead
 * the other way, or that are alone run by themselves.
 */
export function jointsOf(
  scene: Patch,
  carriesOf: (wire: Wire) => Carries,
): ReadonlyMap<string, readonly [number, number]> {
  const bundles = new Map<string, { wire: Wire; rises: boolean; from: Point; to: Point }[]>();
  for (const wire of Object.values(scene.wires)) {
    const [from, to] = [scene.nodes[wire.from.node], scene.nodes[wire.to.node]];
    if (wire.back || !from || !to) continue;
    const rises = carriesOf(wire) === 'signal';
    const { width, height } = cardSize;
    const start: Point = rises
      ? [from.place[0] + width / 2, from.place[1]]
      : [from.place[0] + width, from.place[1] + height / 3];
    const end: Point = rises
      ? [to.place[0] + width / 2, to.place[1] + height]
      : [to.place[0], to.place[1] + height / 3];
    const run = rises ? start[1] - end[1] : end[0] - start[0];
    if (run < leastRun) continue;
    const key = `${wire.from.node} ${wire.from.output ?? ''}`;
    bundles.set(key, [...(bundles.get(key) ?? []), { wire, rises, from: start, to: end }]);
  }
  const joints = new Map<string, Point>();
  for (const bundle of bundles.values()) {
    if (bundle.length < 2) continue;
    const [{ from, rises }] = bundle;
    const along = rises ? 1 : 0;
    const across = 1 - along;
    const nearest = bundle.reduce(
      (best, { to }) => (Math.abs(to[along] - from[along]) < Math.abs(best - from[along]) ? to[along] : best),
      bundle[0].to[along],
    );
    const mean = bundle.reduce((sum, { to }) => sum + to[across], 0) / bundle.length;
    const joint: [number, number] = [0, 0];
    joint[along] = (from[along] + nearest) / 2;
    joint[across] = (from[across] + mean) / 2;
    for (const { wire } of bundle) joints.set(wire.id, joint);
  }
  return joints;
}
