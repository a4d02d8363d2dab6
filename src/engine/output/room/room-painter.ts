import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  DynamicDrawUsage,
  Mesh,
  PerspectiveCamera,
  Points,
  Scene,
  type IUniform,
  type Object3D,
  type RawShaderMaterial,
  type Texture,
  type WebGLRenderTarget,
} from 'three';
import type { PixelString, Wall } from '../../../core/document/types';
import { joinShapes } from '../../../core/shape/shape';
import { hasWindow, windowSizeOf, type WindowOutput } from '../../../core/wall/outputs';
import { nodeOf } from '../../../core/wall/pixels/datagrams';
import type { PixelReceiver } from '../../../core/wall/pixels/receive';
import { pixelCount } from '../../../core/wall/pixels/pixels';
import { roomFieldOfView, stringInRoom, type RoomView } from '../../../core/wall/room';
import { roomMesh, type RoomMesh } from '../../../core/wall/room-mesh';
import type { Gpu } from '../../gpu/gpu';
import type { MediaLibrary } from '../../media/library';
import {
  floorFragment,
  floorVertex,
  lampFragment,
  lampVertex,
  meanFragment,
  mostLights,
  solidFragment,
  solidVertex,
  surfaceFragment,
  surfaceVertex,
} from './room-shaders';

interface Size {
  width: number;
  height: number;
}

/** Longest side of the picture of a screen in the room, and of a raster, which has to stay readable pixel by pixel. */
const mostPixels = { screen: 640, led: 2048 };
/** Metres from the middle to the edge of the floor. */
const floorReach = 60;
const background = 0x040506;

/** An output as it hangs in the room. */
interface Hung {
  output: WindowOutput;
  surface: Pick<RoomMesh, 'middle' | 'facing' | 'area'>;
  target: WebGLRenderTarget;
  isNew: boolean;
  objects: Mesh[];
}

/** A string as it hangs in the room. */
interface Lamps {
  string: PixelString;
  light: BufferAttribute;
  objects: Points[];
}

/** What a material draws is added to what is there, and hides nothing. */
function addLight(material: RawShaderMaterial): void {
  material.depthWrite = false;
  material.blending = AdditiveBlending;
  material.premultipliedAlpha = true;
}

/** Draws what a window shows into a target; `isNew`: nothing was drawn there before. */
export type DrawOutput = (
  output: WindowOutput,
  into: Size,
  target: WebGLRenderTarget,
  isNew: boolean,
) => void;

/** Draws the room: every output on its surface, with what its window shows or what arrived over the network. */
export class RoomPainter {
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(roomFieldOfView, 1, 0.05, 200);
  private readonly lit = {
    lights: { value: 0 },
    lightAt: { value: new Float32Array(3 * mostLights) },
    lightFacing: { value: new Float32Array(3 * mostLights) },
    lightArea: { value: new Float32Array(mostLights) },
    lightColours: { value: null as Texture | null },
    eye: { value: [0, 0, 0] as readonly number[] },
  };
  private readonly meanUniforms = { picture: { value: null as Texture | null } };
  private readonly mean: RawShaderMaterial;
  private readonly scale = { value: 1 };
  private colours: WebGLRenderTarget | null = null;
  private hung: Hung[] = [];
  private lamps: Lamps[] = [];
  private laid: { wall: Wall; canvas: Size } | null = null;
  private venue: { file: string; mesh: Mesh } | null = null;
  private shownVersion = -1;

  constructor(
    private readonly gpu: Gpu,
    private readonly media: MediaLibrary,
    private readonly receiver: PixelReceiver,
  ) {
    this.mean = gpu.material(meanFragment, this.meanUniforms);
    const floor = new BufferGeometry();
    const r = floorReach;
    floor.setAttribute(
      'position',
      new BufferAttribute(new Float32Array([-r, 0, -r, r, 0, -r, -r, 0, r, r, 0, r]), 3),
    );
    floor.setIndex([0, 2, 1, 1, 2, 3]);
    this.add(new Mesh(floor, this.solid(floorVertex, floorFragment, this.lit)), 0);
  }

  /** Changes whenever something arrived that the room shows. */
  get version(): string {
    return `${this.receiver.version} ${this.media.version}`;
  }

  private solid(vertex: string, fragment: string, uniforms: Record<string, IUniform>): RawShaderMaterial {
    const material = this.gpu.material(fragment, uniforms, vertex);
    material.side = DoubleSide;
    material.depthTest = material.depthWrite = true;
    return material;
  }

  private add<T extends Object3D>(object: T, order: number): T {
    object.renderOrder = order;
    object.frustumCulled = false;
    this.scene.add(object);
    return object;
  }

  draw(wall: Wall, canvas: Size, { eye, target: at }: RoomView, into: Size, drawOutput: DrawOutput): void {
    const { gpu, camera } = this;
    if (this.laid?.wall !== wall || this.laid.canvas !== canvas) this.hang(wall, canvas);
    this.bringVenue(wall.venue);
    for (const hung of this.hung) {
      drawOutput(hung.output, hung.target, hung.target, hung.isNew);
      hung.isNew = false;
    }
    this.gatherLight();
    this.lightLamps();
    camera.aspect = into.width / into.height;
    camera.position.set(...(eye as [number, number, number]));
    camera.lookAt(...(at as [number, number, number]));
    camera.updateProjectionMatrix();
    this.lit.eye.value = eye;
    this.scale.value = into.height / (2 * Math.tan((roomFieldOfView * Math.PI) / 360));
    const target = gpu.acquire(into.width, into.height, '8', true, 4);
    // A target that was never drawn into has the viewport of its size, not that of the canvas.
    gpu.renderer.setRenderTarget(target);
    gpu.renderer.setClearColor(background, 1);
    gpu.renderer.clear(true, true, false);
    gpu.renderer.render(this.scene, camera);
    gpu.passes++;
    gpu.renderer.setRenderTarget(null);
    gpu.copy(target.texture, null);
    gpu.release(target);
  }

  /** Hangs all outputs anew. */
  private hang(wall: Wall, canvas: Size): void {
    for (const { target, objects } of this.hung) {
      this.gpu.release(target);
      this.drop(objects);
    }
    for (const { objects } of this.lamps) this.drop(objects);
    this.hung = wall.outputs.filter(hasWindow).map((output) => this.hangOutput(output, canvas));
    this.lamps = wall.outputs
      .filter((output) => output.type === 'string')
      .map((string) => this.hangString(string, canvas));
    this.laid = { wall, canvas };
    this.shownVersion = -1;
    const lights = this.hung.slice(0, mostLights);
    this.lit.lights.value = lights.length;
    lights.forEach(({ surface: { middle, facing, area } }, k) => {
      this.lit.lightAt.value.set(middle, 3 * k);
      this.lit.lightFacing.value.set(facing, 3 * k);
      this.lit.lightArea.value[k] = area;
    });
  }

  private drop(objects: readonly (Mesh | Points)[]): void {
    objects.forEach((object) => {
      this.scene.remove(object);
      object.geometry.dispose();
      (object.material as RawShaderMaterial).dispose();
    });
  }

  private hangOutput(output: WindowOutput, canvas: Size): Hung {
    const [width, height] = windowSizeOf(output);
    const scale = Math.min(1, mostPixels[output.type] / Math.max(width, height));
    const target = this.gpu.acquire(
      Math.max(1, Math.round(width * scale)),
      Math.max(1, Math.round(height * scale)),
      '8',
    );
    const { places, pictures, indices, ...surface } = roomMesh(output, canvas);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(places, 3));
    geometry.setAttribute('uv', new BufferAttribute(pictures, 2));
    geometry.setIndex(new BufferAttribute(indices, 1));
    const pixels = output.type === 'led' ? [output.raster.width, output.raster.height] : [0, 0];
    const make = (mirrored: number): Mesh => {
      const material = this.solid(surfaceVertex, surfaceFragment, {
        picture: { value: target.texture },
        pixels: { value: pixels },
        mirrored: { value: mirrored },
      });
      if (mirrored) {
        material.depthTest = false;
        addLight(material);
      }
      return this.add(new Mesh(geometry, material), mirrored ? 1 : 3);
    };
    return { output, surface, target, isNew: true, objects: [make(1), make(0)] };
  }

  private hangString(string: PixelString, canvas: Size): Lamps {
    const geometry = new BufferGeometry();
    const light = new BufferAttribute(new Float32Array(3 * pixelCount(string)), 3).setUsage(DynamicDrawUsage);
    geometry.setAttribute('position', new BufferAttribute(stringInRoom(string, canvas), 3));
    geometry.setAttribute('light', light);
    const make = (mirrored: number): Points => {
      const material = this.solid(lampVertex, lampFragment, {
        mirrored: { value: mirrored },
        scale: this.scale,
      });
      material.depthTest = mirrored === 0;
      addLight(material);
      return this.add(new Points(geometry, material), mirrored ? 1 : 4);
    };
    return { string, light, objects: [make(1), make(0)] };
  }

  /** The model of the venue, as soon as it is there; one that can't be read leaves the room empty. */
  private bringVenue(file: string | null): void {
    if (this.venue && this.venue.file !== file) {
      this.drop([this.venue.mesh]);
      this.venue = null;
    }
    if (!file || this.venue) return;
    let shape;
    try {
      const model = this.media.model(file);
      if (!model) return;
      shape = joinShapes(model.parts.map((part) => part.shape));
    } catch {
      return;
    }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(shape.positions, 3));
    geometry.setAttribute('normal', new BufferAttribute(shape.normals, 3));
    geometry.setIndex(new BufferAttribute(shape.triangles, 1));
    const mesh = this.add(new Mesh(geometry, this.solid(solidVertex, solidFragment, this.lit)), 2);
    this.venue = { file, mesh };
  }

  /** How much light each surface gives: the mean of its picture, a pixel for each. */
  private gatherLight(): void {
    const { gpu } = this;
    this.colours ??= gpu.acquire(mostLights, 1, '32');
    this.lit.lightColours.value = this.colours.texture;
    this.hung.slice(0, mostLights).forEach(({ target }, k) => {
      this.meanUniforms.picture.value = target.texture;
      this.colours!.viewport.set(k, 0, 1, 1);
      gpu.pass(this.mean, this.colours);
    });
  }

  /** Brings what arrived over the network to the lamps. */
  private lightLamps(): void {
    if (this.shownVersion === this.receiver.version) return;
    this.shownVersion = this.receiver.version;
    for (const { string, light } of this.lamps) {
      this.receiver.light(nodeOf(string), string, light.array as Float32Array);
      light.needsUpdate = true;
    }
  }
}
