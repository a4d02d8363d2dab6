import { kindOf } from '../kind/kind';
import type { ImageRef } from '../kind/image-ref';
import type { Catalogue, InputSpec, InputValues, Kind, PixelGrid, Resources } from '../kind/kind';
import { portLabel } from '../patch/wiring';
import { buildPlan, type Plan, type PlanNode, type PlanSource } from '../patch/plan';
import { forwardsFrom, type FlatScene } from '../patch/flat-scene';
import type { PatchNode, Scene, Wire } from '../document/types';
import { emptyShape } from '../shape/shape';
import type { Signal } from '../signal/signal';
import type { Moment } from '../time/clock';
import { FormulaScope } from './formula-scope';
import type { InputState } from '../inputs/inputs';
import type { Frame } from './frame';
import { NodeRun, type NodeWork } from './node-run';
import { OtherTimes } from './other-times';
import { Resting } from './resting';
import { ReturnRun } from './return-run';

/** A value that the desk gives in place of a stored one. */
interface StandIn {
  node: string;
  part: string;
  value: number | string;
}

const sameDrives = (a: PatchNode, b: PatchNode): boolean => {
  if (a === b) return true;
  return (
    a.kind === b.kind &&
    a.name === b.name &&
    a.on === b.on &&
    a.formulas === b.formulas &&
    a.motions === b.motions &&
    a.size === b.size &&
    a.delay === b.delay &&
    a.precision === b.precision
  );
};

/** `Turn x: 1,225 samples stretched over 32,400 copies`. */
function countNote(kind: Kind, port: string, samples: number, places: number): string {
  const what = kind.output === 'prop' ? 'copies' : 'places';
  const how = samples < places ? 'stretched over' : 'reduced to';
  return `${portLabel(kind, port)}: ${samples.toLocaleString('en')} samples ${how} ${places.toLocaleString('en')} ${what}.`;
}

/** Samples that a kind makes at least: where they stand for moments, one for each. */
const leastSamples = (kind: Kind, run: NodeRun, { spread }: Moment): number =>
  spread && kind.output === 'signal' && kind.moves(run.controls) ? spread.length : 1;

/**
 * Runs the signals, shapes, props and control values of one scene; the engine draws its images from what stands here,
 * the command line prints it. Steady frames allocate nothing but what kinds themselves make.
 */
export class SceneRun {
  plan: Plan = { order: [], nodes: new Map(), returns: [], byName: new Map() };
  readonly runs = new Map<string, NodeRun>();
  readonly returns = new Map<string, ReturnRun>();
  /** Rises when the plan was rebuilt. */
  planVersion = 0;
  private scene: FlatScene | null = null;
  /** What controls of modules set inside of them. */
  forwards: FlatScene['forwards'];
  private roots: readonly string[] = [];
  private scope = new FormulaScope(new Map(), () => null);
  private frame: Frame | null = null;
  private lastTime = Number.NaN;
  private lastCanvas = { width: 0, height: 0 };
  private lastLive: InputState | null = null;
  /** Which nodes rest, where some pick among their inputs; null: none does. */
  private resting: Resting | null = null;
  private readonly otherTimes = new Map<string, OtherTimes>();
  /** Whether values for work count; all nodes look here. */
  private readonly drafts = { on: false };
  /** What the desk has in hand, by node. */
  private readonly standIns = new Map<string, Map<string, number | string>>();
  private standInCount = 0;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly without: string | null = null,
    /** Letters and files, where there are any. */
    private readonly resources: Partial<Resources> = {},
  ) {}

  /**
   * Takes a newer state of the scene. Values of controls are taken over as they are; the plan is rebuilt only if
   * nodes, wires or what drives a control changed. Memory of nodes that remain is kept.
   */
  update(scene: FlatScene, roots: readonly string[]): void {
    const before = this.scene;
    this.scene = scene;
    this.forwards = scene.forwards;
    const sameRoots = roots.length === this.roots.length && roots.every((root, k) => root === this.roots[k]);
    this.roots = roots;
    if (before && sameRoots && before.wires === scene.wires && this.onlyValuesDiffer(before, scene)) {
      for (const [id, run] of this.runs) {
        const node = scene.nodes[id];
        if (node !== run.node) run.adopt(run.plan, node);
      }
      return;
    }
    this.rebuild(scene);
  }

  /**
   * The values that the desk gives in place of stored ones: all of them, each time one has changed; it is gone through twice where some
   * are gone. A node is touched only where its own differ.
   */
  standIn(given: Iterable<StandIn>): void {
    let count = 0;
    for (const { node, part, value } of this.forwarded(given)) {
      count++;
      let parts = this.standIns.get(node);
      if (!parts) this.standIns.set(node, (parts = new Map()));
      const before = parts.get(part);
      if (before === value) continue;
      if (before === undefined) this.standInCount++;
      parts.set(part, value);
      this.runs.get(node)?.standIn(parts, part);
    }
    if (count < this.standInCount) this.dropStandIns(this.forwarded(given));
    for (const run of this.otherTimes.values()) run.standIn(this.allStandIns());
  }

  /** Has values for work count, or those that the stage has. */
  useDrafts(on: boolean): void {
    if (on === this.drafts.on) return;
    this.drafts.on = on;
    for (const run of this.runs.values()) if (run.node.draft) run.adopt(run.plan, run.node);
  }

  /** What is given, and what that sets inside of modules. */
  private *forwarded(given: Iterable<StandIn>): Iterable<StandIn> {
    const { forwards } = this;
    for (const one of given) {
      yield one;
      if (!forwards) continue;
      for (const { node, part, factor, offset } of forwardsFrom(forwards, one.node, one.part))
        yield { node, part, value: typeof one.value === 'number' ? one.value * factor + offset : one.value };
    }
  }

  /** Takes back what is not given any more. */
  private dropStandIns(given: Iterable<{ node: string; part: string }>): void {
    const kept = new Set<string>();
    for (const { node, part } of given) kept.add(`${node} ${part}`);
    for (const [node, parts] of this.standIns)
      for (const part of [...parts.keys()]) {
        if (kept.has(`${node} ${part}`)) continue;
        parts.delete(part);
        this.standInCount--;
        this.runs.get(node)?.standIn(parts, part);
      }
  }

  private allStandIns(): StandIn[] {
    return [...this.standIns].flatMap(([node, parts]) =>
      [...parts].map(([part, value]) => ({ node, part, value })),
    );
  }

  private onlyValuesDiffer(before: Scene, after: Scene): boolean {
    if (before.nodes === after.nodes) return true;
    const ids = Object.keys(after.nodes);
    if (ids.length !== Object.keys(before.nodes).length) return false;
    for (const id of ids) {
      const old = before.nodes[id];
      const now = after.nodes[id];
      if (!old || !sameDrives(old, now)) return false;
      // The text of a formula control decides which nodes must run before this one.
      const kind = kindOf(this.catalogue, now);
      if (kind !== kindOf(this.catalogue, old)) return false;
      if (old.controls !== now.controls && kind) {
        for (const [name, spec] of Object.entries(kind.controls)) {
          if (spec.type === 'formula' && old.controls[name] !== now.controls[name]) return false;
        }
      }
    }
    return true;
  }

  private rebuild(scene: Scene): void {
    this.plan = buildPlan(scene, this.catalogue, this.roots, this.without);
    this.planVersion++;
    for (const planned of this.plan.order) {
      const node = scene.nodes[planned.id];
      const run = this.runs.get(planned.id);
      if (run && run.plan.kind === planned.kind) run.adopt(planned, node);
      else
        this.runs.set(
          planned.id,
          new NodeRun(planned, node, this.standIns.get(planned.id) ?? null, this.drafts),
        );
    }
    for (const id of this.runs.keys()) if (!this.plan.nodes.has(id)) this.runs.delete(id);
    for (const id of this.otherTimes.keys()) if (!this.plan.nodes.has(id)) this.otherTimes.delete(id);
    const picks = this.plan.order.some(({ kind }) => kind.picks);
    this.resting = picks ? new Resting(this.plan, this.runs, this.roots) : null;
    for (const run of this.runs.values()) run.rests = false;
    const live = new Set(this.plan.returns.map((wire) => wire.id));
    for (const wire of this.plan.returns) {
      const run = this.returns.get(wire.id);
      if (run) run.wire = wire;
      else this.returns.set(wire.id, new ReturnRun(wire));
    }
    for (const id of this.returns.keys()) if (!live.has(id)) this.returns.delete(id);
    this.scope = new FormulaScope(this.plan.byName, (id) => {
      const run = this.runs.get(id);
      return run ? { signal: run.given, shape: run.shape, control: (name) => run.valuesOf(name) } : null;
    });
  }

  /** Whether a live node hears the sound. */
  get hears(): boolean {
    return this.plan.order.some(({ kind }) => kind.output === 'signal' && kind.hears === true);
  }

  /** Whether anything that is live depends on more than its moment: a memory, a loop, a motion that waits or follows. */
  get remembers(): boolean {
    return this.returns.size > 0 || this.remembersNumbers;
  }

  /** Whether numbers or shapes do. Of a loop of images, numbers only say when it is cleared, which needs no more than the frame before. */
  get remembersNumbers(): boolean {
    for (const { wire } of this.returns.values())
      if (this.plan.nodes.get(wire.from.node)?.kind.output !== 'image') return true;
    for (const { plan, node } of this.runs.values()) {
      const { kind } = plan;
      if (kind.output === 'signal' && kind.memory && !kind.each && kind.recalls !== false) return true;
      for (const motions of Object.values(node.motions))
        if (motions.some(({ type }) => type === 'hit' || type === 'follow')) return true;
    }
    return false;
  }

  /** Back to the start: every memory and loop begins again. */
  restart(): void {
    for (const run of this.runs.values()) run.restart();
    for (const run of this.returns.values()) run.restart();
    this.lastTime = Number.NaN;
  }

  /** Starts a loop again: the Clear button of a return wire. */
  clearReturn(wire: string): void {
    this.returns.get(wire)?.clear();
  }

  run(frame: Frame): void {
    const { moment } = frame;
    const moved = moment.time !== this.lastTime;
    const { width, height } = frame.canvas;
    const isFirst =
      width !== this.lastCanvas.width || height !== this.lastCanvas.height || Number.isNaN(this.lastTime);
    const liveChanged = frame.live !== this.lastLive;
    this.lastTime = moment.time;
    this.lastCanvas = frame.canvas;
    this.lastLive = frame.live;
    this.frame = frame;
    this.scope.spread = moment.spread;
    if (moved) for (const back of this.returns.values()) back.pending = true;
    const run = (planned: PlanNode, partsChanged?: boolean): void =>
      this.runNode(this.runs.get(planned.id)!, frame, isFirst, moved, liveChanged, partsChanged);
    if (this.resting) this.runAwake(this.resting, frame, run);
    else for (const planned of this.plan.order) run(planned);
    if (moved) {
      for (const back of this.returns.values()) {
        if (this.runs.get(back.wire.to.node)?.rests) continue;
        this.ready(back);
        const source = this.runs.get(this.returnSource(back.wire));
        back.end(source?.given ?? null, source?.shape ?? null);
      }
    }
  }

  /** Runs what counts in this frame: first what decides on that. */
  private runAwake(
    resting: Resting,
    frame: Frame,
    run: (planned: PlanNode, partsChanged?: boolean) => void,
  ): void {
    const { drivers, pickers } = resting;
    const picks = new Map<string, string | null>();
    // Parts of a node that picks are worked out once a frame, before it picks: motions on them may remember.
    const changedParts = new Map<string, boolean>();
    const pick = (planned: PlanNode): void => {
      const { id, kind, ports } = planned;
      const picker = this.runs.get(id)!;
      const moment = picker.momentIn(frame.moment);
      changedParts.set(id, this.updateParts(picker, kind, this.inputValues(picker), moment));
      const wired = ports.filter(({ sources }) => sources.length > 0).map(({ name }) => name);
      const picked = kind.picks!(picker.controls, moment, wired);
      picks.set(id, picked);
      if (picker.pick !== picked) picker.markStale();
      picker.pick = picked;
    };
    for (const planned of this.plan.order) {
      if (!drivers.has(planned.id)) continue;
      if (planned.kind.picks) pick(planned);
      run(planned, changedParts.get(planned.id));
    }
    for (const planned of pickers) if (!drivers.has(planned.id)) pick(planned);
    resting.pick(picks);
    for (const planned of this.plan.order) {
      if (drivers.has(planned.id)) continue;
      const own = this.runs.get(planned.id)!;
      // What was never worked out is, once: it has nothing to show when its turn comes.
      const rests = own.hasRun && !resting.awake.has(planned.id);
      if (own.rests && !rests) own.markStale();
      own.rests = rests;
      if (rests) own.changed = false;
      else run(planned, changedParts.get(planned.id));
    }
  }

  /** Whether a loop of pictures among these nodes starts again in this frame. */
  isClearing(nodes: readonly string[]): boolean {
    for (const id of nodes) {
      for (const sources of Object.values(this.plan.nodes.get(id)?.inputs ?? {}))
        for (const { back } of sources)
          if (back && (this.returns.get(back.id)?.clearing ?? true)) return true;
    }
    return false;
  }

  /** A return wire, made ready for this frame by whoever reads it first. */
  private ready(back: ReturnRun): ReturnRun {
    if (back.pending)
      back.begin(
        this.frame!.moment,
        this.signalOf(back.settings.clearWhen),
        this.signalOf(back.settings.startsFrom),
      );
    return back;
  }

  private returnSource(wire: Wire): string {
    for (const planned of this.plan.order) {
      for (const sources of Object.values(planned.inputs)) {
        for (const source of sources) if (source.back?.id === wire.id) return source.node;
      }
      for (const part of planned.parts) if (part.source?.back?.id === wire.id) return part.source.node;
    }
    return wire.from.node;
  }

  private signalOf(id: string | null): Signal | null {
    return id === null ? null : (this.runs.get(id)?.given ?? null);
  }

  private signalFrom(source: PlanSource): Signal | null {
    if (!source.back) return this.signalOf(source.node);
    const back = this.returns.get(source.back.id);
    return back ? this.ready(back).view : null;
  }

  private valueOf(source: PlanSource): unknown {
    const run = this.runs.get(source.node);
    if (!run) return null;
    switch (run.plan.kind.output) {
      case 'signal': {
        const signal = this.signalFrom(source);
        return signal && signal.lanes.length > 0 ? signal : null;
      }
      case 'shape':
        if (!source.back) return run.shape;
        return this.returns.has(source.back.id) ? this.ready(this.returns.get(source.back.id)!).shape : null;
      case 'prop':
        return run.prop;
      case 'field':
        // A field that came back around a cycle would have to be asked for its own distance.
        return source.back ? null : { field: source.node };
      case 'image': {
        const own = source.back?.back?.size;
        const { width, height } = own
          ? { width: own[0], height: own[1] }
          : (run.image ?? { width: 1, height: 1 });
        return { node: source.node, width, height, back: source.back?.id ?? null };
      }
    }
  }

  private inputValues(run: NodeRun): InputValues<Record<string, InputSpec>> {
    const values = run.inputs;
    for (const { name, many, sources } of run.plan.ports) {
      if (many) {
        const list = (values[name] ??= []) as unknown[];
        list.length = 0;
        for (const source of sources) {
          const value = this.valueOf(source);
          if (value !== null) list.push(value);
        }
      } else values[name] = sources.length ? this.valueOf(sources[0]) : null;
    }
    return values as InputValues<Record<string, InputSpec>>;
  }

  private readsChanged(planned: PlanNode, moved: boolean): boolean {
    for (const source of planned.sources)
      if (source.back ? moved : this.runs.get(source.node)?.changed) return true;
    for (const id of planned.named) if (this.runs.get(id)?.changed) return true;
    return false;
  }

  /** What the hooks of a live node are given in this frame; the only place where it is put together. */
  work(id: string, frame: Frame): NodeWork {
    const run = this.runs.get(id)!;
    return this.workOf(run, this.inputValues(run), frame);
  }

  private workOf(run: NodeRun, inputs: InputValues<Record<string, InputSpec>>, frame: Frame): NodeWork {
    const work = (run.work ??= {
      controls: run.controls,
      inputs,
      moment: run.momentIn(frame.moment),
      live: frame.live,
      aspect: 1,
      canvas: frame.canvas,
      count: 1,
      pixels: null,
      pick: null,
      overTime: (input, offsets) => this.overTime(run.plan, input, offsets),
      formula: (control) => run.formulaLanes(control, this.scope, run.momentIn(this.frame!.moment)),
      memory: undefined,
      out: run.signal,
      ...this.resources,
      remark: (sentence) => (run.remark = sentence),
    });
    const { width, height } = run.image ?? frame.canvas;
    work.inputs = inputs;
    work.moment = run.momentIn(frame.moment);
    work.live = frame.live;
    work.aspect = width / height;
    work.canvas = frame.canvas;
    work.count = run.count;
    work.pixels = run.pixels;
    work.pick = run.pick;
    work.memory = run.memory;
    return work;
  }

  /** Works out one node; `partsChanged` says that its driven controls already were, and whether any moved. */
  private runNode(
    run: NodeRun,
    frame: Frame,
    isFirst: boolean,
    moved: boolean,
    liveChanged: boolean,
    partsChanged?: boolean,
  ): void {
    const planned = run.plan;
    const { kind } = planned;
    run.hasRun = true;
    const readsChanged = this.readsChanged(planned, moved);
    let dirty = run.takeStale() || isFirst || readsChanged;
    let inputs: InputValues<Record<string, InputSpec>> | null = null;
    if (planned.parts.length) {
      inputs = this.inputValues(run);
      if (partsChanged ?? this.updateParts(run, kind, inputs, run.momentIn(frame.moment))) dirty = true;
    } else if ((dirty || frame.moment.spread) && kind.countOf) {
      inputs = this.inputValues(run);
      const least = leastSamples(kind, run, frame.moment);
      run.count = Math.max(1, Math.floor(kind.countOf(run.controls, inputs, least)));
    }
    if (!dirty && (moved || liveChanged || frame.moment.spread) && kind.output === 'signal') {
      dirty = (kind.memory !== undefined && moved) || kind.moves(run.controls);
    }
    if (!dirty && moved && kind.output !== 'signal') dirty = kind.moves?.(run.controls) ?? false;
    run.changed = dirty;
    if (!dirty) return;
    const work = this.workOf(run, inputs ?? this.inputValues(run), frame);
    run.remark = null;
    try {
      switch (kind.output) {
        case 'signal':
          kind.compute(work);
          break;
        case 'shape':
          run.shape = kind.make(work) ?? run.shape ?? emptyShape;
          break;
        case 'prop':
          run.prop = kind.describe(work);
          // A prop has to know whom to blame when it cannot be drawn.
          if (run.prop && 'node' in run.prop) run.prop.node = planned.id;
          break;
        case 'field':
          break;
        case 'image':
          run.image = this.imageOf(run, planned, work, frame);
          break;
      }
      run.error = null;
    } catch (error) {
      run.fail(error);
    }
  }

  /** Works out driven controls: first those with one value, then those with many, for as many copies as there are. */
  private updateParts(
    run: NodeRun,
    kind: Kind,
    inputs: InputValues<Record<string, InputSpec>>,
    moment: Moment,
  ): boolean {
    const changed = new Set<string>();
    const signalFor = (name: string): Signal | null => {
      const source = run.parts.get(name)!.plan.source;
      return source ? this.signalFrom(source) : null;
    };
    const update = (many: boolean): void => {
      for (const [name, part] of run.parts) {
        const isMany = 'many' in part.plan.spec && part.plan.spec.many === true;
        if (isMany !== many) continue;
        if (part.update(signalFor(name), run.count, moment, this.scope)) changed.add(part.plan.control);
      }
      for (const control of changed) run.resolve(control, kind.controls[control]);
    };
    update(false);
    let longest = leastSamples(kind, run, moment);
    let longestPart = '';
    for (const [name, part] of run.parts) {
      const length = part.ownLength(signalFor(name), this.scope);
      if (length > longest) {
        longest = length;
        longestPart = name;
      }
    }
    run.count = Math.max(1, Math.floor(kind.countOf?.(run.controls, inputs, longest) ?? longest));
    run.countNote =
      longestPart && longest !== run.count ? countNote(kind, longestPart, longest, run.count) : null;
    update(true);
    return changed.size > 0;
  }

  private overTime(planned: PlanNode, input: string, offsets: Float64Array): Signal | null {
    const [source] = planned.inputs[input] ?? [];
    if (!source || source.back || !this.scene) return null;
    let asked = this.otherTimes.get(source.node);
    if (!asked) {
      const run = new SceneRun(this.catalogue, null, this.resources);
      this.otherTimes.set(source.node, (asked = new OtherTimes(run, source.node)));
      asked.standIn(this.allStandIns());
    }
    return asked.at(this.frame!, offsets, { scene: this.scene, plan: this.plan, runs: this.runs });
  }

  private imageOf(run: NodeRun, planned: PlanNode, work: NodeWork, frame: Frame): ImageRef {
    const { kind } = planned;
    const { inputs } = work;
    // A picture made of numbers is as large as these: another size would leave some of them out.
    const isData = kind.output === 'image' && kind.paint.type === 'data';
    let size: readonly [number, number] | null = isData ? null : (run.node.size ?? null);
    if (!size && kind.output === 'image') size = kind.sizeFrom?.(work) ?? null;
    if (!size) {
      for (const [name, spec] of Object.entries(kind.inputs)) {
        const value = inputs[name];
        // A picture that comes back around a cycle has the size of this one, so it cannot decide it.
        if (spec.carries !== 'image' || spec.reads === 'data' || spec.many || !value || !('width' in value))
          continue;
        if (value.back) continue;
        size = [value.width, value.height];
        break;
      }
    }
    const [width, height] = size ?? [frame.canvas.width, frame.canvas.height];
    return { node: planned.id, width, height, back: null };
  }

  /** Nodes that read pixels, with the image node they read and the places. */
  pixelReaders(): { id: string; source: string; grid: PixelGrid }[] {
    const readers: { id: string; source: string; grid: PixelGrid }[] = [];
    for (const { id, kind, inputs } of this.plan.order) {
      if (kind.output !== 'signal' || !kind.pixels) continue;
      const [source] = inputs.picture ?? [];
      if (source) readers.push({ id, source: source.node, grid: kind.pixels(this.runs.get(id)!.controls) });
      else this.givePixels(id, null);
    }
    return readers;
  }

  /** Hands a node the pixels it asked for. */
  givePixels(id: string, pixels: Float32Array | null): void {
    const run = this.runs.get(id);
    if (!run || run.pixels === pixels) return;
    run.pixels = pixels;
    run.markStale();
  }

  /** Has everything worked out again that is made of letters or files: some have arrived. */
  markAwaiting(): void {
    for (const run of this.runs.values())
      if (run.plan.kind.output === 'shape' && run.plan.kind.awaits) run.markStale();
  }

  /** What enters a live node, by input. */
  inputsOf(id: string): InputValues<Record<string, InputSpec>> {
    return this.inputValues(this.runs.get(id)!);
  }

  /** Faults by node, one sentence each. */
  faults(): Map<string, string> {
    const faults = new Map<string, string>();
    for (const [id, run] of this.runs) {
      const { kind } = run.plan;
      const fault = run.fault ?? (kind.output === 'image' ? kind.problem : null);
      if (fault) faults.set(id, fault);
    }
    return faults;
  }
}
