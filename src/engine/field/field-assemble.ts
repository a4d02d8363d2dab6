import { vertexHanding } from '../gpu/full-screen';
import type { Assembled } from '../shader/assemble';
import { FlatVaryings } from '../shader/flat-varyings';
import { FieldWriter, hitDeclared, type FieldPart } from './field-writer';
import { lightDeclared, lightGlsl, lightKey, type LightForm } from '../prop/light-glsl';

/** What of a field shot stands in its code. */
export interface FieldShotForm {
  lit: boolean;
  contact: boolean;
  fog: boolean;
  soft: boolean;
  lights: readonly LightForm[];
}

const versionAndPrecision = `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
`;

const shotDeclared = `
uniform vec3 eye; uniform mat3 axes;
uniform vec3 lens; // half the width and height of the view: a step away, or anywhere if it is straight on; is straight on
uniform vec4 march; // width of a pixel a step away, and anywhere; where rays begin and end
uniform vec4 background; uniform float steps; uniform float contact; uniform vec3 fog; uniform float exposure;
uniform float shadowWidth[8];
`;

const head = `
in vec3 ray; in vec3 begin;
out vec4 result;
`;

/** Rays are the same from corner to corner but for their way and where they begin. */
const vertexMain = (given: string): string => `
in vec3 position;
in vec2 uv;
uniform vec4 region;
out vec3 ray; out vec3 begin;
void main() {
  vec2 c = (region.xy + uv * region.zw - 0.5) * 2.0 * lens.xy;
  bool straight = lens.z > 0.5;
  ray = straight ? -axes[2] : axes * vec3(c, -1.0);
  begin = straight ? eye + axes * vec3(c, 0.0) : eye;
  ${given}
  gl_Position = vec4(position.xy, 0.0, 1.0);
}
`;

const shadowCode = (widths: readonly string[]): string => `
// How much of a light comes through: a ray that passes close is partly in shadow (Quilez, "Soft shadows in raymarched SDFs", 2010).
float shadowWith(float width, vec3 at, vec3 n, vec3 to, float reach) {
  float open = 1.0;
  float most = min(reach, 4.0);
  float t = 0.012;
  float left = 40.0;
  at += n * 0.004;
  do {
    float d = map(at + to * t);
    open = min(open, 0.5 + 0.5 * d * width / t);
    t += clamp(d, 0.012, 0.25);
    left -= 1.0;
  } while (left > 0.0 && open > 0.0 && t < most);
  open = max(open, 0.0);
  return open * open * (3.0 - 2.0 * open);
}
float shadowOf(int light, vec3 at, vec3 n, vec3 to, float reach) {
  return shadowWith(${widths.map((width, k) => (k + 1 < widths.length ? `light == ${k} ? ${width} : ` : width)).join('')}, at, n, to, reach);
}
`;

function mainCode(form: FieldShotForm, varyings: FlatVaryings): string {
  const number = (uniform: string): string => varyings.take('float', uniform);
  const [wide, flatWide, near, far] = ['x', 'y', 'z', 'w'].map((part) => number(`march.${part}`));
  const background = varyings.take('vec4', 'background');
  const fog = form.fog ? varyings.take('vec3', 'fog') : '';
  const closeness = `
float closeness(vec3 p, vec3 n) {
  float sum = 0.0;
  float scale = 1.0;
  float h = 0.012;
  do { sum += (h - map(p + n * h)) * scale; scale *= 0.78; h += 0.045; } while (h < 0.2);
  return clamp(1.0 - 3.2 * ${form.contact ? number('contact') : ''} * sum, 0.0, 1.0);
}`;
  const lighting = `
    vec3 n = normalAt(at, max(0.0006, pixel * 0.5));
    colour = lightUp(colour, n, -way, at, hit.surface)${form.contact ? ' * closeness(at, n)' : ''};`;
  const intoFog = `
    float share = clamp((closestAt - ${fog}.x) / max(1e-4, ${fog}.y - ${fog}.x), 0.0, 1.0) * ${fog}.z;
    colour = mix(colour, ${background}.rgb, share * ${background}.a);
    cover *= 1.0 - share * (1.0 - ${background}.a);`;
  return `
vec3 normalAt(vec3 p, float e) {
  vec2 k = vec2(1.0, -1.0);
  return normalize(k.xyy * map(p + k.xyy * e) + k.yyx * map(p + k.yyx * e) + k.yxy * map(p + k.yxy * e) + k.xxx * map(p + k.xxx * e));
}
${form.contact ? closeness : ''}
void main() {
  start();
  vec3 way = normalize(ray);
  // A cone as wide as a pixel: what it touches without meeting it covers a part of the pixel.
  float t = ${near};
  float closest = 1e5;
  float closestAt = t;
  float d = 0.0;
  float left = ${number('steps')};
  do {
    float pixel = max(${wide} * t + ${flatWide}, 1e-5);
    // The surface is met half a pixel inside, so that its edge fades by as much on both sides of where it is.
    d = map(begin + way * t) + 0.5 * pixel;
    if (d / pixel < closest) { closest = d / pixel; closestAt = t; }
    if (d < pixel * 0.1) break;
    t += d;
    left -= 1.0;
  } while (left > 0.0 && t < ${far});
  float pixel = max(${wide} * closestAt + ${flatWide}, 1e-5);
  float cover = clamp(1.1 - closest, 0.0, 1.0);
  vec4 picture = vec4(0.0);
  if (cover > 0.0) {
    vec3 at = begin + way * closestAt;
    Hit hit = look(at);
    vec3 colour = hit.colour;
    ${form.lit ? lighting : 'colour *= 1.0 + hit.surface.w;'}
    ${form.fog ? intoFog : ''}
    colour *= ${number('exposure')};
    ${form.soft ? 'colour = softTone(colour);' : ''}
    picture = vec4(colour, 1.0) * cover;
  }
  result = picture + vec4(${background}.rgb * ${background}.a, ${background}.a) * (1.0 - picture.a);
}
`;
}

/** Height of what a slice shows, in scene units: a little more than the usual view. */
const sliceHeight = 1.3;

/** A cut through the middle of the view: inside in the colours of the surface, outside rings a tenth of a unit apart. */
const sliceMain = `
uniform float aspect; uniform vec2 pixel;
in vec2 place;
void main() {
  start();
  vec2 at = (place - 0.5) * vec2(aspect, 1.0) * ${sliceHeight.toFixed(1)};
  Hit hit = look(vec3(at, 0.0));
  float d = hit.d;
  float px = pixel.y * ${sliceHeight.toFixed(1)};
  float inside = clamp(0.5 - d / px, 0.0, 1.0);
  float rim = clamp(1.6 - abs(d) / px, 0.0, 1.0);
  float ring = clamp(1.1 - abs(fract(d * 10.0 + 0.5) - 0.5) * 0.1 / px, 0.0, 1.0) * exp(-2.5 * max(d, 0.0));
  // What lies before or behind the cut still shows as a glow.
  vec3 around = vec3(0.55, 0.5, 0.72) * ring * 0.5 + hit.colour * 0.35 * exp(-3.0 * max(d, 0.0));
  vec3 within = hit.colour * (0.62 + 0.12 * ring);
  result = vec4(mix(mix(around, within, inside), mix(vec3(0.8, 0.75, 1.0), hit.colour, 0.4), rim), 1.0);
}
`;

/** Distance and colour at the places that stand in the pixels of `points`, one for each pixel of what is drawn. */
const sampleMain = `
uniform sampler2D points;
void main() {
  start();
  Hit hit = look(texelFetch(points, ivec2(gl_FragCoord.xy), 0).xyz);
  result = vec4(hit.d, hit.colour);
}
`;

/** Writes a shader that asks a field by itself: `main` says where, and what it makes of the answer. */
function assembleAlone(
  id: string,
  partOf: (id: string) => FieldPart | null,
  capacity: number,
  main: string,
): Assembled {
  const varyings = new FlatVaryings(capacity);
  const writer = new FieldWriter(partOf, varyings);
  const k = writer.field(id);
  const looks = writer.takeLooks();
  const fragment = [
    versionAndPrecision,
    ...writer.declarations,
    varyings.declared,
    'out vec4 result;',
    hitDeclared,
    ...writer.helpers,
    ...writer.functions,
    ...looks,
    `Hit look(vec3 p) { return h_${k}(p); }`,
    `void start() { ${varyings.start} }`,
    main,
  ].join('\n');
  const vertex = vertexHanding([...writer.declarations, varyings.handed].join('\n'), varyings.given);
  return { fragment, vertex, textures: writer.textures, numbers: writer.numbers, members: writer.members };
}

/** Writes the shader that shows a field by itself, as its card does: a slice that faces the viewer. */
export const assembleSlice = (
  id: string,
  partOf: (id: string) => FieldPart | null,
  capacity: number,
): Assembled => assembleAlone(id, partOf, capacity, sliceMain);

/** Writes the shader that works out a field at given places, as numbers. */
export const assembleSamples = (
  id: string,
  partOf: (id: string) => FieldPart | null,
  capacity: number,
): Assembled => assembleAlone(id, partOf, capacity, sampleMain);

/**
 * Writes the shader that renders fields: one function for each node, and a march along each pixel's ray. Controls are
 * uniforms, so that only another patch, another option or another form of light compiles. `capacity`: how many vectors of them
 * the varyings of the picture hand on; what is asked for most often comes first.
 */
export function assembleFields(
  fields: readonly string[],
  partOf: (id: string) => FieldPart | null,
  form: FieldShotForm,
  softTone: string,
  capacity: number,
): Assembled {
  const varyings = new FlatVaryings(capacity);
  const main = mainCode(form, varyings);
  const writer = new FieldWriter(partOf, varyings);
  const [first, ...others] = fields.map((id) => writer.field(id));
  const map =
    first === undefined
      ? 'float map(vec3 p) { return 1e5; }'
      : `float map(vec3 p) { float d = d_${first}(p); ${others.map((k) => `d = min(d, d_${k}(p));`).join(' ')} return d; }`;
  const light = form.lit ? lightGlsl(form.lights, (type, uniform) => varyings.take(type, uniform)) : '';
  const widths = form.lights.map((_, k) => varyings.take('float', `shadowWidth[${k}]`));
  const shadows = form.lit && form.lights.some(({ shadow }) => shadow);
  const look =
    first === undefined
      ? 'Hit look(vec3 p) { return Hit(1e5, vec3(0.0), vec4(0.0)); }'
      : `Hit look(vec3 p) { Hit h = h_${first}(p); ${others.map((k) => `{ Hit o = h_${k}(p); if (o.d < h.d) h = o; }`).join(' ')} return h; }`;
  const looks = writer.takeLooks();
  const uniforms = [shotDeclared, form.lit ? lightDeclared(form.lights) : '', ...writer.declarations].join(
    '\n',
  );
  const fragment = [
    versionAndPrecision,
    `// lights: ${form.lit ? lightKey(form.lights) : ''}`,
    uniforms,
    varyings.declared,
    head,
    hitDeclared,
    ...writer.helpers,
    form.soft ? softTone : '',
    ...writer.functions,
    map,
    ...looks,
    look,
    shadows ? shadowCode(widths) : '',
    light,
    `void start() { ${varyings.start} }`,
    main,
  ].join('\n');
  const vertex = [versionAndPrecision, uniforms, varyings.handed, vertexMain(varyings.given)].join('\n');
  return { fragment, vertex, textures: writer.textures, numbers: writer.numbers, members: writer.members };
}
