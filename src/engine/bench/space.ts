import { gridLines } from '../../core/shape/shape';
import type { Stop } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import type { Shown } from './measure';
import { ditherGlsl, fullVertex, literal, seenAt, vec, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

/** A sheet of 1,024 x 1,024 points lifted by an image that stands still, drawn as lines. */
export function sheetEngine(gpu: Gpu): Rig {
  const p = new Patch();
  const colours: Stop[] = [
    { at: 0, colour: [0, 0, 0, 1] },
    { at: 1, colour: [1, 1, 1, 1] },
  ];
  const image = p.add('gradient', { colours }, [256, 256]);
  const sheet = p.add('sheet', { columns: 1024, rows: 1024, size: [1.6, 0.9] });
  const body = p.add('body', { draw: 'lines', shading: 'flat', width: 1, liftAlong: 'z', liftDepth: 0.3 });
  const camera = p.add('camera');
  p.scene.nodes[camera].motions.orbit = [
    { type: 'swing', on: true, amount: 5, shape: 'sine', rate: 0.5, unit: 'hertz', phase: 0 },
  ];
  const shot = p.add('shot', { edges: 'plain', tone: 'none' });
  p.wire(sheet, body, 'shape');
  p.wire(image, body, 'lift');
  p.wire(body, shot, 'props');
  p.wire(camera, shot, 'props');
  return new Rig(gpu, p, shot);
}

const bodyHome = (control: string): unknown => catalogue.get('body')!.controls[control].default;

export function sheetByHand(raw: Raw): Shown {
  const { gl } = raw;
  const { width, height } = size;
  const n = 1024;
  const positions = new Float32Array(3 * n * n);
  const uvs = new Float32Array(2 * n * n);
  for (let i = 0; i < n * n; i++) {
    const [u, v] = [(i % n) / (n - 1), Math.floor(i / n) / (n - 1)];
    positions.set([(u - 0.5) * 1.6, (v - 0.5) * 0.9, 0], 3 * i);
    uvs.set([u, v], 2 * i);
  }
  const { rows, columns } = gridLines(n, n);
  const index = new Uint32Array(rows.length + columns.length);
  index.set(rows);
  index.set(columns, rows.length);
  const middle = Number(bodyHome('liftMiddle'));
  const program = raw.program(
    `#version 300 es
precision highp float;
in vec3 position;
in vec2 uv;
uniform sampler2D image;
uniform mat4 seen;
void main() {
  gl_Position = seen * vec4(position.xy, 0.3 * (dot(textureLod(image, uv, 0.0).rgb, vec3(0.2126, 0.7152, 0.0722)) - ${literal(middle)}), 1.0);
}`,
    `#version 300 es
precision highp float;
out vec4 result;
void main() { result = vec4(${vec((bodyHome('colour') as number[]).slice(0, 3))}, 1.0); }`,
  );
  const vertices = raw.vertices(program, { position: [positions, 3], uv: [uvs, 2] }, index);
  // A gradient from the left to the right as wide as the picture is high, as the patch has it.
  const ramp = Float32Array.from({ length: 256 * 256 * 4 }, (_, k) =>
    Math.min(1, Math.max(0, ((((k >> 2) % 256) + 0.5) / 256 - 0.5) * 1 + 0.5)),
  );
  const image = raw.picture(256, 256, ramp);
  const seen = gl.getUniformLocation(program, 'seen');
  return raw.shown((k) => {
    gl.useProgram(program);
    gl.uniformMatrix4fv(seen, false, seenAt(k, width / height));
    gl.bindTexture(gl.TEXTURE_2D, image);
    gl.bindFramebuffer(gl.FRAMEBUFFER, null);
    gl.viewport(0, 0, width, height);
    gl.clearColor(0, 0, 0, 1);
    gl.enable(gl.DEPTH_TEST);
    gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
    gl.bindVertexArray(vertices);
    gl.drawElements(gl.LINES, index.length, gl.UNSIGNED_INT, 0);
    gl.bindVertexArray(null);
    gl.disable(gl.DEPTH_TEST);
  });
}

const small = { width: 320, height: 180 };
const places = [
  [-0.25, 0.1, 0],
  [0.2, -0.15, 0.1],
  [0.05, 0.25, -0.1],
] as const;

/** Three balls and a box that melt into each other, lit, with shadows and contact shading, while one of them moves. */
export function fieldsEngine(gpu: Gpu): Rig {
  const p = new Patch();
  const blend = p.add('field-blend', { soft: 0.12 });
  places.forEach((move, k) => {
    const ball = p.add('field-ball', { radius: 0.16 });
    const place = p.add('field-place', { move: [...move] });
    p.wire(ball, place, 'field');
    p.wire(place, blend, 'fields');
    if (k === 0)
      p.scene.nodes[place].motions['move.x'] = [
        { type: 'swing', on: true, amount: 0.1, shape: 'sine', rate: 0.5, unit: 'hertz', phase: 0 },
      ];
  });
  p.wire(p.add('field-box', { size: [0.3, 0.3, 0.3] }), blend, 'fields');
  const shot = p.add('field-shot', { quality: 1, tone: 'none', far: 6 });
  p.wire(blend, shot, 'fields');
  return new Rig(gpu, p, shot, {}, small);
}

/** The same scene, march, light and shading written out in one shader. */
const fieldsFragment = `#version 300 es
precision highp float;
in vec2 place;
out vec4 result;
uniform vec3 moved;
const vec3 two = ${vec(places[1])}; const vec3 three = ${vec(places[2])};
${ditherGlsl}
vec2 join(float a, float b) {
  float h = clamp(0.5 + 0.5 * (a - b) / 0.12, 0.0, 1.0);
  return vec2(mix(a, b, h) - 0.12 * h * (1.0 - h), h);
}
float box(vec3 p) { vec3 q = abs(p) - 0.15; return length(max(q, 0.0)) + min(max(q.x, max(q.y, q.z)), 0.0); }
float map(vec3 p) {
  float d = length(p - moved) - 0.16;
  d = join(d, length(p - two) - 0.16).x;
  d = join(d, length(p - three) - 0.16).x;
  return join(d, box(p)).x;
}
vec3 normalAt(vec3 p, float e) {
  vec2 k = vec2(1.0, -1.0);
  return normalize(k.xyy * map(p + k.xyy * e) + k.yyx * map(p + k.yyx * e) + k.yxy * map(p + k.yxy * e) + k.xxx * map(p + k.xxx * e));
}
float shadow(vec3 at, vec3 n, vec3 to) {
  float open = 1.0; float t = 0.012; float left = 40.0;
  at += n * 0.004;
  do {
    float d = map(at + to * t);
    open = min(open, 0.5 + 0.5 * d * 48.0 / t);
    t += clamp(d, 0.012, 0.25); left -= 1.0;
  } while (left > 0.0 && open > 0.0 && t < 4.0);
  open = max(open, 0.0);
  return open * open * (3.0 - 2.0 * open);
}
void main() {
  vec2 c = (place - 0.5) * vec2(320.0 / 180.0, 1.0) * 2.0;
  vec3 eye = vec3(0.9, 0.7, 1.5);
  vec3 back = normalize(eye); vec3 right = normalize(cross(vec3(0.0, 1.0, 0.0), back)); vec3 up = cross(back, right);
  float lens = 0.36397;
  vec3 way = normalize(mat3(right, up, back) * vec3(c * lens, -1.0));
  float wide = 2.0 * lens / 180.0;
  float t = 0.01; float closest = 1e5; float closestAt = t; float left = 160.0;
  do {
    float pixel = max(wide * t, 1e-5);
    float d = map(eye + way * t) + 0.5 * pixel;
    if (d / pixel < closest) { closest = d / pixel; closestAt = t; }
    if (d < pixel * 0.1) break;
    t += d; left -= 1.0;
  } while (left > 0.0 && t < 6.0);
  float cover = clamp(1.1 - closest, 0.0, 1.0);
  vec4 picture = vec4(0.0);
  if (cover > 0.0) {
    vec3 at = eye + way * closestAt;
    vec3 n = normalAt(at, max(0.0006, wide * closestAt * 0.5));
    vec3 to = normalize(vec3(0.6, 1.0, 0.8));
    float open = mix(1.0, shadow(at, n, to), 0.75);
    vec3 sun = vec3(1.0, 0.96, 0.9) * open;
    float facing = clamp(dot(n, to), 0.0, 1.0);
    vec3 light = sun * facing + vec3(0.7, 0.8, 1.0) * 0.25;
    vec3 shine = sun * pow(max(0.0, dot(n, normalize(to - way))), 57.0) * 0.3;
    vec3 colour = vec3(0.95, 0.72, 0.34) * light + shine;
    float sum = 0.0; float scale = 1.0; float h = 0.012;
    do { sum += (h - map(at + n * h)) * scale; scale *= 0.78; h += 0.045; } while (h < 0.2);
    picture = vec4(colour * clamp(1.0 - 1.6 * sum, 0.0, 1.0), 1.0) * cover;
  }
  result = vec4(dither(picture.rgb), 1.0);
}`;

export function fieldsByHand(raw: Raw): Shown {
  const { gl } = raw;
  const program = raw.program(fullVertex, fieldsFragment);
  const moved = gl.getUniformLocation(program, 'moved');
  return raw.shown((k) => {
    gl.useProgram(program);
    gl.uniform3f(
      moved,
      places[0][0] + 0.1 * Math.sin((2 * Math.PI * 0.5 * k) / 60),
      places[0][1],
      places[0][2],
    );
    raw.pass(program, null, small.width, small.height);
  }, small);
}
