import { boxShape, sheetShape } from '../../core/shape/make';
import type { InstancesProp } from '../../core/kind/prop';
import type { Shape } from '../../core/shape/shape';
import type { Gpu } from '../gpu/gpu';
import type { Shown } from './measure';
import { literal, seenAt, vec, type Raw } from './raw';
import { Patch, Rig, size } from './rig';

const scale = 0.006;
/** Copies that the hand-written version merges into one instance. */
const merged = 1024;

const side = (count: number): number => Math.ceil(Math.sqrt(count));

const meshes = {
  quad: {
    kind: 'sheet',
    controls: { columns: 2, rows: 2, size: [1, 1] },
    shape: () => sheetShape(1, 1, 2, 2),
  },
  cube: { kind: 'box', controls: { size: [1, 1, 1] }, shape: () => boxShape([1, 1, 1], 1) },
};
export type BenchMesh = keyof typeof meshes;

/** A shot as benches compare it, without what a hand-written program leave out; or as it is by default. */
const plainShot = { edges: 'plain', tone: 'none' };

/** What all of these are: bodies in plain colour, added up, seen by a camera that moves a little. */
function copiesPatch(
  p: Patch,
  mesh: BenchMesh,
  controls: Record<string, number>,
  shotControls: Record<string, string>,
) {
  const shape = p.add(meshes[mesh].kind, meshes[mesh].controls);
  const body = p.add('body', { shading: 'flat', blending: 'add' });
  const copies = p.add('instances', { size: scale, ...controls });
  const camera = p.add('camera');
  p.scene.nodes[camera].motions.orbit = [
    { type: 'swing', on: true, amount: 5, shape: 'sine', rate: 0.5, unit: 'hertz', phase: 0 },
  ];
  const shot = p.add('shot', shotControls);
  p.wire(shape, body, 'shape');
  p.wire(body, copies, 'body');
  p.wire(copies, shot, 'props');
  p.wire(camera, shot, 'props');
  return { copies, shot };
}

/** The engine with copies, and where it has them: by an image, or by lanes of numbers. */
export interface CopiesEngine {
  rig: Rig;
  copies: string;
  count: number;
  mesh: BenchMesh;
  /** Image node with the places; null: lanes. */
  places: string | null;
}

/** Copies placed by the pixels of an image that stands still. */
export function copiesEngine(
  gpu: Gpu,
  count: number,
  mesh: BenchMesh = 'quad',
  shotControls: Record<string, string> = plainShot,
): CopiesEngine {
  const p = new Patch();
  const edge = side(count);
  const noise = { form: 'random', channels: 'three', amplitude: 0.5, rate: 0 };
  const places = p.add('noise', noise, [edge, edge]);
  const { copies, shot } = copiesPatch(p, mesh, { count }, shotControls);
  p.wire(places, copies, 'pixels');
  return { rig: new Rig(gpu, p, shot), copies, count, mesh, places };
}

/** Copies placed by lanes of which one is another in every frame. */
export function lanesEngine(gpu: Gpu, count: number): CopiesEngine {
  const p = new Patch();
  const across = p.add('oscillator', { samples: count, spread: 7, rate: 0.3 });
  const up = p.add('scatter', { samples: count });
  const { copies, shot } = copiesPatch(p, 'quad', { count }, plainShot);
  p.wire(across, copies, 'place.x');
  p.wire(up, copies, 'place.y');
  return { rig: new Rig(gpu, p, shot), copies, count, mesh: 'quad', places: null };
}

const vertexText = (way: 'plain' | 'merged', vertices: number): string => `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
in vec3 position;
uniform sampler2D places;
uniform mat4 seen;
uniform int copies;
void main() {
  int copy = ${way === 'plain' ? 'gl_InstanceID' : `gl_InstanceID * ${merged} + gl_VertexID / ${vertices}`};
  if (copy >= copies) { gl_Position = vec4(2.0, 2.0, 2.0, 1.0); return; }
  int w = textureSize(places, 0).x;
  gl_Position = seen * vec4(texelFetch(places, ivec2(copy % w, copy / w), 0).xyz + position * ${literal(scale)}, 1.0);
}`;

function manyOf(
  { positions, triangles, count }: Shape,
  times: number,
): { positions: Float32Array; index: Uint32Array } {
  const all = new Float32Array(positions.length * times);
  const index = new Uint32Array(triangles.length * times);
  for (let c = 0; c < times; c++) {
    all.set(positions, c * positions.length);
    triangles.forEach((v, k) => (index[c * triangles.length + k] = v + c * count));
  }
  return { positions: all, index };
}

/**
 * The same by hand, straight onto the surface: a mesh whose place is fetched from a texture in the vertex shader, instanced
 * one by one, or 1,024 of them merged into each instance. Places, colour and reach are those that the engine has.
 */
export function copiesByHand(raw: Raw, of: CopiesEngine, way: 'plain' | 'merged'): Shown {
  const { gl } = raw;
  const { width, height } = size;
  const { count, mesh, rig } = of;
  const edge = side(count);
  rig.frame(0);
  const prop = rig.player.run.runs.get(of.copies)!.prop as InstancesProp;
  const { colour } = (prop.body as { look: { colour: readonly [number, number, number, number] } }).look;
  const rgba = new Float32Array(4 * edge * edge);
  let renew: ((k: number) => void) | null = null;
  if (of.places) {
    // The pixels say places as shares of the reach, which is worked in once and for all.
    rgba.set(rig.numbersOf(of.places, edge, edge));
    for (let k = 0; k < rgba.length; k++)
      if (k % 4 < 3) rgba[k] = (2 * rgba[k] - 1) * prop.pixels!.reach[k % 4];
  } else {
    const fit = Object.values(rig.player.scene.wires).find((wire) => wire.to.port === 'place.x')!.fit!;
    const [middle, half] = [(fit.to[1] + fit.to[0]) / 2, (fit.to[1] - fit.to[0]) / 2];
    for (let i = 0; i < count; i++) rgba[4 * i + 1] = prop.place[1][i];
    renew = (k) => {
      const turn = (k / 60) * 0.3;
      for (let i = 0; i < count; i++)
        rgba[4 * i] = middle + half * Math.sin(2 * Math.PI * (turn + (7 * i) / count));
    };
  }
  const shape = meshes[mesh].shape();
  const each = way === 'plain' ? 1 : Math.min(merged, count);
  const [red, green, blue, alpha] = colour;
  const program = raw.program(
    vertexText(way, shape.count),
    `#version 300 es
precision highp float;
out vec4 result;
void main() { result = ${vec([red * alpha, green * alpha, blue * alpha, alpha])}; }`,
  );
  const { positions, index } = manyOf(shape, each);
  const vertices = raw.vertices(program, { position: [positions, 3] }, index);
  const [seen, copies] = ['seen', 'copies'].map((name) => gl.getUniformLocation(program, name));
  const places = raw.numbers(edge, edge, rgba);
  gl.useProgram(program);
  gl.uniform1i(copies, count);
  return raw.shown((k) => {
    if (renew) {
      renew(k);
      raw.rewrite(places, edge, edge, rgba);
    }
    gl.useProgram(program);
    gl.uniformMatrix4fv(seen, false, seenAt(k, width / height));
    gl.bindTexture(gl.TEXTURE_2D, places);
    gl.bindFramebuffer(gl.FRAMEBUFFER, null);
    gl.viewport(0, 0, width, height);
    gl.clearColor(0, 0, 0, 1);
    gl.clear(gl.COLOR_BUFFER_BIT);
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.ONE, gl.ONE);
    gl.bindVertexArray(vertices);
    gl.drawElementsInstanced(gl.TRIANGLES, index.length, gl.UNSIGNED_INT, 0, Math.ceil(count / each));
    gl.bindVertexArray(null);
    gl.disable(gl.BLEND);
  });
}

/**
 * Milliseconds that the processor is busy with a frame, one by one. The GPU is idle before each: where it is the same
 * processor that draws, the two would be measured together.
 */
export function cpuTimes({ rig }: CopiesEngine, first: number, frames: number): number[] {
  return Array.from({ length: frames }, (_, k) => {
    rig.finish();
    const start = performance.now();
    rig.frame(first + k);
    return performance.now() - start;
  });
}
