import { hashGlsl, noiseGlsl } from '../../nodes/glsl/noise';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import type { Shown } from './measure';
import { ditherGlsl, fullVertex, literal, vec, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

const radiusPx = 5;
const windSize = { width: 160, height: 90 };
const keep = 0.95;

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
  p.scene.wires[back].back!.keep = keep;
  return new Rig(gpu, p, blur);
}

const lift = 37 * Number(catalogue.get('noise')!.controls.seed.default);
const shift = vec([lift * 1.7, lift * 0.9, 0]);
const aspect = literal(640 / 360);

const head = `#version 300 es
precision highp float;
precision highp int;
in vec2 place;
out vec4 result;
uniform sampler2D picture;
uniform sampler2D wind;
uniform float travel;
`;

const windText = `${head}
${hashGlsl}
${noiseGlsl}
void main() {
  vec3 q = vec3((place - 0.5) * vec2(${aspect}, 1.0) * 2.5, travel) + ${shift};
  result = vec4(vec3(gradientNoise(q, vec3(0.0)), gradientNoise(q + vec3(53.0, 19.0, 0.31), vec3(0.0)), gradientNoise(q + vec3(106.0, 38.0, 0.75), vec3(0.0))) * 0.5 + 0.5, 1.0);
}`;

const mixedText = `${head}
${hashGlsl}
${noiseGlsl}
void main() {
  vec2 from = clamp(place - (texture(wind, place).rg - 0.5) * ${vec([0.06 / (640 / 360), 0.06])}, 0.0, 1.0);
  vec4 before = texture(picture, clamp((from - 0.5) * ${literal(1 / 1.02)} + 0.5, 0.0, 1.0)) * ${literal(keep)};
  float n = gradientNoise(vec3((place - 0.5) * ${vec([640 / 360 / 0.3, 1 / 0.3])}, travel) + ${shift}, vec3(0.0)) * 0.05;
  result = vec4(before.rgb + n, min(1.0, before.a + 1.0));
}`;

/** A Gaussian of deviation radius / 2 as pairs of filtered reads, weights and places worked out beforehand and written out. */
function blurText(along: readonly [number, number], last: (sum: string) => string): string {
  const weight = (a: number): number => Math.exp((-2 * a * a) / (radiusPx * radiusPx));
  const pairs: { place: number; weight: number }[] = [];
  for (let a = 1; a <= radiusPx + 1; a += 2) {
    const both = weight(a) + weight(a + 1);
    pairs.push({ place: a + weight(a + 1) / both, weight: both });
  }
  const total = 1 + 2 * pairs.reduce((sum, pair) => sum + pair.weight, 0);
  const reads = pairs.map(({ place, weight: w }) => {
    const by = vec([along[0] * place, along[1] * place]);
    return `(texture(picture, place + ${by}) + texture(picture, place - ${by})) * ${literal(w / total)}`;
  });
  return `${head}${ditherGlsl}
void main() { ${last(`texture(picture, place) * ${literal(1 / total)} + ${reads.join(' + ')}`)} }`;
}

const shownText = `${head}${ditherGlsl}
void main() { result = vec4(dither(texture(picture, place).rgb), 1.0); }`;

export function feedbackByHand(raw: Raw): Shown {
  const { gl } = raw;
  const { width, height } = size;
  const plain = (sum: string): string => `result = ${sum};`;
  const [mixed, across, up, wind, shown] = [
    mixedText,
    blurText([1 / width, 0], plain),
    blurText([0, 1 / height], plain),
    windText,
    shownText,
  ].map((text) => raw.program(fullVertex, text));
  const travel = [mixed, wind].map((program) => gl.getUniformLocation(program, 'travel'));
  gl.useProgram(mixed);
  gl.uniform1i(gl.getUniformLocation(mixed, 'wind'), 1);
  const [a, b, c] = [0, 1, 2].map(() => raw.target(width, height, gl.RGBA32F));
  const gusts = raw.target(windSize.width, windSize.height, gl.RGBA32F);
  gl.activeTexture(gl.TEXTURE1);
  gl.bindTexture(gl.TEXTURE_2D, gusts.texture);
  gl.activeTexture(gl.TEXTURE0);
  return raw.shown((k) => {
    gl.useProgram(wind);
    gl.uniform1f(travel[1], (k / 60) * 0.15);
    raw.pass(wind, gusts.framebuffer, windSize.width, windSize.height);
    gl.useProgram(mixed);
    gl.uniform1f(travel[0], (k / 60) * 0.15);
    gl.bindTexture(gl.TEXTURE_2D, c.texture);
    raw.pass(mixed, a.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, a.texture);
    raw.pass(across, b.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, b.texture);
    raw.pass(up, c.framebuffer, width, height);
    gl.bindTexture(gl.TEXTURE_2D, c.texture);
    raw.pass(shown, null, width, height);
  });
}
