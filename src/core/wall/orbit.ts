import type { Wall } from '../document/types';
import { surfaceOf, type RoomView, type Vec3 } from './room';

/** Where somebody looks from who goes round a place: degrees round it and above it, and metres away. */
export interface Orbit {
  around: number;
  above: number;
  away: number;
  target: Vec3;
}

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

export function viewOf({ around, above, away, target }: Orbit): RoomView {
  const out = Math.cos(rad(above)) * away;
  return {
    eye: [
      target[0] + Math.sin(rad(around)) * out,
      target[1] + Math.sin(rad(above)) * away,
      target[2] + Math.cos(rad(around)) * out,
    ],
    target,
  };
}

/** The way round a target that a pair of eyes stands on. */
export function orbitOf(eye: Vec3, target: Vec3): Orbit {
  const [x, y, z] = eye.map((v, k) => v - target[k]);
  const away = Math.hypot(x, y, z);
  return {
    around: (Math.atan2(x, z) * 180) / Math.PI,
    above: (Math.asin(y / Math.max(away, 1e-6)) * 180) / Math.PI,
    away,
    target,
  };
}

/** Turned and brought nearer (`nearer` above 1) or further; never below the floor's own height, nor over the top. */
export function moved(orbit: Orbit, { turn = 0, lift = 0, nearer = 1 }): Orbit {
  return {
    ...orbit,
    around: ((orbit.around + turn + 540) % 360) - 180,
    above: Math.min(89, Math.max(-5, orbit.above + lift)),
    away: Math.min(80, Math.max(0.5, orbit.away / nearer)),
  };
}

export type RoomPreset = 'front' | 'seat' | 'side' | 'above';

/** From where all that hangs is seen well: from the front, from the seat, from the side or from above. */
export function orbitFor(
  preset: RoomPreset,
  { outputs, seat }: Wall,
  canvas: { width: number; height: number },
): Orbit {
  const surfaces = outputs.map((output) => surfaceOf(output, canvas));
  const ends = (axis: 0 | 1): [number, number] => {
    const half = axis ? 'height' : 'width';
    if (!surfaces.length) return axis ? [0.5, 2.5] : [-1, 1];
    return [
      Math.min(...surfaces.map((surface) => surface.at[axis] - surface[half] / 2)),
      Math.max(...surfaces.map((surface) => surface.at[axis] + surface[half] / 2)),
    ];
  };
  const [[left, right], [low, high]] = [ends(0), ends(1)];
  const [x, y] = [(left + right) / 2, (high + Math.max(0, low)) / 2];
  const wide = Math.max(right - left, (high - low) * 1.6, 2);
  switch (preset) {
    case 'front':
      return { around: 0, above: 4, away: wide * 0.95 + 1.5, target: [x, y, 0.5] };
    case 'seat':
      return orbitOf(seat as unknown as Vec3, [x, y, 0]);
    case 'side':
      return { around: 52, above: 10, away: wide * 1.05 + 1.5, target: [x, y * 0.8, 1.5] };
    case 'above':
      return { around: 0, above: 62, away: wide + 4, target: [x, 0.6, 2.5] };
  }
}
