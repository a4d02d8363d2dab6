import type { Texture, WebGLRenderTarget } from 'three';
import type { PixelString } from '../../core/document/types';
import { pixelCount, pixelPlaces } from '../../core/wall/pixels/pixels';
import type { Gpu } from '../gpu/gpu';
import { fillPresented, presentedUniforms, seenText, transitText, type Presented } from './presenter';

/** Pixels of all strings that are sampled in a row of the small picture they are read from. */
const columns = 256;

/** The nine places of a pixel's square that are read: each stands for a ninth of it. Written out, since loops are slow in software. */
const places = [-1, 0, 1].flatMap((j) => [-1, 0, 1].map((k) => `p.xy + vec2(${k}.0, ${j}.0) * reach`));
const sumOf = (picture: string, read: (place: string) => string): string =>
  places.map((place) => read(place).replace('PICTURE', picture)).join(' + ');
/** A place outside of the canvas is black. */
const inside = (place: string): string => `inside(texture(PICTURE, ${place}), ${place})`;

const fragment = `#version 300 es
precision highp float;
uniform sampler2D first;
uniform sampler2D second;
uniform sampler2D places;
uniform vec4 firstLook;
uniform vec4 secondLook;
uniform float fade;
uniform float aspect;
out vec4 result;
${seenText}
${transitText}
vec4 inside(vec4 c, vec2 place) {
  vec2 within = step(vec2(0.0), place) * step(place, vec2(1.0));
  return mix(vec4(0.0, 0.0, 0.0, 1.0), c, within.x * within.y);
}
void main() {
  vec4 p = texelFetch(places, ivec2(gl_FragCoord.xy), 0);
  vec2 reach = vec2(1.0, aspect) * p.z;
  bool isWhole = all(greaterThanEqual(p.xy, reach)) && all(lessThanEqual(p.xy, 1.0 - reach));
  vec4 one;
  if (isWhole) one = ${sumOf('first', (place) => `texture(PICTURE, ${place})`)};
  else one = ${sumOf('first', inside)};
  vec3 c = seen(one / 9.0, firstLook);
  if (fade > 0.0) {
    vec4 other = ${sumOf('second', inside)};
    c = transit(c, seen(other / 9.0, secondLook), fade, p.xy);
  }
  result = vec4(pow(clamp(c, 0.0, 1.0), vec3(p.w)), 1.0);
}`;

interface Size {
  width: number;
  height: number;
}

/** Numbers of all pixels, cut into those of each string. */
export function lightOfEach(strings: readonly PixelString[], rgba: Float32Array): Float32Array[] {
  let at = 0;
  return strings.map((string) => {
    const start = 4 * at;
    at += pixelCount(string);
    return rgba.subarray(start, 4 * at);
  });
}

/** Reads the pixels of strings out of the picture that is on air: all of them in one pass into one small texture, which arrives without a wait. */
export class PixelStrings {
  private readonly uniforms = {
    ...presentedUniforms(),
    places: { value: null as Texture | null },
    aspect: { value: 1 },
  };
  private readonly material;
  private laid: { strings: readonly PixelString[]; canvas: object; texture: Texture; rows: number } | null =
    null;
  private isReading = false;

  constructor(private readonly gpu: Gpu) {
    this.material = gpu.material(fragment, this.uniforms);
  }

  /**
   * Gives the light of the pixels of each string (red, green, blue and alpha, 0..1) once they were read; null while an earlier reading is
   * under way.
   */
  async read(
    strings: readonly PixelString[],
    presented: Presented,
    canvas: Size,
  ): Promise<Float32Array[] | null> {
    if (this.isReading || strings.length === 0) return null;
    this.isReading = true;
    let target: WebGLRenderTarget | null = null;
    try {
      target = this.sample(strings, presented, canvas);
      return lightOfEach(strings, await this.gpu.readNumbers(target));
    } finally {
      if (target) this.gpu.release(target);
      this.isReading = false;
    }
  }

  /**
   * Samples all pixels into a target, which has to be released. They are laid out again when `strings` or `canvas` is another object than
   * before.
   */
  sample(strings: readonly PixelString[], presented: Presented, canvas: Size): WebGLRenderTarget {
    const { gpu, uniforms } = this;
    const { texture, rows } = this.lay(strings, canvas);
    fillPresented(uniforms, presented);
    uniforms.places.value = texture;
    uniforms.aspect.value = canvas.width / canvas.height;
    const target = gpu.acquire(columns, rows, '32');
    gpu.pass(this.material, target);
    return target;
  }

  /** Where all pixels lie: a texture with the place of each, a third of its square as a share of the width, and its gamma. */
  private lay(strings: readonly PixelString[], canvas: Size): { texture: Texture; rows: number } {
    if (this.laid?.strings === strings && this.laid.canvas === canvas) return this.laid;
    this.laid?.texture.dispose();
    const { width, height } = canvas;
    const count = strings.reduce((sum, string) => sum + pixelCount(string), 0);
    const rows = Math.max(1, Math.ceil(count / columns));
    const numbers = new Float32Array(4 * columns * rows);
    let at = 0;
    for (const string of strings) {
      const places = pixelPlaces(string);
      for (let k = 0; k < places.length; k += 2, at += 4)
        numbers.set(
          [places[k] / width, 1 - places[k + 1] / height, string.area / 3 / width, string.gamma],
          at,
        );
    }
    this.laid = { strings, canvas, texture: this.gpu.dataTexture(numbers, columns, rows), rows };
    return this.laid;
  }
}
