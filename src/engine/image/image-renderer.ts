import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import { listAt, type DataPicture, type ImageKind } from '../../core/kind/kind';
import { bodyOf, type Prop, type ShotSettings } from '../../core/kind/prop';
import { cyclesOf, type Cycle } from '../../core/patch/cycles';
import { keepsPictures } from '../../core/patch/history';
import type { Plan, PlanNode, PlanSource } from '../../core/patch/plan';
import { feedbackPrecision, numberImages, storedImages } from '../../core/patch/storage';
import type { NodeRun } from '../../core/run/node-run';
import type { Frame } from '../../core/run/frame';
import type { SceneRun } from '../../core/run/scene-run';
import { keptApart } from '../../core/document/return-settings';
import type { Scene, Wire } from '../../core/document/types';
import { readableCode, type TextureRead } from '../shader/assemble';
import type { Bits, Gpu, ShareBox } from '../gpu/gpu';
import { ReturnViews } from './return-views';
import type { MediaLibrary } from '../media/library';
import { NodeShaders } from './node-shaders';
import { fillShader, type Shader, type TextureView } from '../shader/shader';
import type { Remembered } from './remembered';
import { Sheets } from './sheets';
import { FieldPainter, type FieldScene } from '../field/field-shot';
import { drawsDirectly, ShotPainter, type ShotJob } from '../prop/shot';
import { fitStored, freeStored, newStored, type Stored } from './stored';

export interface RendererOptions {
  /** Only for measuring and comparing: every node in a pass of its own, and what `auto` precision means for pictures. */
  apart?: boolean;
  bits?: Bits;
  /** Every shader is waited for, so that each frame is exact; else the picture before stays until it is there. */
  waits?: boolean;
}

/**
 * Draws the pictures of one scene: what changed, in the order of the plan, joined into as few passes as the plan allows.
 * A shader that fails leaves the picture before in place and its reason with the node.
 */
export class ImageRenderer {
  /** Height of the show's canvas, which widths in pixels are meant for. */
  fullHeight = 1080;
  /** Called around the passes of each node, so that their cost can be measured. */
  measure: ((node: string, draw: () => void) => void) | null = null;
  private readonly stored = new Map<string, Stored>();
  private readonly shaders: NodeShaders;
  private readonly shots: ShotPainter;
  private readonly fields: FieldPainter;
  private readonly returnViews: ReturnViews;
  private readonly sheets: Sheets;
  private plan: Plan | null = null;
  private cycles: readonly Cycle[] = [];
  /** Return wires by the node they come from, where other readers of it get the picture before this step. */
  private tapped = new Map<string, Wire>();
  private cycleOf = new Map<string, Cycle>();
  private scene: Scene | null = null;
  private planVersion = -1;
  private sizes = '';
  private wanted = new Set<string>();
  private wantedKey = '';
  private moving = true;
  /** Counts the steps of feedback: each draws what lies on a cycle once. */
  private step = 0;
  private stepInFrame = 0;
  private unshown: string | null = null;
  /**
   * The only parts of a node's picture that somebody looks at; null: all. They hold for a picture that no other node reads, as that
   * of the whole scene.
   */
  taken: { node: string; boxes: readonly ShareBox[] } | null = null;
  /** The only nodes that are drawn in this frame; null: all that changed. */
  private only: ReadonlySet<string> | null = null;
  /** Nodes on return wires drawn in this step: the frame before is in their other target now. */
  private readonly exchanged = new Set<string>();

  constructor(
    private readonly gpu: Gpu,
    private readonly run: SceneRun,
    private readonly media: MediaLibrary,
    private readonly options: RendererOptions = {},
  ) {
    this.shaders = new NodeShaders(gpu, run, this.stored, options.waits === true);
    this.shots = new ShotPainter(gpu);
    this.fields = new FieldPainter(gpu);
    this.sheets = new Sheets(gpu, run, media);
    this.returnViews = new ReturnViews(gpu, run, {
      now: (id) => this.stored.get(id)?.target ?? null,
      textureOf: (id) => this.textureOf(id),
      bitsOf: (id) => this.stored.get(id)?.bits ?? this.gpu.usualBits,
    });
  }

  /**
   * Draws everything that changed. `wanted`: nodes whose pictures are presented; `unshown`: one that is not drawn, since its
   * part is done to what enters it when that is presented. `only`: nodes to draw on the way to a later frame; the others
   * are drawn with the next frame that is whole.
   */
  draw(
    scene: Scene,
    frame: Frame,
    wanted: Iterable<string>,
    unshown: string | null = null,
    only: ReadonlySet<string> | null = null,
  ): void {
    this.update(scene, wanted, unshown);
    this.only = only;
    this.moving = frame.moment.dt > 0;
    this.returnViews.sixtieths = frame.feedback.sixtieths;
    this.shaders.takeCompiled();
    for (const cycle of this.cycles) {
      if (this.rests(cycle)) continue;
      if (cycle.returns) this.drawCycle(cycle, frame);
      else {
        this.exchanged.delete(cycle.nodes[0].id);
        this.drawIfChanged(cycle.nodes[0], frame, frame.feedback.count);
      }
    }
  }

  /** Whether nothing of it counts in this frame; what was never drawn is, once. */
  private rests({ nodes }: Cycle): boolean {
    return nodes.every(({ id }) => this.run.runs.get(id)!.rests && (this.stored.get(id)?.drawn ?? true));
  }

  /** Passes over a frame: what changed in it is drawn with the next one. */
  miss(): void {
    for (const [id, stored] of this.stored) if (this.run.runs.get(id)?.changed) stored.missed = true;
  }

  /** What is wrong, by node: shaders that failed, and what should have come from outside. */
  allFaults(): Map<string, string> {
    const all = new Map(this.shaders.faults);
    for (const id of this.nodesWithSheets()) {
      const fault = this.sheets.fault(id);
      if (fault && !all.has(id)) all.set(id, fault);
    }
    return all;
  }

  /** Resolves when all that this frame needs from outside (videos, files, fonts) is there or has failed. */
  async reach(
    scene: Scene,
    frame: Frame,
    wanted: Iterable<string>,
    unshown: string | null = null,
  ): Promise<void> {
    this.update(scene, wanted, unshown);
    for (const node of this.plan!.order)
      if (this.sheets.has(node.id)) await this.sheets.reach(node.id, frame);
    for (const node of this.plan!.order) this.askForModelPictures(node);
    await this.media.settled();
  }

  /** Asks for the pictures that lie on models of a shot. */
  private askForModelPictures({ id, kind }: PlanNode): void {
    if (kind.output !== 'image' || kind.paint.type !== 'shot') return;
    for (const prop of listAt<'prop'>(this.run.inputsOf(id), 'props')) {
      if (prop.type !== 'body' && prop.type !== 'instances') continue;
      for (const picture of bodyOf(prop).shape.pictures ?? [])
        this.media.picture(picture, this.run.runs.get(id)?.image?.height ?? 1);
    }
  }

  /** Nodes whose picture changes when something arrives from outside. */
  nodesWithSheets(): string[] {
    return (this.plan?.order ?? [])
      .filter(
        ({ id, kind }) => this.sheets.has(id) || (kind.output === 'image' && kind.paint.type === 'shot'),
      )
      .map((node) => node.id);
  }

  private update(scene: Scene, wanted: Iterable<string>, unshown: string | null): void {
    const wantedNow = new Set(wanted);
    const wantedKey = `${[...wantedNow].sort().join(' ')} without ${unshown}`;
    this.scene = scene;
    const sizes = this.sizesKey();
    if (this.run.planVersion === this.planVersion && sizes === this.sizes && wantedKey === this.wantedKey)
      return;
    this.planVersion = this.run.planVersion;
    this.sizes = sizes;
    this.wanted = wantedNow;
    this.unshown = unshown;
    this.wantedKey = wantedKey;
    this.rebuild();
  }

  /** What lies on cycles goes on in steps of 1/60 s, however many of them a frame takes. */
  private drawCycle(cycle: Cycle, frame: Frame): void {
    const clearing = this.run.isClearing(cycle.nodes.map((node) => node.id));
    const fresh = cycle.nodes.some((node) => this.stored.has(node.id) && !this.stored.get(node.id)!.drawn);
    const count = !this.moving ? 1 : Math.max(frame.feedback.count, clearing || fresh ? 1 : 0);
    for (let k = 0; k < count; k++) {
      this.step++;
      this.stepInFrame = k;
      for (const node of cycle.nodes) this.exchanged.delete(node.id);
      this.drawViews(cycle);
      for (const node of cycle.nodes) this.drawIfChanged(node, frame, 1);
    }
    this.stepInFrame = 0;
  }

  private drawViews(cycle: Cycle): void {
    for (const node of cycle.nodes)
      for (const source of Object.values(node.inputs).flat())
        if (source.back && (this.moving || !this.returnViews.has(source.back.id)))
          this.returnViews.view(source.back.id, source.node, this.step, this.isClearing(source.back.id));
  }

  private isClearing(wire: string): boolean {
    return this.stepInFrame === 0 && (this.run.returns.get(wire)?.clearing ?? true);
  }

  private drawIfChanged(node: PlanNode, frame: Frame, steps: number): void {
    const stored = this.stored.get(node.id);
    if (!stored) return;
    const run = this.run.runs.get(node.id)!;
    // Parts that nobody looked at hold an older picture.
    const isWhole = this.partsKey(node.id, stored) === stored.parts;
    if (!run.changed && stored.drawn && !stored.missed && isWhole) return;
    if (this.only && !this.only.has(node.id)) {
      stored.missed = true;
      this.updateSheets(stored, frame, steps, (member) => keepsPictures(this.plan!.nodes.get(member)!.kind));
      return;
    }
    stored.missed = false;
    if (this.measure) this.measure(node.id, () => this.drawNode(node, run, stored, frame, steps));
    else this.drawNode(node, run, stored, frame, steps);
  }

  /** The only parts of a picture that are drawn; null: all of it. */
  private partsOf(id: string, stored: Stored): readonly ShareBox[] | null {
    if (this.taken?.node !== id || stored.double) return null;
    return this.isReadByNode(id) ? null : this.taken.boxes;
  }

  private partsKey(id: string, stored: Stored): string {
    const parts = this.partsOf(id, stored);
    return parts ? JSON.stringify(parts) : '';
  }

  /** Whether any node reads a picture, but for Scene Out where that is not drawn itself. */
  private isReadByNode(id: string): boolean {
    return this.plan!.order.some(
      (reader) => reader.id !== this.unshown && reader.sources.some(({ node }) => node === id),
    );
  }

  private sizesKey(): string {
    let key = '';
    for (const [id, run] of this.run.runs)
      if (run.image) key += `${id}:${run.image.width}x${run.image.height} `;
    return key;
  }

  private rebuild(): void {
    const { plan } = this.run;
    this.plan = plan;
    this.cycles = cyclesOf(plan);
    this.cycleOf = new Map(
      this.cycles.flatMap((cycle) => cycle.nodes.map((node): [string, Cycle] => [node.id, cycle])),
    );
    const sizeOf = (id: string): string => {
      const image = this.run.runs.get(id)?.image;
      return image ? `${image.width}x${image.height}` : '';
    };
    const numbers = numberImages(plan);
    const feedback = feedbackPrecision(this.cycles);
    const live = this.options.apart
      ? new Set(plan.order.filter((n) => n.kind.output === 'image' && n.id !== this.unshown).map((n) => n.id))
      : storedImages({ plan, scene: this.scene!, sizeOf, wanted: this.wanted, unshown: this.unshown });
    const double = new Set<string>();
    this.tapped = new Map();
    for (const { back, source } of this.backReads()) {
      if (!keptApart(back.back!)) double.add(source);
      else if (back.back!.tap === 'before') this.tapped.set(source, back);
    }
    for (const [id, stored] of this.stored) {
      if (live.has(id)) continue;
      freeStored(this.gpu, stored);
      this.stored.delete(id);
    }
    this.returnViews.keepOnly(new Set(plan.returns.map((wire) => wire.id)));
    this.sheets.keepOnly((id) => plan.nodes.has(id));
    this.fields.keepOnly((id) => plan.nodes.has(id));
    this.shaders.begin(plan);
    for (const node of plan.order) {
      if (!live.has(node.id)) continue;
      const byHand = this.scene!.nodes[node.id].precision;
      const asked = feedback.get(node.id);
      const own: Bits =
        byHand !== 'auto' ? byHand : numbers.has(node.id) ? '32' : (this.options.bits ?? this.gpu.usualBits);
      // Feedback asks for no less than it was set to, on all of its way round; of `auto` nodes also what its Keep needs.
      const bits: Bits =
        asked && (asked.isByHand || byHand === 'auto') && Number(asked.bits) > Number(own) ? asked.bits : own;
      const entry = this.stored.get(node.id) ?? newStored(bits);
      entry.bits = bits;
      entry.double = double.has(node.id);
      this.stored.set(node.id, entry);
      this.shaders.prepare(node, entry, true);
    }
  }

  private backReads(): { back: Wire; source: string }[] {
    return this.plan!.order.flatMap((node) =>
      Object.values(node.inputs)
        .flat()
        .flatMap(({ back, node: source }) => (back ? [{ back, source }] : [])),
    );
  }

  private drawNode(node: PlanNode, run: NodeRun, stored: Stored, frame: Frame, steps: number): void {
    const { paint } = node.kind as ImageKind;
    if (run.error || !run.image) return;
    const { width, height } = run.image;
    this.gpu.pictures++;
    try {
      // A value that stands in the code changed: the one edit that needs another shader.
      this.shaders.bringUpToDate(node, stored);
      if (paint.type === 'data') {
        this.upload(stored, paint.fill(this.run.work(node.id, frame)));
      } else if (paint.type === 'shot') {
        const settings = paint.settings(this.run.work(node.id, frame));
        const props = listAt<'prop'>(this.run.inputsOf(node.id), 'props');
        this.fit(node.id, stored, width, height, drawsDirectly(settings, props));
        const done = this.shots.paint(this.shotJob(node.id, stored, frame, settings, props));
        if (!done) run.markStale();
        this.shaders.faults.delete(node.id);
      } else if (paint.type === 'field') {
        this.fit(node.id, stored, width, height);
        const done = this.fields.paint({
          node,
          target: stored.target!,
          settings: paint.settings(this.run.work(node.id, frame)),
          props: listAt<'prop'>(this.run.inputsOf(node.id), 'props'),
          ...this.fieldScene(frame, node.id, false),
        });
        if (!done) run.markStale();
        for (const id of this.shaders.faults.keys())
          if (id === node.id || this.plan!.nodes.get(id)?.kind.output === 'field')
            this.shaders.faults.delete(id);
      } else {
        if (stored.shaders.length === 0 || stored.outdated) return;
        // A picture that is not there yet would show as a hole for a moment: what stood here stays until it is.
        if (stored.drawn && this.waitsForInput(stored)) return;
        this.updateSheets(stored, frame, steps);
        this.fit(node.id, stored, width, height);
        this.drawPasses(node, run, stored, frame, paint);
      }
      stored.drawn = true;
      stored.parts = this.partsKey(node.id, stored);
    } catch (error) {
      this.shaders.fail(node.id, error);
    }
  }

  private shotJob(
    node: string,
    stored: Stored,
    frame: Frame,
    settings: ShotSettings,
    props: readonly Prop[],
  ): ShotJob {
    return {
      node,
      target: stored.target!,
      bits: stored.bits,
      settings,
      props,
      pixelScale: frame.canvas.height / Math.max(1, this.fullHeight),
      waits: this.options.waits === true,
      textureOf: (image) => this.textureOf(image.node, image.back),
      filePicture: (id) => this.media.picture(id, stored.target!.height),
    };
  }

  /** How far what a shot shows is from its camera, as `ShotPainter` gives it; null if the node is no shot. */
  distancesOf(id: string, frame: Frame): WebGLRenderTarget | null {
    const stored = this.stored.get(id);
    const kind = this.plan?.nodes.get(id)?.kind;
    if (!stored?.target || kind?.output !== 'image' || kind.paint.type !== 'shot') return null;
    const settings = kind.paint.settings(this.run.work(id, frame));
    const props = listAt<'prop'>(this.run.inputsOf(id), 'props');
    return this.shots.distancesOf(this.shotJob(id, stored, frame, settings, props));
  }

  private fieldScene(frame: Frame, reader: string, wait: boolean): FieldScene {
    return {
      run: this.run,
      frame,
      waits: wait || this.options.waits === true,
      codeKey: (id) => this.shaders.codeKey(id),
      codeOf: (member, control) => this.shaders.codeOf(member, control),
      textureFor: ({ source }) =>
        'node' in source ? this.viewOf(source, reader) : { texture: this.gpu.empty },
    };
  }

  private waitsForInput(stored: Stored): boolean {
    return stored.shaders.some(({ assembled }) =>
      assembled.textures.some(({ source }) => {
        if (!('node' in source)) return false;
        const from = this.stored.get(source.node);
        return from !== undefined && !from.drawn && from.coming !== null;
      }),
    );
  }

  private updateSheets(
    stored: Stored,
    frame: Frame,
    steps: number,
    isMeant: (member: string) => boolean = () => true,
  ): void {
    const members = new Set(stored.shaders.flatMap(({ assembled }) => assembled.members));
    for (const member of members) {
      if (!this.sheets.has(member) || !isMeant(member)) continue;
      this.sheets.update(member, frame, steps, () => this.firstInputOf(member));
    }
  }

  private firstInputOf(id: string): { texture: Texture; bits: Bits } | null {
    const node = this.plan!.nodes.get(id)!;
    const source = node.inputs[Object.keys(node.kind.inputs)[0]]?.[0];
    if (!source) return null;
    return {
      texture: this.viewOf(source, id).texture,
      bits: this.stored.get(source.node)?.bits ?? this.gpu.usualBits,
    };
  }

  private upload(stored: Stored, picture: DataPicture): void {
    const old = stored.data;
    const image = old?.image as { data: Float32Array; width: number; height: number } | undefined;
    const same =
      image?.width === picture.width &&
      image?.height === picture.height &&
      old?.userData.smooth === picture.smooth;
    if (old && image && same) {
      image.data.set(picture.rgba);
      old.needsUpdate = true;
    } else {
      old?.dispose();
      stored.data = this.gpu.dataTexture(picture.rgba, picture.width, picture.height, picture.smooth);
      stored.data.userData = { smooth: picture.smooth };
    }
  }

  private fit(id: string, stored: Stored, width: number, height: number, depth = false): void {
    fitStored(this.gpu, stored, width, height, this.moving, depth);
    if (stored.double) this.exchanged.add(id);
  }

  /** The last pass of a picture: all of it, or only what is looked at. */
  private passTo(id: string, stored: Stored, material: RawShaderMaterial, target: WebGLRenderTarget): void {
    const parts = this.partsOf(id, stored);
    if (parts) this.gpu.passWithin(material, target, parts);
    else this.gpu.pass(material, target);
  }

  private drawPasses(
    node: PlanNode,
    run: NodeRun,
    stored: Stored,
    frame: Frame,
    paint: Extract<ImageKind['paint'], { type: 'shader' | 'passes' }>,
  ): void {
    const { width, height } = run.image!;
    if (paint.type === 'shader') {
      this.fill(stored.shaders[0], frame, width, height);
      this.passTo(node.id, stored, stored.shaders[0].material, stored.target!);
      return;
    }
    const firstInput = node.inputs[Object.keys(node.kind.inputs)[0]]?.[0];
    const results = new Map<string, Texture>();
    let previous = firstInput ? this.viewOf(firstInput, node.id).texture : this.gpu.empty;
    const used: WebGLRenderTarget[] = [];
    const has = (input: string): boolean => node.inputs[input].length > 0;
    const skips = paint.passes.map((pass) => pass.skip?.(run.controls, height, has) ?? false);
    const last = skips.lastIndexOf(false);
    paint.passes.forEach((pass, k) => {
      results.set('previous', previous);
      if (!skips[k]) {
        const scale = pass.scale?.(run.controls, height) ?? 1;
        const w = Math.max(1, Math.round(width * scale));
        const h = Math.max(1, Math.round(height * scale));
        const target = k === last ? stored.target! : this.gpu.acquire(w, h, stored.bits);
        this.fill(stored.shaders[k], frame, w, h, results);
        if (k === last) this.passTo(node.id, stored, stored.shaders[k].material, target);
        else this.gpu.pass(stored.shaders[k].material, target);
        if (k !== last) used.push(target);
        previous = target.texture;
      }
      if (pass.name) results.set(pass.name, previous);
    });
    for (const target of used) this.gpu.release(target);
  }

  private fill(
    shader: Shader,
    frame: Frame,
    width: number,
    height: number,
    passes?: ReadonlyMap<string, Texture>,
  ): void {
    const reader = shader.assembled.members[shader.assembled.members.length - 1];
    fillShader(shader, {
      run: this.run,
      frame,
      width,
      height,
      textureFor: (read: TextureRead): TextureView => {
        if ('pass' in read.source) return { texture: passes?.get(read.source.pass) ?? this.gpu.empty };
        if ('sheet' in read.source) return this.sheets.view(read.source.of, read.source.sheet);
        return this.viewOf(read.source, reader);
      },
    });
  }

  /** What a reader gets along a wire. */
  private viewOf(source: PlanSource, reader: string): TextureView {
    const { back } = source;
    if (!back) {
      const tapped = this.tapped.get(source.node);
      const outside = tapped && this.cycleOf.get(source.node) !== this.cycleOf.get(reader);
      return { texture: outside ? this.returnViews.textureOf(tapped.id) : this.textureOf(source.node) };
    }
    return {
      texture: this.textureOf(source.node, back.id),
      back: this.returnViews.backOf(back.back!, this.isClearing(back.id)),
    };
  }

  /** The picture of a node as it stands; along a return wire, the one of the frame before or what the feedback starts from. */
  textureOf(id: string, back: string | null = null): Texture {
    const stored = this.stored.get(id);
    if (back !== null) {
      const wire = this.run.returns.get(back);
      if (wire && keptApart(wire.settings)) return this.returnViews.textureOf(back);
      // Until the source is drawn in this frame, its target still holds the frame before.
      const before = this.exchanged.has(id) ? stored?.before : stored?.target;
      if (!wire || this.isClearing(back) || !before) {
        const start = wire?.settings.startsFrom;
        return start ? this.textureOf(start) : this.gpu.empty;
      }
      return before.texture;
    }
    return stored?.data ?? stored?.target?.texture ?? this.gpu.empty;
  }

  /** Whether the picture of a node was ever drawn. */
  isDrawn(id: string): boolean {
    return this.stored.get(id)?.drawn ?? false;
  }

  /** Whether every picture was drawn at least once, but for those that can't be. */
  get isComplete(): boolean {
    return this.areDrawn(this.stored.keys());
  }

  /** The same of some nodes: those that are part of another's shader have no picture. */
  areDrawn(ids: Iterable<string>): boolean {
    for (const id of ids) {
      const isMissing = this.stored.get(id)?.drawn === false;
      if (isMissing && !this.shaders.faults.has(id) && !this.run.runs.get(id)?.error) return false;
    }
    return this.plan !== null;
  }

  /**
   * Draws any image node as it is looked at: a stored one is copied, one that is part of another shader is computed for
   * itself, a field is cut open. `region` is the part of the picture (x, y, width, height in 0..1). Gives false if it cannot
   * be seen yet, which `wait` excludes.
   */
  peek(
    id: string,
    frame: Frame,
    target: WebGLRenderTarget | null,
    region: readonly number[] = [0, 0, 1, 1],
    wait = false,
  ): boolean {
    const run = this.run.runs.get(id);
    if (this.plan && run?.plan.kind.output === 'field')
      return this.fields.slice(id, this.fieldScene(frame, id, wait), frame.canvas, target, region);
    if (!run?.image || run.plan.kind.output !== 'image' || !this.plan) return false;
    const peek = this.shaders.peekOf(id, wait);
    if (!peek?.ready) return false;
    if (!this.stored.has(id))
      for (const member of peek.shader.assembled.members) this.peekSheets(member, frame);
    this.fill(peek.shader, frame, run.image.width, run.image.height);
    peek.shader.uniforms.region.value = region;
    this.gpu.pass(peek.shader.material, target);
    return true;
  }

  /**
   * Draws a part of a stored picture at the size of the target: computed anew where one shader makes it, else from what is stored.
   * `region`: as for `peek`.
   */
  drawLarge(id: string, frame: Frame, target: WebGLRenderTarget, region: readonly number[]): void {
    const stored = this.stored.get(id);
    const image = this.run.runs.get(id)?.image;
    const [shader] = stored?.shaders ?? [];
    if (!image || !shader || stored?.shaders.length !== 1) {
      this.peek(id, frame, target, region, true);
      return;
    }
    this.fill(shader, frame, image.width, image.height);
    shader.uniforms.region.value = region;
    this.gpu.pass(shader.material, target);
    shader.uniforms.region.value = [0, 0, 1, 1];
  }

  /** A field at places, as `FieldPainter.at` gives it. */
  fieldAt(id: string, frame: Frame, places: readonly number[]): Promise<Float32Array> {
    return this.fields.at(id, this.fieldScene(frame, id, true), places);
  }

  /** A node that is only looked at has sheets that nothing else brings up to date. */
  private peekSheets(id: string, frame: Frame): void {
    if (this.sheets.has(id)) this.sheets.update(id, frame, 0, () => this.firstInputOf(id));
  }

  /** Takes over what the return wires of another renderer of the same scene hold, so that a second look does not start them again. */
  adoptFeedback(from: ImageRenderer): void {
    for (const [id, stored] of this.stored) {
      const held = from.stored.get(id)?.target;
      if (stored.double && held && stored.target) this.gpu.copy(held.texture, stored.target);
    }
  }

  /** All that later frames may need of earlier ones: pictures of nodes and of return wires by a name, and past pictures. */
  remembered(nodes: ReadonlySet<string>): Remembered {
    const pictures = new Map<string, WebGLRenderTarget>();
    for (const [id, { target }] of this.stored)
      if (target && nodes.has(id)) pictures.set(`node ${id}`, target);
    for (const [wire, target] of this.returnViews.targets()) pictures.set(`wire ${wire}`, target);
    return { pictures, pasts: new Map(this.sheets.pasts()) };
  }

  /** Goes on from past pictures that were put into the cells of a sheet. */
  goOnFromPast(key: string, newest: number, filled: number): void {
    this.sheets.goOnFrom(key, newest, filled);
  }

  /** Meshes of props that were built or filled since the start. */
  get meshesBuilt(): number {
    return this.shots.built;
  }

  /** The shader that draws a node, for reading. */
  shaderText(id: string): string {
    const read = ({ assembled }: Shader): string =>
      readableCode(assembled, (member) => this.scene!.nodes[member]?.name ?? member);
    for (const { shaders } of this.stored.values())
      if (shaders[0]?.assembled.members.includes(id)) return shaders.map(read).join('\n');
    const peek = this.shaders.peekOf(id, false);
    return peek ? read(peek.shader) : '';
  }

  dispose(): void {
    for (const stored of this.stored.values()) freeStored(this.gpu, stored);
    this.shaders.dropPeeks();
    this.stored.clear();
    this.shots.dispose();
    this.fields.dispose();
    this.returnViews.dispose();
    this.sheets.dispose();
  }
}
