import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import { vertexHanding } from '../gpu/full-screen';
import type { Gpu } from '../gpu/gpu';
import type { Transition } from '../../core/document/types';
import type { Look } from '../image/look';
import type { OutputMapping } from '../protocol/protocol';
import { spanOf, wholePicture } from './mapping';

/** Looks stand in the corners, not in the pixels: a renderer in software reads uniforms slowly. */
const vertex = vertexHanding(
  `uniform vec4 firstLook;
uniform vec4 secondLook;
uniform float fade;
uniform vec2 span;
flat out vec4 firstSeen;
flat out vec4 secondSeen;
flat out float faded;
out vec2 fitted;`,
  `firstSeen = firstLook;
  secondSeen = secondLook;
  faded = fade;
  fitted = (place - 0.5) * span + 0.5;`,
);

/** A picture's colour as it is looked at: on its background, at its brightness. */
export const seenText =
  'vec3 seen(vec4 c, vec4 look) { return (c.rgb + look.rgb * (1.0 - clamp(c.a, 0.0, 1.0))) * look.a; }';

/** How two pictures are seen during a transition; `core/show/transition.ts` says the same in numbers. `at`: place in the picture of the canvas. */
export const transitText = `uniform float transitLook;
uniform vec4 transitWay;
uniform vec3 transitColour;
vec3 transit(vec3 a, vec3 b, float t, vec2 at) {
  if (transitLook < 0.5) return mix(a, b, t);
  if (transitLook < 1.5) return t < 0.5 ? mix(a, transitColour, 2.0 * t) : mix(transitColour, b, 2.0 * t - 1.0);
  if (transitLook < 2.5) return a * min(1.0, 2.0 - 2.0 * t) + b * min(1.0, 2.0 * t);
  vec2 p = (at - 0.5) * vec2(transitWay.w, 1.0);
  float way = transitLook < 3.5
    ? dot(p, transitWay.xy) / (abs(transitWay.x) * transitWay.w + abs(transitWay.y)) + 0.5
    : length(p) / length(vec2(0.5 * transitWay.w, 0.5));
  return mix(a, b, clamp((t * (1.0 + transitWay.z) - way) / transitWay.z, 0.0, 1.0));
}`;

/** Looks that every output draws by itself; the others are drawn by `ProgramMix`. */
const transitLooks: readonly Transition['look'][] = ['mix', 'dip', 'add', 'wipe', 'iris'];

/** Whether outputs draw a look by themselves: it needs no more of both pictures than the place that is drawn. */
export const isDrawnByOutputs = (look: Transition['look']): boolean => transitLooks.includes(look);

/**
 * Half a step of noise before the last rounding to 8 bits keeps slow gradients from showing bands. The noise is
 * interleaved gradient noise (J. Jimenez, SIGGRAPH 2014).
 */
export const ditherAt = (at: string): string =>
  `c += fract(52.9829189 * fract(dot(${at}, vec2(0.06711056, 0.00583715)))) / 255.0 - 0.5 / 255.0;`;
export const ditherText = ditherAt('gl_FragCoord.xy');

const body = (
  colour: string,
  more = '',
  result = `${ditherText}
  result = vec4(c, 1.0);`,
): string => `#version 300 es
precision highp float;
in vec2 fitted;
flat in vec4 firstSeen;
flat in vec4 secondSeen;
flat in float faded;
uniform sampler2D first;
uniform sampler2D second;
uniform vec4 part;
out vec4 result;
${seenText}
${more}
void main() {
  ${colour}
  ${result}
}
`;

const inside = `vec2 within = step(vec2(0.0), fitted) * step(fitted, vec2(1.0));
  c *= within.x * within.y;`;
const place = 'part.xy + fitted * part.zw';

const fragments = {
  /** One picture, pixel for pixel. */
  exact: body('vec3 c = seen(texelFetch(first, ivec2(gl_FragCoord.xy), 0), firstSeen);'),
  /** One picture, larger or smaller, a part of it, or between bars. */
  fitted: body(`vec3 c = seen(texture(first, ${place}), firstSeen);
  ${inside}`),
  /** Two that are mixed. */
  mixed: body(
    `vec2 at = ${place};
  vec3 c = transit(seen(texture(first, at), firstSeen), seen(texture(second, at), secondSeen), faded, at);
  ${inside}`,
    transitText,
  ),
};
type Form = keyof typeof fragments;

/** What is exported: pictures as numbers, without the noise of a screen. */
const exportFragments = {
  /** Two that are mixed, or one. */
  numbers: body(
    `vec2 at = ${place};
  vec3 c = seen(texture(first, at), firstSeen);
  if (faded > 0.0) c = transit(c, seen(texture(second, at), secondSeen), faded, at);
  ${inside}`,
    transitText,
    'result = vec4(c, 1.0);',
  ),
  /** One without its background, multiplied by its alpha. */
  through: body(`vec4 c = texture(first, ${place});`, '', 'result = vec4(c.rgb * firstSeen.a, c.a);'),
};
export type ExportForm = keyof typeof exportFragments;

/** What a surface shows: one picture, or two that are mixed. */
export interface Presented {
  first: Look;
  second: Look;
  /** Share of the second, 0..1. */
  fade: number;
  /** Brightness, 0 is black. */
  level: number;
  /** How the two are mixed, on a canvas of that width over height; absent: one into the other. */
  transition?: { of: Transition; aspect: number };
}

/** The level is part of how a picture is seen, so that nothing is left to multiply. */
const lookNumbers = ({ background, brightness }: Look, level: number): number[] => [
  ...background.slice(0, 3),
  brightness * level,
];

interface Size {
  width: number;
  height: number;
}

/** Uniforms that say what is presented, for every shader that draws it. */
export const presentedUniforms = () => ({
  first: { value: null as Texture | null },
  second: { value: null as Texture | null },
  firstLook: { value: [0, 0, 0, 1] },
  secondLook: { value: [0, 0, 0, 1] },
  fade: { value: 0 },
  transitLook: { value: 0 },
  transitWay: { value: [1, 0, 0.1, 1] },
  transitColour: { value: [0, 0, 0] as readonly number[] },
});

/** Fills them. */
export function fillPresented(
  uniforms: ReturnType<typeof presentedUniforms>,
  { first, second, fade, level, transition }: Presented,
): void {
  uniforms.first.value = first.texture;
  uniforms.second.value = second.texture;
  uniforms.firstLook.value = lookNumbers(first, level);
  uniforms.secondLook.value = lookNumbers(second, level);
  uniforms.fade.value = fade;
  if (fade === 0) return;
  uniforms.transitLook.value = transition ? Math.max(0, transitLooks.indexOf(transition.of.look)) : 0;
  if (!transition) return;
  const { angle, soft, colour } = transition.of;
  const angleRad = (angle * Math.PI) / 180;
  uniforms.transitWay.value = [
    Math.cos(angleRad),
    Math.sin(angleRad),
    Math.max(soft, 1e-3),
    transition.aspect,
  ];
  // A dip goes black with what it dips from.
  uniforms.transitColour.value = colour.map((v) => v * level);
}

/** How a picture lies on what it is drawn on. */
interface Lie {
  /** Width over height of the picture. */
  aspect: number;
  mapping: OutputMapping;
}

const isWhole = ({ part: [x, y, w, h] }: OutputMapping): boolean => x === 0 && y === 0 && w === 1 && h === 1;

/** Puts finished pictures on the canvas of the GPU, or into a small target. */
export class Presenter {
  private readonly uniforms = {
    ...presentedUniforms(),
    span: { value: [1, 1] },
    part: { value: [0, 0, 1, 1] as readonly number[] },
  };
  private readonly forms = new Map<Form, RawShaderMaterial>();
  private readonly exportForms = new Map<ExportForm, RawShaderMaterial>();

  constructor(private readonly gpu: Gpu) {
    for (const [form, text] of Object.entries(fragments)) {
      const material = gpu.material(text, this.uniforms, vertex);
      this.forms.set(form as Form, material);
      // All at once at the start: the first fade of a night must not wait for a compiler.
      gpu.beginCompile(material);
    }
  }

  /** Draws pixels `into` that size, from the lower left of the target (null: the canvas); without `lie`, stretched to it. */
  draw(presented: Presented, into: Size, lie?: Lie, target: WebGLRenderTarget | null = null): void {
    const { uniforms } = this;
    const mapping = lie?.mapping ?? wholePicture;
    const [x, y] = lie ? spanOf(lie.aspect, into, mapping) : [1, 1];
    fillPresented(uniforms, presented);
    uniforms.span.value = [x, y];
    uniforms.part.value = mapping.part;
    const { width, height } = presented.first.texture.image as Size;
    const isExact = x === 1 && y === 1 && isWhole(mapping) && width === into.width && height === into.height;
    const form = presented.fade > 0 ? 'mixed' : isExact ? 'exact' : 'fitted';
    this.gpu.pass(this.forms.get(form)!, target);
  }

  /** Draws a picture as numbers, stretched to all of a target. */
  drawNumbers(presented: Presented, form: ExportForm, target: WebGLRenderTarget): void {
    const { uniforms, gpu } = this;
    let material = this.exportForms.get(form);
    if (!material)
      this.exportForms.set(form, (material = gpu.material(exportFragments[form], uniforms, vertex)));
    fillPresented(uniforms, presented);
    uniforms.span.value = [1, 1];
    uniforms.part.value = wholePicture.part;
    gpu.pass(material, target);
  }
}
