import { hashGlsl, noiseGlsl } from '../../nodes/glsl/noise';
import { softToneGlsl } from '../../nodes/glsl/tone';
import { catalogue } from '../../nodes/catalogue';
import type { ResolvedControl } from '../../core/kind/controls';
import type { Stop } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import type { Bits, Gpu } from '../gpu/gpu';
import type { Shown } from './measure';
import { ditherGlsl, fullVertex, literal, vec, type Raw } from './raw';
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
  const vignette: Stop[] = [
    { at: 0, colour: [1, 1, 1, 1] },
    { at: 1, colour: [0, 0, 0, 1] },
  ];
  p.wire(p.add('gradient', { form: 'radial', length: 1.2, colours: vignette }), steps[5], 'over');
  return { patch: p, last: steps[7] };
}

export function chainEngine(gpu: Gpu): Rig {
  const { patch, last } = chainPatch();
  return new Rig(gpu, patch, last);
}

/** Eight steps that only change colours: what joining saves is the storing between them. */
export function stepsEngine(gpu: Gpu, bits: Bits, apart: boolean, over: 'gradient' | 'noise'): Rig {
  const p = new Patch();
  const steps = [
    over === 'noise' ? p.add('noise', { octaves: 4, period: 0.4 }) : p.add('gradient'),
    p.add('levels', { contrast: 1.2 }),
    p.add('tone', { exposure: 0.4 }),
    p.add('hue-saturation', { hue: 40, saturation: 1.3 }),
    p.add('channel-swap', { red: 'green', green: 'blue', blue: 'red' }),
    p.add('gradient-map'),
    p.add('hue-saturation', { hue: -20 }),
    p.add('grain', { strength: 0.04 }),
    p.add('tone', { exposure: 0.2 }),
  ];
  for (let k = 1; k < steps.length; k++) p.wire(steps[k - 1], steps[k], 'picture');
  // What stands still is not drawn again.
  if (over === 'gradient') p.wire(p.add('oscillator'), steps[0], 'turn');
  return new Rig(gpu, p, steps[8], { bits, apart });
}

const homeOf = (kind: string, control: string): unknown => catalogue.get(kind)!.controls[control].default;

/** A gradient as arithmetic with its stops as literals; slopes are divided beforehand. */
const gradientText = (stops: readonly Stop[], t: string): string =>
  stops.slice(1).reduce(
    (text, { at, colour }, k) => {
      const rise = 1 / (at - stops[k].at);
      return `mix(${text}, ${vec(colour.slice(0, 3))}, clamp(${t} * ${literal(rise)} + ${literal(-stops[k].at * rise)}, 0.0, 1.0))`;
    },
    vec(stops[0].colour.slice(0, 3)),
  );

/** Rows of the matrix that the hue step of the patch comes to. */
function hueRows(): string[] {
  const kind = catalogue.get('hue-saturation')!;
  if (kind.output !== 'image' || kind.paint.type !== 'shader') throw new TypeError('Not a shader.');
  const controls = {
    hue: (40 * Math.PI) / 180,
    saturation: 1.3,
    lightness: homeOf('hue-saturation', 'lightness'),
    tint: homeOf('hue-saturation', 'tint'),
  };
  const { toRed, toGreen, toBlue } = kind.paint.derive!(
    controls as Record<string, ResolvedControl>,
    momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
    360,
    null,
  );
  return [toRed, toGreen, toBlue].map((row) => vec(row as number[]));
}

/** The same picture by hand: one shader onto the surface, everything that stands still a literal, the octaves written out. */
const chainFragment = (): string => {
  const octaves = [1, 0.5, 0.25, 0.125];
  const total = octaves.reduce((sum, v) => sum + v, 0);
  const layers = octaves.map((strength, k) => {
    const scale = 2 ** k;
    const lift = 7.31 * (scale - 1);
    return `${literal((0.5 * strength) / total)} * gradientNoise(q * ${literal(scale)} + vec3(0.0, 0.0, ${literal(lift)}), vec3(0.0))`;
  });
  const lift = 37 * Number(homeOf('noise', 'seed'));
  const [red, green, blue] = hueRows();
  return `#version 300 es
precision highp float;
precision highp int;
in vec2 place;
out vec4 result;
uniform float time;
uniform float tick;
${hashGlsl}
${noiseGlsl}
${softToneGlsl}
${ditherGlsl}
void main() {
  vec2 c = (place - 0.5) * vec2(${literal(640 / 360)}, 1.0);
  vec3 q = vec3(c * 2.5 + ${vec([lift * 1.7, lift * 0.9])}, time * 0.15);
  vec3 v = softTone(vec3((${layers.join(' + ')} + 0.5) * ${literal(2 ** 0.4)}));
  v = vec3(dot(${red}, v), dot(${green}, v), dot(${blue}, v));
  float t = dot(v, vec3(0.2126, 0.7152, 0.0722));
  v = ${gradientText(homeOf('gradient-map', 'colours') as Stop[], 't')};
  float g = c.x + 0.5;
  vec3 top = ${gradientText(homeOf('gradient', 'colours') as Stop[], 'g')} * 0.5;
  v = v + top - v * top;
  v *= 1.0 - 0.8 * clamp(length(c) * ${literal(2 / 1.2)}, 0.0, 1.0);
  v += (hash33(vec3(floor(gl_FragCoord.xy), tick)).x - 0.5) * 0.08;
  result = vec4(dither(softTone(v * ${literal(2 ** 0.2)})), 1.0);
}`;
};

export function chainByHand(raw: Raw): Shown {
  const { gl } = raw;
  const program = raw.program(fullVertex, chainFragment());
  const [time, tick] = ['time', 'tick'].map((name) => gl.getUniformLocation(program, name));
  const seed = 131 * Number(homeOf('grain', 'seed'));
  return raw.shown((k) => {
    gl.useProgram(program);
    gl.uniform1f(time, k / 60);
    gl.uniform1f(tick, Math.floor((k / 60) * 24) + seed);
    raw.pass(program, null, size.width, size.height);
  });
}
