/** Hash of three whole numbers to three numbers 0..1: pcg3d (Jarzynski and Olano, "Hash functions for GPU rendering", 2020). */
export const hashGlsl = `
uvec3 pcg3d(uvec3 v) {
  v = v * 1664525u + 1013904223u;
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  v ^= v >> 16u;
  v.x += v.y * v.z; v.y += v.z * v.x; v.z += v.x * v.y;
  return v;
}
vec3 hash33(vec3 cell) { return vec3(pcg3d(uvec3(ivec3(cell)))) * (1.0 / 4294967296.0); }
float hash11(float x) { return hash33(vec3(x, 0.0, 0.0)).x; }
`;

/** Noises of three dimensions, under names that end in `name`; `cell` gives the cell whose random numbers are taken. */
const noises = (name: string, cell: (of: string) => string): string => `
float cornerNoise${name}(vec3 cell, vec3 from, vec3 wrap) {
  vec3 g = hash33(${cell('cell')}) * 2.0 - 1.0;
  return dot(g, from);
}
float gradientNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 f = q - i; vec3 u = fade3(f);
  float a = mix(mix(cornerNoise${name}(i, f, wrap), cornerNoise${name}(i + vec3(1,0,0), f - vec3(1,0,0), wrap), u.x),
                mix(cornerNoise${name}(i + vec3(0,1,0), f - vec3(0,1,0), wrap), cornerNoise${name}(i + vec3(1,1,0), f - vec3(1,1,0), wrap), u.x), u.y);
  float b = mix(mix(cornerNoise${name}(i + vec3(0,0,1), f - vec3(0,0,1), wrap), cornerNoise${name}(i + vec3(1,0,1), f - vec3(1,0,1), wrap), u.x),
                mix(cornerNoise${name}(i + vec3(0,1,1), f - vec3(0,1,1), wrap), cornerNoise${name}(i + vec3(1,1,1), f - vec3(1,1,1), wrap), u.x), u.y);
  return mix(a, b, u.z) * 1.25;
}
float valueNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 f = q - i; vec3 u = fade3(f);
  #define V(o) hash33(${cell('i + o')}).x
  float a = mix(mix(V(vec3(0,0,0)), V(vec3(1,0,0)), u.x), mix(V(vec3(0,1,0)), V(vec3(1,1,0)), u.x), u.y);
  float b = mix(mix(V(vec3(0,0,1)), V(vec3(1,0,1)), u.x), mix(V(vec3(0,1,1)), V(vec3(1,1,1)), u.x), u.y);
  #undef V
  return mix(a, b, u.z) * 2.0 - 1.0;
}
float cellNoise${name}(vec3 q, vec3 wrap) {
  vec3 i = floor(q); vec3 f = q - i;
  float nearest = 4.0;
  for (int z = -1; z <= 1; z++) for (int y = -1; y <= 1; y++) for (int x = -1; x <= 1; x++) {
    vec3 o = vec3(x, y, z);
    vec3 d = o + hash33(${cell('i + o')}) - f;
    nearest = min(nearest, dot(d, d));
  }
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
  float sum = 0.0; float strength = 1.0; float total = 0.0;
  for (float k = 0.0; k < min(count, 8.0); k++) {
    sum += strength * (${noise});
    total += strength;
    strength *= roughness;
    q = q * 2.0 + vec3(0.0, 0.0, step(wrap.z, 0.5) * 7.31);
    wrap *= 2.0;
  }
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
