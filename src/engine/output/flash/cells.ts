import { flashGrid } from '../../../core/preflight/flash-meter';
import { seenText, transitText } from '../presenter';

/** Uniforms and functions of a shader that looks at what is presented, whatever it is mixed from: `shown` at a place of it. */
export const shownText = `uniform sampler2D first;
uniform sampler2D second;
uniform vec4 firstLook;
uniform vec4 secondLook;
uniform float fade;
${seenText}
${transitText}
vec3 shown(vec2 at) {
  vec3 c = seen(texture(first, at), firstLook);
  if (fade > 0.0) c = transit(c, seen(texture(second, at), secondLook), fade, at);
  return clamp(c, 0.0, 1.0);
}`;

/** Places looked at along each side of a cell. */
const taps = 4;

/** The mean of what a cell shows. A fixed number of places, so that it costs the same at any size of the picture. */
export const cellText = `vec3 cell(vec2 at) {
  vec3 sum = vec3(0.0);
  for (int k = 0; k < ${taps * taps}; k++) {
    vec2 inside = (vec2(float(k % ${taps}), float(k / ${taps})) + 0.5) / ${taps}.0 - 0.5;
    sum += shown(at + inside / vec2(${flashGrid.width}.0, ${flashGrid.height}.0));
  }
  return sum / ${taps * taps}.0;
}`;
