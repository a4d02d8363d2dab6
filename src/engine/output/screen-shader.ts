import type { EdgeBlend } from '../../core/document/types';
import { ditherText, seenText, transitText } from './presenter';

/** The numbers of an output that stay as they are while it is played. */
export interface ScreenNumbers {
  blend: EdgeBlend;
  /** Of red, green and blue. */
  gain: number[];
  bend: number[];
  black: number[];
  hasMask: boolean;
  /** All of its picture lies on the canvas. */
  isWithin: boolean;
}

/** Where in the canvas a corner looks is worked out for corners only: it lies evenly between them. */
export const screenVertex = `#version 300 es
precision highp float;
in vec3 spot;
in vec2 picture;
uniform vec4 firstLook;
uniform vec4 secondLook;
uniform vec3 toX;
uniform vec3 toY;
flat out vec4 firstSeen;
flat out vec4 secondSeen;
out vec2 at;
out vec2 place;
void main() {
  firstSeen = firstLook;
  secondSeen = secondLook;
  at = picture;
  vec3 here = vec3(picture, 1.0);
  place = vec2(dot(toX, here), dot(toY, here));
  gl_Position = vec4(2.0 * spot.x - spot.z, spot.z - 2.0 * spot.y, 0.0, spot.z);
}`;

/** A number as GLSL writes a float. */
export const num = (v: number): string => (Number.isInteger(v) ? `${v}.0` : String(v));
const vec = (values: readonly number[]): string => `vec3(${values.map(num).join(', ')})`;
const all = (values: readonly number[], value: number): boolean => values.every((v) => v === value);

/** What a side that overlaps keeps: two sides of the same width add up to 1. */
const rampText = (power: string): string => `float ramp(float t) {
  t = clamp(t, 0.0, 1.0);
  float low = ${power === '2.0' ? '2.0 * min(t, 1.0 - t) * min(t, 1.0 - t)' : `0.5 * pow(2.0 * min(t, 1.0 - t), ${power})`};
  return t < 0.5 ? low : 1.0 - low;
}`;

/** In linear light, where overlapping projectors add up. */
const blendText = (kept: string, gamma: string, lift: string): string => `{
    float kept = ${kept};
    vec3 light = pow(c, vec3(${gamma}));
    light += ${lift} * step(0.9999, kept) * (1.0 - light);
    c = pow(light * kept, vec3(1.0 / ${gamma}));
  }`;

const head = `#version 300 es
precision highp float;
in vec2 at;
in vec2 place;
flat in vec4 firstSeen;
flat in vec4 secondSeen;
uniform sampler2D first;
uniform sampler2D second;
uniform sampler2D mask;
uniform vec2 size;
out vec4 result;
${seenText}`;

const withinText = `vec2 within = step(vec2(0.0), place) * step(place, vec2(1.0));
  c *= within.x * within.y;`;

const tail = (mask: string): string => `vec2 edge = min(at, 1.0 - at) / max(fwidth(at), 1e-6);
  c *= clamp(min(edge.x, edge.y) + 0.5, 0.0, 1.0)${mask};
  ${ditherText}
  result = vec4(c, 1.0);
}`;

const maskRead = ' * texture(mask, gl_FragCoord.xy / size).r';

/** For every output: its numbers are uniforms. */
const forAll = `${head}
uniform float fade;
uniform vec4 overlap;
uniform vec3 blend;
uniform vec3 gain;
uniform vec3 bend;
uniform vec3 black;
${transitText}
${rampText('blend.x')}
float side(float distance, float width) { return width <= 0.0 ? 1.0 : ramp(distance / width); }
void main() {
  vec3 c = seen(texture(first, place), firstSeen);
  if (fade > 0.0) c = transit(c, seen(texture(second, place), secondSeen), fade, place);
  c = clamp(c, 0.0, 1.0);
  ${withinText}
  c *= gain;
  c = black + (1.0 - black) * pow(c, bend);
  if (overlap != vec4(0.0)) ${blendText('side(at.x, overlap.x) * side(1.0 - at.x, overlap.y) * side(at.y, overlap.z) * side(1.0 - at.y, overlap.w)', 'blend.y', 'blend.z')}
  ${tail(maskRead)}`;

/**
 * The fragment shader of an output; null: the one for all. With its numbers in the code nothing is worked out that changes nothing, and
 * a renderer in software, which reads uniforms slowly, needs half the time.
 */
export function screenFragment(numbers: ScreenNumbers | null): string {
  if (!numbers) return forAll;
  const { blend, gain, bend, black, hasMask, isWithin } = numbers;
  const sides = (
    [
      ['at.x', blend.left],
      ['1.0 - at.x', blend.right],
      ['at.y', blend.top],
      ['1.0 - at.y', blend.bottom],
    ] as const
  ).flatMap(([distance, width]) => (width > 0 ? [`ramp((${distance}) * ${num(1 / width)})`] : []));
  const steps = [
    'vec3 c = clamp(seen(texture(first, place), firstSeen), 0.0, 1.0);',
    isWithin ? '' : withinText,
    all(gain, 1) ? '' : `c *= ${vec(gain)};`,
    all(bend, 1) ? '' : `c = pow(c, ${vec(bend)});`,
    all(black, 0) ? '' : `c = ${vec(black)} + ${vec(black.map((b) => 1 - b))} * c;`,
    sides.length ? blendText(sides.join(' * '), num(blend.gamma), num(blend.lift)) : '',
  ];
  return `${head}
${sides.length ? rampText(num(blend.power)) : ''}
void main() {
  ${steps.filter(Boolean).join('\n  ')}
  ${tail(hasMask ? maskRead : '')}`;
}
