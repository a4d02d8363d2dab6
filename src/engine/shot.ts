import type { Camera } from 'three';
import {
  AddEquation,
  Color,
  CustomBlending,
  DoubleSide,
  DstColorFactor,
  Matrix4,
  Mesh,
  OneFactor,
  OneMinusSrcAlphaFactor,
  OrthographicCamera,
  PerspectiveCamera,
  RawShaderMaterial,
  Scene,
  Vector3,
  type IUniform,
  type Texture,
  type WebGLRenderTarget,
} from 'three';
import type { ImageRef } from '../core/image-ref';
import {
  defaultCamera,
  defaultLights,
  type BodyProp,
  type CameraProp,
  type InstancesProp,
  type LightProp,
  type Look,
  type Prop,
  type ShotSettings,
} from '../core/prop';
import type { Shape } from '../core/shape/shape';
import { CopyTables, copyUniforms } from './copies';
import type { Bits, Gpu } from './gpu';
import { buildMesh, type PropMesh } from './prop-mesh';
import { mostLights, propFragment, propVertex, toneFragment } from './prop-shader';

export interface ShotJob {
  node: string;
  target: WebGLRenderTarget;
  bits: Bits;
  settings: ShotSettings;
  props: readonly Prop[];
  /** Drawn pixels for each pixel of the show's canvas. */
  pixelScale: number;
  textureOf(image: ImageRef): Texture;
}

/** One body or group of copies on the card. */
interface Drawn {
  mesh: Mesh<PropMesh['geometry'], RawShaderMaterial>;
  built: PropMesh;
  shape: Shape;
  copies: number;
  lookKey: string;
  tables: CopyTables | null;
  seen: boolean;
}

const lightForms = { sun: 0, point: 1, ambient: 2 } as const;
const lookKey = (look: Look, copied: boolean): string =>
  [look.draw, look.lines, look.shading, look.blending, look.solid, copied].join(' ');

function setBlending(material: RawShaderMaterial, look: Look): void {
  material.blending = CustomBlending;
  material.blendEquation = AddEquation;
  material.blendSrc = look.blending === 'multiply' ? DstColorFactor : OneFactor;
  material.blendDst = look.blending === 'add' ? OneFactor : OneMinusSrcAlphaFactor;
  material.blendSrcAlpha = OneFactor;
  material.blendDstAlpha = OneMinusSrcAlphaFactor;
}

/** Photographs props into targets. Meshes, materials and tables live as long as their prop stays in the shot. */
export class ShotPainter {
  private readonly drawn = new Map<string, Drawn>();
  private readonly scene = new Scene();
  private readonly perspective = new PerspectiveCamera();
  private readonly straight = new OrthographicCamera();
  private readonly background = new Color();
  private readonly tone: RawShaderMaterial;

  constructor(private readonly gpu: Gpu) {
    this.tone = gpu.material(toneFragment, {
      picture: { value: null },
      exposure: { value: 1 },
      soft: { value: true },
    });
  }

  paint(job: ShotJob): void {
    const { gpu } = this;
    const { settings, target } = job;
    const bodies = job.props.filter(
      (p): p is BodyProp | InstancesProp => p.type === 'body' || p.type === 'instances',
    );
    const cameraProp = job.props.find((p): p is CameraProp => p.type === 'camera') ?? defaultCamera;
    const wiredLights = job.props.filter((p): p is LightProp => p.type === 'light');
    const lights = (wiredLights.length ? wiredLights : defaultLights).slice(0, mostLights);
    const camera = this.camera(cameraProp, target.width / target.height);
    const shared = this.shared(camera, cameraProp, lights, target, job.pixelScale);

    for (const drawn of this.drawn.values()) drawn.mesh.visible = false;
    bodies.forEach((prop, order) => {
      const drawn = this.bring(`${job.node} ${prop.node} ${order}`, prop, job);
      if (!drawn) return;
      drawn.mesh.visible = true;
      // What hides comes first, then the rest in the order it was wired.
      const look = prop.type === 'body' ? prop.look : prop.body.look;
      drawn.mesh.renderOrder = (look.solid ? 0 : 1000) + order;
      const { uniforms } = drawn.mesh.material;
      for (const [name, value] of Object.entries(shared)) uniforms[name].value = value;
    });

    const toned = settings.tone === 'soft' || settings.exposure !== 1;
    const into = gpu.acquire(target.width, target.height, job.bits, true, settings.samples);
    const [r, g, b, a] = settings.background;
    gpu.renderer.setRenderTarget(into);
    gpu.renderer.setClearColor(this.background.setRGB(r, g, b), a);
    gpu.renderer.clear(true, true, false);
    gpu.passes++;
    gpu.renderer.render(this.scene, camera);
    if (toned) {
      this.tone.uniforms.picture.value = into.texture;
      this.tone.uniforms.exposure.value = settings.exposure;
      this.tone.uniforms.soft.value = settings.tone === 'soft';
      gpu.pass(this.tone, target);
    } else gpu.copy(into.texture, target);
    gpu.release(into);
    this.forget(job.node);
  }

  private camera(prop: CameraProp, aspect: number): Camera {
    const camera = prop.projection === 'perspective' ? this.perspective : this.straight;
    if (camera instanceof PerspectiveCamera) {
      camera.fov = (prop.fieldOfViewRad * 180) / Math.PI;
      camera.aspect = aspect;
    } else {
      camera.top = prop.viewHeight / 2;
      camera.bottom = -prop.viewHeight / 2;
      camera.right = (prop.viewHeight * aspect) / 2;
      camera.left = -camera.right;
    }
    camera.near = prop.projection === 'perspective' ? Math.max(1e-4, prop.near) : prop.near;
    camera.far = prop.far;
    camera.updateProjectionMatrix();
    camera.position.set(prop.place[0], prop.place[1], prop.place[2]);
    camera.up.set(0, 1, 0);
    const aim = new Vector3(...prop.lookAt);
    if (aim.distanceToSquared(camera.position) < 1e-12) aim.z -= 1;
    // Looking straight along "up", the top of the picture is away from the viewer.
    const along = aim.clone().sub(camera.position).normalize();
    if (Math.abs(along.y) > 0.99999) camera.up.set(0, 0, Math.sign(along.y));
    camera.lookAt(aim);
    camera.rotateZ(-prop.rollRad);
    camera.updateMatrixWorld();
    return camera;
  }

  private shared(
    camera: Camera,
    prop: CameraProp,
    lights: readonly LightProp[],
    target: WebGLRenderTarget,
    pixelScale: number,
  ): Record<string, unknown> {
    const colours = new Float32Array(4 * mostLights);
    const places = new Float32Array(4 * mostLights);
    const forms = new Int32Array(mostLights);
    lights.forEach((light, k) => {
      colours.set([light.colour[0], light.colour[1], light.colour[2], light.strength], 4 * k);
      places.set([...light.place, light.reach], 4 * k);
      forms[k] = lightForms[light.shape];
    });
    const toEye = new Vector3(0, 0, 1).transformDirection(camera.matrixWorld);
    return {
      view: new Matrix4().copy(camera.matrixWorldInverse),
      projection: new Matrix4().copy(camera.projectionMatrix),
      eye: [...prop.place],
      toEye: toEye.toArray(),
      straightOn: prop.projection === 'straight',
      viewportPx: [target.width / 2, target.height / 2],
      lights: lights.length,
      lightColour: colours,
      lightPlace: places,
      lightForm: forms,
      pixelScale,
    };
  }

  /** The mesh of a prop, made or brought up to date; null if it cannot be drawn. */
  private bring(key: string, prop: BodyProp | InstancesProp, job: ShotJob): Drawn | null {
    const copied = prop.type === 'instances';
    const { shape, look } = copied ? prop.body : prop;
    const copies = copied ? prop.count : 1;
    const wantedLook = lookKey(look, copied);
    let drawn = this.drawn.get(key);
    if (!drawn || drawn.lookKey !== wantedLook || drawn.shape !== shape || drawn.copies !== copies) {
      const built = buildMesh(shape, look, copies);
      if (drawn && drawn.lookKey === wantedLook) {
        drawn.mesh.geometry.dispose();
        drawn.mesh.geometry = built.geometry;
        Object.assign(drawn, { built, shape, copies });
      } else {
        if (drawn) this.free(key, drawn);
        const material = this.material(look, copied);
        const mesh = new Mesh(built.geometry, material);
        mesh.frustumCulled = false;
        this.scene.add(mesh);
        drawn = {
          mesh,
          built,
          shape,
          copies,
          lookKey: wantedLook,
          tables: copied ? new CopyTables(this.gpu) : null,
          seen: true,
        };
        this.drawn.set(key, drawn);
      }
    }
    drawn.seen = true;
    const { uniforms } = drawn.mesh.material;
    uniforms.colour.value = look.colour;
    uniforms.hasPicture.value = look.picture !== null;
    uniforms.picture.value = look.picture ? job.textureOf(look.picture) : this.gpu.empty;
    uniforms.widthPx.value = look.widthPx * job.pixelScale;
    uniforms.leastPx.value = look.leastWidthPx * job.pixelScale;
    uniforms.widthShrinks.value = look.widthShrinks;
    uniforms.pointSize.value = look.pointSize;
    uniforms.fog.value = [look.fog.near, look.fog.far, look.fog.amount];
    uniforms.fogColour.value = look.fog.colour;
    if (copied && drawn.tables) {
      uniforms.merged.value = drawn.built.merged;
      uniforms.vertices.value = drawn.built.vertices;
      drawn.tables.fill(uniforms, prop, job.textureOf);
    }
    return drawn.built.vertices > 0 ? drawn : null;
  }

  private material(look: Look, copied: boolean): RawShaderMaterial {
    const uniforms: Record<string, IUniform> = { ...(copied ? copyUniforms(this.gpu) : {}) };
    for (const name of ['view', 'projection']) uniforms[name] = { value: new Matrix4() };
    for (const name of ['eye', 'toEye', 'fog']) uniforms[name] = { value: [0, 0, 0] };
    for (const name of ['colour', 'fogColour']) uniforms[name] = { value: [0, 0, 0, 0] };
    for (const name of ['widthPx', 'leastPx', 'pointSize', 'lights', 'pixelScale'])
      uniforms[name] = { value: 0 };
    for (const name of ['straightOn', 'hasPicture', 'widthShrinks']) uniforms[name] = { value: false };
    uniforms.viewportPx = { value: [1, 1] };
    uniforms.picture = { value: this.gpu.empty };
    uniforms.lightColour = { value: new Float32Array(4 * mostLights) };
    uniforms.lightPlace = { value: new Float32Array(4 * mostLights) };
    uniforms.lightForm = { value: new Int32Array(mostLights) };
    const material = new RawShaderMaterial({
      vertexShader: propVertex(look, copied),
      fragmentShader: propFragment(look),
      glslVersion: '300 es',
      uniforms,
      side: DoubleSide,
      transparent: true,
      depthTest: true,
      depthWrite: look.solid,
    });
    setBlending(material, look);
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
    this.scene.remove(drawn.mesh);
    drawn.mesh.geometry.dispose();
    drawn.mesh.material.dispose();
    drawn.tables?.dispose();
    this.drawn.delete(key);
  }

  dispose(): void {
    for (const [key, drawn] of [...this.drawn]) this.free(key, drawn);
    this.tone.dispose();
  }
}
