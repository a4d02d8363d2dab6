import { OrthographicCamera, PerspectiveCamera, Vector3, type Camera } from 'three';
import type { CameraProp, Vec3 } from '../../core/kind/prop';

/** Points a camera at something from a place. Straight along "up" the top of the picture is away from the viewer. */
export function pointCamera(camera: Camera, place: Vec3, aim: Vec3, rollRad = 0): void {
  camera.position.set(place[0], place[1], place[2]);
  camera.up.set(0, 1, 0);
  const to = new Vector3(...aim);
  if (to.distanceToSquared(camera.position) < 1e-12) to.z -= 1;
  const along = to.clone().sub(camera.position).normalize();
  if (Math.abs(along.y) > 0.99999) camera.up.set(0, 0, Math.sign(along.y));
  camera.lookAt(to);
  camera.rotateZ(-rollRad);
  camera.updateMatrixWorld();
}

/** The cameras that shots are taken with, set up from what stands in the patch. */
export class ShotCamera {
  private readonly perspective = new PerspectiveCamera();
  private readonly straight = new OrthographicCamera();

  place(prop: CameraProp, aspect: number): Camera {
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
    pointCamera(camera, prop.place, prop.lookAt, prop.rollRad);
    return camera;
  }
}
