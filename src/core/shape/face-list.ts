import { crossOf } from './measure';
import { emptyShape, type Shape } from './shape';

/** Collects flat faces with points of their own. */
export class FaceList {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly uvs: number[] = [];
  private readonly triangles: number[] = [];
  private readonly faceOf: number[] = [];
  private readonly rows: number[] = [];
  private faces = 0;

  /** A flat face of three or more corners, counter-clockwise from outside. `uv`: for each corner; else its own picture. */
  add(corners: readonly (readonly number[])[], uv?: readonly (readonly number[])[]): void {
    const first = this.positions.length / 3;
    const flat = corners.flat();
    const n = crossOf(flat, 0, 1, 2);
    const length = Math.hypot(...n) || 1;
    corners.forEach((corner, k) => {
      this.positions.push(corner[0], corner[1], corner[2]);
      this.normals.push(n[0] / length, n[1] / length, n[2] / length);
      const own = [k === 1 || k === 2 ? 1 : 0, k >= 2 ? 1 : 0];
      this.uvs.push(...(uv?.[k] ?? own));
      this.rows.push(first + k, first + ((k + 1) % corners.length));
    });
    for (let k = 1; k + 1 < corners.length; k++) {
      this.triangles.push(first, first + k, first + k + 1);
      this.faceOf.push(this.faces);
    }
    this.faces++;
  }

  shape(): Shape {
    return {
      ...emptyShape,
      count: this.positions.length / 3,
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      uvs: Float32Array.from(this.uvs),
      triangles: Uint32Array.from(this.triangles),
      faceOf: Uint32Array.from(this.faceOf),
      rows: Uint32Array.from(this.rows),
    };
  }
}
