import {
  Color,
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  type Camera,
  type IUniform,
  type WebGLRenderTarget,
} from 'three';
import type { LightProp, Vec3 } from '../../core/kind/prop';
import type { Gpu } from '../gpu/gpu';
import { mostShadows, type LightForm } from './light-glsl';
import { pointCamera } from './shot-camera';

/** How wide the look of a lamp that shines to all sides is in its shadow map: what lies beyond is in light. */
const lampAngle = 110;
/** How far a place is moved along its normal before it is asked for, in widths of a pixel of the map. */
const biasPixels = 1.5;

/** The shadow maps of a shot: one picture in four parts, drawn from where the lights stand. */
export class Shadows {
  readonly uniforms: Record<string, IUniform> = {
    shadowMap: { value: null },
    shadowView: { value: Array.from({ length: mostShadows }, () => new Matrix4()) },
    /** Lower left of the part, radius of the soft disc (both in the map), bias in scene units. */
    shadowHow: { value: new Float32Array(4 * mostShadows) },
    /** Which part belongs to which light. */
    shadowSlot: { value: new Int32Array(8) },
  };
  private target: WebGLRenderTarget | null = null;
  private readonly sun = new OrthographicCamera();
  private readonly lamp = new PerspectiveCamera();
  private readonly far = new Color().setRGB(1, 1e4, 0);

  constructor(private readonly gpu: Gpu) {
    this.uniforms.shadowMap.value = gpu.empty;
  }

  /** Draws the map of every light that casts; `render` draws what stands in its way as a camera sees it. */
  draw(
    lights: readonly LightProp[],
    forms: readonly LightForm[],
    size: number,
    render: (camera: Camera, place: Vec3) => void,
  ): void {
    const casting = forms.flatMap(({ shadow }, k) => (shadow ? [k] : []));
    if (casting.length === 0) return;
    const { gpu } = this;
    if (this.target?.width !== 2 * size) {
      if (this.target) gpu.release(this.target);
      this.target = gpu.acquire(2 * size, 2 * size, '32', true, 0);
    }
    const { target } = this;
    gpu.renderer.setRenderTarget(target);
    gpu.renderer.setClearColor(this.far, 1);
    gpu.renderer.clear(true, true, false);
    casting.forEach((light, slot) => {
      const [x, y] = [(slot % 2) * size, Math.floor(slot / 2) * size];
      target.viewport.set(x, y, size, size);
      target.scissor.set(x, y, size, size);
      target.scissorTest = true;
      gpu.renderer.setRenderTarget(target);
      const { camera, texel } = this.cameraOf(lights[light], size);
      (this.uniforms.shadowView.value as Matrix4[])[slot].multiplyMatrices(
        camera.projectionMatrix,
        camera.matrixWorldInverse,
      );
      const how = this.uniforms.shadowHow.value as Float32Array;
      how.set(
        [x / (2 * size), y / (2 * size), 0.0015 + lights[light].soft * 0.045, texel * biasPixels],
        4 * slot,
      );
      (this.uniforms.shadowSlot.value as Int32Array)[light] = slot;
      render(camera, lights[light].place);
    });
    target.viewport.set(0, 0, 2 * size, 2 * size);
    target.scissorTest = false;
    this.uniforms.shadowMap.value = target.texture;
  }

  private cameraOf(light: LightProp, size: number): { camera: Camera; texel: number } {
    if (light.shape === 'sun') {
      const half = light.shadowWidth / 2;
      const { sun } = this;
      // It stands so far out that nothing that throws a shadow into its room is behind it.
      const way = light.place.map((v, k) => v - light.aim[k]);
      const long = Math.hypot(...way) || 1;
      const place = way.map((v, k) => light.aim[k] + (v / long) * light.shadowWidth) as unknown as Vec3;
      Object.assign(sun, {
        left: -half,
        right: half,
        top: half,
        bottom: -half,
        near: 0,
        far: light.shadowWidth * 2,
      });
      sun.updateProjectionMatrix();
      pointCamera(sun, place, light.aim);
      return { camera: sun, texel: light.shadowWidth / size };
    }
    const { lamp } = this;
    const opening = light.shape === 'spot' ? Math.min(160, (light.angleRad * 180) / Math.PI + 2) : lampAngle;
    const far = Math.hypot(...light.place.map((v, k) => v - light.aim[k])) || 1;
    Object.assign(lamp, {
      fov: opening,
      aspect: 1,
      near: Math.min(0.05, far / 10),
      far: Math.max(8, far * 4),
    });
    lamp.updateProjectionMatrix();
    pointCamera(lamp, light.place, light.aim);
    return { camera: lamp, texel: (2 * far * Math.tan((opening * Math.PI) / 360)) / size };
  }

  dispose(): void {
    if (this.target) this.gpu.release(this.target);
  }
}
