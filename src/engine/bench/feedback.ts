import type { Gpu } from '../gpu';
import { hashGlsl, noiseGlsl } from '../../nodes/glsl/noise';
import type { Work } from './measure';
import { fullVertex, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

const radiusPx = 5;

/** Zoom, keep, noise added, and a blur in two directions. */
export function feedbackEngine(gpu: Gpu): Rig {
  const p = new Patch();
  const noise = p.add('noise', { octaves: 1, period: 0.3, amplitude: 0.05, offset: 0 });
  const zoom = p.add('transform', { scale: [1.02, 1.02], outside: 'hold' });
  const blur = p.add('blur', { radius: radiusPx / size.height });
  const add = p.add('blend', { mode: 'add' });
  p.wire(zoom, add, 'picture');
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
uniform float time;
`;

const mixed = `${head}
${hashGlsl}
${noiseGlsl}
void main() {
  vec4 before = texture(picture, (place - 0.5) / 1.02 + 0.5) * 0.95;
  float n = gradientNoise(vec3((place - 0.5) * vec2(640.0 / 360.0, 1.0) / 0.3, time * 0.15), vec3(0.0)) * 0.05;
  result = before + vec4(vec3(n), 1.0);
}`;

const blur = (along: string): string => `${head}
void main() {
  vec2 along = ${along};
  float s = ${(radiusPx / 2).toFixed(2)};
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
  ].map((text) => raw.program(fullVertex, text));
  const time = gl.getUniformLocation(programs[0], 'time');
  const [a, b, c] = [0, 1, 2].map(() => raw.target(width, height, gl.RGBA16F));
  return raw.work(c.framebuffer, (k) => {
    gl.useProgram(programs[0]);
    gl.uniform1f(time, k / 60);
    gl.bindTexture(gl.TEXTURE_2D, c.texture);
    raw.pass(programs[0], a.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, a.texture);
    raw.pass(programs[1], b.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, b.texture);
    raw.pass(programs[2], c.framebuffer, width, height);
  });
}
