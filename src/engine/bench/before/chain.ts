import type { Gpu } from '../../gpu';
import { hashGlsl } from '../../../nodes/glsl/noise';
import type { Work } from '../measure';
import { fullVertex, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

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

export function chainEngine(gpu: Gpu): Rig {
  const { patch, last } = chainPatch();
  return new Rig(gpu, patch, last, { bits: '16' });
}

/** The same picture, written by hand as one shader for 640 x 360 in 16-bit float, with its numbers as uniforms: they are to be played too. */
const fragment = `#version 300 es
precision highp float;
in vec2 place;
out vec4 result;
uniform float time;
uniform float period;
uniform float rate;
uniform vec2 gain;
uniform mat3 turn;
uniform vec3 map[4];
uniform float mapAt[4];
uniform vec3 sky[3];
uniform float skyAt[3];
uniform vec2 amounts;
uniform float dark;
uniform float grain;
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
  vec3 q = vec3((p - 0.5) * vec2(640.0 / 360.0, 1.0) / period + vec2(62.9, 33.3), time * rate);
  float sum = 0.0; float strength = 1.0; float total = 0.0;
  for (int k = 0; k < 4; k++) { sum += strength * noise(q); total += strength; strength *= 0.5; q = q * 2.0 + vec3(0.0, 0.0, 7.31); }
  vec3 v = vec3(sum / total * 0.5 + 0.5);
  v = tone(v * gain.x);
  v = turn * v;
  float t = dot(v, vec3(0.2126, 0.7152, 0.0722));
  v = mix(map[0], map[1], clamp((t - mapAt[0]) / (mapAt[1] - mapAt[0]), 0.0, 1.0));
  v = mix(v, map[2], clamp((t - mapAt[1]) / (mapAt[2] - mapAt[1]), 0.0, 1.0));
  v = mix(v, map[3], clamp((t - mapAt[2]) / (mapAt[3] - mapAt[2]), 0.0, 1.0));
  vec2 c = (p - 0.5) * vec2(640.0 / 360.0, 1.0);
  float g = c.x + 0.5;
  vec3 over = mix(sky[0], sky[1], clamp((g - skyAt[0]) / (skyAt[1] - skyAt[0]), 0.0, 1.0));
  over = mix(over, sky[2], clamp((g - skyAt[1]) / (skyAt[2] - skyAt[1]), 0.0, 1.0));
  v = mix(v, v + over - v * over, amounts.x);
  v = mix(v, v * (1.0 - clamp(length(c) / dark, 0.0, 1.0)), amounts.y);
  float h = hash33(vec3(floor(p * vec2(640.0, 360.0)), floor(time * 24.0) + 131.0)).x - 0.5;
  v += h * 2.0 * grain;
  v = tone(v * gain.y);
  result = vec4(v, 1.0);
}`;

export function chainByHand(raw: Raw): Work {
  const { gl } = raw;
  const program = raw.program(fullVertex, fragment);
  const time = gl.getUniformLocation(program, 'time');
  gl.useProgram(program);
  const at = (name: string): WebGLUniformLocation | null => gl.getUniformLocation(program, name);
  gl.uniform1f(at('period'), 0.4);
  gl.uniform1f(at('rate'), 0.15);
  gl.uniform2f(at('gain'), 1.3195, 1.1487);
  gl.uniformMatrix3fv(at('turn'), false, [0.93, 0.05, -0.2, -0.2, 0.97, 0.42, 0.27, -0.02, 0.78]);
  gl.uniform3fv(at('map'), [0.03, 0.02, 0.06, 0.35, 0.1, 0.2, 0.94, 0.5, 0.15, 1, 0.93, 0.7]);
  gl.uniform1fv(at('mapAt'), [0, 0.4, 0.75, 1]);
  gl.uniform3fv(at('sky'), [0.05, 0.03, 0.06, 0.72, 0.32, 0.14, 1, 0.88, 0.6]);
  gl.uniform1fv(at('skyAt'), [0, 0.55, 1]);
  gl.uniform2f(at('amounts'), 0.5, 0.8);
  gl.uniform1f(at('dark'), 0.6);
  gl.uniform1f(at('grain'), 0.04);
  const target = raw.target(size.width, size.height, gl.RGBA16F);
  return raw.work(target.framebuffer, (k) => {
    gl.useProgram(program);
    gl.uniform1f(time, k / 60);
    raw.pass(program, target.framebuffer, size.width, size.height);
  });
}
