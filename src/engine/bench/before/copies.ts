import { randomAt } from '../../../core/random';
import { boxShape, sheetShape } from '../../../core/shape/make';
import type { Shape } from '../../../core/shape/shape';
import type { Gpu } from '../../gpu';
import type { Drawing } from './measure';
import { usualCamera, type Raw } from './raw';
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

/** What all of these are: bodies in plain colour, added up, seen by a camera that moves a little. */
function copiesPatch(
  p: Patch,
  mesh: BenchMesh,
  controls: Record<string, number>,
): { copies: string; shot: string } {
  const shape = p.add(meshes[mesh].kind, meshes[mesh].controls);
  const body = p.add('body', { shading: 'flat', blending: 'add' });
  const copies = p.add('instances', { size: scale, ...controls });
  const camera = p.add('camera');
  p.scene.nodes[camera].motions.orbit = [
    { type: 'swing', on: true, amount: 5, shape: 'sine', rate: 0.5, unit: 'hertz', phase: 0 },
  ];
  const shot = p.add('shot', { edges: 'plain', tone: 'none' });
  p.wire(shape, body, 'shape');
  p.wire(body, copies, 'body');
  p.wire(copies, shot, 'props');
  p.wire(camera, shot, 'props');
  return { copies, shot };
}

/** Copies placed by the pixels of an image that stands still. */
export function copiesEngine(gpu: Gpu, count: number, mesh: BenchMesh = 'quad'): Rig {
  const p = new Patch();
  const edge = side(count);
  const noise = { form: 'random', channels: 'three', amplitude: 0.5, rate: 0 };
  const places = p.add('noise', noise, [edge, edge]);
  const { copies, shot } = copiesPatch(p, mesh, { count });
  p.wire(places, copies, 'pixels');
  return new Rig(gpu, p, shot);
}

/** Copies placed by lanes of which one is another in every frame. */
export function lanesEngine(gpu: Gpu, count: number): Rig {
  const p = new Patch();
  const across = p.add('oscillator', { samples: count, spread: 7, rate: 0.3 });
  const up = p.add('scatter', { samples: count });
  const { copies, shot } = copiesPatch(p, 'quad', { count });
  p.wire(across, copies, 'place.x');
  p.wire(up, copies, 'place.y');
  return new Rig(gpu, p, shot);
}

const plainVertex = (reach: string): string => `#version 300 es
precision highp float;
precision highp sampler2D;
in vec3 position;
uniform sampler2D places;
${usualCamera}
void main() {
  int w = textureSize(places, 0).x;
  vec3 place = (texelFetch(places, ivec2(gl_InstanceID % w, gl_InstanceID / w), 0).xyz * 2.0 - 1.0) * ${reach};
  gl_Position = seen(place + position * ${scale.toFixed(4)});
}`;

const mergedVertex = (reach: string, vertices: number): string => `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
in vec3 position;
uniform sampler2D places;
uniform int copies;
${usualCamera}
void main() {
  int copy = gl_InstanceID * ${merged} + gl_VertexID / ${vertices};
  if (copy >= copies) { gl_Position = vec4(2.0, 2.0, 2.0, 1.0); return; }
  int w = textureSize(places, 0).x;
  vec3 place = (texelFetch(places, ivec2(copy % w, copy / w), 0).xyz * 2.0 - 1.0) * ${reach};
  gl_Position = seen(place + position * ${scale.toFixed(4)});
}`;

const fragment = `#version 300 es
precision highp float;
out vec4 result;
void main() { result = vec4(1.0); }`;

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
 * The same by hand: a mesh whose place is fetched from a texture in the vertex shader, instanced one by one, or 1,024 of
 * them merged into each instance. `renew` writes the places anew before each frame.
 */
export function copiesByHand(
  raw: Raw,
  count: number,
  mesh: BenchMesh,
  way: 'plain' | 'merged',
  renew?: (rgba: Float32Array, k: number) => void,
): Drawing {
  const { gl } = raw;
  const { width, height } = size;
  const edge = side(count);
  const rgba = Float32Array.from({ length: edge * edge * 4 }, (_, k) => randomAt(k));
  const shape = meshes[mesh].shape();
  // An image reaches over the picture, lanes from -0.5 to 0.5.
  const reach = renew ? 'vec3(0.5, 0.5, 0.0)' : 'vec3(0.8, 0.45, 0.45)';
  const program = raw.program(
    way === 'plain' ? plainVertex(reach) : mergedVertex(reach, shape.count),
    fragment,
  );
  const each = way === 'plain' ? 1 : Math.min(merged, count);
  const { positions, index } = manyOf(shape, each);
  const vertices = raw.vertices(program, { position: [positions, 3] }, index);
  const time = gl.getUniformLocation(program, 'time');
  const copies = gl.getUniformLocation(program, 'copies');
  const places = raw.numbers(edge, edge, rgba);
  const target = raw.target(width, height, gl.RGBA16F);
  return raw.work(target.framebuffer, (k) => {
    if (renew) {
      renew(rgba, k);
      raw.rewrite(places, edge, edge, rgba);
    }
    gl.useProgram(program);
    gl.uniform1f(time, k / 60);
    gl.uniform1i(copies, count);
    gl.bindTexture(gl.TEXTURE_2D, places);
    gl.bindFramebuffer(gl.FRAMEBUFFER, target.framebuffer);
    gl.viewport(0, 0, width, height);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT);
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.ONE, gl.ONE);
    gl.bindVertexArray(vertices);
    gl.drawElementsInstanced(gl.TRIANGLES, index.length, gl.UNSIGNED_INT, 0, Math.ceil(count / each));
    gl.bindVertexArray(null);
    gl.disable(gl.BLEND);
  });
}

/** Lanes by hand: a wave over the copies, worked out in a plain loop and sent as it is. */
export function lanesByHand(raw: Raw, count: number): Drawing {
  return copiesByHand(raw, count, 'quad', 'merged', (rgba, k) => {
    const time = k / 60;
    for (let i = 0; i < count; i++)
      rgba[4 * i] = 0.5 + 0.5 * Math.sin(2 * Math.PI * (time * 0.3 + (7 * i) / count));
  });
}
