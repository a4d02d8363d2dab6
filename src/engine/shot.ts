import type { Camera } from 'three';
import {
  AddEquation,
  Color,
  CustomBlending,
  DoubleSide,
  DstColorFactor,
  LineSegments,
  Matrix4,
  Mesh,
  NoBlending,
  OneFactor,
  OneMinusSrcAlphaFactor,
  Points,
  RawShaderMaterial,
  Scene,
  type IUniform,
  type Texture,
  type WebGLRenderTarget,
} from 'three';
import type { ImageRef } from '../core/image-ref';
import {
  bodyOf,
  defaultCamera,
  defaultLights,
  levelsOf,
  type BodyProp,
  type CameraProp,
  type InstancesProp,
  type LightProp,
  type Look,
  type Prop,
  type ShotSettings,
} from '../core/prop';
import type { Shape } from '../core/shape/shape';
import { allCopies, copyFormOf, CopyTables, copyUniforms } from './copies';
import type { Bits, Gpu } from './gpu';
import { lightForms, lightKey, lightUniforms, mostLights, type LightForm } from './light-glsl';
import { buildMesh, drawingOf, fillMesh, sameBuild, type PropMesh } from './prop-mesh';
import {
  blurFragment,
  depthFragment,
  distanceFragment,
  formKey,
  propFragment,
  propVertex,
  toneFragment,
  type Drawing,
  type PropForm,
} from './prop-shader';
import { Shadows } from './shadows';
import { ShotCamera } from './shot-camera';

export interface ShotJob {
  node: string;
  target: WebGLRenderTarget;
  bits: Bits;
  settings: ShotSettings;
  props: readonly Prop[];
  /** Drawn pixels for each pixel of the show's canvas. */
  pixelScale: number;
  /** Programs are waited for: each frame is exact. */
  waits: boolean;
  textureOf(image: ImageRef): Texture;
  /** A picture that came with a model; null while it is on its way. */
  fileTexture(id: string): Texture | null;
}

type Drawable = BodyProp | InstancesProp;
type Material = RawShaderMaterial;

/** One body or group of copies on the card. */
interface Drawn {
  object: Mesh | LineSegments | Points;
  built: PropMesh;
  copies: number;
  look: Look;
  /** What its program was made for: the form of the prop, and that of the lights. */
  key: string;
  form: PropForm;
  uniforms: Record<string, IUniform>;
  picture: Material;
  /** A program that is being compiled and will take the place of `picture`. */
  coming: { material: Material; key: string } | null;
  distance: Material | null;
  tables: CopyTables | null;
  seen: boolean;
}

function setBlending(material: Material, look: Look): void {
  material.blending = CustomBlending;
  material.blendEquation = AddEquation;
  material.blendSrc = look.blending === 'multiply' ? DstColorFactor : OneFactor;
  material.blendDst = look.blending === 'add' ? OneFactor : OneMinusSrcAlphaFactor;
  material.blendSrcAlpha = OneFactor;
  material.blendDstAlpha = OneMinusSrcAlphaFactor;
}

function objectFor(drawing: Drawing, built: PropMesh, material: Material): Drawn['object'] {
  const object =
    drawing === 'hairlines'
      ? new LineSegments(built.geometry, material)
      : drawing === 'sprites'
        ? new Points(built.geometry, material)
        : new Mesh(built.geometry, material);
  object.frustumCulled = false;
  return object;
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
  !props.some((prop) => prop.type === 'camera' && prop.blur > 0);

/** Photographs props into targets. Meshes, programs and tables live as long as their prop stays in the shot. */
export class ShotPainter {
  /** Meshes that were built or filled anew since the start: what stands still must not count. */
  built = 0;
  private readonly drawn = new Map<string, Drawn>();
  private readonly scene = new Scene();
  private readonly background = new Color();
  private readonly tone: Material;
  private readonly blur: Material;
  private readonly depth: Material;
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
    for (const name of ['lightColour', 'lightPlace', 'lightAim', 'lightMore'])
      this.shared[name] = { value: new Float32Array(4) };
  }

  /** Draws a shot. Gives false if a program is still being compiled, so that it has to be drawn again. */
  paint(job: ShotJob): boolean {
    const { gpu } = this;
    const { settings, target } = job;
    const bodies = job.props.filter((p): p is Drawable => p.type === 'body' || p.type === 'instances');
    const cameraProp = job.props.find((p): p is CameraProp => p.type === 'camera') ?? defaultCamera;
    const wiredLights = job.props.filter((p): p is LightProp => p.type === 'light');
    const lights = (wiredLights.length ? wiredLights : defaultLights).slice(0, mostLights);
    const forms = lightForms(lights);
    for (const [name, value] of Object.entries(lightUniforms(lights))) this.shared[name].value = value;

    for (const drawn of this.drawn.values()) drawn.object.visible = false;
    const shown: Drawn[] = [];
    let ready = true;
    bodies.forEach((prop, order) => {
      const drawn = this.bring(`${job.node} ${prop.node} ${order}`, prop, job, forms);
      if (!drawn) return;
      ready &&= drawn.coming === null;
      // What hides comes first, then the rest in the order it was wired.
      drawn.object.renderOrder = (drawn.look.solid ? 0 : 1000) + order;
      shown.push(drawn);
    });

    this.drawShadows(shown, lights, forms, settings.shadowSize);
    const camera = this.camera.place(cameraProp, target.width / target.height);
    this.look(camera, cameraProp, target.width, target.height);
    if (settings.gives === 'depth') this.drawDepth(shown, camera, settings, target);
    else this.drawPicture(shown, camera, cameraProp, job);
    this.forget(job.node);
    gpu.passes++;
    return ready;
  }

  private drawPicture(shown: readonly Drawn[], camera: Camera, prop: CameraProp, job: ShotJob): void {
    const { gpu } = this;
    const { settings, target, bits } = job;
    for (const drawn of this.drawn.values()) drawn.object.visible = false;
    // Where nothing hides anything, nobody has to ask what lies in front.
    const hides = shown.some(({ look }) => look.solid);
    for (const drawn of shown) {
      drawn.object.visible = true;
      drawn.object.material = drawn.picture;
      drawn.picture.depthTest = hides;
    }
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
    for (const drawn of this.drawn.values()) drawn.object.visible = false;
    for (const drawn of shown) {
      if (!counts(drawn)) continue;
      drawn.object.visible = true;
      drawn.object.material = drawn.distance ??= this.distanceMaterial(drawn);
    }
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
    const far = this.distances(
      shown,
      camera,
      target.width,
      target.height,
      ({ look }) => look.blending === 'over',
    );
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

  private formOf(prop: Drawable, shape: Shape, look: Look, before: PropForm | null): PropForm {
    const { lift } = look;
    return {
      drawing: drawingOf(shape, look),
      shading: look.shading,
      picture: look.picture !== null || shape.picture !== undefined,
      cutOut: look.cutOut !== null,
      lift: lift && { by: lift.by !== null, along: lift.along },
      widthBy: look.widthBy !== null,
      // Once there was fog it stays in the code, so that moving it to 0 and back compiles nothing.
      fog: look.fog.amount > 0 || before?.fog === true,
      colours: shape.colours !== undefined,
      solid: look.solid,
      levels: levelsOf(prop).map((level, k) => copyFormOf(level, before?.levels[k])),
    };
  }

  /** The mesh of a prop, made or brought up to date; null if there is nothing to draw. */
  private bring(key: string, prop: Drawable, job: ShotJob, forms: readonly LightForm[]): Drawn | null {
    const { shape, look } = bodyOf(prop);
    const levels = levelsOf(prop);
    const copies = allCopies(levels);
    let drawn = this.drawn.get(key) ?? null;
    const form = this.formOf(prop, shape, look, drawn?.form ?? null);
    const wanted = `${formKey(form)} ${look.blending} ${look.lines} ${look.shading === 'lit' ? lightKey(forms) : ''}`;
    if (shape.count === 0 || copies === 0) {
      if (drawn) drawn.seen = true;
      return null;
    }
    if (drawn && (drawn.form.drawing !== form.drawing || drawn.look.lines !== look.lines)) {
      this.free(key, drawn);
      drawn = null;
    }
    if (!drawn) drawn = this.make(key, shape, look, levels.length, copies, form, wanted, forms);
    this.renew(drawn, shape, look, copies, levels.length > 0);
    if (drawn.key !== wanted && drawn.coming?.key !== wanted) {
      drawn.coming?.material.dispose();
      for (let k = 0; k < levels.length; k++)
        for (const [name, uniform] of Object.entries(copyUniforms(this.gpu, k)))
          drawn.uniforms[name] ??= uniform;
      const material = this.material(form, look, drawn.uniforms, forms);
      drawn.coming = { material, key: wanted };
      drawn.form = form;
      this.begin(drawn, material);
    }
    drawn.seen = true;
    drawn.look = look;
    this.fill(drawn, look, shape, levels, job);
    return this.takeReady(drawn, job.waits) ? drawn : null;
  }

  private make(
    key: string,
    shape: Shape,
    look: Look,
    levels: number,
    copies: number,
    form: PropForm,
    wanted: string,
    forms: readonly LightForm[],
  ): Drawn {
    const uniforms = this.newUniforms();
    for (let k = 0; k < levels; k++) Object.assign(uniforms, copyUniforms(this.gpu, k));
    const picture = this.material(form, look, uniforms, forms);
    const built = buildMesh(shape, look, copies, levels > 0);
    this.built++;
    const object = objectFor(form.drawing, built, picture);
    this.scene.add(object);
    const drawn: Drawn = {
      object,
      built,
      copies,
      look,
      key: '',
      form,
      uniforms,
      picture,
      coming: { material: picture, key: wanted },
      distance: null,
      tables: levels > 0 ? new CopyTables(this.gpu) : null,
      seen: true,
    };
    this.drawn.set(key, drawn);
    this.begin(drawn, picture);
    return drawn;
  }

  /** Has the mesh hold the shape as it is now: filled anew where only its points moved, else built anew. */
  private renew(drawn: Drawn, shape: Shape, look: Look, copies: number, copied: boolean): void {
    if (drawn.built.shape === shape && drawn.copies === copies && copied === (drawn.tables !== null)) return;
    this.built++;
    if (sameBuild(drawn.built, shape) && drawn.copies === copies && copied === (drawn.tables !== null)) {
      fillMesh(drawn.built, shape);
      return;
    }
    drawn.built.geometry.dispose();
    drawn.built = buildMesh(shape, look, copies, copied);
    drawn.object.geometry = drawn.built.geometry;
    drawn.copies = copies;
    if (copied) drawn.tables ??= new CopyTables(this.gpu);
    else {
      drawn.tables?.dispose();
      drawn.tables = null;
    }
  }

  private begin(drawn: Drawn, material: Material): void {
    const before = drawn.object.material;
    drawn.object.material = material;
    try {
      this.gpu.beginCompileMesh(drawn.object);
    } finally {
      drawn.object.material = before;
    }
  }

  /** Puts a program that is done in its place; says whether there is one to draw with. */
  private takeReady(drawn: Drawn, waits: boolean): boolean {
    const { coming } = drawn;
    if (coming && (waits || this.gpu.compiled(coming.material))) {
      drawn.coming = null;
      this.gpu.checkProgram(coming.material);
      if (drawn.picture !== coming.material) drawn.picture.dispose();
      drawn.picture = coming.material;
      drawn.key = coming.key;
      drawn.distance?.dispose();
      drawn.distance = null;
    }
    return drawn.key !== '';
  }

  private fill(
    { uniforms, tables, built, copies }: Drawn,
    look: Look,
    shape: Shape,
    levels: readonly InstancesProp[],
    job: ShotJob,
  ): void {
    const { empty } = this.gpu;
    const map = (image: ImageRef | null): Texture => (image ? job.textureOf(image) : empty);
    const set = (name: string, value: unknown): void => {
      uniforms[name].value = value;
    };
    set('colour', look.colour);
    set(
      'picture',
      look.picture
        ? job.textureOf(look.picture)
        : shape.picture
          ? (job.fileTexture(shape.picture) ?? this.gpu.white)
          : empty,
    );
    set('cutOutMap', map(look.cutOut));
    set('liftMap', map(look.lift?.image ?? null));
    set('liftByMap', map(look.lift?.by ?? null));
    set('liftHow', [look.lift?.depth ?? 0, look.lift?.middle ?? 0]);
    set('widthMap', map(look.widthBy));
    set('surface', [look.diffuse, look.shine, look.gloss, look.ownLight]);
    set('widthPx', look.widthPx * job.pixelScale);
    set('leastPx', look.leastWidthPx * job.pixelScale);
    set('widthShrinks', look.widthShrinks);
    set('pointSize', look.pointSize);
    set('fog', [look.fog.near, look.fog.far, look.fog.amount]);
    set('fogColour', look.fog.colour);
    set('merged', built.merged);
    set('allCopies', copies);
    levels.forEach((level, k) => tables?.fill(uniforms, level, k, job.textureOf));
  }

  private newUniforms(): Record<string, IUniform> {
    const uniforms: Record<string, IUniform> = { ...this.shared };
    for (const name of ['colour', 'fogColour', 'surface', 'fog', 'liftHow'])
      uniforms[name] = { value: [0, 0, 0, 0] };
    for (const name of ['widthPx', 'leastPx', 'pointSize', 'merged', 'allCopies'])
      uniforms[name] = { value: 0 };
    uniforms.widthShrinks = { value: false };
    for (const name of ['picture', 'cutOutMap', 'liftMap', 'liftByMap', 'widthMap'])
      uniforms[name] = { value: this.gpu.empty };
    return uniforms;
  }

  private material(
    form: PropForm,
    look: Look,
    uniforms: Record<string, IUniform>,
    forms: readonly LightForm[],
  ): Material {
    const material = new RawShaderMaterial({
      vertexShader: propVertex(form),
      fragmentShader: propFragment(form, forms),
      glslVersion: '300 es',
      side: DoubleSide,
      transparent: true,
      depthTest: true,
      depthWrite: look.solid,
    });
    // The very same record, so that all programs of a mesh and all meshes of a shot share what they have in common.
    material.uniforms = uniforms;
    setBlending(material, look);
    return material;
  }

  private distanceMaterial({ form, uniforms }: Drawn): Material {
    const material = new RawShaderMaterial({
      vertexShader: propVertex(form, true),
      fragmentShader: distanceFragment(form),
      glslVersion: '300 es',
      side: DoubleSide,
      blending: NoBlending,
      depthTest: true,
      depthWrite: true,
    });
    material.uniforms = uniforms;
    return material;
  }

  /** Frees what a shot no longer shows. */
  private forget(shot: string): void {
    for (const [key, drawn] of this.drawn) {
      if (!key.startsWith(`${shot} `)) continue;
      if (drawn.seen) drawn.seen = false;
      else this.free(key, drawn);
    }
  }

  private free(key: string, drawn: Drawn): void {
    this.scene.remove(drawn.object);
    drawn.built.geometry.dispose();
    drawn.picture.dispose();
    drawn.coming?.material.dispose();
    drawn.distance?.dispose();
    drawn.tables?.dispose();
    this.drawn.delete(key);
  }

  dispose(): void {
    for (const [key, drawn] of [...this.drawn]) this.free(key, drawn);
    for (const material of [this.tone, this.blur, this.depth]) material.dispose();
    this.shadows.dispose();
  }
}
