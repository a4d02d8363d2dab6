import type { Output, RoomPlace } from '../document/types';
import { turnMatrix } from '../shape/shape';
import { tileBox, wallBox } from './led';
import { partOf } from './outputs';
import { pixelPlaces } from './pixels/pixels';

export type Vec3 = readonly [number, number, number];

/** Eyes of somebody in the middle of the audience, sitting. */
export const homeSeat: Vec3 = [0, 1.2, 7];
/** How wide the canvas lies on the back wall for outputs that have no place of their own, and how high its lower edge. */
const homeWidthM = 6;
const homeLowestM = 0.5;

/** Where the surface of an output is, metres. */
export interface Surface extends RoomPlace {
  height: number;
}

const aspectOf = (output: Output): number => {
  const { width, height } = partOf(output);
  return height / width;
};

/** The surface of an output in the room: its own, or as its part lies on the canvas. */
export function surfaceOf(output: Output, canvas: { width: number; height: number }): Surface {
  const part = partOf(output);
  const scale = homeWidthM / canvas.width;
  const place: RoomPlace = output.room ?? {
    at: [
      (part.x + part.width / 2 - canvas.width / 2) * scale,
      homeLowestM + (canvas.height - part.y - part.height / 2) * scale,
      0,
    ],
    turn: [0, 0, -part.turn],
    width: part.width * scale,
  };
  const width = output.type === 'led' ? (wallBox(output)[2] * output.pitch) / 1000 : place.width;
  return { ...place, width, height: width * aspectOf(output) };
}

/** A turn about x, then y, then z, in degrees: where x, y and z go. */
export function turned(degrees: readonly number[]): [Vec3, Vec3, Vec3] {
  const [x, y, z] = degrees.map((angle) => (angle * Math.PI) / 180);
  const m = turnMatrix(x, y, z);
  return [0, 1, 2].map((k): Vec3 => [m[k], m[3 + k], m[6 + k]]) as [Vec3, Vec3, Vec3];
}

/** The angles of such a matrix, degrees: the inverse of `turned`. */
export function anglesOf([u, v, w]: readonly [Vec3, Vec3, Vec3]): [number, number, number] {
  const inDegrees = (rad: number): number => (rad * 180) / Math.PI;
  const y = Math.asin(Math.max(-1, Math.min(1, -u[2])));
  // Looking straight up or down, x and z are one turn: all of it is given to x.
  if (Math.abs(u[2]) > 0.999999) return [inDegrees(Math.atan2(-w[1], v[1])), inDegrees(y), 0];
  return [Math.atan2(v[2], w[2]), y, Math.atan2(u[1], u[0])].map(inDegrees) as [number, number, number];
}

/** Gives for a place on a surface (metres from its middle, x to the right and y up) the place in the room. */
export function onSurface({ at, turn }: Pick<RoomPlace, 'at' | 'turn'>): (x: number, y: number) => Vec3 {
  const [u, v] = turned(turn);
  return (x, y) => [0, 1, 2].map((k) => at[k] + x * u[k] + y * v[k]) as unknown as Vec3;
}

/** Where the pixels of a string are in the room: x, y and z of each, in the order in which they are fed. */
export function stringInRoom(
  string: Extract<Output, { type: 'string' }>,
  canvas: { width: number; height: number },
): Float32Array {
  const surface = surfaceOf(string, canvas);
  const part = partOf(string);
  const scale = surface.width / part.width;
  const to = onSurface(surface);
  const places = pixelPlaces(string);
  const room = new Float32Array((places.length / 2) * 3);
  for (let k = 0; k < places.length / 2; k++)
    room.set(
      to(
        (places[2 * k] - part.x - part.width / 2) * scale,
        -(places[2 * k + 1] - part.y - part.height / 2) * scale,
      ),
      3 * k,
    );
  return room;
}

/** Upper left, upper right, lower left and lower right of a tile in the room. */
export function tileInRoom(
  led: Extract<Output, { type: 'led' }>,
  k: number,
  canvas: { width: number; height: number },
): [Vec3, Vec3, Vec3, Vec3] {
  const to = onSurface(surfaceOf(led, canvas));
  const [left, top, width, height] = wallBox(led);
  const [x, y, w, h] = tileBox(led, k);
  const metres = led.pitch / 1000;
  const corner = (px: number, py: number): Vec3 =>
    to((px - left - width / 2) * metres, -(py - top - height / 2) * metres);
  return [corner(x, y), corner(x + w, y), corner(x, y + h), corner(x + w, y + h)];
}

/** Where somebody looks from, and to. */
export interface RoomView {
  eye: Vec3;
  target: Vec3;
}

/** Degrees from the lower to the upper edge of what is seen of the room. */
export const roomFieldOfView = 50;

/** Where a place of the room is seen, as shares of the picture from its top left; null: behind the eyes. */
export function seenInRoom({ eye, target }: RoomView, place: Vec3, aspect: number): [number, number] | null {
  const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const unit = (a: Vec3): Vec3 => a.map((v) => v / Math.hypot(...a)) as unknown as Vec3;
  const back = unit(minus(eye, target));
  const right = unit([back[2], 0, -back[0]]);
  const up: Vec3 = [
    back[1] * right[2] - back[2] * right[1],
    back[2] * right[0] - back[0] * right[2],
    back[0] * right[1] - back[1] * right[0],
  ];
  const way = minus(place, eye);
  const depth = -dot(way, back);
  if (depth <= 0) return null;
  const half = Math.tan((roomFieldOfView * Math.PI) / 360) * depth;
  return [0.5 + dot(way, right) / (2 * half * aspect), 0.5 - dot(way, up) / (2 * half)];
}
