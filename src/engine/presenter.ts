import type { RawShaderMaterial, Texture } from 'three';
import type { Gpu } from './gpu';

const fragment = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D first;
uniform sampler2D second;
uniform vec4 firstLook;
uniform vec4 secondLook;
uniform float fade;
uniform float level;
uniform vec2 fit;
out vec4 result;
float grain(vec2 p) { return fract(sin(dot(p, vec2(12.9898, 78.233))) * 43758.5453); }
vec3 seen(vec4 c, vec4 look) { return (c.rgb + look.rgb * (1.0 - clamp(c.a, 0.0, 1.0))) * look.a; }
void main() {
  vec2 p = (place - 0.5) * fit + 0.5;
  vec2 inside = step(vec2(0.0), p) * step(p, vec2(1.0));
  vec3 c = seen(texture(first, p), firstLook);
  if (fade > 0.0) c = mix(c, seen(texture(second, p), secondLook), fade);
  // Half a step of noise before the last rounding to 8 bits keeps slow gradients from showing bands.
  c += (grain(gl_FragCoord.xy) - 0.5) / 255.0;
  result = vec4(c * level * inside.x * inside.y, 1.0);
}
`;

/** A picture as a surface shows it: over a background where it is see-through, and as bright as that. */
export interface Look {
  texture: Texture;
  background: readonly number[];
  brightness: number;
}

/** A picture that is whole by itself. */
export const plainLook = (texture: Texture): Look => ({ texture, background: [0, 0, 0], brightness: 1 });

/** What a surface shows: one picture, or two that are mixed. */
export interface Presented {
  first: Look;
  second: Look;
  /** Share of the second, 0..1. */
  fade: number;
  /** Brightness, 0 is black. */
  level: number;
}

const lookNumbers = ({ background, brightness }: Look): number[] => [...background.slice(0, 3), brightness];

/** Puts finished pictures on the canvas of the card, whole and in the middle. */
export class Presenter {
  private readonly material: RawShaderMaterial;

  constructor(private readonly gpu: Gpu) {
    this.material = gpu.material(fragment, {
      first: { value: null },
      second: { value: null },
      firstLook: { value: [0, 0, 0, 1] },
      secondLook: { value: [0, 0, 0, 1] },
      fade: { value: 0 },
      level: { value: 1 },
      fit: { value: [1, 1] },
    });
  }

  /** `shape` is the aspect of the pictures divided by that of what they are shown on. */
  draw({ first, second, fade, level }: Presented, shape = 1): void {
    const { uniforms } = this.material;
    uniforms.first.value = first.texture;
    uniforms.second.value = second.texture;
    uniforms.firstLook.value = lookNumbers(first);
    uniforms.secondLook.value = lookNumbers(second);
    uniforms.fade.value = fade;
    uniforms.level.value = level;
    uniforms.fit.value = shape > 1 ? [1, shape] : [1 / shape, 1];
    this.gpu.pass(this.material, null);
  }
}
