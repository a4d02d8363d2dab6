import { softToneGlsl } from '../../nodes/glsl/tone';

/**
 * Depth blur: every pixel gathers from a disc as large as it is out of focus; what is sharp does not run into what is
 * not, and what lies behind does not run over what is in front.
 */
export const blurFragment = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
uniform highp sampler2D depthMap;
uniform vec3 focus; // distance that is sharp, blur, width / height
out vec4 result;
float spreadOf(float far) { return clamp(focus.y * abs(1.0 - focus.x / max(far, 1e-4)), 0.0, 0.12); }
void main() {
  float far = texture(depthMap, place).g;
  float own = spreadOf(far);
  vec2 size = vec2(textureSize(picture, 0));
  vec4 sum = texture(picture, place);
  float weight = 1.0;
  float k = 0.0;
  do {
    float r = sqrt((k + 0.5) / 40.0);
    float a = k * 2.3999632;
    // As far as the most blurred thing near could reach: a neighbour counts if its own disc comes here.
    vec2 aside = r * max(own, focus.y * 0.5) * vec2(cos(a) / focus.z, sin(a));
    // Whole pixels: between two of them there is neither the distance of the one nor of the other.
    ivec2 pixel = ivec2(clamp((place + aside) * size, vec2(0.0), size - 1.0));
    aside = (vec2(pixel) + 0.5) / size - place;
    float there = texelFetch(depthMap, pixel, 0).g;
    float reach = there > far ? min(spreadOf(there), own) : spreadOf(there);
    float counts = smoothstep(0.0, 1.0, (reach - length(aside * vec2(focus.z, 1.0))) / max(reach, 1e-4) * 4.0 + 0.5) * step(1e-4, reach);
    sum += texelFetch(picture, pixel, 0) * counts;
    weight += counts;
    k += 1.0;
  } while (k < 40.0);
  result = sum / weight;
}
`;

/** Distance as brightness: 1 at the near end of the range, 0 at the far one and where nothing is. */
export const depthFragment = `#version 300 es
precision highp float;
in vec2 place;
uniform highp sampler2D depthMap;
uniform vec2 range;
out vec4 result;
void main() {
  float far = texture(depthMap, place).g;
  float near = clamp((range.y - far) / (abs(range.y - range.x) < 1e-6 ? 1e-6 : range.y - range.x), 0.0, 1.0);
  result = vec4(vec3(near), 1.0);
}
`;

/** Exposure, and the soft tone curve if asked for. */
export const toneFragment = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
uniform float exposure;
uniform bool soft;
out vec4 result;
${softToneGlsl}
void main() {
  vec4 c = texture(picture, place);
  c.rgb *= exposure;
  result = vec4(soft ? softTone(c.rgb) : c.rgb, c.a);
}
`;
