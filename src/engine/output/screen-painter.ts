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
import { fillPresented, presentedUniforms, type Presented } from './presenter';
import { screenFragment, screenVertex, type ScreenNumbers } from './screen-shader';

/** Longest side of the picture of a mask, pixels. */
const mostMaskPixels = 2048;
/** Milliseconds that the numbers of an output stand still before they are put into a shader of its own. */
const settledMs = 400;
/** Such shaders that are kept. */
const mostBaked = 96;
/** Points of all masks lie in a texture: a row for each mask. */
const maskColumns = 32;
const maskRows = 8;

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

/** Where a picture of an output is seen: in its window, on the desk, in the room, or in what is exported of it. */
export type PaintedFor = 'window' | 'desk' | 'room' | 'export';

/** Whether the whole picture of an output lies on the canvas. */
function cornersWithin(map: readonly number[]): boolean {
  const [a, b, c, d, e, f] = map;
  return [0, 1].every((u) =>
    [0, 1].every((v) => [a * u + b * v + c, d * u + e * v + f].every((at) => at > -1e-6 && at < 1 + 1e-6)),
  );
}

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
  /** Its shader with all numbers in it, and since when that is so. */
  code: string;
  codeSince: number;
  /** What that was written for: documents are never changed in place. */
  codeOf: { output: WindowOutput; canvas: object | null } | null;
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
  /** Draws every output; its numbers are uniforms. */
  private readonly material: RawShaderMaterial;
  /** Shaders with the numbers of an output in their code, by that code, with when they were last used. */
  private readonly baked = new Map<string, { material: RawShaderMaterial; usedAt: number }>();
  private readonly maskMaterial: RawShaderMaterial;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly mesh: Mesh;
  private readonly kept = new Map<string, Kept>();

  constructor(private readonly gpu: Gpu) {
    this.material = gpu.material(screenFragment(null), this.uniforms, screenVertex);
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
    const numbers: ScreenNumbers = {
      blend,
      // White and brightness are given in linear light.
      gain: colour.gain.map((gain, k) => gain * (white[k] * colour.brightness) ** (1 / 2.2)),
      bend: colour.gamma.map((gamma) => 1 / gamma),
      black: colour.black,
      hasMask: kept.mask !== null,
      isWithin: cornersWithin(map),
    };
    fillPresented(uniforms, presented);
    uniforms.mask.value = kept.mask?.texture ?? gpu.white;
    uniforms.size.value = [into.width, into.height];
    uniforms.toX.value = map.slice(0, 3);
    uniforms.toY.value = map.slice(3);
    uniforms.overlap.value = [blend.left, blend.right, blend.top, blend.bottom];
    uniforms.blend.value = [blend.power, blend.gamma, blend.lift];
    uniforms.gain.value = numbers.gain;
    uniforms.bend.value = numbers.bend;
    // What is switched to black has no raised black.
    uniforms.black.value = colour.black.map((black) => black * presented.level);
    // What is exported must not depend on which shader was compiled by when.
    mesh.material = place === 'export' ? this.material : this.materialFor(kept, numbers, canvas, presented);
    mesh.geometry = kept.geometry;
    gpu.passes++;
    gpu.renderer.setRenderTarget(target);
    gpu.renderer.setClearColor(0x000000, 1);
    gpu.renderer.clear(true, false, false);
    gpu.renderer.render(this.scene, this.camera);
  }

  /**
   * The shader of an output: with its numbers in its code as soon as that is compiled, which is begun once they have stood still for a
   * moment; else, and through fades and blackouts, the one for all.
   */
  private materialFor(
    kept: Kept,
    numbers: ScreenNumbers,
    canvas: object | null,
    { fade, level }: Presented,
  ): RawShaderMaterial {
    if (fade > 0 || level !== 1) return this.material;
    const now = performance.now();
    if (kept.codeOf?.output !== kept.output || kept.codeOf.canvas !== canvas) {
      const code = screenFragment(numbers);
      if (kept.code !== code) Object.assign(kept, { code, codeSince: now });
      kept.codeOf = { output: kept.output, canvas };
    }
    const { code } = kept;
    let found = this.baked.get(code);
    if (!found && now - kept.codeSince < settledMs) return this.material;
    if (!found) {
      const material = this.gpu.material(code, this.uniforms, screenVertex);
      material.side = DoubleSide;
      this.gpu.beginCompile(material);
      found = { material, usedAt: now };
      this.baked.set(code, found);
      this.forgetOldest();
    }
    found.usedAt = now;
    return this.gpu.compiled(found.material) ? found.material : this.material;
  }

  private forgetOldest(): void {
    if (this.baked.size <= mostBaked) return;
    const [code, { material }] = [...this.baked].reduce((a, b) => (a[1].usedAt <= b[1].usedAt ? a : b));
    material.dispose();
    this.baked.delete(code);
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
      kept = {
        masks: '',
        mask: null,
        code: '',
        codeSince: 0,
        codeOf: null,
        ...kept,
        output: screen,
        size,
        warp: warpText,
        geometry,
      };
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
