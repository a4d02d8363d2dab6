import type { Gpu } from '../../gpu';
import { hashGlsl, noiseGlsl } from '../../../nodes/glsl/noise';
import type { Work } from '../measure';
import { fullVertex, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

const radiusPx = 5;
const windSize = { width: 160, height: 90 };

/** Zoom, keep, a push by coloured noise, noise added, and a blur in two directions. */
export function feedbackEngine(gpu: Gpu): Rig {
  const p = new Patch();
  const noise = p.add('noise', { octaves: 1, period: 0.3, amplitude: 0.05, offset: 0 });
  const wind = p.add('noise', { octaves: 1, period: 0.4, channels: 'three' }, [
    windSize.width,
    windSize.height,
  ]);
  const push = p.add('displace', { push: 0.03 });
  const zoom = p.add('transform', { scale: 1.02, outside: 'hold' });
  const blur = p.add('blur', { radius: radiusPx / size.height });
  const add = p.add('blend', { mode: 'add' });
  p.wire(zoom, push, 'picture');
  p.wire(wind, push, 'map');
  p.wire(push, add, 'picture');
  p.wire(noise, add, 'over');
  p.wire(add, blur, 'picture');
  const back = p.wire(blur, zoom, 'picture');
  p.scene.wires[back].back!.keep = 0.95;
  return new Rig(gpu, p, blur);
}

const head = `#version 300 es
precision highp float;
in vec2 place;
out vec4 result;
uniform sampler2D picture;
uniform sampler2D wind;
uniform float time;
uniform float period;
uniform float rate;
uniform float push;
uniform vec2 zoom;
uniform vec2 keep;
uniform float strength;
uniform float spread;
`;

const windText = `${head}
${hashGlsl}
${noiseGlsl}
void main() {
  vec3 q = vec3((place - 0.5) * vec2(160.0 / 90.0, 1.0) / period, time * rate);
  vec3 v = vec3(gradientNoise(q, vec3(0.0)), gradientNoise(q + vec3(53.0, 19.0, 0.31), vec3(0.0)), gradientNoise(q + vec3(106.0, 38.0, 0.75), vec3(0.0)));
  result = vec4(v * 0.5 + 0.5, 1.0);
}`;

const mixed = `${head}
${hashGlsl}
${noiseGlsl}
void main() {
  vec2 by = (texture(wind, place).rg - 0.5) * 2.0 * push;
  vec2 from = clamp(place - by / vec2(640.0 / 360.0, 1.0), 0.0, 1.0);
  vec4 before = texture(picture, (from - 0.5) / zoom + 0.5) * keep.x;
  before = sign(before) * min(abs(before), keep.y);
  float n = gradientNoise(vec3((place - 0.5) * vec2(640.0 / 360.0, 1.0) / period, time * rate), vec3(0.0)) * strength;
  result = before + vec4(vec3(n), 1.0);
}`;

const blur = (along: string): string => `${head}
void main() {
  vec2 along = ${along};
  float s = spread;
  vec4 sum = texture(picture, place);
  float total = 1.0;
  for (int k = 1; k <= ${radiusPx + 1}; k += 2) {
    float a = float(k); float b = a + 1.0;
    float wa = exp(-a * a / (2.0 * s * s)); float wb = exp(-b * b / (2.0 * s * s));
    float w = wa + wb;
    vec2 o = along * ((a * wa + b * wb) / w);
    sum += (texture(picture, place + o) + texture(picture, place - o)) * w;
    total += 2.0 * w;
  }
  result = sum / total;
}`;

export function feedbackByHand(raw: Raw): Work {
  const { gl } = raw;
  const { width, height } = size;
  const programs = [
    mixed,
    blur(`vec2(${(1 / width).toFixed(8)}, 0.0)`),
    blur(`vec2(0.0, ${(1 / height).toFixed(8)})`),
    windText,
  ].map((text) => raw.program(fullVertex, text));
  const [first, across, up, wind] = programs;
  const set = (program: WebGLProgram, name: string, ...values: number[]): void => {
    gl.useProgram(program);
    const place = gl.getUniformLocation(program, name);
    if (values.length === 2) gl.uniform2f(place, values[0], values[1]);
    else gl.uniform1f(place, values[0]);
  };
  set(wind, 'period', 0.4);
  set(first, 'period', 0.3);
  for (const program of [first, wind]) set(program, 'rate', 0.15);
  set(first, 'push', 0.03);
  set(first, 'zoom', 1.02, 1.02);
  set(first, 'keep', 0.95, 64);
  set(first, 'strength', 0.05);
  for (const program of [across, up]) set(program, 'spread', radiusPx / 2);
  gl.useProgram(first);
  gl.uniform1i(gl.getUniformLocation(first, 'wind'), 1);
  const times = [first, wind].map((program) => gl.getUniformLocation(program, 'time'));
  const [a, b, c] = [0, 1, 2].map(() => raw.target(width, height, gl.RGBA16F));
  const gusts = raw.target(windSize.width, windSize.height, gl.RGBA16F);
  gl.activeTexture(gl.TEXTURE1);
  gl.bindTexture(gl.TEXTURE_2D, gusts.texture);
  gl.activeTexture(gl.TEXTURE0);
  return raw.work(c.framebuffer, (k) => {
    gl.useProgram(wind);
    gl.uniform1f(times[1], k / 60);
    raw.pass(wind, gusts.framebuffer, windSize.width, windSize.height);
    gl.useProgram(first);
    gl.uniform1f(times[0], k / 60);
    gl.bindTexture(gl.TEXTURE_2D, c.texture);
    raw.pass(first, a.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, a.texture);
    raw.pass(programs[1], b.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, b.texture);
    raw.pass(programs[2], c.framebuffer, width, height);
  });
}
