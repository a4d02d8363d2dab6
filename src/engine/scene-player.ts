import type { WebGLRenderTarget } from 'three';
import type { Catalogue } from '../core/kind/kind';
import { sceneOutOf } from '../core/patch/plan';
import { SceneRun, type Frame } from '../core/run/scene-run';
import type { Scene } from '../core/show/types';
import type { Texture } from 'three';
import type { Gpu } from './gpu';
import { ImageStage } from './image-stage';

/** One scene being played: its numbers and its pictures. */
export class ScenePlayer {
  readonly run: SceneRun;
  stage: ImageStage;
  scene: Scene;
  private out: string | null = null;
  private lastFrame: Frame | null = null;

  constructor(
    private gpu: Gpu,
    private readonly catalogue: Catalogue,
    scene: Scene,
    readonly without: string | null = null,
  ) {
    this.scene = scene;
    this.run = new SceneRun(catalogue, without);
    this.stage = new ImageStage(gpu, this.run);
  }

  /**
   * Works out one frame. `watched`: further nodes whose output somebody looks at. What they need is worked out as well,
   * but the picture of the scene does not depend on it.
   */
  play(scene: Scene, frame: Frame, watched: readonly string[], fullHeight: number): void {
    this.scene = scene;
    this.out = sceneOutOf(scene, this.catalogue);
    const roots = this.out ? [this.out, ...watched.filter((id) => id !== this.out)] : [...watched];
    this.run.update(scene, roots);
    this.run.run(frame);
    this.stage.fullHeight = fullHeight;
    this.stage.draw(scene, frame, this.out ? [this.out] : []);
    this.lastFrame = frame;
  }

  /** Goes on with another graphics context: numbers and memories stay, pictures that came back around a circle start again. */
  moveTo(gpu: Gpu): void {
    this.gpu = gpu;
    this.stage = new ImageStage(gpu, this.run);
    for (const loop of this.run.returns.values()) loop.clear();
  }

  /** The picture of the scene, or one see-through pixel if it has none. */
  get picture(): Texture {
    return this.out ? this.stage.textureOf(this.out) : this.gpu.empty;
  }

  /** Draws the picture of any of its image nodes. */
  peek(node: string, target: WebGLRenderTarget | null, region?: readonly number[]): boolean {
    return this.lastFrame !== null && this.stage.peek(node, this.lastFrame, target, region);
  }

  /** What is wrong, by node. */
  faults(): Record<string, string> {
    const faults: Record<string, string> = Object.fromEntries(this.run.faults());
    for (const [id, message] of this.stage.faults) faults[id] ??= message;
    return faults;
  }

  notes(): Record<string, string> {
    const notes: Record<string, string> = {};
    for (const [id, run] of this.run.runs) if (run.note) notes[id] = run.note;
    return notes;
  }

  dispose(): void {
    this.stage.dispose();
  }
}
