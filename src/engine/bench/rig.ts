import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { ControlValue, Scene } from '../../core/document/types';
import { sceneOutOf } from '../../core/patch/plan';
import { idleInputs } from '../../core/inputs/inputs';
import type { Frame } from '../../core/run/frame';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import type { RendererOptions } from '../image/image-renderer';
import { plainLook } from '../image/look';
import { Presenter } from '../output/presenter';
import { ScenePlayer } from '../playback/scene-player';
import type { Shown } from './measure';
import { noFiles } from './scenes';

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

/** The engine at work on one scene, whole: from its numbers through Scene Out to a surface, without a worker around it. */
export class Rig implements Shown {
  readonly player: ScenePlayer;
  private readonly presenter: Presenter;
  private readonly live = idleInputs();
  private readonly pixel = new Uint8Array(4);

  constructor(
    private readonly gpu: Gpu,
    private readonly patch: Patch,
    /** The node whose picture is the scene's. */
    last: string,
    options: Omit<RendererOptions, 'waits'> = {},
    readonly size: Shown['size'] = { width: 640, height: 360 },
  ) {
    patch.wire(last, patch.out, 'picture');
    this.player = new ScenePlayer(gpu, catalogue, noFiles(), patch.scene, { ...options, waits: true });
    this.presenter = new Presenter(gpu);
  }

  /** What the scene is told of a frame. */
  frameOf(k: number): Frame {
    const moment = momentAt(k / 60, k ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 });
    return { moment, live: this.live, canvas: this.size, feedback: oneStep };
  }

  frame(k: number): void {
    const { gpu, size: canvas } = this;
    this.player.play(this.patch.scene, this.frameOf(k), [], canvas.height);
    gpu.resize(canvas.width, canvas.height);
    gpu.renderer.setViewport(0, 0, canvas.width, canvas.height);
    this.presenter.draw({ first: this.player.look, second: plainLook(gpu.empty), fade: 0, level: 1 }, canvas);
  }

  finish(): void {
    const { gl } = this.gpu;
    this.gpu.renderer.setRenderTarget(null);
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, this.pixel);
  }

  pixels(): Uint8Array {
    const { gl } = this.gpu;
    const { width, height } = this.size;
    const rgba = new Uint8Array(4 * width * height);
    this.gpu.renderer.setRenderTarget(null);
    gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, rgba);
    return rgba;
  }

  /** Pixels of a node's picture as numbers, the lowest row first. */
  numbersOf(node: string, width: number, height: number): Float32Array {
    const target = this.gpu.acquire(width, height, '32');
    this.gpu.copy(this.player.renderer.textureOf(node), target);
    const rgba = new Float32Array(4 * width * height);
    this.gpu.renderer.readRenderTargetPixels(target, 0, 0, width, height, rgba);
    this.gpu.release(target);
    return rgba;
  }
}
