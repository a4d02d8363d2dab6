import { flashGrid } from '../../../core/preflight/flash-meter';
import type { IUniform, RawShaderMaterial } from 'three';
import type { Gpu } from '../../gpu/gpu';
import { seenText, transitText, type Presented } from '../presenter';

/**
 * Uniforms and functions of a shader that looks at what is presented: `shown` at a place of it. Most of the time that is one picture, which
 * costs half as much as two that are mixed.
 */
const shownText = (isMixed: boolean): string => `uniform sampler2D first;
uniform vec4 firstLook;
${seenText}
${
  isMixed
    ? `uniform sampler2D second;
uniform vec4 secondLook;
uniform float fade;
${transitText}
vec3 shown(vec2 at) {
  vec3 c = transit(seen(texture(first, at), firstLook), seen(texture(second, at), secondLook), fade, at);
  return clamp(c, 0.0, 1.0);
}`
    : 'vec3 shown(vec2 at) { return clamp(seen(texture(first, at), firstLook), 0.0, 1.0); }'
}`;

/** The two forms of a shader that looks at what is presented: of one picture, and of two that are mixed. */
export class ShownShader {
  private readonly forms: readonly [RawShaderMaterial, RawShaderMaterial];

  constructor(gpu: Gpu, text: (shown: string) => string, uniforms: Record<string, IUniform>) {
    this.forms = [
      gpu.material(text(shownText(false)), uniforms),
      gpu.material(text(shownText(true)), uniforms),
    ];
    for (const form of this.forms) gpu.beginCompile(form);
  }

  of({ fade }: Presented): RawShaderMaterial {
    return this.forms[fade > 0 ? 1 : 0];
  }
}

/** Places looked at along each side of a cell. */
const taps = 3;

/** The mean of what a cell shows. A fixed number of places, so that it costs the same at any size of the picture. */
export const cellText = `vec3 cell(vec2 at) {
  vec3 sum = vec3(0.0);
  for (int k = 0; k < ${taps * taps}; k++) {
    vec2 inside = (vec2(float(k % ${taps}), float(k / ${taps})) + 0.5) / ${taps}.0 - 0.5;
    sum += shown(at + inside / vec2(${flashGrid.width}.0, ${flashGrid.height}.0));
  }
  return sum / ${taps * taps}.0;
}`;
