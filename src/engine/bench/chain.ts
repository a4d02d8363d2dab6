import type { Gpu } from '../gpu';
import { hashGlsl } from '../../nodes/glsl/noise';
import type { Work } from './measure';
import { fullVertex, type Raw } from './raw';
import { Patch, Rig, size } from './rig';
import type { Bits } from '../gpu';

/** Noise of four octaves, tone, hue, gradient map, blend with a gradient, vignette, grain, tone. */
function chainPatch(): { patch: Patch; last: string } {
  const p = new Patch();
  const steps = [
    p.add('noise', { octaves: 4, period: 0.4 }),
    p.add('tone', { exposure: 0.4 }),
    p.add('hue-saturation', { hue: 40, saturation: 1.3 }),
    p.add('gradient-map'),
    p.add('blend', { mode: 'screen', amount: 0.5 }),
    p.add('blend', { mode: 'multiply', amount: 0.8 }),
    p.add('grain', { strength: 0.04 }),
    p.add('tone', { exposure: 0.2 }),
  ];
  for (let k = 1; k < steps.length; k++) p.wire(steps[k - 1], steps[k], 'picture');
  p.wire(p.add('gradient'), steps[4], 'over');
  const vignette = [
    { at: 0, colour: [1, 1, 1, 1] as [number, number, number, number] },
    { at: 1, colour: [0, 0, 0, 1] as [number, number, number, number] },
  ];
  p.wire(p.add('gradient', { form: 'radial', length: 1.2, colours: vignette }), steps[5], 'over');
  return { patch: p, last: steps[7] };
}

export function chainEngine(gpu: Gpu, bits: Bits, apart = false): Rig {
  const { patch, last } = chainPatch();
  return new Rig(gpu, patch, last, { bits, apart });
}

/** The same picture, written by hand as one shader for 640 x 360 in 16-bit float. */
const fragment = `#version 300 es
precision highp float;
in vec2 place;
out vec4 result;
uniform float time;
${hashGlsl}
float corner(vec3 cell, vec3 from) { return dot(hash33(cell) * 2.0 - 1.0, from); }
float noise(vec3 q) {
  vec3 i = floor(q); vec3 f = q - i; vec3 u = f * f * f * (f * (f * 6.0 - 15.0) + 10.0);
  float a = mix(mix(corner(i, f), corner(i + vec3(1,0,0), f - vec3(1,0,0)), u.x),
                mix(corner(i + vec3(0,1,0), f - vec3(0,1,0)), corner(i + vec3(1,1,0), f - vec3(1,1,0)), u.x), u.y);
  float b = mix(mix(corner(i + vec3(0,0,1), f - vec3(0,0,1)), corner(i + vec3(1,0,1), f - vec3(1,0,1)), u.x),
                mix(corner(i + vec3(0,1,1), f - vec3(0,1,1)), corner(i + vec3(1,1,1), f - vec3(1,1,1)), u.x), u.y);
  return mix(a, b, u.z) * 1.25;
}
vec3 tone(vec3 c) {
  float most = max(c.r, max(c.g, c.b));
  if (most <= 0.6) return c;
  float held = 0.6 + 0.4 * (1.0 - exp(-(most - 0.6) / 0.4));
  return mix(c * (held / most), vec3(held), smoothstep(1.0, 5.0, most) * 0.6);
}
void main() {
  vec2 p = place;
  vec3 q = vec3((p - 0.5) * vec2(640.0 / 360.0, 1.0) / 0.4 + vec2(62.9, 33.3), time * 0.15);
  float sum = 0.0; float strength = 1.0; float total = 0.0;
  for (int k = 0; k < 4; k++) { sum += strength * noise(q); total += strength; strength *= 0.5; q = q * 2.0 + vec3(0.0, 0.0, 7.31); }
  vec3 v = vec3(sum / total * 0.5 + 0.5);
  v = tone(v * 1.3195);
  mat3 turn = mat3(0.93, 0.05, -0.2, -0.2, 0.97, 0.42, 0.27, -0.02, 0.78);
  v = turn * v;
  float t = dot(v, vec3(0.2126, 0.7152, 0.0722));
  v = mix(vec3(0.03, 0.02, 0.06), vec3(0.35, 0.1, 0.2), clamp(t / 0.4, 0.0, 1.0));
  v = mix(v, vec3(0.94, 0.5, 0.15), clamp((t - 0.4) / 0.35, 0.0, 1.0));
  v = mix(v, vec3(1.0, 0.93, 0.7), clamp((t - 0.75) / 0.25, 0.0, 1.0));
  vec2 c = (p - 0.5) * vec2(640.0 / 360.0, 1.0);
  float g = c.x + 0.5;
  vec3 over = mix(vec3(0.05, 0.03, 0.06), vec3(0.72, 0.32, 0.14), clamp(g / 0.55, 0.0, 1.0));
  over = mix(over, vec3(1.0, 0.88, 0.6), clamp((g - 0.55) / 0.45, 0.0, 1.0));
  v = mix(v, v + over - v * over, 0.5);
  v = mix(v, v * (1.0 - clamp(length(c) / 0.6, 0.0, 1.0)), 0.8);
  float h = hash33(vec3(floor(p * vec2(640.0, 360.0)), floor(time * 24.0) + 131.0)).x - 0.5;
  v += h * 0.08;
  v = tone(v * 1.1487);
  result = vec4(v, 1.0);
}`;

export function chainByHand(raw: Raw): Work {
  const { gl } = raw;
  const program = raw.program(fullVertex, fragment);
  const time = gl.getUniformLocation(program, 'time');
  const target = raw.target(size.width, size.height, gl.RGBA16F);
  return raw.work(target.framebuffer, (k) => {
    gl.useProgram(program);
    gl.uniform1f(time, k / 60);
    raw.pass(program, target.framebuffer, size.width, size.height);
  });
}
