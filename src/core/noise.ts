import { hash } from './random';

function corner(ix: number, iy: number, iz: number, x: number, y: number, z: number): number {
  const h = hash(Math.imul(ix, 0x8da6b343) ^ Math.imul(iy, 0xd8163841) ^ Math.imul(iz, 0xcb1ab31f)) % 12;
  // The twelve edge directions of a cube (Perlin, "Improving noise", 2002).
  const u = h < 8 ? x : y;
  const v = h < 4 ? y : h === 8 || h === 10 ? x : z;
  return (h & 1 ? -u : u) + (h & 2 ? -v : v);
}

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);
const mix = (a: number, b: number, t: number): number => a + (b - a) * t;

/** Smooth gradient noise, about -1..1, 0 at whole numbers. */
export function noise3(x: number, y = 0, z = 0): number {
  const ix = Math.floor(x);
  const iy = Math.floor(y);
  const iz = Math.floor(z);
  const fx = x - ix;
  const fy = y - iy;
  const fz = z - iz;
  const u = fade(fx);
  const v = fade(fy);
  const w = fade(fz);
  const near = mix(
    mix(corner(ix, iy, iz, fx, fy, fz), corner(ix + 1, iy, iz, fx - 1, fy, fz), u),
    mix(corner(ix, iy + 1, iz, fx, fy - 1, fz), corner(ix + 1, iy + 1, iz, fx - 1, fy - 1, fz), u),
    v,
  );
  const far = mix(
    mix(corner(ix, iy, iz + 1, fx, fy, fz - 1), corner(ix + 1, iy, iz + 1, fx - 1, fy, fz - 1), u),
    mix(
      corner(ix, iy + 1, iz + 1, fx, fy - 1, fz - 1),
      corner(ix + 1, iy + 1, iz + 1, fx - 1, fy - 1, fz - 1),
      u,
    ),
    v,
  );
  return mix(near, far, w);
}

/** Sum of `octaves` noises, each of twice the frequency and `roughness` times the strength, scaled back to about -1..1. */
export function octaveNoise(x: number, y: number, z: number, octaves: number, roughness: number): number {
  let sum = 0;
  let strength = 1;
  let total = 0;
  let scale = 1;
  for (let k = 0; k < octaves; k++) {
    // The offset keeps the zeros of the octaves, which lie on whole numbers, from meeting.
    sum += strength * noise3(x * scale + k * 17.31, y * scale + k * 5.17, z * scale + k * 9.73);
    total += strength;
    strength *= roughness;
    scale *= 2;
  }
  return total > 0 ? sum / total : 0;
}
