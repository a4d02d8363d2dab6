import type { RawShaderMaterial } from 'three';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Mesh,
  OrthographicCamera,
  Scene,
  type Texture,
  type WebGLRenderTarget,
} from 'three';
import type { OutputMask } from '../../core/document/types';
import { mapToCanvas } from '../../core/wall/parts';
import { warpMesh } from '../../core/wall/warp';
import { rasterMesh } from '../../core/wall/led';
import { partOf, type WindowOutput } from '../../core/wall/outputs';
import { noBlend } from '../../core/wall/screens';
import { whiteGains } from '../../core/wall/white-point';
import type { Gpu } from '../gpu/gpu';
import { ditherText, fillPresented, presentedUniforms, seenText, type Presented } from './presenter';

/** Longest side of the picture of a mask, pixels. */
const mostMaskPixels = 2048;
/** Points of all masks lie in a texture: a row for each mask. */
const maskColumns = 32;
const maskRows = 8;

const vertex = `#version 300 es
precision highp float;
in vec3 spot;
in vec2 picture;
uniform vec4 firstLook;
uniform vec4 secondLook;
flat out vec4 firstSeen;
flat out vec4 secondSeen;
out vec2 at;
void main() {
  firstSeen = firstLook;
  secondSeen = secondLook;
  at = picture;
  gl_Position = vec4(2.0 * spot.x - spot.z, spot.z - 2.0 * spot.y, 0.0, spot.z);
}`;

const fragment = `#version 300 es
precision highp float;
in vec2 at;
flat in vec4 firstSeen;
flat in vec4 secondSeen;
uniform sampler2D first;
uniform sampler2D second;
uniform sampler2D mask;
uniform float fade;
uniform vec2 size;
uniform vec3 toX;
uniform vec3 toY;
uniform vec4 overlap;
uniform vec3 blend;
uniform vec3 gain;
uniform vec3 bend;
uniform vec3 black;
out vec4 result;
${seenText}
/** Two that overlap add up to 1. A side that overlaps nothing costs nothing. */
float ramp(float distance, float width) {
  if (width <= 0.0) return 1.0;
  float t = clamp(distance / width, 0.0, 1.0);
  float low = 0.5 * pow(2.0 * min(t, 1.0 - t), blend.x);
  return t < 0.5 ? low : 1.0 - low;
}
void main() {
  vec3 here = vec3(at, 1.0);
  vec2 place = vec2(dot(toX, here), dot(toY, here));
  vec3 c = seen(texture(first, place), firstSeen);
  if (fade > 0.0) c = mix(c, seen(texture(second, place), secondSeen), fade);
  vec2 within = step(vec2(0.0), place) * step(place, vec2(1.0));
  c = clamp(c, 0.0, 1.0) * within.x * within.y * gain;
  c = black + (1.0 - black) * pow(c, bend);
  if (overlap != vec4(0.0)) {
    // In linear light, where overlapping projectors add up.
    float kept = ramp(at.x, overlap.x) * ramp(1.0 - at.x, overlap.y);
    kept *= ramp(at.y, overlap.z) * ramp(1.0 - at.y, overlap.w);
    vec3 light = pow(c, vec3(blend.y));
    light += blend.z * step(0.9999, kept) * (1.0 - light);
    c = pow(light * kept, vec3(1.0 / blend.y));
  }
  vec2 edge = min(at, 1.0 - at) / max(fwidth(at), 1e-6);
  c *= clamp(min(edge.x, edge.y) + 0.5, 0.0, 1.0) * texture(mask, gl_FragCoord.xy / size).r;
  ${ditherText}
  result = vec4(c, 1.0);
}`;

/** How much of each pixel the masks leave; the distance to a polygon is that to the nearest of its sides. */
const maskFragment = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D points;
uniform vec4 forms[${maskRows}];
uniform float aspect;
uniform float pixel;
out vec4 result;
void main() {
  vec2 p = vec2(place.x, 1.0 - place.y);
  float kept = 1.0;
  for (int m = 0; m < ${maskRows}; m++) {
    int n = int(forms[m].x);
    if (n == 0) break;
    float distance = 1e9;
    bool inside = false;
    vec2 a = texelFetch(points, ivec2(n - 1, m), 0).xy;
    for (int k = 0; k < n; k++) {
      vec2 b = texelFetch(points, ivec2(k, m), 0).xy;
      vec2 side = (b - a) * vec2(aspect, 1.0);
      vec2 way = (p - a) * vec2(aspect, 1.0);
      vec2 off = way - side * clamp(dot(way, side) / max(dot(side, side), 1e-12), 0.0, 1.0);
      distance = min(distance, length(off));
      if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
      a = b;
    }
    float deep = clamp(0.5 + (inside ? distance : -distance) / max(forms[m].y, pixel), 0.0, 1.0);
    kept *= forms[m].z > 0.5 ? 1.0 - deep : deep;
  }
  result = vec4(kept);
}`;

/** Where a picture of an output is seen: in its window, on the desk, or in the room. */
export type PaintedFor = 'window' | 'desk' | 'room';

/** How LED walls are drawn: tile by tile, with nothing that belongs to projectors. */
const ledSetting = { blend: noBlend(), mounted: { quarterTurns: 0, mirrored: false } };

/** What is kept for an output as long as its warp (or its raster) and its masks stay. */
interface Kept {
  output: WindowOutput;
  /** Pixels of the window it was made for. */
  size: string;
  warp: string;
  geometry: BufferGeometry;
  masks: string;
  mask: WebGLRenderTarget | null;
}

/** Paints outputs of the wall in one pass each: screens bent, masked and blended, LED walls tile by tile into their raster. */
export class ScreenPainter {
  private readonly uniforms = {
    ...presentedUniforms(),
    mask: { value: null as Texture | null },
    size: { value: [1, 1] },
    toX: { value: [1, 0, 0] },
    toY: { value: [0, 1, 0] },
    overlap: { value: [0, 0, 0, 0] },
    blend: { value: [2, 2.2, 0] },
    gain: { value: [1, 1, 1] },
    bend: { value: [1, 1, 1] },
    black: { value: [0, 0, 0] },
  };
  private readonly maskUniforms = {
    points: { value: null as Texture | null },
    forms: { value: new Float32Array(4 * maskRows) },
    aspect: { value: 1 },
    pixel: { value: 0.001 },
  };
  private readonly material: RawShaderMaterial;
  private readonly maskMaterial: RawShaderMaterial;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly mesh: Mesh;
  private readonly kept = new Map<string, Kept>();

  constructor(private readonly gpu: Gpu) {
    this.material = gpu.material(fragment, this.uniforms, vertex);
    this.material.side = DoubleSide;
    this.maskMaterial = gpu.material(maskFragment, this.maskUniforms);
    this.mesh = new Mesh(new BufferGeometry(), this.material);
    this.mesh.frustumCulled = false;
    this.scene.add(this.mesh);
  }

  /** Forgets screens that are no more. */
  keepTo(ids: ReadonlySet<string>): void {
    for (const [key, { output, geometry, mask }] of this.kept) {
      if (ids.has(output.id)) continue;
      geometry.dispose();
      if (mask) this.gpu.release(mask);
      this.kept.delete(key);
    }
  }

  /**
   * Draws a screen into the lower left of a target (null: the canvas), `into` pixels large. `canvas` is the size of the show's canvas, or null where the
   * picture is made for the part itself, as test pictures are.
   */
  draw(
    screen: WindowOutput,
    place: PaintedFor,
    presented: Presented,
    into: { width: number; height: number },
    canvas: { width: number; height: number } | null,
    target: WebGLRenderTarget | null = null,
  ): void {
    const { gpu, uniforms, mesh } = this;
    const kept = this.keep(screen, place, into);
    const { colour } = screen;
    const { blend, mounted } =
      screen.type === 'screen' ? { blend: screen.blend, mounted: screen } : ledSetting;
    const part = canvas ? partOf(screen) : { x: 0, y: 0, width: 1, height: 1, turn: 0 };
    const map = mapToCanvas(part, mounted, canvas ?? { width: 1, height: 1 });
    const white = whiteGains(colour.kelvin);
    fillPresented(uniforms, presented);
    uniforms.mask.value = kept.mask?.texture ?? gpu.white;
    uniforms.size.value = [into.width, into.height];
    uniforms.toX.value = map.slice(0, 3);
    uniforms.toY.value = map.slice(3);
    uniforms.overlap.value = [blend.left, blend.right, blend.top, blend.bottom];
    uniforms.blend.value = [blend.power, blend.gamma, blend.lift];
    // White and brightness are given in linear light.
    uniforms.gain.value = colour.gain.map((gain, k) => gain * (white[k] * colour.brightness) ** (1 / 2.2));
    uniforms.bend.value = colour.gamma.map((gamma) => 1 / gamma);
    // What is switched to black has no raised black.
    uniforms.black.value = colour.black.map((black) => black * presented.level);
    mesh.geometry = kept.geometry;
    gpu.passes++;
    gpu.renderer.setRenderTarget(target);
    gpu.renderer.setClearColor(0x000000, 1);
    gpu.renderer.clear(true, false, false);
    gpu.renderer.render(this.scene, this.camera);
  }

  private keep(screen: WindowOutput, place: PaintedFor, into: { width: number; height: number }): Kept {
    const { id } = screen;
    // What the desk shows of it has another size than its window.
    const key = `${id} ${place}`;
    const before = this.kept.get(key);
    const size = `${into.width}x${into.height}`;
    // A document is never changed in place: what is the same object was drawn before.
    if (before?.output === screen && before.size === size) return before;
    // In its window a raster lies pixel for pixel; the desk shows all of it.
    const window = place !== 'window' && screen.type === 'led' ? screen.raster : into;
    const masks = screen.type === 'screen' ? screen.masks : [];
    const warpText = JSON.stringify(
      screen.type === 'screen'
        ? screen.warp
        : [screen.tile, screen.tiles, screen.raster, window.width, window.height],
    );
    const maskText = JSON.stringify([masks, into.width, into.height]);
    let kept = before;
    if (kept?.warp !== warpText) {
      kept?.geometry.dispose();
      const { places, pictures, indices } =
        screen.type === 'screen' ? warpMesh(screen.warp) : rasterMesh(screen, window);
      const geometry = new BufferGeometry();
      geometry.setAttribute('spot', new BufferAttribute(places, 3));
      geometry.setAttribute('picture', new BufferAttribute(pictures, 2));
      geometry.setIndex(new BufferAttribute(indices, 1));
      kept = { masks: '', mask: null, ...kept, output: screen, size, warp: warpText, geometry };
      this.kept.set(key, kept);
    }
    Object.assign(kept, { output: screen, size });
    if (kept.masks !== maskText) {
      if (kept.mask) this.gpu.release(kept.mask);
      kept.mask = masks.length ? this.drawMasks(masks, into) : null;
      kept.masks = maskText;
    }
    return kept;
  }

  private drawMasks(
    masks: readonly OutputMask[],
    { width, height }: { width: number; height: number },
  ): WebGLRenderTarget {
    const { gpu, maskUniforms } = this;
    const scale = Math.min(1, mostMaskPixels / Math.max(width, height));
    const target = gpu.acquire(
      Math.max(1, Math.round(width * scale)),
      Math.max(1, Math.round(height * scale)),
      '8',
    );
    const numbers = new Float32Array(maskColumns * maskRows * 4);
    const forms = new Float32Array(4 * maskRows);
    masks.forEach(({ points, soft, hides }, m) => {
      forms.set([points.length, soft, hides === 'inside' ? 1 : 0], 4 * m);
      points.forEach((point, k) => numbers.set(point, 4 * (m * maskColumns + k)));
    });
    const points = gpu.dataTexture(numbers, maskColumns, maskRows);
    maskUniforms.points.value = points;
    maskUniforms.forms.value = forms;
    maskUniforms.aspect.value = width / height;
    maskUniforms.pixel.value = 1 / target.height;
    gpu.pass(this.maskMaterial, target);
    points.dispose();
    return target;
  }
}
