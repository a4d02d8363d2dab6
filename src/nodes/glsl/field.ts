/**
 * Joins of two distances with a rounding of width k (polynomial smooth minimum: Quilez, "Smooth minimum", 2013). They give
 * the distance and the share of the second in how the surface looks.
 */
export const joinGlsl = `
vec2 joinSoft(float a, float b, float k) {
  float w = max(k, 1e-5);
  float h = clamp(0.5 + 0.5 * (a - b) / w, 0.0, 1.0);
  return vec2(mix(a, b, h) - w * h * (1.0 - h), h);
}
vec2 commonSoft(float a, float b, float k) {
  vec2 j = joinSoft(-a, -b, k);
  return vec2(-j.x, j.y);
}
vec2 cutSoft(float a, float b, float k) {
  return vec2(-joinSoft(-a, b, k).x, 0.0);
}
`;
