import {
  Color,
  Matrix4,
  Scene,
  type Camera,
  type IUniform,
  type RawShaderMaterial,
  type WebGLRenderTarget,
} from 'three';
import {
  defaultCamera,
  lightsFor,
  type CameraProp,
  sortProps,
  type LightProp,
  type Prop,
  type ShotSettings,
} from '../../core/kind/prop';
import { DrawnProps, type Drawn, type PropJob } from './drawn-props';
import type { Bits, Gpu } from '../gpu/gpu';
import { lightForms, lightUniforms, mostLights, type LightForm } from './light-glsl';
import { blurFragment, depthFragment, toneFragment } from './finish-glsl';
import { Shadows } from './shadows';
import { ShotCamera } from './shot-camera';

export interface ShotJob extends PropJob {
  node: string;
  target: WebGLRenderTarget;
  bits: Bits;
  settings: ShotSettings;
  props: readonly Prop[];
}

const isToned = ({ tone, exposure }: ShotSettings): boolean => tone === 'soft' || exposure !== 1;

/**
 * Whether a shot needs no picture in between: with plain edges, without tone and blur it is drawn where it is wanted, and
 * saves a pass over all pixels.
 */
export const drawsDirectly = (settings: ShotSettings, props: readonly Prop[]): boolean =>
  settings.samples === 0 &&
  settings.gives === 'picture' &&
  !isToned(settings) &&
  !((sortProps(props).camera?.blur ?? 0) > 0);

/** Whether what is drawn lies over what is behind it, and has a place in depth. */
const covers = ({ look }: Drawn): boolean => look.blending === 'over';

/** Renders props into targets. Meshes, shaders and tables live as long as their prop stays in the shot. */
export class ShotPainter {
  private readonly props: DrawnProps;
  private readonly scene = new Scene();
  private readonly background = new Color();
  private readonly tone: RawShaderMaterial;
  private readonly blur: RawShaderMaterial;
  private readonly depth: RawShaderMaterial;
  private readonly shadows: Shadows;
  private readonly camera = new ShotCamera();
  /** Uniforms that are the same for everything in a shot. */
  private readonly shared: Record<string, IUniform>;

  constructor(private readonly gpu: Gpu) {
    this.tone = gpu.material(toneFragment, {
      picture: { value: null },
      exposure: { value: 1 },
      soft: { value: true },
    });
    this.blur = gpu.material(blurFragment, {
      picture: { value: null },
      depthMap: { value: null },
      focus: { value: [1, 0, 1] },
    });
    this.depth = gpu.material(depthFragment, { depthMap: { value: null }, range: { value: [0, 1] } });
    this.shadows = new Shadows(gpu);
    this.shared = {
      view: { value: new Matrix4() },
      projection: { value: new Matrix4() },
      seen: { value: new Matrix4() },
      eye: { value: [0, 0, 0] },
      toEye: { value: [0, 0, 1] },
      straightOn: { value: false },
      viewportPx: { value: [1, 1] },
      ...this.shadows.uniforms,
    };
    for (const [name, value] of Object.entries(lightUniforms([]))) this.shared[name] = { value };
    this.props = new DrawnProps(gpu, this.scene, this.shared);
  }

  /** Meshes that were built or refilled since the start. */
  get built(): number {
    return this.props.built;
  }

  /** Draws a shot. Gives false if a shader is still being compiled, so that it has to be drawn again. */
  paint(job: ShotJob): boolean {
    const { settings, target } = job;
    const { shown, ready, lights, forms, cameraProp } = this.bring(job);
    this.drawShadows(shown, lights, forms, settings.shadowSize);
    const camera = this.place(cameraProp, target);
    if (settings.gives === 'depth') this.drawDepth(shown, camera, settings, target);
    else this.drawPicture(shown, camera, cameraProp, job);
    this.props.forget(job.node);
    this.gpu.passes++;
    return ready;
  }

  /** How far what is seen of a shot is from the camera, in green, 10,000 where nothing is; the caller releases it. */
  distancesOf(job: ShotJob): WebGLRenderTarget {
    const { shown, cameraProp } = this.bring(job);
    const { width, height } = job.target;
    return this.distances(shown, this.place(cameraProp, job.target), width, height, covers);
  }

  /** Where the camera stands, told to all that is drawn. */
  private place(prop: CameraProp, { width, height }: WebGLRenderTarget): Camera {
    const camera = this.camera.place(prop, width / height);
    this.look(camera, prop, width, height);
    return camera;
  }

  /** The meshes of what is in a shot, in the order they are drawn, and what lights and sees them. */
  private bring(job: ShotJob): {
    shown: Drawn[];
    ready: boolean;
    lights: readonly LightProp[];
    forms: readonly LightForm[];
    cameraProp: CameraProp;
  } {
    const { bodies, lights: wired, camera: wiredCamera } = sortProps(job.props);
    const cameraProp = wiredCamera ?? defaultCamera;
    const lights = (wired.length ? wired : lightsFor(cameraProp)).slice(0, mostLights);
    const forms = lightForms(lights);
    for (const [name, value] of Object.entries(lightUniforms(lights))) this.shared[name].value = value;

    const shown: Drawn[] = [];
    let ready = true;
    bodies.forEach((prop, order) => {
      const key = `${job.node} ${prop.node} ${order}`;
      const drawn = this.props.bring(key, prop, job, forms);
      // One that can't be drawn yet counts as well: a scene that stands still would never be drawn again.
      ready &&= !this.props.isComing(key);
      if (!drawn) return;
      // What hides comes first, then the rest in the order it was wired.
      drawn.object.renderOrder = (drawn.look.solid ? 0 : 1000) + order;
      shown.push(drawn);
    });
    return { shown, ready, lights, forms, cameraProp };
  }

  private drawPicture(shown: readonly Drawn[], camera: Camera, prop: CameraProp, job: ShotJob): void {
    const { gpu } = this;
    const { settings, target, bits } = job;
    // Where nothing hides anything, nobody has to ask what lies in front.
    const hides = shown.some(({ look }) => look.solid);
    for (const { picture } of shown) picture.depthTest = hides;
    this.props.showOnly(shown, ({ picture }) => picture);
    const direct = drawsDirectly(settings, job.props);
    let into = direct ? target : gpu.acquire(target.width, target.height, bits, true, settings.samples);
    const [r, g, b, a] = settings.background;
    gpu.renderer.setRenderTarget(into);
    gpu.renderer.setClearColor(this.background.setRGB(r, g, b), a);
    gpu.renderer.clear(true, hides, false);
    gpu.renderer.render(this.scene, camera);
    if (direct) return;
    if (prop.blur > 0) into = this.drawBlur(shown, camera, prop, into, bits);
    if (isToned(settings)) {
      this.tone.uniforms.picture.value = into.texture;
      this.tone.uniforms.exposure.value = settings.exposure;
      this.tone.uniforms.soft.value = settings.tone === 'soft';
      gpu.pass(this.tone, target);
    } else gpu.copy(into.texture, target);
    gpu.release(into);
  }

  /** How far everything that is drawn over is from the camera; the caller releases it. */
  private distances(
    shown: readonly Drawn[],
    camera: Camera,
    width: number,
    height: number,
    counts: (drawn: Drawn) => boolean,
  ): WebGLRenderTarget {
    const { gpu } = this;
    const into = gpu.acquire(width, height, '32', true, 0);
    gpu.renderer.setRenderTarget(into);
    gpu.renderer.setClearColor(this.background.setRGB(1, 1e4, 0), 1);
    gpu.renderer.clear(true, true, false);
    this.drawDistances(shown, camera, counts);
    return into;
  }

  private drawDistances(shown: readonly Drawn[], camera: Camera, counts: (drawn: Drawn) => boolean): void {
    this.props.showOnly(shown.filter(counts), (drawn) => this.props.distanceOf(drawn));
    this.gpu.passes++;
    this.gpu.renderer.render(this.scene, camera);
  }

  private drawDepth(
    shown: readonly Drawn[],
    camera: Camera,
    settings: ShotSettings,
    target: WebGLRenderTarget,
  ): void {
    const { gpu } = this;
    const far = this.distances(shown, camera, target.width, target.height, covers);
    this.depth.uniforms.depthMap.value = far.texture;
    this.depth.uniforms.range.value = [...settings.depthRange];
    gpu.pass(this.depth, target);
    gpu.release(far);
  }

  private drawBlur(
    shown: readonly Drawn[],
    camera: Camera,
    prop: CameraProp,
    sharp: WebGLRenderTarget,
    bits: Bits,
  ): WebGLRenderTarget {
    const { gpu } = this;
    const { width, height } = sharp;
    const far = this.distances(shown, camera, width, height, ({ look }) => look.solid);
    const into = gpu.acquire(width, height, bits, false, 0);
    this.blur.uniforms.picture.value = sharp.texture;
    this.blur.uniforms.depthMap.value = far.texture;
    this.blur.uniforms.focus.value = [prop.focus, prop.blur, width / height];
    gpu.pass(this.blur, into);
    gpu.release(far);
    gpu.release(sharp);
    return into;
  }

  private drawShadows(
    shown: readonly Drawn[],
    lights: readonly LightProp[],
    forms: readonly LightForm[],
    size: number,
  ): void {
    const casts = ({ look, form }: Drawn): boolean =>
      look.casts && form.drawing === 'surface' && look.blending === 'over';
    this.shadows.draw(lights, forms, size, (camera, place) => {
      this.look(camera, { projection: 'perspective', place }, size, size);
      this.drawDistances(shown, camera, casts);
    });
  }

  private look(
    camera: Camera,
    prop: Pick<CameraProp, 'projection' | 'place'>,
    width: number,
    height: number,
  ): void {
    const { shared } = this;
    (shared.view.value as Matrix4).copy(camera.matrixWorldInverse);
    (shared.projection.value as Matrix4).copy(camera.projectionMatrix);
    (shared.seen.value as Matrix4).multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse);
    shared.eye.value = [...prop.place];
    const m = camera.matrixWorld.elements;
    shared.toEye.value = [m[8], m[9], m[10]];
    shared.straightOn.value = prop.projection === 'straight';
    shared.viewportPx.value = [width / 2, height / 2];
  }

  dispose(): void {
    this.props.dispose();
    for (const material of [this.tone, this.blur, this.depth]) material.dispose();
    this.shadows.dispose();
  }
}
