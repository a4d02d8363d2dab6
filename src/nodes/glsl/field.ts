/** The width of a rounding as the joins take it: itself, and what saves them a division. */
export const roundingOf = (soft: number): readonly [number, number] => {
  const width = Math.max(1e-5, soft);
  return [width, 0.5 / width];
};

/**
 * Joins of two distances with a rounding of width k (polynomial smooth minimum: Quilez, "Smooth minimum", 2013). They give
 * the distance and the share of the second in how the surface looks.
 */
export const joinGlsl = `
vec2 joinSoft(float a, float b, vec2 k) {
  float h = clamp(0.5 + (a - b) * k.y, 0.0, 1.0);
  return vec2(mix(a, b, h) - k.x * h * (1.0 - h), h);
}
vec2 commonSoft(float a, float b, vec2 k) {
  vec2 j = joinSoft(-a, -b, k);
  return vec2(-j.x, j.y);
}
vec2 cutSoft(float a, float b, vec2 k) {
  return vec2(-joinSoft(-a, b, k).x, 0.0);
}
`;
