import { shadowGlsl } from './shadow-glsl';
import type { Look } from '../../core/kind/prop';
import { copyGlsl, copyHelpers, type CopyForm } from './copy-glsl';
import { lightDeclared, lightGlsl, lightKey, type LightForm } from './light-glsl';

/**
 * How a mesh is drawn. quads: lines and points that grow to their width. hairlines and sprites: where there are too many
 * pieces for that, what the GPU draws by itself: lines a pixel wide, points of one vertex.
 */
export type Drawing = 'surface' | 'lines' | 'points' | 'hairlines' | 'sprites';

/** What of a body stands in the code of its shader; everything else is a uniform and never compiles. */
export interface PropForm {
  drawing: Drawing;
  shading: Look['shading'];
  /** A picture that is wired in, or those that came with the shape, of which each point says which lies on it. */
  picture: null | 'wired' | 'of the shape';
  cutOut: boolean;
  lift: null | { by: boolean; along: 'normal' | 'x' | 'y' | 'z' };
  widthBy: boolean;
  fog: boolean;
  colours: boolean;
  solid: boolean;
  /** Copies, the innermost first; none for a body by itself. */
  levels: readonly CopyForm[];
}

export const formKey = (form: PropForm): string => JSON.stringify(form);

const isLine = (form: PropForm): boolean => form.drawing === 'lines' || form.drawing === 'hairlines';
const isDot = (form: PropForm): boolean => form.drawing === 'points' || form.drawing === 'sprites';
/** Lines and points face everywhere: they are lit as much from each side. */
const hasNormal = (form: PropForm): boolean => form.drawing === 'surface' && form.shading !== 'flat';
const hasUv = (form: PropForm): boolean =>
  form.picture !== null || form.cutOut || form.lift !== null || form.widthBy;
/** Whether the colour differs within the body or from copy to copy; else one uniform says all of it. */
export const isTinted = (form: PropForm): boolean =>
  (form.drawing !== 'surface' && form.drawing !== 'hairlines') ||
  (form.widthBy && form.drawing === 'hairlines') ||
  form.colours ||
  form.levels.some(
    ({ many, pixels, palette, region }) =>
      many[3] || pixels?.mode === 'tints' || pixels?.rows[1] || palette !== null || region !== null,
  );
const hasWorld = (form: PropForm): boolean => form.shading !== 'flat' || form.fog;

const liftGlsl = (form: PropForm): string =>
  form.lift
    ? `
uniform sampler2D liftMap; uniform sampler2D liftByMap; uniform vec2 liftHow;
float liftAt(vec2 at) {
  vec4 c = textureLod(liftMap, at, 0.0);
  float bright = dot(c.rgb, vec3(0.2126, 0.7152, 0.0722)) - liftHow.y;
  ${form.lift.by ? 'bright *= dot(textureLod(liftByMap, at, 0.0).rgb, vec3(0.2126, 0.7152, 0.0722));' : ''}
  return bright * liftHow.x;
}`
    : '';

const axes = { x: 'vec3(1.0, 0.0, 0.0)', y: 'vec3(0.0, 1.0, 0.0)', z: 'vec3(0.0, 0.0, 1.0)' } as const;

/** Vertex shader of bodies and copies. `forDistance`: it hands on how far each place is from the camera. */
export function propVertex(form: PropForm, forDistance = false): string {
  const line = form.drawing === 'lines';
  const dot = isDot(form);
  const normal = hasNormal(form) || form.lift?.along === 'normal';
  const uv = hasUv(form);
  const uses = { line, normal: hasNormal(form), uv };
  const copied = form.levels.length > 0;
  // Copies of copies: the number of the outer one is what is left when the inner ones are counted.
  const stands = form.levels
    .map((_, k) => {
      const index =
        k === 0 && form.levels.length > 1 ? 'copy % copies_0' : k === 0 ? 'copy' : 'copy / copies_0';
      return `  stand_${k}(${index}, p, q, n, tint, onPicture_, dotSize);`;
    })
    .join('\n');
  const way = form.lift && (form.lift.along === 'normal' ? 'normal' : axes[form.lift.along]);
  const otherWay = form.lift && (form.lift.along === 'normal' ? 'otherNormal' : axes[form.lift.along]);
  return `precision highp float;
precision highp sampler2D;
precision highp int;
in vec3 position;
${normal ? 'in vec3 normal;' : ''}
${uv ? 'in vec2 uv;' : ''}
${form.colours ? 'in vec4 tone;' : ''}
${form.picture === 'of the shape' ? 'in float layer; flat out float onLayer;' : ''}
${line || form.drawing === 'points' ? 'in vec3 other; in vec2 corner;' : ''}
${line && form.lift ? `in vec2 otherUv;${form.lift.along === 'normal' ? ' in vec3 otherNormal;' : ''}` : ''}
${copied ? 'in float merge; uniform int merged; uniform int allCopies;' : ''}
uniform mat4 view; uniform mat4 projection; uniform mat4 seen;
uniform vec2 viewportPx; uniform float widthPx; uniform float leastPx; uniform bool widthShrinks; uniform float pointSize;
${form.widthBy ? 'uniform sampler2D widthMap;' : ''}
${hasWorld(form) ? 'out vec3 world;' : ''}
${hasNormal(form) ? 'out vec3 facingNormal;' : ''}
${uv ? 'out vec2 onPicture;' : ''}
${isTinted(form) ? 'out vec4 tint;' : 'vec4 tint;'}
${forDistance ? 'out float away;' : ''}
${line || form.drawing === 'points' ? 'out vec2 across;' : ''}
${liftGlsl(form)}
${copied ? copyHelpers : ''}
${form.levels.map((level, k) => copyGlsl(level, k, uses)).join('')}
void main() {
  tint = ${form.colours ? 'tone' : 'vec4(1.0)'};
  vec2 onPicture_ = ${uv ? 'uv' : 'vec2(0.0)'};
  vec2 dotSize = vec2(1.0);
  vec3 p = position;
  vec3 n = ${normal ? 'normal' : 'vec3(0.0, 0.0, 1.0)'};
  vec3 q = ${line ? 'other' : 'vec3(0.0)'};
  ${form.lift ? `p += ${way} * liftAt(uv);` : ''}
  ${form.lift && line ? `q += ${otherWay} * liftAt(otherUv);` : ''}
  ${
    copied
      ? `
  int copy = gl_InstanceID * merged + int(merge);
  if (copy >= allCopies) { gl_Position = vec4(2.0, 2.0, 2.0, 1.0); ${dot ? 'gl_PointSize = 1.0;' : ''} return; }
${stands}`
      : ''
  }
  ${hasWorld(form) ? 'world = p;' : ''}
  ${hasNormal(form) ? 'facingNormal = n;' : ''}
  ${uv ? 'onPicture = onPicture_;' : ''}
  ${form.picture === 'of the shape' ? 'onLayer = layer;' : ''}
  vec4 clip = seen * vec4(p, 1.0);
  ${forDistance ? 'away = -(view * vec4(p, 1.0)).z;' : ''}
  float widthFactor = ${form.widthBy ? 'dot(textureLod(widthMap, uv, 0.0).rgb, vec3(0.2126, 0.7152, 0.0722))' : '1.0'};
  ${form.drawing === 'hairlines' && form.widthBy ? 'tint.a *= clamp(max(widthPx * widthFactor, leastPx), 0.0, 1.0);' : ''}
  ${
    line
      ? `
  vec4 clipOther = seen * vec4(q, 1.0);
  // What lies behind the camera is cut where the view begins: beyond it, a direction on the screen means nothing.
  const float nearest = 1e-3;
  if (clip.w < nearest && clipOther.w > nearest) clip = mix(clip, clipOther, (nearest - clip.w) / (clipOther.w - clip.w));
  else if (clipOther.w < nearest && clip.w > nearest) clipOther = mix(clipOther, clip, (nearest - clipOther.w) / (clip.w - clipOther.w));
  vec2 here = clip.xy / max(clip.w, 1e-4) * viewportPx;
  vec2 there = clipOther.xy / max(clipOther.w, 1e-4) * viewportPx;
  vec2 along = there - here;
  float long_ = length(along);
  along = long_ > 1e-4 ? along / long_ : vec2(1.0, 0.0);
  along *= -corner.x;
  float width = widthPx * widthFactor;
  if (widthShrinks) width /= max(clip.w, 1e-3);
  // A line thinner than a pixel cannot be drawn; it is drawn one pixel wide and fainter.
  float drawn = max(max(width, leastPx), 1.0);
  tint.a *= min(1.0, max(width, leastPx));
  float half_ = drawn * 0.5 + 0.5;
  vec2 side = vec2(-along.y, along.x) * corner.y;
  // viewportPx is half the picture in pixels, so a pixel is 1 / viewportPx of clip space.
  // What is opaque reaches over its ends, to close the corners; what is added up would be brighter there.
  clip.xy += (side * half_${form.solid ? ' + along * corner.x * half_ * 0.5' : ''}) / viewportPx * clip.w;
  across = vec2(corner.x * half_, drawn * 0.5);`
      : ''
  }
  ${
    dot
      ? `
  vec4 before = view * vec4(p, 1.0);
  vec2 half_ = vec2(pointSize * 0.5 * widthFactor) * dotSize;
  // A dot smaller than a pixel would come and go as it moves; it is drawn a pixel wide and fainter.
  float px = max(abs(half_.x), abs(half_.y)) * projection[1][1] / max(clip.w, 1e-4) * viewportPx.y;
  float grow = max(1.0, 0.75 / max(px, 1e-4));
  tint.a *= px > 0.0 ? 1.0 / (grow * grow) : 0.0;
  ${
    form.drawing === 'sprites'
      ? 'gl_PointSize = 2.0 * px * grow;'
      : `vec2 at = corner;
  before.xy += at * half_ * grow;
  across = at;
  clip = projection * before;`
  }`
      : ''
  }
  gl_Position = clip;
}
`;
}

/** What the fragment shader begins with in every pass: how much of the pixel is covered, and the colour before light. */
function coverGlsl(form: PropForm): string {
  return `
  vec4 c = ${isTinted(form) ? 'colour * tint' : 'colour'};
  float cover = 1.0;
  ${form.picture === 'wired' ? 'vec4 s = texture(picture, onPicture);' : ''}
  ${form.picture === 'of the shape' ? 'vec4 s = mix(vec4(1.0), texture(pictures, vec3(onPicture, max(onLayer, 0.0))), step(-0.5, onLayer));' : ''}
  ${form.picture ? 'c.rgb *= s.a > 0.0 ? s.rgb / s.a : vec3(0.0); c.a *= s.a;' : ''}
  ${form.cutOut ? 'c.a *= dot(texture(cutOutMap, onPicture).rgb, vec3(0.2126, 0.7152, 0.0722));' : ''}
  ${form.drawing === 'lines' ? 'cover = clamp(across.y + 0.5 - abs(across.x), 0.0, 1.0);' : ''}
  ${form.drawing === 'sprites' ? 'vec2 across = gl_PointCoord * 2.0 - 1.0;' : ''}
  ${isDot(form) ? 'float from = dot(across, across); float rim = sqrt(from); cover = clamp((1.0 - rim) / max(fwidth(rim), 1e-4) + 0.5, 0.0, 1.0);' : ''}`;
}

const declareCover = (form: PropForm): string => `
${isTinted(form) ? 'in vec4 tint;' : ''} uniform vec4 colour;
${form.drawing === 'lines' || form.drawing === 'points' ? 'in vec2 across;' : ''}
${hasUv(form) ? 'in vec2 onPicture;' : ''}
${form.picture === 'wired' ? 'uniform sampler2D picture;' : ''}
${form.picture === 'of the shape' ? 'uniform highp sampler2DArray pictures; flat in float onLayer;' : ''}
${form.cutOut ? 'uniform sampler2D cutOutMap;' : ''}`;

const mayBeClear = (form: PropForm): boolean =>
  form.drawing !== 'surface' ||
  form.picture !== null ||
  form.cutOut ||
  form.colours ||
  form.levels.length > 0;

/** Whether every pixel it draws covers what was there, if its colour does: it need not be mixed then. */
export const isOpaque = (form: PropForm): boolean =>
  (form.drawing === 'surface' || form.drawing === 'hairlines') &&
  form.shading !== 'glow' &&
  form.picture === null &&
  !form.cutOut &&
  !form.fog &&
  !isTinted(form);

/** Fragment shader; gives premultiplied colour. */
export function propFragment(form: PropForm, lights: readonly LightForm[]): string {
  const lit = form.shading === 'lit';
  const flatLight = isLine(form) || isDot(form);
  const shadows = lights.some(({ shadow }) => shadow);
  return `// lights: ${lit ? lightKey(lights) : ''}
precision highp float;
precision highp sampler2D;
precision highp int;
${declareCover(form)}
${hasWorld(form) ? 'in vec3 world;' : ''}
${hasNormal(form) ? 'in vec3 facingNormal;' : ''}
uniform vec3 eye; uniform vec3 toEye; uniform bool straightOn;
uniform vec4 fogColour; uniform vec3 fog; uniform vec4 surface;
out vec4 result;
${lit && shadows ? shadowGlsl : ''}
${lit ? lightDeclared(lights) + lightGlsl(lights) : ''}
void main() {
  ${coverGlsl(form)}
  ${hasWorld(form) ? 'vec3 view = straightOn ? toEye : normalize(eye - world);' : ''}
  ${
    hasNormal(form)
      ? `vec3 n = normalize(facingNormal);
  ${
    form.lift
      ? `// Where points are moved by an image only the drawn surface itself knows which way it looks.
  vec3 faces = cross(dFdx(world), dFdy(world));
  n = dot(faces, faces) > 1e-20 ? normalize(faces) : n;`
      : ''
  }
  if (dot(n, view) < 0.0) n = -n;`
      : ''
  }
  ${
    lit
      ? flatLight
        ? 'vec3 n = view; c.rgb = lightUp(c.rgb, n, view, world, vec4(surface.x * 0.75, 0.0, surface.z, surface.w));'
        : 'c.rgb = lightUp(c.rgb, n, view, world, surface);'
      : ''
  }
  ${form.shading === 'glow' ? (isDot(form) ? 'float soft = max(0.0, 1.0 - from); cover *= soft * soft;' : isLine(form) ? 'cover *= cover;' : 'float soft = max(0.0, dot(n, view)); cover *= soft * soft * soft;') : ''}
  ${
    form.fog
      ? `
  float share = clamp((distance(eye, world) - fog.x) / max(1e-4, fog.y - fog.x), 0.0, 1.0) * fog.z;
  c.rgb = mix(c.rgb, fogColour.rgb, share * fogColour.a);
  c.a *= 1.0 - share * (1.0 - fogColour.a);`
      : ''
  }
  float a = clamp(c.a, 0.0, 1.0) * cover;
  ${form.solid && mayBeClear(form) ? 'if (a <= 0.0) discard;' : ''}
  result = vec4(c.rgb * a, a);
}
`;
}

/** The same mesh, giving how far it is: for shadows, depth pictures and depth blur. */
export function distanceFragment(form: PropForm): string {
  return `precision highp float;
precision highp sampler2D;
precision highp int;
${declareCover(form)}
in float away;
out vec4 result;
void main() {
  ${coverGlsl(form)}
  if (c.a * cover < 0.5) discard;
  result = vec4(gl_FragCoord.z, away, 0.0, 1.0);
}
`;
}
