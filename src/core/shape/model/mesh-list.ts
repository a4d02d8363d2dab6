import { normalsFrom } from '../measure';
import { emptyShape, type Shape } from '../shape';
import { checkTriangles, ModelError } from './model';

/** Collects the points and faces of a file, whatever of their attributes it has. */
export class MeshList {
  readonly positions: number[] = [];
  readonly normals: number[] = [];
  readonly uvs: number[] = [];
  readonly colours: number[] = [];
  private readonly triangles: number[] = [];
  private readonly faceOf: number[] = [];
  private readonly rows: number[] = [];
  private faces = 0;

  get count(): number {
    return this.positions.length / 3;
  }

  /** A flat face of three or more points. */
  face(points: readonly number[]): void {
    for (const point of points)
      if (!(point >= 0 && point < this.count))
        throw new ModelError(
          `A face names point ${point + 1}, but there are ${this.count}. The file is damaged.`,
        );
    for (let k = 1; k + 1 < points.length; k++) {
      this.triangles.push(points[0], points[k], points[k + 1]);
      this.faceOf.push(this.faces);
    }
    this.faces++;
    checkTriangles(this.faceOf.length);
  }

  line(points: readonly number[]): void {
    for (let k = 0; k + 1 < points.length; k++) this.rows.push(points[k], points[k + 1]);
  }

  /** The shape; attributes that do not come with every point count as absent. */
  shape(notes: string[]): Shape {
    const { count } = this;
    const positions = Float32Array.from(this.positions);
    let broken = 0;
    for (let k = 0; k < positions.length; k++) {
      if (Number.isFinite(positions[k])) continue;
      positions[k] = 0;
      broken++;
    }
    if (broken) notes.push(`${broken} places were no numbers and stand at 0.`);
    const triangles = Uint32Array.from(this.triangles);
    const whole = this.normals.length === 3 * count && this.normals.every(Number.isFinite);
    if (!whole && triangles.length) notes.push('It has no normals; they are worked out from its faces.');
    const shape: Shape = {
      ...emptyShape,
      count,
      positions,
      normals: whole ? unitNormals(this.normals) : normalsFrom(positions, triangles),
      uvs: this.uvs.length === 2 * count ? Float32Array.from(this.uvs) : new Float32Array(2 * count),
      triangles,
      faceOf: Uint32Array.from(this.faceOf),
      rows: Uint32Array.from(this.rows),
    };
    if (this.colours.length === 4 * count) shape.colours = Float32Array.from(this.colours);
    return shape;
  }
}

function unitNormals(values: readonly number[]): Float32Array {
  const normals = Float32Array.from(values);
  for (let i = 0; i < normals.length; i += 3) {
    const length = Math.hypot(normals[i], normals[i + 1], normals[i + 2]);
    if (length > 0) for (let k = 0; k < 3; k++) normals[i + k] /= length;
    else normals[i + 2] = 1;
  }
  return normals;
}
