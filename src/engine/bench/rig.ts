import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { ControlValue, Scene } from '../../core/show/types';
import { sceneOutOf } from '../../core/patch/plan';
import { quietInputs } from '../../core/run/inputs';
import { SceneRun } from '../../core/run/scene-run';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/loop-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu';
import { ImageStage, type StageOptions } from '../image-stage';
import { MediaLibrary } from '../media/library';
import { coverOf, type Drawing } from './measure';

export const size = { width: 640, height: 360 };

/** A patch in the making, with the same edits that a hand makes. */
export class Patch {
  readonly scene: Scene = makeScene(catalogue, 's', 'Bench');
  readonly out = sceneOutOf(this.scene, catalogue)!;

  add(kind: string, controls: Record<string, ControlValue> = {}, own?: [number, number]): string {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    if (own) this.scene.nodes[id].size = own;
    return id;
  }

  wire(from: string, to: string, port: string): string {
    return connect(this.scene, catalogue, from, to, port);
  }
}

/** The engine at work on one patch, without a worker or windows around it. */
export class Rig implements Drawing {
  readonly run = new SceneRun(catalogue);
  readonly stage: ImageStage;
  private readonly live = quietInputs();
  private readonly pixel = new Uint8Array(4);

  constructor(
    private readonly gpu: Gpu,
    private readonly patch: Patch,
    /** The node whose picture is wanted; what a scene does to it on its way out is not measured. */
    private readonly node: string,
    options: Omit<StageOptions, 'waits'> = {},
    private readonly canvas = size,
  ) {
    this.run.update(patch.scene, [node]);
    // Patches that are measured read no files.
    const media = new MediaLibrary(
      () => Promise.reject(new Error('No page is there.')),
      () => undefined,
    );
    this.stage = new ImageStage(gpu, this.run, media, { ...options, waits: true });
  }

  frame(k: number): void {
    const moment = momentAt(k / 60, k ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 });
    const frame = { moment, live: this.live, canvas: this.canvas, loop: oneStep };
    this.run.run(frame);
    this.stage.fullHeight = this.canvas.height;
    this.stage.draw(this.patch.scene, frame, [this.node]);
  }

  finish(): void {
    const target = this.gpu.acquire(1, 1, '8');
    const texture = this.stage.textureOf(this.node);
    this.gpu.copy(texture, target);
    this.gpu.gl.finish();
    this.gpu.renderer.readRenderTargetPixels(target, 0, 0, 1, 1, this.pixel);
    this.gpu.release(target);
  }

  covered(): number {
    const { width, height } = this.canvas;
    const target = this.gpu.acquire(width, height, '32');
    this.gpu.copy(this.stage.textureOf(this.node), target);
    const rgba = new Float32Array(4 * width * height);
    this.gpu.renderer.readRenderTargetPixels(target, 0, 0, width, height, rgba);
    this.gpu.release(target);
    return coverOf(rgba);
  }

  /** A pixel of the picture, 0..255, to see that what is measured is drawn. */
  look(): number[] {
    this.finish();
    return [...this.pixel];
  }
}
