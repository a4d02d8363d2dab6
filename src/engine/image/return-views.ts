import type { Texture, WebGLRenderTarget } from 'three';
import type { SceneRun } from '../../core/run/scene-run';
import { keptApart } from '../../core/document/return-settings';
import type { ReturnSettings } from '../../core/document/types';
import { guardGlsl } from '../shader/assemble';
import type { Bits, Gpu } from '../gpu/gpu';

/** So far beyond what pictures hold that the guard of a return wire does nothing. */
const noLimit = 1e20;

/** Where a mask is dark the home picture comes back: out = mix(home, previous, mask). */
const viewText = `#version 300 es
precision highp float;
precision highp int;
in vec2 place;
uniform sampler2D previous;
uniform sampler2D home;
uniform sampler2D mask;
uniform vec2 previousSize;
uniform bool crisp;
uniform bool masked;
uniform vec3 kept;
out vec4 result;
${guardGlsl}
void main() {
  vec2 at = crisp ? (floor(place * previousSize) + 0.5) / previousSize : place;
  vec4 v = guarded(texture(previous, at) * kept.x, kept.y);
  if (masked) {
    vec4 m = texture(mask, place);
    float share = clamp(dot(m.rgb, vec3(0.2126, 0.7152, 0.0722)), 0.0, 1.0);
    v = mix(texture(home, place), v, pow(share, kept.z));
  }
  result = v;
}`;

interface ReturnView {
  target: WebGLRenderTarget;
  /** Step at which it was drawn. */
  step: number;
}

export interface ReturnSource {
  /** What stands at a node now; null if it was never drawn. */
  now(id: string): WebGLRenderTarget | null;
  textureOf(id: string): Texture;
  bitsOf(id: string): Bits;
}

/** The pictures that return wires carry where they are kept apart from their source. One owner frees them. */
export class ReturnViews {
  private readonly views = new Map<string, ReturnView>();
  private readonly uniforms = {
    previous: { value: null as Texture | null },
    home: { value: null as Texture | null },
    mask: { value: null as Texture | null },
    previousSize: { value: [1, 1] },
    crisp: { value: false },
    masked: { value: false },
    kept: { value: [1, noLimit, 1] },
  };
  private material: ReturnType<Gpu['material']> | null = null;
  /** 1/60 s that a step stands for. */
  sixtieths = 1;

  constructor(
    private readonly gpu: Gpu,
    private readonly run: SceneRun,
    private readonly source: ReturnSource,
  ) {}

  /** Share kept and limit of the guard in one step. */
  backOf(settings: ReturnSettings, clearing: boolean): [number, number] {
    if (clearing) return [1, noLimit];
    return [Math.pow(settings.keep, this.sixtieths), settings.guard === 'soft' ? settings.limit : noLimit];
  }

  /** Draws what a wire kept apart carries in this step. Has to be called before its source is drawn in it. */
  view(wire: string, from: string, step: number, clearing: boolean): void {
    const settings = this.run.returns.get(wire)?.settings;
    if (!settings || !keptApart(settings)) return;
    const before = this.source.now(from);
    const image = this.run.runs.get(from)?.image;
    const [width, height] = settings.size ?? [image?.width ?? 1, image?.height ?? 1];
    const bits: Bits = settings.precision === 'auto' ? this.source.bitsOf(from) : settings.precision;
    const old = this.views.get(wire);
    if (old?.step === step) return;
    const target = this.targetFor(old, width, height, bits);
    const home = settings.startsFrom ? this.source.textureOf(settings.startsFrom) : this.gpu.empty;
    const starts = clearing || !before;
    const previous = starts ? home : before.texture;
    const [keep, limit] = this.backOf(settings, starts);
    const { uniforms } = this;
    uniforms.previous.value = previous;
    const size = previous.image as { width: number; height: number };
    uniforms.previousSize.value = [size.width, size.height];
    uniforms.home.value = home;
    uniforms.mask.value = settings.clearWhere ? this.source.textureOf(settings.clearWhere) : this.gpu.empty;
    uniforms.masked.value = settings.clearWhere !== null && !starts;
    uniforms.crisp.value = settings.reading === 'crisp';
    uniforms.kept.value = [keep, limit, this.sixtieths];
    this.material ??= this.gpu.material(viewText, uniforms);
    this.gpu.pass(this.material, target);
    this.views.set(wire, { target, step });
  }

  private targetFor(
    old: ReturnView | undefined,
    width: number,
    height: number,
    bits: Bits,
  ): WebGLRenderTarget {
    if (old && this.gpu.fits(old.target, width, height, bits)) return old.target;
    if (old) this.gpu.release(old.target);
    return this.gpu.acquire(width, height, bits);
  }

  /** The pictures that wires carry in this step, by wire. */
  targets(): [string, WebGLRenderTarget][] {
    return [...this.views].map(([wire, { target }]) => [wire, target]);
  }

  has(wire: string): boolean {
    return this.views.has(wire);
  }

  textureOf(wire: string): Texture {
    return this.views.get(wire)?.target.texture ?? this.gpu.empty;
  }

  /** Frees what no wire of the plan carries any more. */
  keepOnly(wires: ReadonlySet<string>): void {
    for (const [wire, view] of this.views) {
      if (wires.has(wire)) continue;
      this.gpu.release(view.target);
      this.views.delete(wire);
    }
  }

  dispose(): void {
    this.keepOnly(new Set());
    this.material?.dispose();
  }
}
