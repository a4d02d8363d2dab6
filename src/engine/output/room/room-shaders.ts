/** Surfaces that give light to the room at most. */
export const mostLights = 8;

/** Light that the surfaces throw at a place: each as one patch that shines to its front (the form factor of a small patch, Goral et al. 1984). */
const litText = `
uniform int lights;
uniform vec3 lightAt[${mostLights}];
uniform vec3 lightFacing[${mostLights}];
uniform float lightArea[${mostLights}];
uniform sampler2D lightColours;
vec3 litAt(vec3 place, vec3 normal) {
  vec3 sum = vec3(0.0);
  for (int k = 0; k < ${mostLights}; k++) {
    if (k >= lights) break;
    vec3 way = lightAt[k] - place;
    float squared = dot(way, way);
    way *= inversesqrt(max(squared, 1e-4));
    float factor = max(dot(normal, way), 0.0) * max(-dot(lightFacing[k], way), 0.0);
    sum += texelFetch(lightColours, ivec2(k, 0), 0).rgb * factor * lightArea[k] / (3.14159 * squared + lightArea[k]);
  }
  return sum;
}`;

/** From linear light to what is shown. */
const shownText = 'vec3 shown(vec3 light) { return pow(clamp(light, 0.0, 1.0), vec3(1.0 / 2.2)); }';

/** Output surfaces: what their window shows, upright or mirrored below the floor. */
export const surfaceVertex = `#version 300 es
precision highp float;
in vec3 position;
in vec2 uv;
uniform mat4 projectionMatrix;
uniform mat4 viewMatrix;
uniform float mirrored;
out vec2 at;
out float high;
void main() {
  at = uv;
  high = position.y;
  vec3 place = vec3(position.x, mirrored > 0.5 ? -position.y : position.y, position.z);
  gl_Position = projectionMatrix * viewMatrix * vec4(place, 1.0);
}`;

export const surfaceFragment = `#version 300 es
precision highp float;
in vec2 at;
in float high;
uniform sampler2D picture;
uniform vec2 pixels;
uniform float mirrored;
out vec4 result;
void main() {
  vec3 c = texture(picture, vec2(at.x, 1.0 - at.y)).rgb;
  // An LED is a dot where it is large enough to be seen as one.
  if (pixels.x > 0.0) {
    vec2 place = at * pixels;
    vec2 within = fract(place) - 0.5;
    float size = max(length(dFdx(place)), length(dFdy(place)));
    float dot = smoothstep(0.5, 0.3, length(within)) * 1.5;
    c *= mix(dot, 1.0, clamp((size - 0.12) / 0.2, 0.0, 1.0));
  }
  if (mirrored > 0.5) c *= 0.16 * exp(-1.1 * high);
  result = vec4(c, mirrored > 0.5 ? 0.0 : 1.0);
}`;

/** Backs of surfaces, and frames around them. */
export const solidVertex = `#version 300 es
precision highp float;
in vec3 position;
in vec3 normal;
uniform mat4 projectionMatrix;
uniform mat4 viewMatrix;
uniform vec3 eye;
${litText}
out vec3 light;
void main() {
  vec3 towards = normalize(eye - position);
  vec3 n = dot(normal, towards) < 0.0 ? -normal : normal;
  // A little light from above, and from the eyes, so that the form is read where no output shines.
  light = litAt(position, n) * 2.5 + vec3(0.0045, 0.005, 0.0055) * (1.4 + n.y) + vec3(0.006) * dot(n, towards);
  gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
}`;

export const solidFragment = `#version 300 es
precision highp float;
in vec3 light;
out vec4 result;
${shownText}
void main() { result = vec4(shown(light), 1.0); }`;

export const floorVertex = `#version 300 es
precision highp float;
in vec3 position;
uniform mat4 projectionMatrix;
uniform mat4 viewMatrix;
out vec3 place;
void main() {
  place = position;
  gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
}`;

/** A dark floor with a line each metre, which fades away into the distance. */
export const floorFragment = `#version 300 es
precision highp float;
in vec3 place;
uniform vec3 eye;
${litText}
${shownText}
out vec4 result;
float lines(vec2 p) {
  vec2 width = max(fwidth(p), 1e-5);
  vec2 near = abs(fract(p - 0.5) - 0.5) / width;
  return clamp(1.2 - min(near.x, near.y), 0.0, 1.0) * clamp(0.5 / max(width.x, width.y), 0.0, 1.0);
}
void main() {
  float far = exp(-0.012 * dot(place.xz - eye.xz, place.xz - eye.xz));
  vec3 light = litAt(place, vec3(0.0, 1.0, 0.0)) * 1.2 + vec3(0.0045, 0.0048, 0.0055) * far;
  light += lines(place.xz) * 0.011 * far;
  result = vec4(shown(light), 1.0);
}`;

/** Pixels of strings: a small lamp with a halo. */
export const lampVertex = `#version 300 es
precision highp float;
in vec3 position;
in vec3 light;
uniform mat4 projectionMatrix;
uniform mat4 viewMatrix;
uniform float mirrored;
uniform float scale;
out vec3 colour;
void main() {
  vec3 place = vec3(position.x, mirrored > 0.5 ? -position.y : position.y, position.z);
  gl_Position = projectionMatrix * viewMatrix * vec4(place, 1.0);
  float size = scale * 0.035 / gl_Position.w;
  // What is smaller than a pixel keeps its light.
  colour = pow(clamp(light, 0.0, 1.0), vec3(1.0 / 2.2)) * min(1.0, size / 1.5) * (mirrored > 0.5 ? 0.12 : 1.0);
  gl_PointSize = clamp(size * 3.0, 3.0, 48.0);
}`;

export const lampFragment = `#version 300 es
precision highp float;
in vec3 colour;
out vec4 result;
void main() {
  float far = length(gl_PointCoord - 0.5) * 2.0;
  float glow = smoothstep(0.4, 0.2, far) + 0.35 * pow(clamp(1.0 - far, 0.0, 1.0), 2.0);
  result = vec4(colour * glow, 0.0);
}`;

/** The mean of a picture in linear light, from 16 x 9 places. */
export const meanFragment = `#version 300 es
precision highp float;
uniform sampler2D picture;
out vec4 result;
void main() {
  vec3 sum = vec3(0.0);
  for (int j = 0; j < 9; j++)
    for (int k = 0; k < 16; k++)
      sum += pow(texture(picture, (vec2(float(k), float(j)) + 0.5) / vec2(16.0, 9.0)).rgb, vec3(2.2));
  result = vec4(sum / 144.0, 1.0);
}`;
