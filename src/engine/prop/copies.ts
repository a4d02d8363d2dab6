import { DataTexture, FloatType, LinearFilter, RGBAFormat, type IUniform, type Texture } from 'three';
import type { InstancesProp, Palette } from '../../core/kind/prop';
import { gradientAt } from '../../core/colour';
import type { Shape } from '../../core/shape/shape';
import type { ImageRef } from '../../core/kind/image-ref';
import { turnMatrix } from '../../core/shape/shape';
import { copyMaps, type CopyForm } from './copy-glsl';
import type { Gpu } from '../gpu/gpu';
import { revisionOf } from '../../core/run/revision';

/** Tables of per-copy numbers are laid out this wide, which every GPU can do; the shaders count on it. */
const tableWidth = 1024;
const paletteWidth = 512;

interface Table {
  texture: DataTexture;
  /** What it was filled from; the same arrays are not sent again. */
  from: readonly unknown[];
}

/** How many times the body at the bottom is drawn. */
export const allCopies = (levels: readonly InstancesProp[]): number =>
  levels.reduce((product, { count }) => product * count, 1);

/** Whether place (with scale), turn, size and tint differ from copy to copy. */
function manyOf({ place, scale, turn, size, tint }: InstancesProp): CopyForm['many'] {
  const many = (lanes: readonly Float32Array[]): boolean => lanes.some((lane) => lane.length > 1);
  return [many([...place, scale]), many(turn), many(size), many(tint)];
}

/**
 * What of one level of copies stands in the code. `before`: what stood there; what was once turned stays so, so that
 * turning it to 0 and back compiles nothing.
 */
export function copyFormOf(prop: InstancesProp, before?: CopyForm): CopyForm {
  const { pixels, part, region, start, on } = prop;
  const pixelCount = pixels
    ? pixels.mode === 'rows'
      ? pixels.image.width
      : pixels.image.width * pixels.image.height
    : 0;
  return {
    many: manyOf(prop),
    turned: before?.turned === true || prop.turn.some((lane) => lane.length > 1 || lane[0] !== 0),
    anchored: before?.anchored === true || prop.anchor.some((v) => v !== 0),
    points: on && on.count > 0 ? (on.count === prop.count ? 'exact' : prop.spread) : null,
    facing: prop.facing === 'normal' && !on?.count ? 'none' : prop.facing,
    pixels: pixels && {
      mode: pixels.mode,
      rows: pixels.rows.map((row) => pixels.mode === 'rows' && row >= 0),
      spread: pixelCount === prop.count ? 'exact' : pixels.spread,
    },
    palette: prop.palette?.way ?? null,
    part: part && (part.by === 'place' ? 'place' : part.cell.length > 1 ? 'cells each' : 'cells'),
    region: region?.form ?? null,
    outward: region?.outward ?? false,
    start: start && (start.at.length > 1 ? 'many' : 'one'),
  };
}

/** Per-copy numbers on the GPU: tables of 32-bit floats that the vertex shader reads, sent only when they changed. */
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
    const height = Math.max(1, Math.ceil(count / tableWidth));
    const image = old?.texture.image as { data: Float32Array; width: number; height: number } | undefined;
    const fits = image?.height === height;
    if (old && fits && old.from.length === from.length && old.from.every((v, k) => v === from[k]))
      return old.texture;
    if (old && fits) {
      fill(image.data);
      old.texture.needsUpdate = true;
      old.from = from;
      return old.texture;
    }
    old?.texture.dispose();
    const data = new Float32Array(tableWidth * height * 4);
    fill(data);
    const texture = this.gpu.dataTexture(data, tableWidth, height);
    this.tables.set(name, { texture, from });
    return texture;
  }

  /** One table of up to four numbers a copy; empty if they are the same for all. */
  private lanes(name: string, lanes: readonly Float32Array[], count: number): Texture {
    if (lanes.every((lane) => lane.length <= 1)) return this.gpu.empty;
    return this.table(name, count, [count, ...lanes, ...lanes.map(revisionOf)], (into) => {
      lanes.forEach((lane, k) => {
        if (lane.length <= 1) for (let i = 0, at = k; i < count; i++, at += 4) into[at] = lane[0] ?? 0;
        else for (let i = 0, at = k; i < count; i++, at += 4) into[at] = lane[i];
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

  private palette(name: string, palette: Palette): Texture {
    const old = this.tables.get(name);
    if (old?.from[0] === palette.stops) return old.texture;
    old?.texture.dispose();
    const data = new Float32Array(4 * paletteWidth);
    for (let k = 0; k < paletteWidth; k++) data.set(gradientAt(palette.stops, k / (paletteWidth - 1)), 4 * k);
    const texture = new DataTexture(data, paletteWidth, 1, RGBAFormat, FloatType);
    texture.minFilter = texture.magFilter = LinearFilter;
    texture.needsUpdate = true;
    this.tables.set(name, { texture, from: [palette.stops] });
    return texture;
  }

  /** Brings the uniforms of one level of copies up to date; all of their names end in its number. */
  fill(
    uniforms: Record<string, IUniform>,
    prop: InstancesProp,
    k: number,
    textureOf: (image: ImageRef) => Texture,
  ): void {
    const { count, on, pixels, region, part, start, palette } = prop;
    const one = (lanes: readonly Float32Array[]): number[] => lanes.map((lane) => lane[0] ?? 0);
    const { empty } = this.gpu;
    const set = (name: string, value: unknown): void => {
      (uniforms[`${name}_${k}`] ??= { value: null }).value = value;
    };
    const own = (name: string): string => `${name} ${k}`;
    set('copies', count);
    set('placeMap', this.lanes(own('place'), [...prop.place, prop.scale], count));
    set('turnMap', this.lanes(own('turn'), prop.turn, count));
    set('sizeMap', this.lanes(own('size'), prop.size, count));
    set('tintMap', this.lanes(own('tint'), prop.tint, count));
    set('placeOne', one(prop.place));
    const turn = one(prop.turn);
    set('turnBase', turn);
    set('turnOne', columns(turnMatrix(turn[0], turn[1], turn[2])));
    const [manyPlaces, , manySizes] = manyOf(prop);
    // Where scale is one for all, it stands here; where sizes differ, it stands here alone.
    const size = manySizes ? [1, 1, 1] : one(prop.size);
    const scale = manyPlaces ? 1 : (prop.scale[0] ?? 1);
    set(
      'sizeOne',
      size.map((v) => v * scale),
    );
    set('tintOne', one(prop.tint));
    set('anchor', [...prop.anchor]);
    set('toward', prop.toward.every((v) => v === 0) ? [0, 0, 1] : [...prop.toward]);
    const standing = on !== null && on.count > 0;
    set('points', standing ? on.count : 0);
    set('pointMap', standing ? this.points(own('points'), on, on.positions) : empty);
    set(
      'facingMap',
      standing && prop.facing === 'normal' ? this.points(own('normals'), on, on.normals) : empty,
    );
    set('pixelMap', pixels ? textureOf(pixels.image) : empty);
    if (pixels) {
      set('pixelRows', [...pixels.rows]);
      set('pixelReach', [...pixels.reach]);
      set('pixelTurn', [...pixels.turnReach]);
      set('pixelSize', [...pixels.sizeRange]);
    }
    set('paletteMap', palette ? this.palette(own('palette'), palette) : empty);
    set('paletteTimes', palette?.times ?? 1);
    const cell = part?.by === 'cells' ? part.cell : oneZero;
    set('moreMap', this.lanes(own('more'), [cell, start?.at ?? oneZero], count));
    if (part?.by === 'cells') set('cells', [part.columns, part.rows, part.cell[0] ?? 0]);
    if (part?.by === 'place') set('frame', [...part.frame]);
    if (start) set('start', [start.at[0] ?? 0, start.riseSeconds, start.staySeconds, start.time]);
    if (region) {
      set('regionPlace', [...region.place]);
      set('regionSize', [...region.size]);
      set('regionHow', [region.push, region.soft, region.scale, 0]);
      set('regionTurn', [...region.turnRad]);
      set('regionTint', region.tint);
    }
  }

  dispose(): void {
    for (const { texture } of this.tables.values()) texture.dispose();
    this.tables.clear();
  }
}

const oneZero = new Float32Array(1);

/** A matrix given row by row as the GPU takes it, column by column. */
const columns = (m: readonly number[]): number[] => [0, 3, 6, 1, 4, 7, 2, 5, 8].map((k) => m[k]);

/** Uniforms that one level of copies has before the first `fill`. */
export function copyUniforms(gpu: Gpu, k: number): Record<string, IUniform> {
  return Object.fromEntries(copyMaps.map((name) => [`${name}_${k}`, { value: gpu.empty }]));
}
