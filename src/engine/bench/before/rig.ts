import { quietInputs } from '../../../core/run/inputs';
import { SceneRun } from '../../../core/run/scene-run';
import { momentAt } from '../../../core/time/clock';
import { oneStep } from '../../../core/time/loop-steps';
import { catalogue } from '../../../nodes/catalogue';
import type { Gpu } from '../../gpu';
import { ImageStage, type StageOptions } from '../../image-stage';
import { MediaLibrary } from '../../media/library';
import { size, type Patch } from '../rig';
import { coverOf, type Drawing } from './measure';

export { Patch, size } from '../rig';

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
