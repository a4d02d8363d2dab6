/**
 * Soft shadows from maps in one picture, a quarter of it each: as large a disc around the place is asked as the light is
 * soft (Vogel's spiral of taps, turned from pixel to pixel; noise after Jimenez, "Next generation post processing", 2014).
 */
export const shadowGlsl = `
uniform highp sampler2D shadowMap; uniform mat4 shadowView[4]; uniform vec4 shadowHow[4]; uniform ivec4 shadowSlot[2];
float shadowIn(int slot, vec3 at, vec3 n, vec3 to) {
  float slope = 1.0 - max(0.0, dot(n, to));
  vec4 how = shadowHow[slot];
  // As far along the normal as a slanting surface rises over a pixel of the map, and over the disc that is asked.
  float disc = how.w / 1.5 * how.z * float(textureSize(shadowMap, 0).x) * 0.5;
  vec4 seen = shadowView[slot] * vec4(at + n * (how.w * (0.5 + 2.0 * slope) + disc * min(1.0, slope * 1.5)), 1.0);
  if (seen.w <= 0.0) return 1.0;
  vec3 place = seen.xyz / seen.w * 0.5 + 0.5;
  if (any(lessThan(place, vec3(0.0))) || any(greaterThan(place, vec3(1.0)))) return 1.0;
  float turn = 6.2831853 * fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715))));
  float light = 0.0;
  float k = 0.0;
  do {
    float r = sqrt((k + 0.5) / 16.0) * how.z;
    float a = k * 2.3999632 + turn;
    vec2 tap = clamp(place.xy + r * vec2(cos(a), sin(a)), vec2(0.002), vec2(0.998));
    light += step(place.z - 0.0006, texture(shadowMap, how.xy + tap * 0.5).r);
    k += 1.0;
  } while (k < 16.0);
  return light / 16.0;
}
float shadowOf(int light, vec3 at, vec3 n, vec3 to, float far) { return shadowIn(shadowSlot[light >> 2][light & 3], at, n, to); }
`;
