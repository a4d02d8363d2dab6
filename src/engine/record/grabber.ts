import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import { hasAlpha, type ExportSpec } from '../../core/export/spec';
import { vertexText } from '../gpu/full-screen';
import type { Gpu } from '../gpu/gpu';
import { ditherAt } from '../output/presenter';

/** In what form the pixels of a frame are wanted: bytes or numbers of red, green, blue and alpha, or planes as video encoders take them. */
export type Pixels = 'bytes' | 'numbers' | 'planes' | 'planes-alpha';

const pixelsOf = ({ format }: Pick<ExportSpec, 'format'>): Pixels => {
  if (format.type === 'video') return format.alpha ? 'planes-alpha' : 'planes';
  if (format.type === 'images' && ['png16', 'exr16', 'exr32'].includes(format.image)) return 'numbers';
  return 'bytes';
};

/** The curve of sRGB (IEC 61966-2-1), mirrored below zero; brighter than white goes on along it. */
const lightText = `vec3 toLight(vec3 c) {
  vec3 a = abs(c);
  return sign(c) * mix(a / 12.92, pow((a + 0.055) / 1.055, vec3(2.4)), step(0.04045, a));
}
vec3 fromLight(vec3 c) {
  vec3 a = abs(c);
  return sign(c) * mix(a * 12.92, 1.055 * pow(a, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, a));
}`;

/** Adds the mean of the pixels under each pixel to what is there, as light: light is what adds up in an eye and in a camera. */
const gatherText = (factor: number): string => `#version 300 es
precision highp float;
uniform sampler2D picture;
uniform sampler2D before;
uniform float weight;
out vec4 result;
${lightText}
void main() {
  ivec2 at = ivec2(gl_FragCoord.xy);
  vec4 sum = vec4(0.0);
${Array.from({ length: factor * factor }, (_, k) => {
  const read = `texelFetch(picture, at * ${factor} + ivec2(${k % factor}, ${Math.floor(k / factor)}), 0)`;
  return `  { vec4 c = ${read}; sum += vec4(toLight(c.rgb), c.a); }`;
}).join('\n')}
  result = texelFetch(before, at, 0) + sum * weight;
}`;

/** How the pixel of a row and column counted from above is read and seen. `gathered`: it is light. */
const readText = (gathered: boolean, linear: boolean, straight: boolean): string => `
uniform sampler2D picture;
uniform vec2 size;
${lightText}
vec4 pixelAt(vec2 p) {
  vec2 q = min(p, size - 1.0);
  vec4 c = texelFetch(picture, ivec2(q.x, size.y - 1.0 - q.y), 0);
  ${straight ? 'c.rgb = c.a > 0.0 ? c.rgb / c.a : vec3(0.0);' : ''}
  ${gathered && !linear ? 'c.rgb = fromLight(c.rgb);' : ''}
  ${!gathered && linear ? 'c.rgb = toLight(c.rgb);' : ''}
  return c;
}`;

/** The place of a pixel as the screen counts it, from below: noise lies as it does on stage, so that exported pixels are the same. */
const fromBelow = (at: string): string => `vec2((${at}).x, size.y - (${at}).y)`;

/** Pixels from above. */
const rowsText = (read: string, dithers: boolean): string => `#version 300 es
precision highp float;
out vec4 result;
${read}
void main() {
  vec4 p = pixelAt(floor(gl_FragCoord.xy));
  ${dithers ? `vec3 c = p.rgb; ${ditherAt(fromBelow('gl_FragCoord.xy'))} p.rgb = c;` : ''}
  result = p;
}`;

/**
 * Planes of luma and chroma, and of alpha, one byte a sample, four samples a pixel of the target: what is read back is what an encoder
 * takes (ITU-R BT.709, limited range; chroma is the mean of four pixels). Rows of chroma lie two in a row.
 */
const planesText = (read: string): string => `#version 300 es
precision highp float;
uniform vec2 padded;
out vec4 result;
${read}
vec3 seenAt(vec2 p) { return clamp(pixelAt(p).rgb, 0.0, 1.0); }
float luma(vec2 p) {
  float c = dot(seenAt(p), vec3(0.2126, 0.7152, 0.0722)) * (219.0 / 255.0) + 16.0 / 255.0;
  ${ditherAt(fromBelow('p + 0.5'))}
  return c;
}
float chroma(vec2 p, bool red) {
  vec3 c = 0.25 * (seenAt(p) + seenAt(p + vec2(1.0, 0.0)) + seenAt(p + vec2(0.0, 1.0)) + seenAt(p + vec2(1.0, 1.0)));
  float y = dot(c, vec3(0.2126, 0.7152, 0.0722));
  float d = red ? (c.r - y) / 1.5748 : (c.b - y) / 1.8556;
  return d * (224.0 / 255.0) + 128.0 / 255.0;
}
void main() {
  vec2 at = floor(gl_FragCoord.xy);
  float x = at.x * 4.0;
  float half_ = padded.x / 2.0;
  float chromaRows = padded.y / 4.0;
  if (at.y < padded.y) {
    result = vec4(luma(vec2(x, at.y)), luma(vec2(x + 1.0, at.y)), luma(vec2(x + 2.0, at.y)), luma(vec2(x + 3.0, at.y)));
  } else if (at.y < padded.y + 2.0 * chromaRows) {
    bool red = at.y >= padded.y + chromaRows;
    float row = (at.y - padded.y - (red ? chromaRows : 0.0)) * 2.0;
    if (x >= half_) { row += 1.0; x -= half_; }
    vec2 p = vec2(x, row) * 2.0;
    result = vec4(chroma(p, red), chroma(p + vec2(2.0, 0.0), red), chroma(p + vec2(4.0, 0.0), red), chroma(p + vec2(6.0, 0.0), red));
  } else {
    float row = at.y - padded.y - 2.0 * chromaRows;
    result = vec4(pixelAt(vec2(x, row)).a, pixelAt(vec2(x + 1.0, row)).a, pixelAt(vec2(x + 2.0, row)).a, pixelAt(vec2(x + 3.0, row)).a);
  }
}`;

/** A size in planes: rows of luma are a multiple of eight samples, and there are a multiple of four of them. */
export const paddedSize = (width: number, height: number): [number, number] => [
  Math.ceil(width / 8) * 8,
  Math.ceil(height / 4) * 4,
];

/** A picture made smaller or larger, rows from above. */
const smallText = (gathered: boolean): string => `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
out vec4 result;
${lightText}
void main() {
  vec4 c = texture(picture, vec2(place.x, 1.0 - place.y));
  ${gathered ? 'c.rgb = fromLight(c.rgb);' : ''}
  result = vec4(c.rgb, 1.0);
}`;

type Form = Pick<ExportSpec, 'width' | 'height' | 'supersample' | 'subframes' | 'format'>;

/** Takes frames of one form off the GPU: gathers their moments and larger pixels, and gives pixels from above as they are wanted. */
export class Grabber {
  readonly pixels: Pixels;
  private readonly gatherUniforms = {
    picture: { value: null as Texture | null },
    before: { value: null as Texture | null },
    weight: { value: 1 },
  };
  private readonly finishUniforms = {
    picture: { value: null as Texture | null },
    size: { value: [1, 1] },
    padded: { value: [1, 1] },
  };
  private readonly gathering: RawShaderMaterial | null;
  private readonly finish: RawShaderMaterial;
  private smaller: RawShaderMaterial | null = null;
  private gathered: WebGLRenderTarget | null = null;

  constructor(
    private readonly gpu: Gpu,
    private readonly form: Form,
  ) {
    const { format, supersample, subframes } = form;
    const gathers = supersample > 1 || subframes > 1;
    const alpha = hasAlpha(format);
    const isExr = format.type === 'images' && format.image.startsWith('exr');
    this.pixels = pixelsOf(form);
    this.gathering = gathers ? gpu.material(gatherText(supersample), this.gatherUniforms, vertexText) : null;
    const linear = format.type === 'images' && isExr && format.linear;
    // EXR keeps colours multiplied by their alpha; all others have them as they are.
    const read = readText(gathers, linear, alpha && !isExr);
    const text =
      this.pixels === 'bytes' || this.pixels === 'numbers'
        ? rowsText(read, this.pixels === 'bytes')
        : planesText(read);
    this.finish = gpu.material(text, this.finishUniforms, vertexText);
  }

  /** A target as large as a moment is drawn; give it to `add`. */
  target(): WebGLRenderTarget {
    const { width, height, supersample } = this.form;
    // Rounded once only, at the end, as on stage.
    return this.gpu.acquire(width * supersample, height * supersample, '32');
  }

  /** Takes a moment of a frame: all of it, or its share of the blur. */
  add(target: WebGLRenderTarget): void {
    const { gpu, gathering, gatherUniforms, form } = this;
    if (!gathering) {
      if (this.gathered) gpu.release(this.gathered);
      this.gathered = target;
      return;
    }
    const { width, height, supersample, subframes } = form;
    const into = gpu.acquire(width, height, '32');
    gatherUniforms.picture.value = target.texture;
    gatherUniforms.before.value = this.gathered?.texture ?? gpu.empty;
    gatherUniforms.weight.value = 1 / (supersample * supersample * subframes);
    gpu.pass(gathering, into);
    if (this.gathered) gpu.release(this.gathered);
    gpu.release(target);
    this.gathered = into;
  }

  /** The picture that was gathered, for a look at it. */
  get picture(): Texture | null {
    return this.gathered?.texture ?? null;
  }

  /** What a picture looks like at another size: bytes, rows from above. */
  async small(picture: Texture, width: number, height: number): Promise<Uint8Array<ArrayBuffer>> {
    const { gpu, finishUniforms } = this;
    this.smaller ??= gpu.material(smallText(this.gathering !== null), finishUniforms, vertexText);
    finishUniforms.picture.value = picture;
    const target = gpu.acquire(width, height, '8');
    gpu.pass(this.smaller, target);
    return gpu.takeBytes(target);
  }

  /** The pixels of the frame, and begins another. */
  async take(): Promise<Uint8Array<ArrayBuffer> | Float32Array<ArrayBuffer>> {
    const { gpu, form, finishUniforms, finish, pixels, gathered } = this;
    if (!gathered) throw new Error('Nothing was drawn.');
    this.gathered = null;
    const { width, height } = form;
    const inPlanes = pixels === 'planes' || pixels === 'planes-alpha';
    const padded = paddedSize(width, height);
    const [columns, rows] = inPlanes
      ? [padded[0] / 4, padded[1] * (pixels === 'planes-alpha' ? 2.5 : 1.5)]
      : [width, height];
    finishUniforms.picture.value = gathered.texture;
    finishUniforms.size.value = [width, height];
    finishUniforms.padded.value = padded;
    const target = gpu.acquire(columns, rows, pixels === 'numbers' ? '32' : '8');
    try {
      gpu.pass(finish, target);
      if (pixels === 'numbers') return (await gpu.readNumbers(target)) as Float32Array<ArrayBuffer>;
      const bytes = new Uint8Array(4 * columns * rows);
      await gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, columns, rows, bytes);
      return bytes;
    } finally {
      gpu.release(gathered);
      gpu.release(target);
    }
  }

  dispose(): void {
    if (this.gathered) this.gpu.release(this.gathered);
    this.gathering?.dispose();
    this.finish.dispose();
    this.smaller?.dispose();
  }
}
