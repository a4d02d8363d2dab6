import { DataTexture, FloatType, Matrix3, RGBAFormat, type IUniform, type WebGLRenderTarget } from 'three';
import type { FieldKind } from '../../core/kind/kind';
import type { PlanNode } from '../../core/patch/plan';
import {
  defaultCamera,
  lightsFor,
  sortProps,
  type FieldShotSettings,
  type LightProp,
  type Prop,
} from '../../core/kind/prop';
import { softToneGlsl } from '../../nodes/glsl/tone';
import type { Frame } from '../../core/run/frame';
import type { SceneRun } from '../../core/run/scene-run';
import type { Assembled, TextureRead } from '../shader/assemble';
import { assembleFields, assembleSamples, assembleSlice, type FieldShotForm } from './field-assemble';
import type { FieldPart } from './field-writer';
import type { Gpu } from '../gpu/gpu';
import { lightForms, lightUniforms, mostLights } from '../prop/light-glsl';
import { bindShader, fillShader, type Shader, type TextureView } from '../shader/shader';
import { ShotCamera } from '../prop/shot-camera';

/** What drawing fields needs to know of the scene they stand in. */
export interface FieldScene {
  run: SceneRun;
  frame: Frame;
  /** Programs are waited for: each frame is exact. */
  waits: boolean;
  /** What of the controls of a field node stands in the code, as one text and one by one. */
  codeKey(id: string): string;
  codeOf(node: PlanNode, control: string): string | null;
  textureFor(read: TextureRead): TextureView;
}

export interface FieldShotJob extends FieldScene {
  node: PlanNode;
  target: WebGLRenderTarget;
  settings: FieldShotSettings;
  props: readonly Prop[];
}

interface Shown {
  shader: Shader | null;
  coming: Shader | null;
  /** What the newest shader was made for. */
  key: string;
  /** Why there is no newest shader. */
  error: unknown;
}

/** Programs of fields by what they are for; each draws until a newer one is compiled. */
class FieldShaders {
  private readonly shown = new Map<string, Shown>();

  constructor(private readonly gpu: Gpu) {}

  /** Brings a shader up to date: `assemble` writes it, and is asked only if `form` or a field that is part of it changed. */
  prepare(
    id: string,
    scene: FieldScene,
    fields: readonly string[],
    form: string,
    assemble: (partOf: (field: string) => FieldPart | null) => Assembled,
    more: () => Record<string, IUniform>,
  ): Shown {
    const { run } = scene;
    let shown = this.shown.get(id);
    if (!shown) this.shown.set(id, (shown = { shader: null, coming: null, key: '', error: null }));
    const members = membersOf(run, fields).map((member) => scene.codeKey(member));
    const key = `${run.planVersion} ${form} ${members.join('\n')}`;
    if (key !== shown.key) {
      shown.key = key;
      shown.error = null;
      let assembled: Assembled;
      try {
        assembled = assemble((field) => partOf(scene, field));
      } catch (error) {
        shown.error = error;
        throw error;
      }
      if (shown.shader?.assembled.fragment === assembled.fragment) {
        shown.shader.assembled = assembled;
        shown.coming?.material.dispose();
        shown.coming = null;
      } else if (shown.coming?.assembled.fragment !== assembled.fragment) {
        shown.coming?.material.dispose();
        shown.coming = bindShader(this.gpu, assembled, more());
        this.gpu.beginCompile(shown.coming.material);
      }
    }
    // Said again each time, so that it stays with the node; the picture before stays as well.
    if (shown.error) throw shown.error;
    const { coming } = shown;
    if (coming && (scene.waits || this.gpu.compiled(coming.material))) {
      shown.coming = null;
      this.gpu.checkShader(coming.material);
      shown.shader?.material.dispose();
      shown.shader = coming;
    }
    return shown;
  }

  /** The shader to draw with: none if what it was made of is gone. */
  ready({ shader }: Shown, { run }: FieldScene): Shader | null {
    return shader?.assembled.members.every((id) => run.runs.has(id)) ? shader : null;
  }

  /** Frees what is not wanted any more. */
  keepOnly(ids: (id: string) => boolean): void {
    for (const [id, { shader, coming }] of this.shown) {
      if (ids(id)) continue;
      shader?.material.dispose();
      coming?.material.dispose();
      this.shown.delete(id);
    }
  }
}

function partOf({ run, codeOf }: FieldScene, id: string): FieldPart | null {
  const planned = run.plan.nodes.get(id);
  if (planned?.kind.output !== 'field') return null;
  return {
    id,
    kind: planned.kind as FieldKind,
    inputs: planned.inputs,
    codeOf: (control) => codeOf(planned, control),
  };
}

/** All field nodes that these are made of, each once. */
function membersOf(run: SceneRun, fields: readonly string[]): string[] {
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

/** How dark the shadow of the usual sun is, where no light is wired. */
const usualShadow = 0.75;

/** Draws distance fields: rendered by their shots, and cut open for their cards. */
export class FieldPainter {
  private readonly shots: FieldShaders;
  private readonly slices: FieldShaders;
  private readonly samples: FieldShaders;
  private readonly camera = new ShotCamera();

  constructor(private readonly gpu: Gpu) {
    this.shots = new FieldShaders(gpu);
    this.slices = new FieldShaders(gpu);
    this.samples = new FieldShaders(gpu);
  }

  /** Draws a shot of fields. Gives false if its shader is still being compiled, so that it has to be drawn again. */
  paint(job: FieldShotJob): boolean {
    const { node, settings, props, target } = job;
    const { lights: wired, camera } = sortProps(props);
    const usual = (): LightProp[] =>
      lightsFor(camera ?? defaultCamera).map((light) => ({
        ...light,
        shadow: light.shape === 'sun' ? usualShadow : 0,
      }));
    const lights = (wired.length ? wired : usual()).slice(0, mostLights);
    const form: FieldShotForm = {
      lit: settings.lit,
      contact: settings.contact > 0,
      fog: settings.fog.amount > 0,
      soft: settings.tone === 'soft',
      lights: lightForms(lights).map((light) => ({ ...light, shadow: light.shadow && settings.shadows })),
    };
    const fields = node.inputs.fields.filter(({ back }) => !back).map((source) => source.node);
    const shown = this.shots.prepare(
      node.id,
      job,
      fields,
      JSON.stringify(form),
      (part) => assembleFields(fields, part, form, softToneGlsl, this.gpu.flatVaryings),
      () => this.shotUniforms(),
    );
    const shader = this.shots.ready(shown, job);
    if (shader) {
      this.fillShot(shader.uniforms, job, lights);
      this.draw(shader, job, target, target);
    } else if (!shown.shader) this.gpu.clear(target);
    return shown.coming === null;
  }

  /**
   * Draws a field by itself, cut open; `region` as for pictures that are looked at. Gives false if it cannot be seen yet, or
   * never: why is said where it is rendered.
   */
  slice(
    id: string,
    scene: FieldScene,
    size: { width: number; height: number },
    target: WebGLRenderTarget | null,
    region: readonly number[],
  ): boolean {
    try {
      const shown = this.slices.prepare(
        id,
        scene,
        [id],
        '',
        (part) => assembleSlice(id, part, this.gpu.flatVaryings),
        () => ({}),
      );
      const shader = this.slices.ready(shown, scene);
      if (!shader) return false;
      shader.uniforms.region.value = region;
      this.draw(shader, scene, size, target);
      return true;
    } catch {
      return false;
    }
  }

  /**
   * A field at places (x, y, z in turn): for each its distance, and the red, green and blue of how it looks there. Waits for
   * its shader; throws if it cannot be written.
   */
  async at(id: string, scene: FieldScene, places: readonly number[]): Promise<Float32Array> {
    const count = places.length / 3;
    const pixels = new Float32Array(4 * count);
    for (let k = 0; k < count; k++) pixels.set(places.slice(3 * k, 3 * k + 3), 4 * k);
    const points = new DataTexture(pixels, count, 1, RGBAFormat, FloatType);
    points.needsUpdate = true;
    const target = this.gpu.acquire(count, 1, '32');
    try {
      const waiting = { ...scene, waits: true };
      const shown = this.samples.prepare(
        id,
        waiting,
        [id],
        '',
        (part) => assembleSamples(id, part, this.gpu.flatVaryings),
        () => ({ points: { value: null } }),
      );
      const shader = this.samples.ready(shown, waiting)!;
      shader.uniforms.points.value = points;
      this.draw(shader, waiting, { width: count, height: 1 }, target);
      const out = new Float32Array(4 * count);
      await this.gpu.renderer.readRenderTargetPixelsAsync(target, 0, 0, count, 1, out);
      return out;
    } finally {
      points.dispose();
      this.gpu.release(target);
    }
  }

  private draw(
    shader: Shader,
    { run, frame, textureFor }: FieldScene,
    { width, height }: { width: number; height: number },
    target: WebGLRenderTarget | null,
  ): void {
    fillShader(shader, { run, frame, width, height, textureFor });
    this.gpu.pass(shader.material, target);
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
    const prop = sortProps(props).camera ?? defaultCamera;
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

  /** Frees the shaders of nodes that are gone. */
  keepOnly(ids: (id: string) => boolean): void {
    this.shots.keepOnly(ids);
    this.slices.keepOnly(ids);
    this.samples.keepOnly(ids);
  }

  dispose(): void {
    this.keepOnly(() => false);
  }
}
