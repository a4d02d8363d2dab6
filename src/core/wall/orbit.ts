import type { RoomView, Vec3 } from './room';

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
