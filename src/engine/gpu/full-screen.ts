/** Vertex shader of a full-screen pass that hands on varyings beside the place. */
export const vertexHanding = (declared: string, given: string): string => `#version 300 es
precision highp float;
precision highp int;
in vec3 position;
in vec2 uv;
uniform vec4 region;
out vec2 place;
${declared}
void main() {
  place = region.xy + uv * region.zw;
  ${given}
  gl_Position = vec4(position.xy, 0.0, 1.0);
}
`;

/** Vertex shader of a full-screen pass that hands on nothing but the place. */
export const vertexText = vertexHanding('', '');
