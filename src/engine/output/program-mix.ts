import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import type { Layer } from '../../core/document/types';
import type { Gpu } from '../gpu/gpu';
import { plainLook, type Look } from '../image/look';
import { vertexText } from '../gpu/full-screen';
import {
  fillPresented,
  isDrawnByOutputs,
  presentedUniforms,
  seenText,
  transitText,
  type Presented,
} from './presenter';

/** What lies on a program beside its two scenes. */
export interface Additions {
  /** What says where a mask opens first: dark places. */
  mask: Look | null;
  layer: { look: Look; blend: Layer['blend']; opacity: number } | null;
  invert: boolean;
  /** White that is laid over, 0..1. */
  flash: number;
}

const blends: readonly Layer['blend'][] = ['over', 'add', 'screen', 'multiply'];

const head = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D first;
uniform sampler2D second;
uniform vec4 firstLook;
uniform vec4 secondLook;
uniform float fade;
uniform float amount;
out vec4 result;
${seenText}`;

/** Both scenes on one surface, by a look that needs more of them than the pixel that is drawn; then what lies on them. */
const mixText = `${head}
${transitText}
uniform int way;
uniform sampler2D mask;
uniform vec4 maskLook;
uniform sampler2D soft;
uniform sampler2D layer;
uniform vec4 layerLook;
uniform vec2 layerWay;
uniform vec2 hit;
vec3 one(vec2 at) { return seen(texture(first, at), firstLook); }
vec3 other(vec2 at) { return seen(texture(second, at), secondLook); }
float lightOf(vec3 c) { return dot(c, vec3(0.2126, 0.7152, 0.0722)); }
void main() {
  vec3 c;
  if (fade <= 0.0) c = one(place);
  else if (way == 0) c = transit(one(place), other(place), fade, place);
  else if (way == 1) {
    float late = clamp(lightOf(seen(texture(mask, place), maskLook)), 0.0, 1.0);
    c = mix(one(place), other(place), clamp((fade * (1.0 + transitWay.z) - late) / transitWay.z, 0.0, 1.0));
  } else if (way == 2) {
    float rise = smoothstep(0.0, 0.25, fade) * smoothstep(0.0, 0.25, 1.0 - fade);
    c = mix(mix(one(place), other(place), fade), texture(soft, place).rgb, rise);
  } else {
    vec2 tall = vec2(1.0 / transitWay.w, 1.0);
    vec2 byOther = (other(place).rg - other(place).bb) * tall;
    vec2 byOne = (one(place).rg - one(place).bb) * tall;
    c = mix(one(place + amount * fade * byOther), other(place + amount * (1.0 - fade) * byOne), fade);
  }
  if (layerWay.y > 0.0) {
    vec4 top = texture(layer, place);
    vec3 light = seen(top, layerLook);
    if (layerWay.x < 0.5) {
      // Where it is see-through without a ground of its own, what lies below stays.
      float covers = any(greaterThan(layerLook.rgb, vec3(0.0))) ? 1.0 : clamp(top.a, 0.0, 1.0);
      c = mix(c, c * (1.0 - covers) + light, layerWay.y);
    } else if (layerWay.x < 1.5) c += light * layerWay.y;
    else if (layerWay.x < 2.5) c = mix(c, 1.0 - (1.0 - clamp(c, 0.0, 1.0)) * (1.0 - clamp(light, 0.0, 1.0)), layerWay.y);
    else c = mix(c, c * light, layerWay.y);
  }
  if (hit.x > 0.5) c = 1.0 - clamp(c, 0.0, 1.0);
  c = mix(c, vec3(1.0), hit.y);
  result = vec4(c, 1.0);
}`;

/** Both mixed, small, as the start of a blur. */
const smallText = `${head}
void main() {
  vec3 a = seen(texture(first, place), firstLook);
  result = vec4(mix(a, seen(texture(second, place), secondLook), fade), 1.0);
}`;

/** One way of a blur: 13 places, weighed by a bell. */
const blurText = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
uniform vec2 reach;
out vec4 result;
void main() {
  vec3 sum = texture(picture, place).rgb;
  float all = 1.0;
  for (int k = 1; k <= 6; k++) {
    float weight = exp(-float(k * k) / 10.0);
    vec2 away = reach * float(k) / 6.0;
    sum += weight * (texture(picture, place + away).rgb + texture(picture, place - away).rgb);
    all += 2.0 * weight;
  }
  result = vec4(sum / all, 1.0);
}`;

/** A picture is blurred at a share of its size: nobody sees more through a blur. */
const blurShare = 0.25;
/** Rounds of a blur, each half as wide as the one before. */
const blurRounds = 3;

const sizeOf = ({ image }: Texture): { width: number; height: number } =>
  image as { width: number; height: number };
const lookOf = ({ background, brightness }: Look): number[] => [...background.slice(0, 3), brightness];

/**
 * The program as one picture, where outputs cannot put it together themselves: with a layer, a hit, or a transition that looks at more
 * than one pixel. It is drawn once a frame, however many outputs show it.
 */
export class ProgramMix {
  private readonly uniforms = {
    ...presentedUniforms(),
    amount: { value: 0 },
    way: { value: 0 },
    mask: { value: null as Texture | null },
    maskLook: { value: [0, 0, 0, 1] },
    soft: { value: null as Texture | null },
    layer: { value: null as Texture | null },
    layerLook: { value: [0, 0, 0, 1] },
    layerWay: { value: [0, 0] },
    hit: { value: [0, 0] },
  };
  private readonly blurUniforms = { picture: { value: null as Texture | null }, reach: { value: [0, 0] } };
  private readonly mixing: RawShaderMaterial;
  private readonly small: RawShaderMaterial;
  private readonly blur: RawShaderMaterial;
  private target: WebGLRenderTarget | null = null;
  /** The frame that it was drawn for. */
  private drawnFor = -1;

  constructor(private readonly gpu: Gpu) {
    this.mixing = gpu.material(mixText, this.uniforms, vertexText);
    this.small = gpu.material(smallText, this.uniforms, vertexText);
    this.blur = gpu.material(blurText, this.blurUniforms, vertexText);
    // At once, so that the first layer of a night does not wait for a compiler.
    for (const material of [this.mixing, this.small, this.blur]) gpu.beginCompile(material);
  }

  /** Whether outputs cannot show that by themselves. */
  isNeeded({ fade, transition }: Presented, { layer, invert, flash }: Additions): boolean {
    const look = fade > 0 ? transition?.of.look : undefined;
    return layer !== null || invert || flash > 0 || (look !== undefined && !isDrawnByOutputs(look));
  }

  /** The program with all that lies on it. `frame`: number of the frame; within one it is drawn once. */
  draw(now: Presented, additions: Additions, frame: number): Look {
    const { gpu, uniforms } = this;
    const [a, b] = [sizeOf(now.first.texture), sizeOf(now.second.texture)];
    const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
    if (this.target && !gpu.fits(this.target, width, height, gpu.usualBits)) {
      gpu.release(this.target);
      this.target = null;
    }
    if (this.target && frame === this.drawnFor) return plainLook(this.target.texture);
    this.drawnFor = frame;
    this.target ??= gpu.acquire(width, height, gpu.usualBits);
    fillPresented(uniforms, { ...now, level: 1 });
    const { mask, layer, invert, flash } = additions;
    const transition = now.fade > 0 ? now.transition?.of : undefined;
    uniforms.amount.value = transition?.amount ?? 0;
    const isMask = transition?.look === 'mask' && mask !== null;
    uniforms.way.value = isMask
      ? 1
      : transition?.look === 'blur'
        ? 2
        : transition?.look === 'displace'
          ? 3
          : 0;
    // A mask that is not there yet is a plain mix.
    if (transition?.look === 'mask' && !mask) uniforms.transitLook.value = 0;
    uniforms.mask.value = mask?.texture ?? gpu.empty;
    uniforms.maskLook.value = mask ? lookOf(mask) : [0, 0, 0, 1];
    uniforms.layer.value = layer?.look.texture ?? gpu.empty;
    uniforms.layerLook.value = layer ? lookOf(layer.look) : [0, 0, 0, 1];
    uniforms.layerWay.value = layer ? [blends.indexOf(layer.blend), layer.opacity] : [0, 0];
    uniforms.hit.value = [invert ? 1 : 0, flash];
    const soft = transition?.look === 'blur' ? this.blurred(width, height, transition.amount) : null;
    uniforms.soft.value = soft?.texture ?? gpu.empty;
    gpu.pass(this.mixing, this.target);
    if (soft) gpu.release(soft);
    return plainLook(this.target.texture);
  }

  private blurred(fullWidth: number, fullHeight: number, amount: number): WebGLRenderTarget {
    const { gpu, blurUniforms } = this;
    const width = Math.max(1, Math.round(fullWidth * blurShare));
    const height = Math.max(1, Math.round(fullHeight * blurShare));
    let from = gpu.acquire(width, height, gpu.usualBits);
    let to = gpu.acquire(width, height, gpu.usualBits);
    gpu.pass(this.small, from);
    for (let round = 0; round < blurRounds; round++) {
      const reach = amount / 2 ** round;
      for (const away of [
        [(reach * height) / width, 0],
        [0, reach],
      ]) {
        blurUniforms.picture.value = from.texture;
        blurUniforms.reach.value = away;
        gpu.pass(this.blur, to);
        [from, to] = [to, from];
      }
    }
    gpu.release(to);
    return from;
  }
}
