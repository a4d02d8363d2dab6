import type { Look } from '../core/prop';
import { softToneGlsl } from '../nodes/glsl/tone';

export const mostLights = 8;

const copiesGlsl = `
uniform int merged;
uniform int vertices;
uniform int copies;
uniform vec3 placeOne; uniform vec3 turnOne; uniform vec3 sizeOne; uniform float scaleOne; uniform vec4 tintOne;
uniform highp sampler2D placeMap; uniform highp sampler2D turnMap; uniform highp sampler2D sizeMap; uniform highp sampler2D tintMap;
uniform highp sampler2D pointMap; uniform highp sampler2D facingMap; uniform highp sampler2D pixelMap;
uniform bvec4 many;          // place, turn, size, tint have a value for each copy
uniform int points;          // points the copies stand on, 0 for none
uniform int spread;          // 0 stretch, 1 repeat, 2 mirror, 3 hold
uniform int pixelMode;       // 0 none, 1 places, 2 tints, 3 rows
uniform int pixelSpread;
uniform ivec4 pixelRows;
uniform vec3 pixelReach; uniform vec3 pixelTurn; uniform vec2 pixelSize;
uniform int facing;          // 0 as it is, 1 the camera, 2 along the normal

vec4 entry(highp sampler2D map, int i) { int w = textureSize(map, 0).x; return texelFetch(map, ivec2(i % w, i / w), 0); }
// Twin of spreadIndex in core; x and y are the two entries, z the share of the second.
vec3 spreadTo(int i, int n, int m, int mode) {
  if (m <= 1) return vec3(0.0);
  if (m == n) return vec3(i, i, 0.0);
  if (mode == 0) {
    float at = float(i) * float(m - 1) / float(max(1, n - 1));
    float low = min(floor(at), float(m - 2));
    return vec3(low, low + 1.0, at - low);
  }
  int k = i;
  if (mode == 1) k = i % m;
  else if (mode == 2) { k = i % (2 * m); k = k < m ? k : 2 * m - 1 - k; }
  else k = min(i, m - 1);
  return vec3(k, k, 0.0);
}
vec4 pointEntry(highp sampler2D map, int i) {
  vec3 at = spreadTo(i, copies, points, spread);
  return mix(entry(map, int(at.x)), entry(map, int(at.y)), at.z);
}
vec4 pixelInRow(int i, int row) {
  int w = textureSize(pixelMap, 0).x;
  vec3 at = spreadTo(i, copies, w, pixelSpread);
  int y = min(row, textureSize(pixelMap, 0).y - 1);
  return mix(texelFetch(pixelMap, ivec2(int(at.x), y), 0), texelFetch(pixelMap, ivec2(int(at.y), y), 0), at.z);
}
vec4 pixelOfAll(int i) {
  ivec2 s = textureSize(pixelMap, 0);
  vec3 at = spreadTo(i, copies, s.x * s.y, pixelSpread);
  int k = int(at.x + at.z + 0.5);
  return texelFetch(pixelMap, ivec2(k % s.x, k / s.x), 0);
}
mat3 turnMatrix(vec3 a) {
  vec3 c = cos(a); vec3 s = sin(a);
  return mat3(c.y * c.z, c.y * s.z, -s.y,
              s.x * s.y * c.z - c.x * s.z, s.x * s.y * s.z + c.x * c.z, s.x * c.y,
              c.x * s.y * c.z + s.x * s.z, c.x * s.y * s.z - s.x * c.z, c.x * c.y);
}
`;

/** Vertex shader of bodies and copies; what is drawn is chosen by definitions, never by a branch a pixel. */
export function propVertex(look: Look, copied: boolean): string {
  const line = look.draw === 'lines';
  const dot = look.draw === 'points';
  return `precision highp float;
precision highp int;
in vec3 position; in vec3 normal; in vec2 uv;
${line || dot ? 'in vec3 other; in vec2 corner;' : ''}
uniform mat4 view; uniform mat4 projection; uniform vec3 eye;
uniform vec2 viewportPx; uniform float widthPx; uniform float leastPx; uniform bool widthShrinks; uniform float pointSize;
out vec3 world; out vec3 facingNormal; out vec2 onPicture; out vec4 tint; out vec2 across;
${copied ? copiesGlsl : ''}
void main() {
  tint = vec4(1.0);
  onPicture = uv;
  across = vec2(0.0);
  vec3 p = position; vec3 n = normal;
  ${line ? 'vec3 q = other;' : ''}
  ${
    copied
      ? `
  int copy = gl_InstanceID * merged + gl_VertexID / vertices;
  if (copy >= copies) { gl_Position = vec4(2.0, 2.0, 2.0, 1.0); return; }
  vec4 ps = many.x ? entry(placeMap, copy) : vec4(placeOne, scaleOne);
  vec3 move = ps.xyz;
  vec3 size = (many.z ? entry(sizeMap, copy).xyz : sizeOne) * ps.w;
  vec3 turn = many.y ? entry(turnMap, copy).xyz : turnOne;
  tint = many.w ? entry(tintMap, copy) : tintOne;
  vec3 outward = vec3(0.0, 0.0, 1.0);
  if (points > 0) { move += pointEntry(pointMap, copy).xyz; outward = pointEntry(facingMap, copy).xyz; }
  if (pixelMode == 1) move += (pixelOfAll(copy).xyz * 2.0 - 1.0) * pixelReach;
  else if (pixelMode == 2) tint *= pixelOfAll(copy);
  else if (pixelMode == 3) {
    if (pixelRows.x >= 0) move += (pixelInRow(copy, pixelRows.x).xyz * 2.0 - 1.0) * pixelReach;
    if (pixelRows.y >= 0) tint *= pixelInRow(copy, pixelRows.y);
    if (pixelRows.z >= 0) turn += (pixelInRow(copy, pixelRows.z).xyz * 2.0 - 1.0) * pixelTurn;
    if (pixelRows.w >= 0) size *= mix(pixelSize.x, pixelSize.y, pixelInRow(copy, pixelRows.w).x);
  }
  mat3 m = turnMatrix(turn);
  if (facing == 1) m = transpose(mat3(view)) * m;
  else if (facing == 2) {
    vec3 z = normalize(outward + vec3(0.0, 0.0, 1e-6));
    vec3 x = normalize(cross(abs(z.y) > 0.99 ? vec3(1.0, 0.0, 0.0) : vec3(0.0, 1.0, 0.0), z));
    m = mat3(x, cross(z, x), z) * m;
  }
  p = m * (p * size) + move;
  ${line ? 'q = m * (q * size) + move;' : ''}
  n = m * (n / max(abs(size), vec3(1e-6)) * sign(size + vec3(1e-9)));`
      : ''
  }
  world = p;
  facingNormal = n;
  vec4 clip = projection * (view * vec4(p, 1.0));
  ${
    line
      ? `
  vec4 clipOther = projection * (view * vec4(q, 1.0));
  vec2 here = clip.xy / max(clip.w, 1e-4) * viewportPx;
  vec2 there = clipOther.xy / max(clipOther.w, 1e-4) * viewportPx;
  vec2 along = there - here;
  float way = length(along);
  along = way > 1e-4 ? along / way : vec2(1.0, 0.0);
  along *= -corner.x;
  float width = widthPx;
  if (widthShrinks) width = widthPx / max(clip.w, 1e-3);
  // A line thinner than a pixel cannot be drawn; it is drawn one pixel wide and fainter.
  float drawn = max(max(width, leastPx), 1.0);
  tint.a *= min(1.0, max(width, leastPx));
  float half_ = drawn * 0.5 + 0.5;
  vec2 side = vec2(-along.y, along.x) * corner.y;
  // viewportPx is half the picture in pixels, so a pixel is 1 / viewportPx of clip space.
  clip.xy += (side * half_ + along * corner.x * half_ * 0.5) / viewportPx * clip.w;
  across = vec2(corner.y * half_, drawn * 0.5);`
      : ''
  }
  ${
    dot
      ? `
  vec4 seen = view * vec4(p, 1.0);
  vec2 at = vec2(gl_VertexID % 4 < 2 ? -1.0 : 1.0, gl_VertexID % 2 == 0 ? -1.0 : 1.0);
  vec2 half_ = vec2(pointSize * 0.5)${copied ? ' * size.xy' : ''};
  // A dot smaller than a pixel would come and go as it moves; it is drawn a pixel wide and fainter.
  float px = max(abs(half_.x), abs(half_.y)) * projection[1][1] / max(clip.w, 1e-4) * viewportPx.y;
  float grow = max(1.0, 0.75 / max(px, 1e-4));
  tint.a /= grow * grow;
  seen.xy += at * half_ * grow;
  across = at;
  clip = projection * seen;`
      : ''
  }
  gl_Position = clip;
}
`;
}

/** Fragment shader; gives premultiplied colour. */
export function propFragment(look: Look): string {
  const line = look.draw === 'lines';
  const dot = look.draw === 'points';
  return `precision highp float;
precision highp int;
in vec3 world; in vec3 facingNormal; in vec2 onPicture; in vec4 tint; in vec2 across;
uniform vec4 colour; uniform vec3 eye; uniform vec3 toEye; uniform bool straightOn;
uniform bool hasPicture; uniform sampler2D picture;
uniform vec4 fogColour; uniform vec3 fog;
uniform int lights; uniform vec4 lightColour[${mostLights}]; uniform vec4 lightPlace[${mostLights}]; uniform int lightForm[${mostLights}];
out vec4 result;
void main() {
  vec4 c = colour * tint;
  if (hasPicture) { vec4 s = texture(picture, onPicture); c.rgb *= s.a > 0.0 ? s.rgb / s.a : vec3(0.0); c.a *= s.a; }
  vec3 view = straightOn ? toEye : normalize(eye - world);
  vec3 n = normalize(facingNormal);
  if (dot(n, view) < 0.0) n = -n;
  float cover = 1.0;
  ${line ? 'cover = clamp(across.y + 0.5 - abs(across.x), 0.0, 1.0);' : ''}
  ${dot ? 'float from = dot(across, across); float rim = sqrt(from); cover = clamp((1.0 - rim) / max(fwidth(rim), 1e-4) + 0.5, 0.0, 1.0);' : ''}
  ${
    look.shading === 'lit'
      ? `
  vec3 lit = vec3(0.0);
  vec3 shine = vec3(0.0);
  for (int k = 0; k < ${mostLights}; k++) {
    if (k >= lights) break;
    vec3 strength = lightColour[k].rgb * lightColour[k].a;
    if (lightForm[k] == 2) { lit += strength; continue; }
    vec3 to = lightPlace[k].xyz;
    if (lightForm[k] == 1) {
      to -= world;
      float d = length(to) / max(lightPlace[k].w, 1e-4);
      strength /= 1.0 + d * d;
    }
    to = normalize(to);
    ${line || dot ? 'float facing = 0.75;' : 'float facing = max(0.0, dot(n, to));'}
    lit += strength * facing;
    ${line || dot ? '' : 'shine += strength * pow(max(0.0, dot(n, normalize(to + view))), 40.0) * 0.18;'}
  }
  c.rgb = c.rgb * lit + shine;`
      : ''
  }
  ${look.shading === 'glow' ? (dot ? 'float soft = max(0.0, 1.0 - from); cover *= soft * soft;' : line ? 'cover *= cover;' : 'float soft = max(0.0, dot(n, view)); cover *= soft * soft * soft;') : ''}
  if (fog.z > 0.0) {
    float share = clamp((distance(eye, world) - fog.x) / max(1e-4, fog.y - fog.x), 0.0, 1.0) * fog.z;
    c.rgb = mix(c.rgb, fogColour.rgb, share * fogColour.a);
    c.a *= 1.0 - share * (1.0 - fogColour.a);
  }
  float a = clamp(c.a, 0.0, 1.0) * cover;
  if (a <= 0.0) discard;
  result = vec4(c.rgb * a, a);
}
`;
}

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
