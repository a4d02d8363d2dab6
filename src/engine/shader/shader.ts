import type { IUniform, RawShaderMaterial, Texture } from 'three';
import type { Frame } from '../../core/run/frame';
import type { NodeRun } from '../../core/run/node-run';
import type { SceneRun } from '../../core/run/scene-run';
import type { Stop } from '../../core/document/types';
import { mostStops, type Assembled, type NumberRead, type TextureRead } from './assemble';
import type { Gpu } from '../gpu/gpu';

type Uniforms = Record<string, IUniform>;

/** A shader with its material, bound to the nodes it draws. */
export interface Shader {
  assembled: Assembled;
  material: RawShaderMaterial;
  uniforms: Uniforms;
}

/** A texture as a shader reads it. */
export interface TextureView {
  texture: Texture;
  /** Pixels it counts as; absent: its own. */
  size?: readonly [number, number];
  /** Columns, rows, newest and how many past frames it holds. */
  cells?: readonly [number, number, number, number];
  /** Along a return wire: share that is kept, and the limit of its guard. */
  back?: readonly [number, number];
}

export interface FillFrom {
  run: SceneRun;
  frame: Frame;
  width: number;
  height: number;
  textureFor(read: TextureRead): TextureView;
}

/** The list of a uniform, made again where it has another length. */
function exactly(uniform: IUniform, length: number): Float32Array {
  if ((uniform.value as Float32Array).length !== length) uniform.value = new Float32Array(length);
  return uniform.value as Float32Array;
}

/** `more`: further uniforms, which whoever gives them fills. */
export function bindShader(gpu: Gpu, assembled: Assembled, more: Uniforms = {}): Shader {
  const uniforms: Uniforms = {
    ...more,
    aspect: { value: 1 },
    pixel: { value: [1, 1] },
    region: { value: [0, 0, 1, 1] },
  };
  for (const texture of assembled.textures) {
    uniforms[texture.sampler] = { value: gpu.empty };
    uniforms[texture.size] = { value: [1, 1] };
    if (texture.back) uniforms[texture.back] = { value: [0, 0] };
    if (texture.cells) uniforms[texture.cells] = { value: [1, 1, 0, 1] };
  }
  for (const number of assembled.numbers) {
    if (number.spec?.type === 'gradient') {
      uniforms[`${number.uniform}_colours`] = { value: new Float32Array(4) };
      uniforms[`${number.uniform}_rise`] = { value: new Float32Array(2) };
    } else uniforms[number.uniform] = { value: 0 };
  }
  const material = gpu.material(assembled.fragment, uniforms, assembled.vertex);
  return { assembled, material, uniforms: material.uniforms };
}

/** Factor and summand of the line that is 0 at one stop and 1 at the next; two stops at one place are a hard edge. */
function riseBetween(low: number, high: number): [number, number] {
  const factor = 1 / Math.max(high - low, 1e-6);
  return [factor, 1 - high * factor];
}

type Derived = Record<string, number | readonly number[] | Float32Array>;

/** The numbers a node works out of its controls for its code. */
function derivedOf(run: NodeRun, frame: Frame): Derived {
  const { kind } = run.plan;
  const { controls } = run;
  const moment = run.momentIn(frame.moment);
  if (kind.output === 'field') return kind.derive?.(controls, moment) ?? {};
  if (kind.output !== 'image' || (kind.paint.type !== 'shader' && kind.paint.type !== 'passes')) return {};
  return kind.paint.derive?.(controls, moment, run.image?.height ?? frame.canvas.height, run.pick) ?? {};
}

function fillNumber(
  uniforms: Uniforms,
  number: NumberRead,
  from: FillFrom,
  known: Map<string, Derived>,
): void {
  const run = from.run.runs.get(number.node)!;
  if (!number.spec) {
    let values = known.get(number.node);
    if (!values) {
      values = derivedOf(run, from.frame);
      known.set(number.node, values);
    }
    uniforms[number.uniform].value = values[number.control];
    return;
  }
  const value = run.controls[number.control];
  if (number.spec.type === 'gradient') {
    const stops = [...(value as Stop[])].sort((a, b) => a.at - b.at).slice(0, mostStops);
    const rise = exactly(uniforms[`${number.uniform}_rise`], 2 * Math.max(1, stops.length - 1));
    const colours = exactly(uniforms[`${number.uniform}_colours`], 4 * stops.length);
    stops.forEach((stop, k) => {
      colours.set(stop.colour, 4 * k);
      if (k > 0) rise.set(riseBetween(stops[k - 1].at, stop.at), 2 * (k - 1));
    });
  } else uniforms[number.uniform].value = value;
}

/** Brings the numbers and textures of a shader up to date; never compiles. */
export function fillShader(shader: Shader, from: FillFrom): void {
  const { uniforms, assembled } = shader;
  uniforms.aspect.value = from.width / from.height;
  (uniforms.pixel.value as number[])[0] = 1 / from.width;
  (uniforms.pixel.value as number[])[1] = 1 / from.height;
  const known = new Map<string, Derived>();
  for (const number of assembled.numbers) fillNumber(uniforms, number, from, known);
  for (const read of assembled.textures) {
    const view = from.textureFor(read);
    uniforms[read.sampler].value = view.texture;
    const image = view.texture.image as { width: number; height: number };
    const size = uniforms[read.size].value as number[];
    size[0] = view.size?.[0] ?? image.width;
    size[1] = view.size?.[1] ?? image.height;
    if (read.back) uniforms[read.back].value = view.back ?? [1, 1e20];
    if (read.cells && view.cells) uniforms[read.cells].value = view.cells;
  }
}
