import type { RawShaderMaterial, WebGLRenderTarget } from 'three';
import type { SceneRun } from '../../core/run/scene-run';
import type { PixelGrid } from '../../core/kind/kind';
import type { Gpu } from '../gpu/gpu';
import type { ImageRenderer } from './image-renderer';

/** Reads 64 places around each one where the mean is asked for. Colours are premultiplied in pictures and straight as numbers. */
const readText = `#version 300 es
precision highp float;
in vec2 place;
uniform sampler2D picture;
uniform vec4 part;
uniform vec2 cells;
uniform bool mean;
out vec4 result;
void main() {
  vec4 sum = vec4(0.0);
  if (mean) {
    for (int k = 0; k < 64; k++) {
      vec2 inside = (vec2(float(k % 8), float(k / 8)) + 0.5) / 8.0 - 0.5;
      sum += textureLod(picture, part.xy + (place + inside / cells) * part.zw, 0.0);
    }
    sum /= 64.0;
  } else sum = texelFetch(picture, ivec2(clamp(part.xy + place * part.zw, vec2(0.0), vec2(0.999999)) * vec2(textureSize(picture, 0))), 0);
  result = vec4(sum.a > 0.0 ? sum.rgb / sum.a : sum.rgb, sum.a);
}`;

/**
 * Reads pixels for the nodes that ask for some. The GPU is asked after a frame was drawn and answers when it is done:
 * no frame waits for it, and a node that was not answered yet is not asked for again.
 */
export class PixelReads {
  private readonly waiting = new Map<string, Promise<void>>();
  private readonly targets = new Map<string, WebGLRenderTarget>();
  private material: RawShaderMaterial | null = null;
  private readonly uniforms = {
    picture: { value: null as unknown },
    part: { value: [0, 0, 1, 1] as readonly number[] },
    cells: { value: [1, 1] },
    mean: { value: false },
  };

  constructor(private readonly gpu: Gpu) {}

  start(run: SceneRun, stage: ImageRenderer): void {
    if (!this.gpu.floats) return;
    for (const { id, source, grid } of run.pixelReaders())
      if (!this.waiting.has(id) && stage.isDrawn(source)) this.read(id, source, grid, run, stage);
  }

  private read(id: string, source: string, grid: PixelGrid, run: SceneRun, stage: ImageRenderer): void {
    const { gpu, uniforms } = this;
    const { columns, rows, region, average } = grid;
    let target = this.targets.get(id);
    if (target?.width !== columns || target.height !== rows) {
      if (target) gpu.release(target);
      target = gpu.acquire(columns, rows, '32');
      this.targets.set(id, target);
    }
    uniforms.picture.value = stage.textureOf(source);
    uniforms.part.value = region;
    uniforms.cells.value = [columns, rows];
    uniforms.mean.value = average;
    this.material ??= gpu.material(readText, uniforms);
    gpu.pass(this.material, target);
    const pixels = new Float32Array(4 * columns * rows);
    const reading = gpu.renderer
      .readRenderTargetPixelsAsync(target, 0, 0, columns, rows, pixels)
      .then(
        () => run.givePixels(id, pixels),
        () => undefined, // The GPU was lost meanwhile; the next one is asked again.
      )
      .finally(() => this.waiting.delete(id));
    this.waiting.set(id, reading);
  }

  /** Resolves when all that was asked for is there: for frames that have to be exact. */
  async done(): Promise<void> {
    await Promise.all(this.waiting.values());
  }

  dispose(): void {
    for (const target of this.targets.values()) this.gpu.release(target);
    this.targets.clear();
  }
}
