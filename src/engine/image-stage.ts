import type { IUniform, RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import type { DataPicture, ImageKind, Paint } from '../core/kind/kind';
import type { Plan, PlanNode, PlanSource } from '../core/patch/plan';
import { numberImages, storedImages } from '../core/patch/storage';
import type { NodeRun } from '../core/run/node-run';
import type { Frame, SceneRun } from '../core/run/scene-run';
import type { PatchNode, Scene, Stop } from '../core/show/types';
import { keepFor } from '../core/time/clock';
import {
  assemble,
  codeOf,
  mostStops,
  PartError,
  type Assembled,
  type NumberRead,
  type Part,
} from './assemble';
import type { Bits, Gpu } from './gpu';
import { ShotPainter } from './shot';

type Uniforms = Record<string, IUniform>;

/** A shader with its material, bound to the nodes it draws. */
interface Program {
  assembled: Assembled;
  material: RawShaderMaterial;
  uniforms: Uniforms;
}

/** One stored picture. Those read by a return wire have two targets and show the one before while drawing the other. */
interface Stored {
  bits: Bits;
  target: WebGLRenderTarget | null;
  before: WebGLRenderTarget | null;
  double: boolean;
  /** What draws it; a kind with several passes has one each. */
  programs: Program[];
  data: Texture | null;
  /** Values that stand in the code of its shader: formulas, options. */
  key: string;
  drawn: boolean;
}

/** So far beyond what pictures hold that the guard of a return wire does nothing. */
const noLimit = 1e20;

/** The list of a uniform, made anew where it has another length. */
function exactly(uniform: IUniform, length: number): Float32Array {
  if ((uniform.value as Float32Array).length !== length) uniform.value = new Float32Array(length);
  return uniform.value as Float32Array;
}

/**
 * Draws the pictures of one scene: what changed, in the order of the plan, joined into as few passes as the plan allows.
 * A shader that fails leaves the picture before in place and its reason with the node.
 */
export class ImageStage {
  /** What the graphics card said of a node. */
  readonly faults = new Map<string, string>();
  /** Height of the show's canvas, which widths in pixels are meant for. */
  fullHeight = 1080;
  /** Called around the passes of each node, so that their cost can be measured. */
  measure: ((node: string, draw: () => void) => void) | null = null;
  private readonly stored = new Map<string, Stored>();
  private readonly shots: ShotPainter;
  private plan: Plan | null = null;
  private scene: Scene | null = null;
  private planVersion = -1;
  private sizes = '';
  private wanted = new Set<string>();
  private wantedKey = '';
  /** Seconds of this frame, and of the last one that moved. */
  private dt = 0;
  private lastDt = 1 / 60;
  /** Nodes on return wires drawn in this frame: the frame before is in their other target now. */
  private readonly exchanged = new Set<string>();
  /** What of each node stands in code, as long as neither the node nor its place in the plan changed. */
  private readonly codeKeys = new Map<string, { node: PatchNode; plan: PlanNode; key: string }>();
  /** Shaders for pictures that are looked at but are part of another shader. */
  private readonly peeks = new Map<string, Program>();

  constructor(
    private readonly gpu: Gpu,
    private readonly run: SceneRun,
    /** Only for measuring and comparing: every node in a pass of its own, and what `auto` precision means for pictures. */
    private readonly options: { apart?: boolean; bits?: Bits } = {},
  ) {
    this.shots = new ShotPainter(gpu);
  }

  /** Draws everything that changed. `wanted`: nodes whose pictures are presented. */
  draw(scene: Scene, frame: Frame, wanted: Iterable<string>): void {
    const wantedNow = new Set(wanted);
    const wantedKey = [...wantedNow].sort().join(' ');
    this.scene = scene;
    const sizes = this.sizesKey();
    if (this.run.planVersion !== this.planVersion || sizes !== this.sizes || wantedKey !== this.wantedKey) {
      this.planVersion = this.run.planVersion;
      this.sizes = sizes;
      this.wanted = wantedNow;
      this.wantedKey = wantedKey;
      this.rebuild();
    }
    this.exchanged.clear();
    this.dt = frame.moment.dt;
    if (this.dt > 0) this.lastDt = this.dt;
    for (const node of this.plan!.order) {
      if (node.kind.output !== 'image') continue;
      const stored = this.stored.get(node.id);
      if (!stored) continue;
      const run = this.run.runs.get(node.id)!;
      if (!run.changed && stored.drawn) continue;
      if (this.measure) this.measure(node.id, () => this.drawNode(node, run, stored, frame));
      else this.drawNode(node, run, stored, frame);
    }
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
    const sizeOf = (id: string): string => {
      const image = this.run.runs.get(id)?.image;
      return image ? `${image.width}x${image.height}` : '';
    };
    const numbers = numberImages(plan);
    const live = this.options.apart
      ? new Set(plan.order.filter((node) => node.kind.output === 'image').map((node) => node.id))
      : storedImages({ plan, scene: this.scene!, sizeOf, wanted: this.wanted });
    const double = new Set<string>();
    for (const node of plan.order) {
      for (const sources of Object.values(node.inputs))
        for (const s of sources) if (s.back) double.add(s.node);
    }
    for (const [id, stored] of this.stored) {
      if (live.has(id)) continue;
      this.freeStored(stored);
      this.stored.delete(id);
    }
    for (const [id, peek] of this.peeks) {
      peek.material.dispose();
      this.peeks.delete(id);
    }
    this.codeKeys.clear();
    for (const id of this.faults.keys()) if (!plan.nodes.has(id)) this.faults.delete(id);
    for (const node of plan.order) {
      if (!live.has(node.id)) continue;
      const wantedBits = this.scene!.nodes[node.id].precision;
      const bits: Bits =
        wantedBits !== 'auto' ? wantedBits : numbers.has(node.id) ? '32' : (this.options.bits ?? '16');
      const entry: Stored = this.stored.get(node.id) ?? {
        bits,
        target: null,
        before: null,
        double: false,
        programs: [],
        data: null,
        key: '',
        drawn: false,
      };
      entry.bits = bits;
      entry.double = double.has(node.id);
      this.stored.set(node.id, entry);
      this.prepare(node, entry);
    }
  }

  private part(id: string): Part {
    const planned = this.plan!.nodes.get(id)!;
    const node = this.scene!.nodes[id];
    return {
      id,
      name: node.name,
      kind: planned.kind as ImageKind,
      inputs: planned.inputs,
      codeOf: (control) => this.codeOf(planned, control),
    };
  }

  private readonly joined = (source: PlanSource): Part | null => {
    if (source.back || this.stored.has(source.node)) return null;
    const kind = this.plan!.nodes.get(source.node)?.kind;
    return kind?.output === 'image' ? this.part(source.node) : null;
  };

  private codeOf(node: PlanNode, control: string): string | null {
    const driven = node.parts.some((part) => part.control === control);
    return codeOf(node.kind.controls[control], this.run.runs.get(node.id)!.controls[control], driven);
  }

  private codeKey(id: string): string {
    const node = this.plan!.nodes.get(id)!;
    const { node: patchNode } = this.run.runs.get(id)!;
    const known = this.codeKeys.get(id);
    if (known?.node === patchNode && known.plan === node) return known.key;
    let key = '';
    for (const control of Object.keys(node.kind.controls)) key += `${this.codeOf(node, control) ?? ''}\n`;
    this.codeKeys.set(id, { node: patchNode, plan: node, key });
    return key;
  }

  private bind(assembled: Assembled): Program {
    const uniforms: Uniforms = {
      aspect: { value: 1 },
      pixel: { value: [1, 1] },
      region: { value: [0, 0, 1, 1] },
    };
    for (const texture of assembled.textures) {
      uniforms[texture.sampler] = { value: this.gpu.empty };
      uniforms[texture.size] = { value: [1, 1] };
      if (texture.back) uniforms[texture.back] = { value: [0, 0] };
    }
    for (const number of assembled.numbers) {
      if (number.spec?.type === 'gradient') {
        uniforms[`${number.uniform}_colours`] = { value: new Float32Array(4) };
        uniforms[`${number.uniform}_at`] = { value: new Float32Array(1) };
      } else uniforms[number.uniform] = { value: 0 };
    }
    const material = this.gpu.material(assembled.fragment, uniforms);
    return { assembled, material, uniforms: material.uniforms };
  }

  /** Makes or keeps the programs of a stored node. A program that fails is said, and the one before goes on. */
  private prepare(node: PlanNode, stored: Stored): void {
    const { paint } = node.kind as ImageKind;
    if (paint.type !== 'shader' && paint.type !== 'passes') return;
    const count = paint.type === 'shader' ? 1 : paint.passes.length;
    try {
      const next: Program[] = [];
      for (let pass = 0; pass < count; pass++) {
        const assembled = assemble(this.part(node.id), this.joined, pass);
        const old = stored.programs[pass];
        if (old && old.assembled.fragment === assembled.fragment) {
          old.assembled = assembled;
          next.push(old);
          continue;
        }
        const program = this.bind(assembled);
        try {
          this.gpu.compile(program.material);
        } catch (error) {
          program.material.dispose();
          throw error;
        }
        next.push(program);
      }
      for (const old of stored.programs) if (!next.includes(old)) old.material.dispose();
      stored.programs = next;
      stored.drawn = false;
      for (const member of next[0].assembled.members) this.faults.delete(member);
      stored.key = next[0].assembled.members.map((id) => this.codeKey(id)).join('\n');
    } catch (error) {
      const blamed = error instanceof PartError ? error.node : node.id;
      this.faults.set(blamed, error instanceof Error ? error.message : String(error));
      stored.key = this.keyOfMembers(node.id, stored);
    }
  }

  /** Another program for a node; what is looked at and holds some of the same code needs another as well. */
  private prepareAgain(node: PlanNode, stored: Stored): void {
    const members = new Set(stored.programs[0].assembled.members);
    for (const [id, peek] of this.peeks) {
      if (!peek.assembled.members.some((member) => members.has(member))) continue;
      peek.material.dispose();
      this.peeks.delete(id);
    }
    this.prepare(node, stored);
  }

  private keyOfMembers(id: string, stored: Stored): string {
    const members = stored.programs[0]?.assembled.members.filter((m) => this.plan!.nodes.has(m)) ?? [id];
    return members.map((m) => this.codeKey(m)).join('\n');
  }

  private drawNode(node: PlanNode, run: NodeRun, stored: Stored, frame: Frame): void {
    const { paint } = node.kind as ImageKind;
    if (run.error || !run.image) return;
    const { width, height } = run.image;
    try {
      // A value that stands in the code changed: the one edit that needs another program.
      if (stored.programs.length && this.keyOfMembers(node.id, stored) !== stored.key)
        this.prepareAgain(node, stored);
      if (paint.type === 'data') {
        this.upload(stored, this.dataOf(paint, node, run, frame));
      } else if (paint.type === 'shot') {
        this.fit(node.id, stored, width, height);
        const settings = paint.settings(this.work(node, run, frame));
        this.shots.paint({
          node: node.id,
          target: stored.target!,
          bits: stored.bits,
          settings,
          props: this.run.inputsOf(node.id).props as never,
          pixelScale: frame.canvas.height / Math.max(1, this.fullHeight),
          textureOf: (image) => this.textureOf(image.node, image.back),
        });
      } else {
        if (stored.programs.length === 0) return;
        this.fit(node.id, stored, width, height);
        this.drawPasses(node, run, stored, frame, paint);
      }
      stored.drawn = true;
    } catch (error) {
      this.faults.set(node.id, error instanceof Error ? error.message : String(error));
    }
  }

  private work(node: PlanNode, run: NodeRun, frame: Frame): never {
    return {
      controls: run.controls,
      inputs: this.run.inputsOf(node.id),
      moment: frame.moment,
      live: frame.live,
    } as never;
  }

  private dataOf(
    paint: Extract<Paint<never, never>, { type: 'data' }>,
    node: PlanNode,
    run: NodeRun,
    frame: Frame,
  ): DataPicture {
    return paint.fill(this.work(node, run, frame));
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

  /** Sees to it that the target has the right size and format, and exchanges the two of a return wire. */
  private fit(id: string, stored: Stored, width: number, height: number): void {
    const wrong = (target: WebGLRenderTarget | null): boolean =>
      target !== null &&
      (target.width !== width || target.height !== height || this.bitsOf(target) !== this.real(stored.bits));
    if (wrong(stored.target)) {
      const kept = stored.double ? stored.target : null;
      if (stored.before) this.gpu.release(stored.before);
      stored.before = null;
      if (!kept && stored.target) this.gpu.release(stored.target);
      stored.target = null;
      if (kept) {
        // The loop goes on at the new size from what it held.
        const moved = this.gpu.acquire(width, height, stored.bits);
        this.gpu.copy(kept.texture, moved);
        this.gpu.release(kept);
        stored.target = moved;
      }
    }
    if (stored.double) {
      // While time stands still, an edit draws this frame once more and the loop must not move on.
      if (this.dt > 0) [stored.target, stored.before] = [stored.before, stored.target];
      this.exchanged.add(id);
    } else if (stored.before) {
      this.gpu.release(stored.before);
      stored.before = null;
    }
    stored.target ??= this.gpu.acquire(width, height, stored.bits);
  }

  private real(bits: Bits): Bits {
    return this.gpu.floats ? bits : '8';
  }

  private bitsOf(target: WebGLRenderTarget): Bits {
    return (target.texture.userData as { bits: Bits }).bits;
  }

  private drawPasses(
    node: PlanNode,
    run: NodeRun,
    stored: Stored,
    frame: Frame,
    paint: Extract<Paint<never, never>, { type: 'shader' | 'passes' }>,
  ): void {
    const { width, height } = run.image!;
    if (paint.type === 'shader') {
      this.fill(stored.programs[0], frame, width, height, null);
      this.gpu.pass(stored.programs[0].material, stored.target);
      return;
    }
    const firstInput = node.inputs[Object.keys(node.kind.inputs)[0]]?.[0];
    let previous: Texture = firstInput
      ? this.textureOf(firstInput.node, firstInput.back?.id ?? null)
      : this.gpu.empty;
    const used: WebGLRenderTarget[] = [];
    const needed = [...paint.passes.keys()].filter(
      (k) => !paint.passes[k].skip?.(run.controls as never, height),
    );
    for (const k of needed) {
      const pass = paint.passes[k];
      const last = k === needed[needed.length - 1];
      const scale = pass.scale?.(run.controls as never, height) ?? 1;
      const w = Math.max(1, Math.round(width * scale));
      const h = Math.max(1, Math.round(height * scale));
      const target = last ? stored.target! : this.gpu.acquire(w, h, stored.bits);
      const program = stored.programs[k];
      this.fill(program, frame, w, h, previous);
      this.gpu.pass(program.material, target);
      if (!last) used.push(target);
      previous = target.texture;
    }
    for (const target of used) this.gpu.release(target);
  }

  /** Brings the numbers and textures of a program up to date; never compiles. */
  private fill(
    program: Program,
    frame: Frame,
    width: number,
    height: number,
    previous: Texture | null,
  ): void {
    const { uniforms, assembled } = program;
    uniforms.aspect.value = width / height;
    (uniforms.pixel.value as number[])[0] = 1 / width;
    (uniforms.pixel.value as number[])[1] = 1 / height;
    const derived = new Map<string, Record<string, number | readonly number[]>>();
    for (const number of assembled.numbers) this.fillNumber(uniforms, number, frame, derived);
    for (const read of assembled.textures) {
      const texture =
        read.source === 'previous'
          ? (previous ?? this.gpu.empty)
          : this.textureOf(read.source.node, read.source.back?.id ?? null);
      uniforms[read.sampler].value = texture;
      const image = texture.image as { width: number; height: number };
      uniforms[read.size].value = [image.width, image.height];
      if (read.back && read.source !== 'previous') {
        const loop = this.run.returns.get(read.source.back!.id);
        const { keep, guard, limit } = loop!.settings;
        uniforms[read.back].value = loop!.clearing
          ? [1, noLimit]
          : [keepFor(keep, this.lastDt), guard === 'soft' ? limit : noLimit];
      }
    }
  }

  private fillNumber(
    uniforms: Uniforms,
    number: NumberRead,
    frame: Frame,
    derived: Map<string, Record<string, number | readonly number[]>>,
  ): void {
    const run = this.run.runs.get(number.node)!;
    if (!number.spec) {
      let values = derived.get(number.node);
      if (!values) {
        const { paint } = run.plan.kind as ImageKind;
        const derive = paint.type === 'shader' || paint.type === 'passes' ? paint.derive : undefined;
        values =
          derive?.(run.controls as never, frame.moment, run.image?.height ?? frame.canvas.height) ?? {};
        derived.set(number.node, values);
      }
      uniforms[number.uniform].value = values[number.control];
      return;
    }
    const value = run.controls[number.control];
    if (number.spec.type === 'gradient') {
      const stops = [...(value as Stop[])].sort((a, b) => a.at - b.at).slice(0, mostStops);
      const at = exactly(uniforms[`${number.uniform}_at`], stops.length);
      const colours = exactly(uniforms[`${number.uniform}_colours`], 4 * stops.length);
      stops.forEach((stop, k) => {
        colours.set(stop.colour, 4 * k);
        at[k] = stop.at;
      });
    } else uniforms[number.uniform].value = value;
  }

  /** The picture of a node as it stands; along a return wire, the one of the frame before or what the loop starts from. */
  textureOf(id: string, back: string | null = null): Texture {
    const stored = this.stored.get(id);
    if (back !== null) {
      const loop = this.run.returns.get(back);
      if (!loop || loop.clearing) {
        const start = loop?.settings.startsFrom;
        return start ? this.textureOf(start) : this.gpu.empty;
      }
      // Until the source is drawn in this frame, its target still holds the frame before.
      return (this.exchanged.has(id) ? stored?.before?.texture : stored?.target?.texture) ?? this.gpu.empty;
    }
    return stored?.data ?? stored?.target?.texture ?? this.gpu.empty;
  }

  /**
   * Draws any image node as it is looked at: a stored one is copied, one that is part of another shader is computed for
   * itself. `region` is the part of the picture (x, y, width, height in 0..1).
   */
  peek(
    id: string,
    frame: Frame,
    target: WebGLRenderTarget | null,
    region: readonly number[] = [0, 0, 1, 1],
  ): boolean {
    const run = this.run.runs.get(id);
    if (!run?.image || run.plan.kind.output !== 'image' || !this.plan) return false;
    let program = this.peeks.get(id);
    if (!program) {
      try {
        program = this.bind(this.stored.has(id) ? this.copyOf(id) : assemble(this.part(id), this.joined));
        this.gpu.compile(program.material);
      } catch {
        return false; // the fault is already said where the node itself is drawn
      }
      this.peeks.set(id, program);
    }
    this.fill(program, frame, run.image.width, run.image.height, null);
    program.uniforms.region.value = region;
    this.gpu.pass(program.material, target);
    return true;
  }

  /** Takes over what the return wires of another stage of the same scene hold, so that a look aside does not start them anew. */
  adoptLoops(from: ImageStage): void {
    for (const [id, stored] of this.stored) {
      const held = from.stored.get(id)?.target;
      if (stored.double && held && stored.target) this.gpu.copy(held.texture, stored.target);
    }
  }

  private copyOf(id: string): Assembled {
    const source = { node: id, wire: { id: '', from: { node: id }, to: { node: '', port: '' } }, back: null };
    return {
      fragment: `#version 300 es
precision highp float;
in vec2 place;
uniform float aspect;
uniform vec2 pixel;
uniform sampler2D picture;
out vec4 result;
void main() { result = texture(picture, place); }`,
      textures: [{ sampler: 'picture', source, back: null, size: 'size' }],
      numbers: [],
      members: [id],
    };
  }

  /** The shader that draws a node, for reading. */
  shaderText(id: string): string {
    for (const stored of this.stored.values()) {
      for (const { assembled } of stored.programs)
        if (assembled.members.includes(id)) return assembled.fragment;
    }
    return '';
  }

  private freeStored(stored: Stored): void {
    if (stored.target) this.gpu.release(stored.target);
    if (stored.before) this.gpu.release(stored.before);
    stored.data?.dispose();
    for (const program of stored.programs) program.material.dispose();
  }

  dispose(): void {
    for (const stored of this.stored.values()) this.freeStored(stored);
    for (const peek of this.peeks.values()) peek.material.dispose();
    this.stored.clear();
    this.peeks.clear();
    this.shots.dispose();
  }
}
