import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import { fieldHeight, fieldWidth, flashGrid, general, red } from '../../../core/preflight/flash-meter';
import type { Gpu } from '../../gpu/gpu';
import { plainLook } from '../../image/look';
import { fillPresented, presentedUniforms, type Presented } from '../presenter';
import { num } from '../screen-shader';
import { cellText, ShownShader } from './cells';

/**
 * Seconds from a change of a cell to the third after it below which it flashes too quickly: six changes in a second are three flashes.
 * `strict`: while more than that was counted all the same.
 */
const quickSeconds = { usual: 0.49, strict: 0.65 } as const;
/** Seconds for which `strict` holds after flashes were counted. */
const strictSeconds = 3;
/** Seconds after its last quick change at which a cell is let go. */
const letGoSeconds = 0.4;
/** Time constants of how a cell is held and let go, seconds. */
const holdSeconds = 0.03;
const releaseSeconds = 0.6;
/** Time constants of the slow mean, of cells that are free and that are held: what is held must hardly move. */
const meanSeconds = { free: 0.3, held: 1.5 } as const;
/** Contrast of the details that stays on what is held: all of it would reach past black and white, and flash there. */
const detail = 0.4;
/** Share of a field of view, in flashing cells, from which on it is held, and where it is held wholly. */
const share = { from: 0.08, wholly: 0.18 } as const;

const head = `#version 300 es
precision highp float;
in vec2 place;
out vec4 result;
`;

/** The picture in cells. */
const lowText = (shown: string): string => `${head}${shown}
${cellText}
void main() { result = vec4(cell(place), 1.0); }`;

/**
 * What a cell remembers of one kind of flash. x: the last turning point (or the value farthest along since) as 1..2, with 2 added where it
 * was a saturated red since it last turned, and 4 where it flashes too quickly; negative while it falls. y, z, w: seconds since its last
 * three changes.
 */
const memoryText = `
float held(float code) { return step(5.0, abs(code)); }`;

/** Follows one value of each cell from turning point to turning point, as the meter does. */
const turnText = (isRed: boolean): string => `${head}
uniform sampler2D low;
uniform sampler2D before;
uniform float dt;
uniform float quick;
${memoryText}
float linear(float c) { return c <= 0.04045 ? c / 12.92 : pow((c + 0.055) / 1.055, 2.4); }
void main() {
  ivec2 cell = ivec2(gl_FragCoord.xy);
  vec3 c = texelFetch(low, cell, 0).rgb;
  c = vec3(linear(c.r), linear(c.g), linear(c.b));
  float sum = c.r + c.g + c.b;
  bool isRed = sum > 0.0 && c.r / sum >= ${num(red.share)};
  float value = ${isRed ? 'max(0.0, c.r - c.g - c.b)' : 'dot(c, vec3(0.2126, 0.7152, 0.0722))'};
  vec4 past = texelFetch(before, cell, 0);
  if (past.x == 0.0) past = vec4(1.0 + value, vec3(9.0));
  float code = abs(past.x);
  float way = sign(past.x);
  float engaged = held(code);
  code -= 4.0 * engaged;
  float wasRed = step(3.0, code);
  float far = code - 2.0 * wasRed - 1.0;
  vec3 ages = min(past.yzw + dt, 9.0);
  if (isRed) wasRed = 1.0;
  float least = way > 0.0 ? value : far;
  float most = way > 0.0 ? far : value;
  if (most <= least) far = value;
  else if (${
    isRed
      ? `most - least > ${num(red.change / red.scale)} && wasRed > 0.0`
      : `most - least >= ${num(general.change)} && least < ${num(general.darkerBelow)}`
  }) {
    engaged = step(ages.z, quick);
    ages = vec3(0.0, ages.xy);
    way = -way;
    far = value;
    wasRed = isRed ? 1.0 : 0.0;
  }
  if (ages.x > ${num(letGoSeconds)}) engaged = 0.0;
  result = vec4(way * (1.0 + min(far, 0.999) + 2.0 * wasRed + 4.0 * engaged), ages);
}`;

/** How many cells of a row of a field of view flash; the field lies as far within the picture as it can. */
const rowText = `${head}
uniform sampler2D lights;
uniform sampler2D reds;
${memoryText}
void main() {
  ivec2 cell = ivec2(gl_FragCoord.xy);
  int from = clamp(cell.x - ${fieldWidth / 2}, 0, ${flashGrid.width - fieldWidth});
  float sum = 0.0;
  for (int k = 0; k < ${fieldWidth}; k++) {
    ivec2 at = ivec2(from + k, cell.y);
    sum += max(held(texelFetch(lights, at, 0).x), held(texelFetch(reds, at, 0).x));
  }
  result = vec4(sum, 0.0, 0.0, 1.0);
}`;

/** How much each cell is held: those that flash, and their neighbours, where enough of a field of view does. */
const holdText = `${head}
uniform sampler2D lights;
uniform sampler2D reds;
uniform sampler2D rows;
uniform sampler2D before;
uniform float dt;
${memoryText}
void main() {
  ivec2 cell = ivec2(gl_FragCoord.xy);
  int from = clamp(cell.y - ${Math.floor(fieldHeight / 2)}, 0, ${flashGrid.height - fieldHeight});
  float sum = 0.0;
  for (int k = 0; k < ${fieldHeight}; k++) sum += texelFetch(rows, ivec2(cell.x, from + k), 0).x;
  float near = 0.0;
  for (int k = 0; k < 9; k++) {
    ivec2 at = clamp(cell + ivec2(k % 3 - 1, k / 3 - 1), ivec2(0), ivec2(${flashGrid.width - 1}, ${flashGrid.height - 1}));
    near = max(near, max(held(texelFetch(lights, at, 0).x), held(texelFetch(reds, at, 0).x)));
  }
  float to = near * smoothstep(${num(share.from)}, ${num(share.wholly)}, sum / ${num(fieldWidth * fieldHeight)});
  float now = texelFetch(before, cell, 0).r;
  result = vec4(mix(now, to, 1.0 - exp(-dt / (to > now ? ${holdSeconds} : ${releaseSeconds}))), 0.0, 0.0, 1.0);
}`;

/** The slow mean of each cell. */
const meanText = `${head}
uniform sampler2D low;
uniform sampler2D hold;
uniform sampler2D before;
uniform float dt;
void main() {
  ivec2 cell = ivec2(gl_FragCoord.xy);
  vec4 past = texelFetch(before, cell, 0);
  vec3 c = texelFetch(low, cell, 0).rgb;
  float slow = mix(${meanSeconds.free}, ${meanSeconds.held}, texelFetch(hold, cell, 0).r);
  result = vec4(past.a > 0.0 ? mix(past.rgb, c, 1.0 - exp(-dt / slow)) : c, 1.0);
}`;

/** What is to be done to the pixels of a cell: a light to be added (rgb), and what they are multiplied by (a). */
const bringText = `${head}
uniform sampler2D low;
uniform sampler2D hold;
uniform sampler2D slow;
void main() {
  ivec2 cell = ivec2(gl_FragCoord.xy);
  float held = texelFetch(hold, cell, 0).r;
  vec3 light = texelFetch(slow, cell, 0).rgb - ${detail} * texelFetch(low, cell, 0).rgb;
  result = vec4(held * light, 1.0 - held * ${num(1 - detail)});
}`;

/** What is shown, with its cells brought to their slow mean as far as they are held. */
const limitText = (shown: string): string => `${head}${shown}
uniform sampler2D bring;
void main() {
  vec4 by = texture(bring, place);
  result = vec4(shown(place) * by.a + by.rgb, 1.0);
}`;

/** A small picture that is worked out from what it was before. */
class Memory {
  private now: WebGLRenderTarget;
  private other: WebGLRenderTarget;

  constructor(private readonly gpu: Gpu) {
    [this.now, this.other] = [0, 1].map(() => {
      const target = gpu.acquire(flashGrid.width, flashGrid.height, '32');
      gpu.clear(target);
      return target;
    });
  }

  get texture(): Texture {
    return this.now.texture;
  }

  /** Works it out anew by a shader that reads what it was as `before`. */
  step(material: RawShaderMaterial, uniforms: { before: { value: Texture | null } }): void {
    uniforms.before.value = this.now.texture;
    this.gpu.pass(material, this.other);
    [this.now, this.other] = [this.other, this.now];
  }
}

/**
 * Keeps flashes within the limit: where cells of the picture change more than six times a second over a quarter of a field of view, their
 * light is brought to its slow mean, and the details move on. All of it happens on the GPU within the frame, so that nothing comes late.
 */
export class FlashLimiter {
  private readonly uniforms = {
    ...presentedUniforms(),
    low: { value: null as Texture | null },
    before: { value: null as Texture | null },
    lights: { value: null as Texture | null },
    reds: { value: null as Texture | null },
    rows: { value: null as Texture | null },
    hold: { value: null as Texture | null },
    slow: { value: null as Texture | null },
    bring: { value: null as Texture | null },
    dt: { value: 0 },
    quick: { value: quickSeconds.usual as number },
  };
  private readonly shaders: Record<'light' | 'red' | 'row' | 'hold' | 'mean' | 'bring', RawShaderMaterial>;
  private readonly cells: ShownShader;
  private readonly whole: ShownShader;
  private readonly low: WebGLRenderTarget;
  private readonly row: WebGLRenderTarget;
  private readonly bring: WebGLRenderTarget;
  private readonly lights: Memory;
  private readonly reds: Memory;
  private readonly hold: Memory;
  private readonly slow: Memory;
  private result: WebGLRenderTarget | null = null;
  private drawnFor = -1;
  private lastSeconds: number | null = null;
  private strictUntil = -Infinity;

  constructor(private readonly gpu: Gpu) {
    const make = (text: string): RawShaderMaterial => gpu.material(text, this.uniforms);
    this.shaders = {
      light: make(turnText(false)),
      red: make(turnText(true)),
      row: make(rowText),
      hold: make(holdText),
      mean: make(meanText),
      bring: make(bringText),
    };
    for (const material of Object.values(this.shaders)) gpu.beginCompile(material);
    this.cells = new ShownShader(gpu, lowText, this.uniforms);
    this.whole = new ShownShader(gpu, limitText, this.uniforms);
    const { width, height } = flashGrid;
    this.low = gpu.acquire(width, height, '32');
    this.row = gpu.acquire(width, height, '32');
    this.bring = gpu.acquire(width, height, '32');
    [this.lights, this.reds, this.hold, this.slow] = [0, 1, 2, 3].map(() => new Memory(gpu)) as [
      Memory,
      Memory,
      Memory,
      Memory,
    ];
  }

  /** How much is held back where, 0..1 in red. */
  get heldBack(): Texture {
    return this.hold.texture;
  }

  /** Flashes were counted although it is at work: it becomes stricter for a while. */
  tighten(seconds: number): void {
    this.strictUntil = seconds + strictSeconds;
  }

  /** What may be shown of it, at a time in seconds. `frame`: number of the frame; within one it is worked out once. */
  limit(shown: Presented, frame: number, seconds: number): Presented {
    const { gpu, uniforms, shaders } = this;
    const [a, b] = [shown.first, shown.second].map(
      ({ texture }) => texture.image as { width: number; height: number },
    );
    const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
    if (this.result && !gpu.fits(this.result, width, height, gpu.usualBits)) {
      gpu.release(this.result);
      this.result = null;
    }
    const isNew = frame !== this.drawnFor || !this.result;
    this.result ??= gpu.acquire(width, height, gpu.usualBits);
    if (isNew) {
      this.drawnFor = frame;
      fillPresented(uniforms, shown);
      uniforms.dt.value = this.lastSeconds === null ? 0 : Math.max(0, seconds - this.lastSeconds);
      uniforms.quick.value = seconds < this.strictUntil ? quickSeconds.strict : quickSeconds.usual;
      this.lastSeconds = seconds;
      gpu.pass(this.cells.of(shown), this.low);
      uniforms.low.value = this.low.texture;
      this.lights.step(shaders.light, uniforms);
      this.reds.step(shaders.red, uniforms);
      uniforms.lights.value = this.lights.texture;
      uniforms.reds.value = this.reds.texture;
      gpu.pass(shaders.row, this.row);
      uniforms.rows.value = this.row.texture;
      this.hold.step(shaders.hold, uniforms);
      uniforms.hold.value = this.hold.texture;
      this.slow.step(shaders.mean, uniforms);
      uniforms.slow.value = this.slow.texture;
      gpu.pass(shaders.bring, this.bring);
      uniforms.bring.value = this.bring.texture;
      gpu.pass(this.whole.of(shown), this.result);
    }
    return {
      ...shown,
      first: plainLook(this.result.texture),
      second: plainLook(gpu.empty),
      fade: 0,
      level: 1,
    };
  }
}
