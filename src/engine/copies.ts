import type { DataTexture, IUniform, Texture } from 'three';
import type { InstancesProp } from '../core/prop';
import type { Shape } from '../core/shape/shape';
import type { ImageRef } from '../core/image-ref';
import type { Spread } from '../core/show/types';
import type { Gpu } from './gpu';
import { revisionOf } from '../core/run/revision';

const spreadIndex: Record<Spread, number> = { stretch: 0, repeat: 1, mirror: 2, hold: 3 };
const facingIndex = { none: 0, camera: 1, normal: 2 } as const;
const modeIndex = { places: 1, tints: 2, rows: 3 } as const;

/** Widest a table of per-copy numbers is laid out; every card can do this. */
const tableWidth = 1024;

interface Table {
  texture: DataTexture;
  /** What it was filled from; the same arrays are not sent again. */
  from: readonly unknown[];
}

/** Per-copy numbers on the card: tables of 32-bit floats that the vertex shader reads, sent only when they changed. */
export class CopyTables {
  private readonly tables = new Map<string, Table>();

  constructor(private readonly gpu: Gpu) {}

  private table(
    name: string,
    count: number,
    from: readonly unknown[],
    fill: (into: Float32Array) => void,
  ): Texture {
    const old = this.tables.get(name);
    const width = Math.min(tableWidth, Math.max(1, count));
    const height = Math.max(1, Math.ceil(count / width));
    const image = old?.texture.image as { data: Float32Array; width: number; height: number } | undefined;
    const fits = image !== undefined && image.width === width && image.height === height;
    if (old && fits && old.from.length === from.length && old.from.every((v, k) => v === from[k]))
      return old.texture;
    if (old && fits) {
      fill(image.data);
      old.texture.needsUpdate = true;
      old.from = from;
      return old.texture;
    }
    old?.texture.dispose();
    const data = new Float32Array(width * height * 4);
    fill(data);
    const texture = this.gpu.dataTexture(data, width, height);
    this.tables.set(name, { texture, from });
    return texture;
  }

  /** One table of up to four numbers a copy, or null if they are the same for all. */
  private lanes(name: string, lanes: readonly Float32Array[], count: number): Texture | null {
    if (lanes.every((lane) => lane.length <= 1)) return null;
    return this.table(name, count, [count, ...lanes, ...lanes.map(revisionOf)], (into) => {
      lanes.forEach((lane, k) => {
        if (lane.length <= 1) for (let i = 0; i < count; i++) into[4 * i + k] = lane[0] ?? 0;
        else for (let i = 0; i < count; i++) into[4 * i + k] = lane[i];
      });
    });
  }

  private points(name: string, shape: Shape, values: Float32Array): Texture {
    return this.table(name, shape.count, [values], (into) => {
      for (let i = 0; i < shape.count; i++) {
        into[4 * i] = values[3 * i];
        into[4 * i + 1] = values[3 * i + 1];
        into[4 * i + 2] = values[3 * i + 2];
      }
    });
  }

  /** Brings the uniforms of a material of copies up to date. */
  fill(
    uniforms: Record<string, IUniform>,
    prop: InstancesProp,
    textureOf: (image: ImageRef) => Texture,
  ): void {
    const { count, on, pixels } = prop;
    const one = (lanes: readonly Float32Array[]): number[] => lanes.map((lane) => lane[0] ?? 0);
    const place = this.lanes('place', [...prop.place, prop.scale], count);
    const turn = this.lanes('turn', prop.turn, count);
    const size = this.lanes('size', prop.size, count);
    const tint = this.lanes('tint', prop.tint, count);
    const { empty } = this.gpu;
    const set = (name: string, value: unknown): void => {
      uniforms[name].value = value;
    };
    set('many', [place !== null, turn !== null, size !== null, tint !== null]);
    set('placeMap', place ?? empty);
    set('turnMap', turn ?? empty);
    set('sizeMap', size ?? empty);
    set('tintMap', tint ?? empty);
    set('placeOne', one(prop.place));
    set('turnOne', one(prop.turn));
    set('sizeOne', one(prop.size));
    set('scaleOne', prop.scale[0] ?? 1);
    set('tintOne', one(prop.tint));
    set('copies', count);
    const standing = on !== null && on.count > 0;
    set('points', standing ? on.count : 0);
    set('pointMap', standing ? this.points('points', on, on.positions) : empty);
    set('facingMap', standing ? this.points('normals', on, on.normals) : empty);
    set('spread', spreadIndex[prop.spread]);
    set('facing', facingIndex[prop.facing]);
    set('pixelMode', pixels ? modeIndex[pixels.mode] : 0);
    set('pixelMap', pixels ? textureOf(pixels.image) : empty);
    if (!pixels) return;
    set('pixelSpread', spreadIndex[pixels.spread]);
    set('pixelRows', [...pixels.rows]);
    set('pixelReach', [...pixels.reach]);
    set('pixelTurn', [...pixels.turnReach]);
    set('pixelSize', [...pixels.sizeRange]);
  }

  dispose(): void {
    for (const { texture } of this.tables.values()) texture.dispose();
    this.tables.clear();
  }
}

/** Uniforms of a material of copies, as they are before the first `fill`. */
export function copyUniforms(gpu: Gpu): Record<string, IUniform> {
  const uniforms: Record<string, IUniform> = {};
  for (const name of ['placeMap', 'turnMap', 'sizeMap', 'tintMap', 'pointMap', 'facingMap', 'pixelMap'])
    uniforms[name] = { value: gpu.empty };
  for (const name of [
    'copies',
    'points',
    'spread',
    'facing',
    'pixelMode',
    'pixelSpread',
    'merged',
    'vertices',
  ])
    uniforms[name] = { value: 0 };
  uniforms.many = { value: [false, false, false, false] };
  uniforms.placeOne = { value: [0, 0, 0] };
  uniforms.turnOne = { value: [0, 0, 0] };
  uniforms.sizeOne = { value: [1, 1, 1] };
  uniforms.scaleOne = { value: 1 };
  uniforms.tintOne = { value: [1, 1, 1, 1] };
  uniforms.pixelRows = { value: [-1, -1, -1, -1] };
  uniforms.pixelReach = { value: [1, 1, 1] };
  uniforms.pixelTurn = { value: [0, 0, 0] };
  uniforms.pixelSize = { value: [1, 1] };
  return uniforms;
}
