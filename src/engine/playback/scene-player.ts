import type { WebGLRenderTarget } from 'three';
import type { Catalogue } from '../../core/kind/kind';
import { cyclesOf } from '../../core/patch/cycles';
import type { Given } from '../../core/desk/desk-run';
import type { FlatScene } from '../../core/patch/flat-scene';
import { picturesWithHistory } from '../../core/patch/history';
import { sceneOutOf } from '../../core/patch/plan';
import type { Frame } from '../../core/run/frame';
import { SceneRun } from '../../core/run/scene-run';
import type { Scene } from '../../core/document/types';
import type { DarkReason } from '../../core/run/why-dark';
import { inLoop } from '../../core/time/clock';
import type { Texture } from 'three';
import type { Gpu, ShareBox } from '../gpu/gpu';
import { ImageRenderer, type RendererOptions } from '../image/image-renderer';
import type { MediaLibrary } from '../media/library';
import { PixelReads } from '../image/pixel-reads';
import { plainLook, type Look } from '../image/look';

/** What counts of the frames before one. */
export interface History {
  numbers: boolean;
  /** Numbers count for themselves, and not only for pictures: they may go back further. */
  numbersAlone: boolean;
  /** Nodes whose pictures have to be drawn. */
  pictures: ReadonlySet<string>;
}

/** One scene being played: its numbers and its pictures. */
export class ScenePlayer {
  readonly run: SceneRun;
  renderer: ImageRenderer;
  private reads: PixelReads;
  scene: Scene;
  private watched: readonly string[] = [];
  private out: string | null = null;
  private shown: string | null = null;
  private lastFrame: Frame | null = null;
  private mediaVersion = 0;
  private history: { plan: number; pictures: ReadonlySet<string> } | null = null;
  /** Version of what the desk gave that it has taken. */
  private given = 0;
  private givenTo: FlatScene['forwards'];
  /** Frames played since it began. */
  frames = 0;
  /** The only parts of the scene's picture that somebody looks at; null: all. */
  taken: readonly ShareBox[] | null = null;
  /** Whether the scene's own picture is wanted, and not only what is watched. */
  wantsPicture = true;

  constructor(
    private gpu: Gpu,
    private readonly catalogue: Catalogue,
    private readonly media: MediaLibrary,
    scene: FlatScene,
    private readonly options: RendererOptions = {},
    readonly without: string | null = null,
  ) {
    this.scene = scene;
    this.run = new SceneRun(catalogue, without, {
      letters: (request) => media.letters(request),
      model: (file) => media.model(file),
    });
    this.run.forwards = scene.forwards;
    this.renderer = new ImageRenderer(gpu, this.run, media, options);
    this.reads = new PixelReads(gpu);
  }

  /** Takes what the desk has in hand of the scene, where that, or what it sets inside of modules, is another than the last. */
  give({ version, values }: { version: number; values: Iterable<Given> }): void {
    const { forwards } = this.run;
    if (version === this.given && forwards === this.givenTo) return;
    this.given = version;
    this.givenTo = forwards;
    this.run.standIn(values);
  }

  /**
   * Works out one frame. `watched`: further nodes whose output somebody looks at. What they need is worked out as well,
   * but the picture of the scene does not depend on it.
   */
  play(scene: Scene, frame: Frame, watched: readonly string[], fullHeight: number): void {
    const own = this.runFrame(scene, frame, watched);
    this.renderer.fullHeight = fullHeight;
    this.renderer.taken = this.taken && this.shown ? { node: this.shown, boxes: this.taken } : null;
    this.renderer.draw(scene, own, this.drawn(), this.unshown);
    this.reads.start(this.run, this.renderer);
    this.lastFrame = own;
    this.frames++;
  }

  /** Nodes whose pictures are drawn: that of the scene, and those that pixels are read of. */
  private drawn(): string[] {
    const read = this.run.pixelReaders().map(({ source }) => source);
    return this.shown ? [this.shown, ...read] : read;
  }

  /**
   * The node whose picture is the scene's: what enters Scene Out, whose own part whoever shows it does; or Scene Out itself,
   * where nothing enters it or it was given a size or precision of its own.
   */
  private findShown(): string | null {
    const { out } = this;
    const planned = out === null ? undefined : this.run.plan.nodes.get(out);
    if (!planned || planned.kind.output !== 'image' || !planned.kind.shows) return out;
    const { size, precision } = this.run.runs.get(planned.id)!.node;
    const [source] = planned.sources;
    const isImage = source && this.run.plan.nodes.get(source.node)?.kind.output === 'image';
    return isImage && !source.back && !size && precision === 'auto' ? source.node : out;
  }

  /**
   * What a later frame needs of the frames before it: nothing, their numbers, or these pictures as well. `watched` as in
   * `play`.
   */
  historyOf(scene: Scene, watched: readonly string[]): History {
    this.take(scene, watched);
    const { run } = this;
    if (this.history?.plan !== run.planVersion)
      this.history = { plan: run.planVersion, pictures: picturesWithHistory(run.plan, cyclesOf(run.plan)) };
    const { pictures } = this.history;
    const numbersAlone = run.remembersNumbers;
    return { numbers: run.remembers || pictures.size > 0, numbersAlone, pictures };
  }

  /** A frame on the way to a later one: only what that needs of it. Gives whether anything was drawn. */
  playOnTheWay(
    scene: Scene,
    frame: Frame,
    watched: readonly string[],
    fullHeight: number,
    { pictures }: Pick<History, 'pictures'>,
  ): boolean {
    const own = this.runFrame(scene, frame, watched);
    if (pictures.size === 0) {
      this.renderer.miss();
      return false;
    }
    this.renderer.fullHeight = fullHeight;
    this.renderer.draw(scene, own, this.drawn(), this.unshown, pictures);
    this.reads.start(this.run, this.renderer);
    return true;
  }

  /**
   * The same as `play`, and all that comes from outside is waited for: this very frame of a video, letters, files. `only`:
   * nodes to draw in a frame on the way to a later one.
   */
  async playExactly(
    scene: Scene,
    frame: Frame,
    watched: readonly string[],
    fullHeight: number,
    only: ReadonlySet<string> | null = null,
  ): Promise<void> {
    let own = this.runFrame(scene, frame, watched);
    // Letters and models are asked for by the run itself: what has arrived meanwhile is worked out before it is drawn.
    await this.media.settled();
    if (this.media.version !== this.mediaVersion) own = this.runFrame(scene, frame, watched);
    if (only?.size === 0) {
      this.renderer.miss();
      return;
    }
    this.renderer.fullHeight = fullHeight;
    await this.renderer.reach(scene, own, this.drawn(), this.unshown);
    this.renderer.draw(scene, own, this.drawn(), this.unshown, only);
    this.reads.start(this.run, this.renderer);
    await this.reads.done();
    this.lastFrame = own;
  }

  /** Nodes whose pictures count for later frames. */
  get remembering(): ReadonlySet<string> {
    return this.historyOf(this.scene, this.watched).pictures;
  }

  /** Takes a newer state of the scene, and says what is looked at. */
  private take(scene: Scene, watched: readonly string[]): void {
    this.scene = scene;
    this.watched = watched;
    this.out = this.wantsPicture ? sceneOutOf(scene, this.catalogue) : null;
    const roots = this.out ? [this.out, ...watched.filter((id) => id !== this.out)] : [...watched];
    this.run.update(scene, roots);
  }

  /** Works out the numbers of a frame; gives the frame as this scene with its own loop has it. */
  private runFrame(scene: Scene, frame: Frame, watched: readonly string[]): Frame {
    this.take(scene, watched);
    if (this.media.version !== this.mediaVersion) {
      this.mediaVersion = this.media.version;
      for (const id of this.renderer.nodesWithSheets()) this.run.runs.get(id)?.markStale();
      this.run.markAwaiting();
    }
    const own = { ...frame, moment: inLoop(frame.moment, scene.loop) };
    this.run.run(own);
    this.shown = this.findShown();
    return own;
  }

  /** Scene Out, where it is not drawn itself. */
  private get unshown(): string | null {
    return this.shown === this.out ? null : this.out;
  }

  /** Goes on with another graphics context: numbers and memories stay, pictures that came back around a cycle start again. */
  moveTo(gpu: Gpu): void {
    this.gpu = gpu;
    this.renderer = new ImageRenderer(gpu, this.run, this.media, this.options);
    this.reads = new PixelReads(gpu);
    for (const loop of this.run.returns.values()) loop.clear();
  }

  /** The picture that the scene's is made of when it is shown, or one see-through pixel if it has none. */
  get picture(): Texture {
    return this.shown ? this.renderer.textureOf(this.shown) : this.gpu.empty;
  }

  /** The scene's picture, as it is shown. */
  get look(): Look {
    const out = this.unshown === null ? undefined : this.run.runs.get(this.unshown);
    if (!out || out.plan.kind.output !== 'image' || !out.plan.kind.shows) return plainLook(this.picture);
    return { texture: this.picture, ...out.plan.kind.shows(out.controls) };
  }

  /** Draws the picture of any of its image nodes. */
  peek(node: string, target: WebGLRenderTarget | null, region?: readonly number[], wait?: boolean): boolean {
    return this.lastFrame !== null && this.renderer.peek(node, this.lastFrame, target, region, wait);
  }

  /** Draws a part of the scene's picture larger than it is stored. */
  drawLarge(target: WebGLRenderTarget, region: readonly number[]): void {
    if (!this.lastFrame || !this.shown) this.gpu.clear(target);
    else this.renderer.drawLarge(this.shown, this.lastFrame, target, region);
  }

  /** How far what a shot shows in this frame is from its camera, in green; the caller releases it. Null: the node is no shot. */
  distancesOf(node: string): WebGLRenderTarget | null {
    return this.lastFrame && this.renderer.distancesOf(node, this.lastFrame);
  }

  /** A field of this frame at places (x, y, z in turn): distance, red, green and blue of each. */
  fieldAt(node: string, places: readonly number[]): Promise<Float32Array> {
    if (!this.lastFrame || this.run.runs.get(node)?.plan.kind.output !== 'field')
      throw new Error('There is no field at this node.');
    return this.renderer.fieldAt(node, this.lastFrame, places);
  }

  /** Whether there is a picture of the scene yet. */
  get isDrawn(): boolean {
    return this.shown !== null && this.renderer.isDrawn(this.shown);
  }

  /** What is wrong, by node. */
  faults(): Record<string, string> {
    const faults: Record<string, string> = Object.fromEntries(this.run.faults());
    for (const [id, message] of this.renderer.allFaults()) faults[id] ??= message;
    return faults;
  }

  notes(): Record<string, string> {
    const notes: Record<string, string> = {};
    for (const [id, run] of this.run.runs) if (run.note) notes[id] = run.note;
    return notes;
  }

  /** Why its picture may be dark; what finds that is loaded when it is first asked for. */
  async why(): Promise<DarkReason[]> {
    const { whyDark } = await import('../../core/run/why-dark');
    const { width, height } = this.lastFrame?.canvas ?? { width: 16, height: 9 };
    const reasons = whyDark(this.run, this.out, width / height);
    for (const [node, sentence] of this.renderer.allFaults())
      if (!reasons.some((reason) => reason.sentence === sentence)) reasons.push({ node, sentence });
    return reasons;
  }

  dispose(): void {
    this.reads.dispose();
    this.renderer.dispose();
  }
}
