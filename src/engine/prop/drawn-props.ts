import {
  AddEquation,
  CustomBlending,
  DoubleSide,
  DstColorFactor,
  LineSegments,
  Mesh,
  NoBlending,
  OneFactor,
  OneMinusSrcAlphaFactor,
  Points,
  RawShaderMaterial,
  type IUniform,
  type Scene,
  type Texture,
} from 'three';
import type { ImageRef } from '../../core/kind/image-ref';
import { bodyOf, levelsOf, type BodyProp, type InstancesProp, type Look } from '../../core/kind/prop';
import type { Shape } from '../../core/shape/shape';
import { allCopies, copyFormOf, CopyTables, copyUniforms } from './copies';
import type { Gpu } from '../gpu/gpu';
import { lightKey, type LightForm } from './light-glsl';
import { ModelPictures, type FilePicture } from './model-pictures';
import { buildMesh, drawingOf, fillMesh, sameBuild, type PropMesh } from './prop-mesh';
import {
  distanceFragment,
  formKey,
  isOpaque,
  isTinted,
  propFragment,
  propVertex,
  type Drawing,
  type PropForm,
} from './prop-shader';

/** What bringing a prop up to date needs to know of its shot. */
export interface PropJob {
  /** Drawn pixels for each pixel of the show's canvas. */
  pixelScale: number;
  /** Programs are waited for: each frame is exact. */
  waits: boolean;
  textureOf(image: ImageRef): Texture;
  /** A picture that came with a model. */
  filePicture(id: string): FilePicture;
}

export type Drawable = BodyProp | InstancesProp;
type Material = RawShaderMaterial;

/** One body or group of copies on the GPU. */
export interface Drawn {
  object: Mesh | LineSegments | Points;
  built: PropMesh;
  copies: number;
  look: Look;
  /** What its shader was made for: the form of the prop, and that of the lights. */
  key: string;
  form: PropForm;
  uniforms: Record<string, IUniform>;
  picture: Material;
  /** A shader that is being compiled and will take the place of `picture`. */
  coming: { material: Material; key: string } | null;
  distance: Material | null;
  tables: CopyTables | null;
  pictures: ModelPictures | null;
  seen: boolean;
}

/** A colour with the tints that are the same for all copies of each level. */
const tintedBy = (colour: Look['colour'], levels: readonly InstancesProp[]): number[] =>
  colour.map((v, k) => levels.reduce((product, { tint }) => product * (tint[k][0] ?? 1), v));

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

/** The meshes of props on the GPU, with their shaders and tables: made, brought up to date, freed. */
export class DrawnProps {
  /** Meshes that were built or refilled since the start: what stands still must not count. */
  built = 0;
  /** Props whose shader was not there when they were last wanted. */
  private readonly waiting = new Set<string>();
  private readonly drawn = new Map<string, Drawn>();

  constructor(
    private readonly gpu: Gpu,
    private readonly scene: Scene,
    /** Uniforms that are the same for everything in a shot. */
    private readonly shared: Record<string, IUniform>,
  ) {}

  /** Shows these and nothing else, each with the shader that is asked for. */
  showOnly(shown: readonly Drawn[], shader: (drawn: Drawn) => Material): void {
    for (const drawn of this.drawn.values()) drawn.object.visible = false;
    for (const drawn of shown) {
      drawn.object.visible = true;
      drawn.object.material = shader(drawn);
    }
  }

  private formOf(prop: Drawable, shape: Shape, look: Look, before: PropForm | null): PropForm {
    const { lift } = look;
    return {
      drawing: drawingOf(shape, look),
      shading: look.shading,
      picture: look.picture ? 'wired' : shape.pictures ? 'of the shape' : null,
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
  bring(key: string, prop: Drawable, job: PropJob, forms: readonly LightForm[]): Drawn | null {
    const { shape, look } = bodyOf(prop);
    const levels = levelsOf(prop);
    const copies = allCopies(levels);
    let drawn = this.drawn.get(key) ?? null;
    const form = this.formOf(prop, shape, look, drawn?.form ?? null);
    const wanted = `${formKey(form)} ${look.blending} ${look.lines} ${look.shading === 'lit' ? lightKey(forms) : ''}`;
    if (shape.count === 0 || copies === 0) {
      if (drawn) drawn.seen = true;
      // What has nothing to draw needs no other frame, whatever its shader does.
      this.waiting.delete(key);
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
    const isReady = this.takeReady(drawn, job.waits);
    if (drawn.coming) this.waiting.add(key);
    else this.waiting.delete(key);
    return isReady ? drawn : null;
  }

  /** Whether the shader of a prop is still being compiled. */
  isComing(key: string): boolean {
    return this.waiting.has(key);
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
      pictures: null,
      seen: true,
    };
    this.drawn.set(key, drawn);
    this.begin(drawn, picture);
    return drawn;
  }

  /** Has the mesh hold the shape as it is now: refilled where only its points moved, else rebuilt. */
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

  /** Puts a shader that is done in its place; says whether there is one to draw with. */
  private takeReady(drawn: Drawn, waits: boolean): boolean {
    const { coming } = drawn;
    if (coming && (waits || this.gpu.compiled(coming.material))) {
      drawn.coming = null;
      this.gpu.checkShader(coming.material);
      if (drawn.picture !== coming.material) drawn.picture.dispose();
      drawn.picture = coming.material;
      drawn.key = coming.key;
      drawn.distance?.dispose();
      drawn.distance = null;
    }
    return drawn.key !== '';
  }

  private fill(drawn: Drawn, look: Look, shape: Shape, levels: readonly InstancesProp[], job: PropJob): void {
    const { uniforms, tables, built, copies, form } = drawn;
    const { empty } = this.gpu;
    const map = (image: ImageRef | null): Texture => (image ? job.textureOf(image) : empty);
    const set = (name: string, value: unknown): void => {
      uniforms[name].value = value;
    };
    const colour = isTinted(form) ? [...look.colour] : tintedBy(look.colour, levels);
    // Where no light falls, own light is a brighter colour.
    if (form.shading !== 'lit') for (let k = 0; k < 3; k++) colour[k] *= 1 + look.ownLight;
    // A line that cannot be thinner than a pixel is fainter instead.
    if (form.drawing === 'hairlines' && !form.widthBy)
      colour[3] *= Math.min(1, Math.max(look.widthPx, look.leastWidthPx) * job.pixelScale);
    set('colour', colour);
    const covers = look.blending === 'over' && colour[3] >= 1 && isOpaque(form);
    drawn.picture.blending = covers ? NoBlending : CustomBlending;
    set('picture', map(look.picture));
    if (form.picture === 'of the shape') {
      drawn.pictures ??= new ModelPictures(this.gpu);
      set('pictures', drawn.pictures.texture((shape.pictures ?? []).map((id) => job.filePicture(id))));
    }
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
    uniforms.pictures = { value: null };
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
    // The very same record, so that all shaders of a mesh and all meshes of a shot share what they have in common.
    material.uniforms = uniforms;
    setBlending(material, look);
    return material;
  }

  /** The shader that draws a mesh as distances. */
  distanceOf(drawn: Drawn): Material {
    return (drawn.distance ??= this.distanceMaterial(drawn));
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
  forget(shot: string): void {
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
    drawn.pictures?.dispose();
    this.drawn.delete(key);
    this.waiting.delete(key);
  }

  dispose(): void {
    for (const [key, drawn] of [...this.drawn]) this.free(key, drawn);
  }
}
