import type { WebGLRenderTarget } from 'three';
import { Timing } from '../../core/export/schedule';
import { hasAlpha, type ExportSpec } from '../../core/export/spec';
import type { PixelString, Show } from '../../core/document/types';
import { stringOf, windowOutputOf } from '../../core/wall/outputs';
import { bytesOfPixel, packPixels, pixelCount } from '../../core/wall/pixels/pixels';
import { ExactProgram } from '../exact/exact-program';
import type { ExactRun, Rest } from '../exact/exact-run';
import { ExactScene, sceneOf, type ExactMeans } from '../exact/exact-scene';
import type { Checkpoint } from '../image/checkpoint';
import { PixelStrings } from '../output/pixel-strings';
import type { Presenter } from '../output/presenter';
import type { ProgramMix } from '../output/program-mix';
import type { WallPainter } from '../output/wall-painter';

export interface ExportMeans extends ExactMeans {
  presenter: Presenter;
  mix: ProgramMix;
  wall: WallPainter;
}

/** What is exported, frame by frame: the run behind it, and how its picture is drawn. */
export class ExportRun {
  private readonly run: ExactRun;
  private readonly timing: Timing;
  private readonly canvas: { width: number; height: number };
  private readonly strings: readonly PixelString[];
  private readonly reader: PixelStrings | null;
  /** Frame that was reached last. */
  at = -1;

  constructor(
    private readonly means: ExportMeans,
    private readonly show: Show,
    private readonly spec: ExportSpec,
  ) {
    const { source, output, supersample } = spec;
    this.timing = Timing.of(spec);
    // An output takes its part of the canvas of the show; else the canvas is what is exported.
    const size = output === null ? spec : show.canvas;
    this.canvas = { width: size.width * supersample, height: size.height * supersample };
    const string = stringOf(show, output);
    this.strings = string ? [string] : [];
    this.reader = string ? new PixelStrings(means.gpu) : null;
    if (source.type === 'scene') {
      const scene = sceneOf(show, source.scene);
      this.run = new ExactScene(means, show, scene, this.canvas, this.timing, source.node);
    } else {
      const drawn = { ...show, canvas: { ...show.canvas, ...this.canvas } };
      this.run = new ExactProgram(means, drawn, source, this.timing, show.canvas.height);
    }
  }

  /** Whether a run that stands at a frame can go on to another. */
  canReach = (frame: number): boolean => frame > this.at;

  /** Works out all that a frame needs of those before it, and gives it as a checkpoint. */
  async before(frame: number, rest: Rest): Promise<Checkpoint> {
    if (this.at < frame - 1) await this.run.reach(frame * this.timing.subframes - 1, rest);
    this.at = frame - 1;
    return this.checkpoint();
  }

  /** What the frames after the one that was reached need of those before. */
  checkpoint(): Promise<Checkpoint> {
    return (this.run as ExactScene).checkpoint();
  }

  /** Begins from a checkpoint. Has to be called before the first frame. */
  beginFrom(checkpoint: Checkpoint): void {
    (this.run as ExactScene).beginFrom(checkpoint);
    this.at = Math.floor(checkpoint.step / this.timing.subframes);
  }

  /** Works out a frame, and calls `draw` for each of its moments. */
  async frame(frame: number, draw: () => void, rest?: Rest): Promise<void> {
    const { subframes } = this.timing;
    for (let part = 0; part < subframes; part++) {
      await this.run.reach(frame * subframes + part, rest);
      draw();
    }
    this.at = frame;
  }

  /** Draws what is exported of the moment that was reached. */
  draw(target: WebGLRenderTarget): void {
    const { run, spec, means, show } = this;
    const { source, format } = spec;
    const screen = spec.output === null ? undefined : windowOutputOf(show, spec.output);
    if (screen) {
      const into = { width: target.width, height: target.height };
      means.wall.draw(screen, run.seen(), { place: 'export', into, canvas: show.canvas }, undefined, target);
    } else if (source.type === 'scene' && source.node) {
      if (!(run as ExactScene).player.peek(source.node, target, undefined, true))
        throw new Error('There is no picture at this node. Choose an image or a field.');
    } else {
      means.presenter.drawNumbers(run.seen(), hasAlpha(format) ? 'through' : 'numbers', target);
    }
  }

  /** Whether what is drawn listens to sound. */
  get hears(): boolean {
    return this.spec.source.type === 'scene' && (this.run as ExactScene).player.run.hears;
  }

  /** What the nodes of a scene cost one by one, the dearest first: `work` draws a frame in which each of them is waited for. */
  async nodeTimes(
    work: (frame: number) => Promise<unknown>,
    frame: number,
  ): Promise<{ node: string; ms: number }[]> {
    if (this.spec.source.type !== 'scene') return [];
    const { renderer } = (this.run as ExactScene).player;
    const times = new Map<string, number>();
    renderer.measure = (node, draw) => {
      const start = performance.now();
      draw();
      this.means.gpu.wait();
      times.set(node, (times.get(node) ?? 0) + performance.now() - start);
    };
    try {
      await work(frame);
    } finally {
      renderer.measure = null;
    }
    return [...times].map(([node, ms]) => ({ node, ms })).sort((a, b) => b.ms - a.ms);
  }

  /** Distances of what a shot shows, rows from above. */
  async depth(): Promise<Float32Array<ArrayBuffer>> {
    const { spec, means } = this;
    const node = spec.source.type === 'scene' ? spec.source.node : null;
    const far = node && (this.run as ExactScene).player.distancesOf(node);
    if (!far) throw new Error('Depth comes from a Shot: this node is none.');
    const { width, height } = far;
    try {
      if (width !== spec.width || height !== spec.height)
        throw new Error(`This Shot has a size of its own. Export it at ${width} x ${height}.`);
      const rgba = await means.gpu.readNumbers(far);
      const out = new Float32Array(width * height);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) out[y * width + x] = rgba[4 * ((height - 1 - y) * width + x) + 1];
      return out;
    } finally {
      means.gpu.release(far);
    }
  }

  /** The pixels of the string that is exported, as they are sent. */
  async pixels(): Promise<Uint8Array<ArrayBuffer>> {
    const [string] = this.strings;
    const light = await this.reader!.read(this.strings, this.run.seen(), this.show.canvas);
    const bytes = new Uint8Array(pixelCount(string) * bytesOfPixel(string));
    packPixels(string, light![0], bytes);
    return bytes;
  }

  /** Draws a part of a scene that is larger than a texture: its last shader, computed for that part. `region`: as shares of the whole. */
  drawPart(target: WebGLRenderTarget, region: readonly number[]): void {
    const { gpu, presenter } = this.means;
    const seen = this.run.seen();
    const part = gpu.acquire(target.width, target.height, '32');
    (this.run as ExactScene).player.drawLarge(part, region);
    presenter.drawNumbers(
      { ...seen, first: { ...seen.first, texture: part.texture } },
      hasAlpha(this.spec.format) ? 'through' : 'numbers',
      target,
    );
    gpu.release(part);
  }

  dispose(): void {
    this.run.dispose();
  }
}
