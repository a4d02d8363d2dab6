import { Matrix3, type IUniform, type WebGLRenderTarget } from 'three';
import type { FieldKind } from '../core/kind/kind';
import type { PlanNode } from '../core/patch/plan';
import {
  defaultCamera,
  defaultLights,
  type CameraProp,
  type FieldShotSettings,
  type LightProp,
  type Prop,
} from '../core/prop';
import { softToneGlsl } from '../nodes/glsl/tone';
import type { Frame } from '../core/run/frame';
import type { SceneRun } from '../core/run/scene-run';
import type { Assembled, TextureRead } from './assemble';
import { assembleFields, type FieldPart, type FieldShotForm } from './field-assemble';
import type { Gpu } from './gpu';
import { lightForms, lightUniforms, mostLights } from './light-glsl';
import { bindProgram, fillProgram, type Program, type TextureView } from './program';
import { ShotCamera } from './shot-camera';

export interface FieldShotJob {
  node: PlanNode;
  target: WebGLRenderTarget;
  settings: FieldShotSettings;
  props: readonly Prop[];
  run: SceneRun;
  frame: Frame;
  /** Programs are waited for: each frame is exact. */
  waits: boolean;
  /** What of the controls of a field node stands in the code, as one text and one by one. */
  codeKey(id: string): string;
  codeOf(node: PlanNode, control: string): string | null;
  textureFor(read: TextureRead): TextureView;
}

interface Shown {
  program: Program | null;
  coming: Program | null;
  /** What the newest program was made for. */
  key: string;
  /** Why there is no newest program. */
  error: unknown;
}

/** How dark the shadow of the usual sun is, where no light is wired. */
const usualShadow = 0.75;

/** Photographs distance fields. A program lives as long as its shot; the one before draws until a new one is compiled. */
export class FieldPainter {
  private readonly shown = new Map<string, Shown>();
  private readonly camera = new ShotCamera();

  constructor(private readonly gpu: Gpu) {}

  /** Draws a shot of fields. Gives false if its program is still being compiled, so that it has to be drawn again. */
  paint(job: FieldShotJob): boolean {
    const { settings, props, target } = job;
    const wired = props.filter((p): p is LightProp => p.type === 'light');
    const lights = (
      wired.length
        ? wired
        : defaultLights.map((light) => ({ ...light, shadow: light.shape === 'sun' ? usualShadow : 0 }))
    ).slice(0, mostLights);
    const form: FieldShotForm = {
      lit: settings.lit,
      contact: settings.contact > 0,
      fog: settings.fog.amount > 0,
      soft: settings.tone === 'soft',
      lights: lightForms(lights).map((light) => ({ ...light, shadow: light.shadow && settings.shadows })),
    };
    const shown = this.prepare(job, form);
    const { program } = shown;
    // What was drawn with nodes that are gone stays until the new program is there.
    if (program?.assembled.members.every((id) => job.run.runs.has(id))) {
      this.fillShot(program.uniforms, job, lights);
      fillProgram(program, {
        run: job.run,
        frame: job.frame,
        width: target.width,
        height: target.height,
        textureFor: (read) => job.textureFor(read),
      });
      this.gpu.pass(program.material, target);
    } else if (!program) this.gpu.clear(target);
    return shown.coming === null;
  }

  private prepare(job: FieldShotJob, form: FieldShotForm): Shown {
    const { node, run } = job;
    const fields = node.inputs.fields.filter(({ back }) => !back).map((source) => source.node);
    let shown = this.shown.get(node.id);
    if (!shown) this.shown.set(node.id, (shown = { program: null, coming: null, key: '', error: null }));
    const key = `${run.planVersion} ${JSON.stringify(form)} ${this.membersOf(job, fields)
      .map((id) => job.codeKey(id))
      .join('\n')}`;
    if (key !== shown.key) {
      shown.key = key;
      shown.error = null;
      const partOf = (id: string): FieldPart | null => {
        const planned = run.plan.nodes.get(id);
        if (planned?.kind.output !== 'field') return null;
        return {
          id,
          name: run.runs.get(id)!.node.name,
          kind: planned.kind as FieldKind,
          inputs: planned.inputs,
          codeOf: (control) => job.codeOf(planned, control),
        };
      };
      let assembled: Assembled;
      try {
        assembled = assembleFields(fields, partOf, form, softToneGlsl, this.gpu.cornerRoom);
      } catch (error) {
        shown.error = error;
        throw error;
      }
      if (shown.program?.assembled.fragment === assembled.fragment) {
        shown.program.assembled = assembled;
        shown.coming?.material.dispose();
        shown.coming = null;
      } else if (shown.coming?.assembled.fragment !== assembled.fragment) {
        shown.coming?.material.dispose();
        shown.coming = bindProgram(this.gpu, assembled, this.shotUniforms());
        this.gpu.beginCompile(shown.coming.material);
      }
    }
    // Said again each time, so that it stays with the node; the picture before stays as well.
    if (shown.error) throw shown.error;
    const { coming } = shown;
    if (coming && (job.waits || this.gpu.compiled(coming.material))) {
      shown.coming = null;
      this.gpu.checkProgram(coming.material);
      shown.program?.material.dispose();
      shown.program = coming;
    }
    return shown;
  }

  /** All field nodes that are part of a shot, each once. */
  private membersOf({ run }: FieldShotJob, fields: readonly string[]): string[] {
    const found = new Set<string>();
    const visit = (id: string): void => {
      const planned = run.plan.nodes.get(id);
      if (found.has(id) || planned?.kind.output !== 'field') return;
      found.add(id);
      for (const source of planned.sources) if (!source.back) visit(source.node);
    };
    fields.forEach(visit);
    return [...found];
  }

  private shotUniforms(): Record<string, IUniform> {
    const uniforms: Record<string, IUniform> = {
      axes: { value: new Matrix3() },
      shadowWidth: { value: new Float32Array(8) },
    };
    for (const name of ['eye', 'lens', 'march', 'background', 'fog'])
      uniforms[name] = { value: [0, 0, 0, 0] };
    for (const name of ['steps', 'contact', 'exposure']) uniforms[name] = { value: 0 };
    for (const [name, value] of Object.entries(lightUniforms([]))) uniforms[name] = { value };
    return uniforms;
  }

  private fillShot(
    uniforms: Record<string, IUniform>,
    { settings, props, target }: FieldShotJob,
    lights: readonly LightProp[],
  ): void {
    const prop = props.find((p): p is CameraProp => p.type === 'camera') ?? defaultCamera;
    const camera = this.camera.place(prop, target.width / target.height);
    const set = (name: string, value: unknown): void => {
      uniforms[name].value = value;
    };
    (uniforms.axes.value as Matrix3).setFromMatrix4(camera.matrixWorld);
    set('eye', [...prop.place]);
    const straight = prop.projection === 'straight';
    const half = straight ? prop.viewHeight / 2 : Math.tan(prop.fieldOfViewRad / 2);
    const pixel = (2 * half) / target.height;
    set('lens', [(half * target.width) / target.height, half, straight ? 1 : 0]);
    set('march', [straight ? 0 : pixel, straight ? pixel : 0, prop.near, Math.min(settings.far, prop.far)]);
    set('background', settings.background);
    set('steps', settings.steps);
    set('contact', settings.contact);
    set('fog', [settings.fog.near, settings.fog.far, settings.fog.amount]);
    set('exposure', settings.exposure);
    for (const [name, value] of Object.entries(lightUniforms(lights))) set(name, value);
    const widths = uniforms.shadowWidth.value as Float32Array;
    lights.forEach(({ soft }, k) => (widths[k] = 48 + (2.5 - 48) * Math.sqrt(soft)));
  }

  /** Frees the programs of shots that are gone. */
  keepOnly(ids: (id: string) => boolean): void {
    for (const [id, { program, coming }] of this.shown) {
      if (ids(id)) continue;
      program?.material.dispose();
      coming?.material.dispose();
      this.shown.delete(id);
    }
  }

  dispose(): void {
    this.keepOnly(() => false);
  }
}
