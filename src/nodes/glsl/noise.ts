/** Hash of three whole numbers to three numbers 0..1: pcg3d (Jarzynski and Olano, "Hash functions for GPU rendering", 2020). */
export const hashGlsl = `
uvec3 hashSeed(vec3 cell) { return uvec3(ivec3(cell)) * 1664525u + 1013904223u; }
uvec3 hashOf(uvec3 v) {
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  v ^= v >> 16u;
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  return v;
}
vec3 hash33(vec3 cell) { return vec3(hashOf(hashSeed(cell))) * (1.0 / 4294967296.0); }
float hash11(float x) { return hash33(vec3(x, 0.0, 0.0)).x; }
// As hash33 * 2 - 1, but in units of 1 / 2^31: whole numbers with a sign become floats in one step.
vec3 signedHash(uvec3 seed) { return vec3(ivec3(hashOf(seed) ^ 0x80000000u)); }
`;

// Loops that run at least once ask at their end: renderers in software work through one that asks at its start once more
// than it counts.

/**
 * Noises of three dimensions, under names that end in `name`; `cell` gives the cell whose random numbers are taken.
 * Seeds are linear in each axis, so that the eight corners of a cell share those of two of them.
 */
const noises = (name: string, cell: (of: string) => string): string => `
float gradientNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 f = q - i; vec3 u = fade3(f); vec3 g = f - 1.0;
  uvec3 a = hashSeed(${cell('i')}); uvec3 b = hashSeed(${cell('i + 1.0')});
  float near = mix(mix(dot(signedHash(a), f), dot(signedHash(uvec3(b.x, a.yz)), vec3(g.x, f.yz)), u.x),
                   mix(dot(signedHash(uvec3(a.x, b.y, a.z)), vec3(f.x, g.y, f.z)), dot(signedHash(uvec3(b.xy, a.z)), vec3(g.xy, f.z)), u.x), u.y);
  float far = mix(mix(dot(signedHash(uvec3(a.xy, b.z)), vec3(f.xy, g.z)), dot(signedHash(uvec3(b.x, a.y, b.z)), vec3(g.x, f.y, g.z)), u.x),
                  mix(dot(signedHash(uvec3(a.x, b.yz)), vec3(f.x, g.yz)), dot(signedHash(b), g), u.x), u.y);
  return mix(near, far, u.z) * (1.25 / 2147483648.0);
}
float valueNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 u = fade3(q - i);
  uvec3 a = hashSeed(${cell('i')}); uvec3 b = hashSeed(${cell('i + 1.0')});
  float near = mix(mix(signedHash(a).x, signedHash(uvec3(b.x, a.yz)).x, u.x),
                   mix(signedHash(uvec3(a.x, b.y, a.z)).x, signedHash(uvec3(b.xy, a.z)).x, u.x), u.y);
  float far = mix(mix(signedHash(uvec3(a.xy, b.z)).x, signedHash(uvec3(b.x, a.y, b.z)).x, u.x),
                  mix(signedHash(uvec3(a.x, b.yz)).x, signedHash(b).x, u.x), u.y);
  return mix(near, far, u.z) * (1.0 / 2147483648.0);
}
float cellNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 f = q - i;
  float nearest = 4.0;
  int k = 0;
  do {
    vec3 o = vec3(k % 3, k / 3 % 3, k / 9) - 1.0;
    vec3 d = o + hash33(${cell('i + o')}) - f;
    nearest = min(nearest, dot(d, d));
  } while (++k < 27);
  return sqrt(nearest) * 2.0 - 1.0;
}
`;

/**
 * Smooth noises of three dimensions. Those that end in Wrapped repeat after `wrap` > 0 cells along an axis: taking the
 * rest in every corner of every octave costs a quarter of the whole, so that others do without.
 */
export const noiseGlsl = `
vec3 fade3(vec3 t) { return t * t * t * (t * (t * 6.0 - 15.0) + 10.0); }
vec3 wrapCell(vec3 cell, vec3 wrap) {
  return mix(cell, mod(cell, max(wrap, vec3(1.0))), step(vec3(0.5), wrap));
}
${noises('', (of) => of)}
${noises('Wrapped', (of) => `wrapCell(${of}, wrap)`)}
float noise3(vec3 q) { return gradientNoise(q, vec3(0.0)); }
`;

/**
 * Noise on a lattice of tetrahedra (Perlin, "Noise hardware", 2001; gradients from our own hash): rounder than gradient
 * noise, without its directions. That lattice cannot repeat, so along a wrapped axis it is faded into itself one length
 * back, and made as lively again as it was.
 */
export const simplexGlsl = `
float simplexCorner(vec3 cell, vec3 from) {
  float t = 0.6 - dot(from, from);
  vec3 g = hash33(cell) * 2.0 - 1.0;
  return t > 0.0 ? t * t * t * t * dot(g, from) : 0.0;
}
float simplexAt(vec3 q) {
  vec3 i = floor(q + dot(q, vec3(1.0 / 3.0)));
  vec3 a = q - i + dot(i, vec3(1.0 / 6.0));
  vec3 g = step(a.yzx, a.xyz);
  vec3 l = 1.0 - g;
  vec3 i1 = min(g, l.zxy); vec3 i2 = max(g, l.zxy);
  return 38.0 * (simplexCorner(i, a) + simplexCorner(i + i1, a - i1 + 1.0 / 6.0) + simplexCorner(i + i2, a - i2 + 1.0 / 3.0) + simplexCorner(i + 1.0, a - 0.5));
}
float simplexNoise(vec3 q, vec3 wrap) { return simplexAt(q); }
float simplexNoiseWrapped(vec3 q, vec3 wrap) {
  vec3 wrapped = step(vec3(0.5), wrap);
  vec3 at = mix(q, mod(q, max(wrap, vec3(1.0))), wrapped);
  vec3 share = wrapped * at / max(wrap, vec3(1.0));
  float sum = 0.0; float power = 0.0;
  for (float z = 0.0; z <= wrapped.z; z++) for (float y = 0.0; y <= wrapped.y; y++) for (float x = 0.0; x <= wrapped.x; x++) {
    vec3 o = vec3(x, y, z);
    vec3 part = mix(1.0 - share, share, o);
    float w = part.x * part.y * part.z;
    sum += w * simplexAt(at - o * wrap);
    power += w * w;
  }
  return sum / sqrt(power);
}
`;

/** What one layer of each form of Noise is, in the order of its options. */
const layers = (name: string, cell: (of: string) => string): string[] => [
  `gradientNoise${name}(q, wrap)`,
  `valueNoise${name}(q, wrap)`,
  `cellNoise${name}(q, wrap)`,
  `1.0 - 2.0 * abs(gradientNoise${name}(q, wrap))`,
  `hash33(${cell('floor(q)')}).x * 2.0 - 1.0`,
  `simplexNoise${name}(q, wrap)`,
];

const layered = (name: string, cell: (of: string) => string): string =>
  layers(name, cell)
    .map(
      (noise, form) => `
float layers${name}${form}(vec3 q, vec3 wrap, float count, float roughness) {
  float sum = 0.0; float strength = 1.0; float total = 0.0; float k = 0.0;
  do {
    sum += strength * (${noise});
    total += strength;
    strength *= roughness;
    q = q * 2.0 + vec3(0.0, 0.0, step(wrap.z, 0.5) * 7.31);
    wrap *= 2.0;
  } while (++k < min(count, 8.0));
  return sum / total;
}`,
    )
    .join('\n');

/**
 * Layers of one form of noise, each finer and weaker than the one before; `layersN` for the N-th form of Noise, and
 * `layersWrappedN`.
 */
export const layersGlsl = [layered('', (of) => of), layered('Wrapped', (of) => `wrapCell(${of}, wrap)`)].join(
  '\n',
);
