/** Brings added light into range: unchanged below 0.6, then bending towards 1; very bright light turns pale. */
export const softToneGlsl = `
vec3 softTone(vec3 c) {
  float most = max(c.r, max(c.g, c.b));
  if (most <= 0.6) return c;
  float held = 0.6 + 0.4 * (1.0 - exp(-(most - 0.6) / 0.4));
  return mix(c * (held / most), vec3(held), smoothstep(1.0, 5.0, most) * 0.6);
}
`;
