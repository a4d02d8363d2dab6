import type { ImageKind } from '../../core/kind/kind';
import type { Plan, PlanNode, PlanSource } from '../../core/patch/plan';
import type { SceneRun } from '../../core/run/scene-run';
import type { PatchNode } from '../../core/document/types';
import { assemble, codeOf, PartError, type Assembled, type Part } from '../shader/assemble';
import { describeFault } from '../gpu/describe-fault';
import type { Gpu } from '../gpu/gpu';
import { bindShader, type Shader } from '../shader/shader';
import { dropShaders, type Stored } from './stored';

/** A shader that shows a node as it is looked at. */
export interface Peek {
  shader: Shader;
  ready: boolean;
}

/**
 * The shaders of the images of a scene: written, handed to the compiler, and taken over when they are done, while what was
 * there goes on. Says what went wrong, by node.
 */
export class NodeShaders {
  readonly faults = new Map<string, string>();
  private plan!: Plan;
  /** What of each node stands in code, as long as neither the node nor its place in the plan changed. */
  private readonly codeKeys = new Map<string, { node: PatchNode; plan: PlanNode; key: string }>();
  /** Shaders for pictures that are looked at but are part of another shader. */
  private readonly peeks = new Map<string, Peek>();

  constructor(
    private readonly gpu: Gpu,
    private readonly run: SceneRun,
    /** Nodes whose pictures are kept; all others are joined into those that read them. */
    private readonly stored: ReadonlyMap<string, Stored>,
    /** Programs are waited for: each frame is exact. */
    private readonly waits: boolean,
  ) {}

  /** Takes another plan: nodes that are gone have no faults any more, and what is looked at is rewritten. */
  begin(plan: Plan): void {
    this.plan = plan;
    this.dropPeeks();
    this.codeKeys.clear();
    for (const id of this.faults.keys()) if (!plan.nodes.has(id)) this.faults.delete(id);
  }

  private part(id: string): Part {
    const planned = this.plan.nodes.get(id)!;
    return {
      id,
      kind: planned.kind as ImageKind,
      inputs: planned.inputs,
      codeOf: (control) => this.codeOf(planned, control),
    };
  }

  private readonly joined = (source: PlanSource): Part | null => {
    if (source.back || this.stored.has(source.node)) return null;
    const kind = this.plan.nodes.get(source.node)?.kind;
    return kind?.output === 'image' ? this.part(source.node) : null;
  };

  /** What of a control of a node stands in code. */
  codeOf(node: PlanNode, control: string): string | null {
    const driven = node.parts.some((part) => part.control === control);
    return codeOf(node.kind.controls[control], this.run.runs.get(node.id)!.controls[control], driven);
  }

  /** All that stands in the code of a node, as one text. */
  codeKey(id: string): string {
    const node = this.plan.nodes.get(id)!;
    const { node: patchNode } = this.run.runs.get(id)!;
    const known = this.codeKeys.get(id);
    if (known?.node === patchNode && known.plan === node) return known.key;
    let key = '';
    for (const control of Object.keys(node.kind.controls)) key += `${this.codeOf(node, control) ?? ''}\n`;
    this.codeKeys.set(id, { node: patchNode, plan: node, key });
    return key;
  }

  /**
   * Makes or keeps the shaders of a stored node. A new one is handed to the compiler; what was there goes on until it is
   * done. `isNewPlan`: the plan changed, so that what was there may read pictures that are no more.
   */
  prepare(node: PlanNode, stored: Stored, isNewPlan: boolean): void {
    const { paint } = node.kind as ImageKind;
    if (paint.type !== 'shader' && paint.type !== 'passes') return;
    const count = paint.type === 'shader' ? 1 : paint.passes.length;
    const given: Shader[] = [];
    try {
      let compiles = false;
      for (let pass = 0; pass < count; pass++) {
        const assembled = assemble(this.part(node.id), this.joined, pass, this.gpu.flatVaryings);
        const old = stored.shaders[pass];
        if (old && old.assembled.fragment === assembled.fragment) {
          old.assembled = assembled;
          given.push(old);
          continue;
        }
        const shader = bindShader(this.gpu, assembled);
        given.push(shader);
        compiles = true;
        if (this.waits) this.gpu.compile(shader.material);
        else this.gpu.beginCompile(shader.material);
      }
      dropShaders(stored.coming?.shaders ?? [], [...stored.shaders, ...given]);
      stored.coming = null;
      const key = given[0].assembled.members.map((id) => this.codeKey(id)).join('\n');
      if (compiles) {
        stored.outdated ||= isNewPlan;
        stored.coming = { shaders: given, key };
        // The key is of what is on its way, so that the same change does not ask for it again.
        stored.key = key;
        if (this.waits) this.takeOver(node.id, stored);
      } else {
        stored.outdated = false;
        stored.key = key;
        stored.drawn &&= !isNewPlan;
        this.clearFaults(given[0].assembled.members);
      }
    } catch (error) {
      dropShaders(given, stored.shaders);
      this.fail(node.id, error);
      stored.key = this.keyOfMembers(node.id, stored);
    }
  }

  private clearFaults(members: readonly string[]): void {
    for (const member of members) this.faults.delete(member);
  }

  /** Says what went wrong, of the node that is to blame. */
  fail(id: string, error: unknown): void {
    const blamed = error instanceof PartError ? error.node : id;
    this.faults.set(blamed, describeFault(error));
  }

  /** Puts shaders that are compiled in the place of those before. */
  takeCompiled(): void {
    if (this.waits) return;
    for (const [id, stored] of this.stored) {
      if (stored.coming?.shaders.every(({ material }) => this.gpu.compiled(material)))
        this.takeOver(id, stored);
    }
  }

  private takeOver(id: string, stored: Stored): void {
    const { shaders } = stored.coming!;
    stored.coming = null;
    try {
      for (const { material } of shaders) this.gpu.checkShader(material);
      dropShaders(stored.shaders, shaders);
      stored.shaders = shaders;
      stored.outdated = false;
      stored.drawn &&= this.waits !== true;
      this.clearFaults(shaders[0].assembled.members);
      // What reads it has to be drawn with it.
      this.run.runs.get(id)?.markStale();
      if (!stored.drawn) this.run.runs.get(id)!.changed = true;
    } catch (error) {
      dropShaders(shaders, stored.shaders);
      this.fail(id, error);
    }
  }

  private dropPeek(id: string): void {
    this.peeks.get(id)?.shader.material.dispose();
    this.peeks.delete(id);
  }

  /**
   * Another shader for a node if a value that stands in its code changed; what is looked at and holds some of the same
   * code needs another as well.
   */
  bringUpToDate(node: PlanNode, stored: Stored): void {
    if (!stored.shaders.length || this.keyOfMembers(node.id, stored) === stored.key) return;
    const members = new Set(stored.shaders[0].assembled.members);
    for (const [id, { shader }] of this.peeks)
      if (shader.assembled.members.some((member) => members.has(member))) this.dropPeek(id);
    this.prepare(node, stored, false);
  }

  private keyOfMembers(id: string, stored: Stored): string {
    const members = stored.shaders[0]?.assembled.members.filter((m) => this.plan.nodes.has(m)) ?? [id];
    return members.map((m) => this.codeKey(m)).join('\n');
  }

  /** The shader that shows a node as it is looked at; null if there is none, as a fault already says. */
  peekOf(id: string, wait: boolean): Peek | null {
    let peek = this.peeks.get(id);
    try {
      if (!peek) {
        const assembled = this.stored.has(id)
          ? this.copyOf(id)
          : assemble(this.part(id), this.joined, 0, this.gpu.flatVaryings);
        peek = { shader: bindShader(this.gpu, assembled), ready: false };
        this.peeks.set(id, peek);
        this.gpu.beginCompile(peek.shader.material);
      }
      if (!peek.ready && (wait || this.waits || this.gpu.compiled(peek.shader.material))) {
        this.gpu.checkShader(peek.shader.material);
        peek.ready = true;
      }
      return peek;
    } catch {
      return null; // the fault is already said where the node itself is drawn
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

  dropPeeks(): void {
    for (const id of [...this.peeks.keys()]) this.dropPeek(id);
  }
}
