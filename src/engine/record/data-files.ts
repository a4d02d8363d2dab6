import { Document, WebIO } from '@gltf-transform/core';
import { checkData, formatsOf, wavRate, type DataRequest } from '../../core/export/data/data-request';
import { patchMarkdown, patchSvg } from '../../core/export/data/patch';
import { copyOf, signalCsv, signalJson, signalMidi, signalWav } from '../../core/export/data/samples';
import { shapeObj, shapePly } from '../../core/export/data/shapes';
import { Timing } from '../../core/export/schedule';
import { ExportError } from '../../core/export/spec';
import { addNode, connect } from '../../core/show/edit';
import { kindOf, type Catalogue } from '../../core/kind/kind';
import type { Scene, Show } from '../../core/document/types';
import type { Shape } from '../../core/shape/shape';
import type { Signal } from '../../core/signal/signal';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { ExactScene, sceneOf, type ExactMeans } from '../exact/exact-scene';

/** Entries of a colour table along each axis. */
const cubeSize = 33;

const bytesOf = (text: string): Uint8Array<ArrayBuffer> =>
  new TextEncoder().encode(text) as Uint8Array<ArrayBuffer>;

/** The canvas that numbers are worked out for: some depend on its aspect. */
const canvasOf = ({ canvas }: Show): { width: number; height: number } => ({
  width: canvas.width,
  height: canvas.height,
});

/** Signals of a node at frames, each copied. */
async function signalsOf(means: ExactMeans, show: Show, request: DataRequest): Promise<Signal[]> {
  const { node, first, last, fps, as } = request;
  const scene = sceneOf(show, request.scene);
  const timing = new Timing(fps);
  const run = new ExactScene(means, show, scene, canvasOf(show), timing, node);
  const frames: Signal[] = [];
  const take = (): void => {
    const signal = run.player.run.runs.get(node!)?.given;
    if (signal) frames.push(copyOf(signal));
  };
  try {
    await run.reach(first);
    take();
    if (as === 'wav') {
      // So many moments are worked out at a stretch: files and letters are there by now.
      const count = Math.round(((last - first + 1) / fps) * wavRate);
      for (let k = 1; k < count; k++) {
        const time = first / fps + k / wavRate;
        const moment = momentAt(time, 1 / wavRate, show.canvas.fps, show.tempo);
        const live = means.inputs.at(time, false);
        run.player.run.run({ moment, live, canvas: canvasOf(show), feedback: oneStep });
        take();
      }
    } else
      for (let frame = first + 1; frame <= last; frame++) {
        await run.reach(frame);
        take();
      }
  } finally {
    run.dispose();
  }
  if (frames.length === 0) throw new ExportError('This node gives no signal.');
  return frames;
}

async function shapesOf(means: ExactMeans, show: Show, request: DataRequest): Promise<Shape[]> {
  const { node, first, last, fps, as } = request;
  const run = new ExactScene(
    means,
    show,
    sceneOf(show, request.scene),
    canvasOf(show),
    new Timing(fps),
    node,
  );
  const shapes: Shape[] = [];
  try {
    for (let frame = first; frame <= (as === 'glb' ? last : first); frame++) {
      await run.reach(frame);
      const shape = run.player.run.runs.get(node!)?.shape;
      if (!shape || shape.count === 0) throw new ExportError(`This node has no points at frame ${frame}.`);
      shapes.push({ ...shape, positions: shape.positions.slice() });
    }
  } finally {
    run.dispose();
  }
  return shapes;
}

/** Points of a mode of glTF: 0 points, 1 lines, 4 triangles. */
function indicesOf({ triangles, rows, columns }: Shape): {
  mode: 0 | 1 | 4;
  indices: Uint32Array<ArrayBuffer> | null;
} {
  if (triangles.length) return { mode: 4, indices: new Uint32Array(triangles) };
  const lines = [...rows, ...columns];
  return lines.length ? { mode: 1, indices: Uint32Array.from(lines) } : { mode: 0, indices: null };
}

const isUnit = (normals: Float32Array): boolean => {
  for (let k = 0; k < normals.length; k += 3)
    if (Math.abs(Math.hypot(normals[k], normals[k + 1], normals[k + 2]) - 1) > 1e-3) return false;
  return true;
};

/** Shapes of frames as GLB (glTF 2.0): the first, with its colours; where points move, a morph target for each other frame. */
async function glbOf(name: string, shapes: readonly Shape[], fps: number): Promise<Uint8Array<ArrayBuffer>> {
  const [shape] = shapes;
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3' | 'VEC4' | 'SCALAR', array: Float32Array | Uint32Array) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const { mode, indices } = indicesOf(shape);
  const primitive = document
    .createPrimitive()
    .setMode(mode)
    .setAttribute('POSITION', accessor('VEC3', shape.positions));
  if (isUnit(shape.normals)) primitive.setAttribute('NORMAL', accessor('VEC3', shape.normals.slice()));
  if (mode === 4) primitive.setAttribute('TEXCOORD_0', accessor('VEC2', shape.uvs.slice()));
  if (shape.colours)
    primitive.setAttribute(
      'COLOR_0',
      accessor(
        'VEC4',
        shape.colours.map((v) => Math.min(1, Math.max(0, v))),
      ),
    );
  if (indices) primitive.setIndices(accessor('SCALAR', indices));
  const mesh = document.createMesh(name).addPrimitive(primitive);
  const node = document.createNode(name).setMesh(mesh);
  document.createScene(name).addChild(node);
  const moves = shapes.some(({ positions }) => positions.some((v, k) => v !== shape.positions[k]));
  if (moves) {
    const others = shapes.slice(1);
    if (others.some(({ count }) => count !== shape.count))
      throw new ExportError(
        'The number of points changes over these frames. Save one frame, or a shape whose count stays.',
      );
    for (const { positions } of others) {
      const offset = positions.map((v, k) => v - shape.positions[k]);
      primitive.addTarget(
        document.createPrimitiveTarget().setAttribute('POSITION', accessor('VEC3', offset)),
      );
    }
    mesh.setWeights(others.map(() => 0));
    const times = accessor(
      'SCALAR',
      Float32Array.from(shapes, (_, k) => k / fps),
    );
    const weights = new Float32Array(shapes.length * others.length);
    for (let k = 1; k < shapes.length; k++) weights[k * others.length + k - 1] = 1;
    const sampler = document
      .createAnimationSampler()
      .setInterpolation('LINEAR')
      .setInput(times)
      .setOutput(accessor('SCALAR', weights));
    const channel = document
      .createAnimationChannel()
      .setTargetNode(node)
      .setTargetPath('weights')
      .setSampler(sampler);
    document.createAnimation(name).addSampler(sampler).addChannel(channel);
  }
  return new Uint8Array(await new WebIO().writeBinary(document));
}

/** Paints every colour of a table once: blue goes on from block to block, red along each, green up. */
const identity = `/* {} */
vec4 paint(vec2 place) {
  float n = ${cubeSize}.0;
  vec2 at = floor(place * vec2(n * n, n));
  return vec4(vec3(mod(at.x, n), at.y, floor(at.x / n)) / (n - 1.0), 1.0);
}`;

/** The nodes of a chain of colours, from its end to where the picture enters that is graded. */
function chainOf(scene: Scene, catalogue: Catalogue, end: string): { last: string; port: string } {
  let at = end;
  let found: { last: string; port: string } | null = null;
  for (const seen = new Set<string>(); !seen.has(at);) {
    seen.add(at);
    const node = scene.nodes[at];
    const kind = node && kindOf(catalogue, node);
    if (!kind || kind.output !== 'image') break;
    const [port, spec] = Object.entries(kind.inputs).find(([, { carries }]) => carries === 'image') ?? [];
    if (!port || (spec?.reads ?? 'same') !== 'same' || kind.paint.type !== 'shader') break;
    found = { last: at, port };
    const wire = Object.values(scene.wires).find(({ to }) => to.node === at && to.port === port);
    if (!wire || wire.back) break;
    at = wire.from.node;
  }
  if (!found)
    throw new ExportError(
      'A colour table is made of nodes that change each pixel by itself, as Levels or Gradient Map. This node is none.',
    );
  return found;
}

/** What a chain of colours does to every colour, as a .cube table (Cube LUT Specification 1.0). */
async function cubeOf(means: ExactMeans, show: Show, request: DataRequest): Promise<string> {
  const scene = structuredClone(sceneOf(show, request.scene));
  const { catalogue, gpu } = means;
  const { last, port } = chainOf(scene, catalogue, request.node!);
  const wire = Object.values(scene.wires).find(({ to }) => to.node === last && to.port === port);
  if (wire) delete scene.wires[wire.id];
  const table = addNode(scene, catalogue, 'shader', [0, 0]);
  Object.assign(scene.nodes[table].controls, { code: identity, good: identity });
  connect(scene, catalogue, table, last, port);
  const size = { width: cubeSize ** 2, height: cubeSize };
  for (const id of [table, last, request.node!])
    Object.assign(scene.nodes[id], { size: [size.width, size.height], precision: '32' });
  const run = new ExactScene(means, show, scene, size, new Timing(request.fps), request.node);
  const target = gpu.acquire(size.width, size.height, '32');
  try {
    await run.reach(request.first);
    if (!run.player.peek(request.node!, target, undefined, true))
      throw new ExportError('There is no picture at this node.');
    const rgba = await gpu.readNumbers(target);
    const lines = [
      `TITLE "${scene.nodes[request.node!].name.replaceAll('"', '')}"`,
      `LUT_3D_SIZE ${cubeSize}`,
    ];
    for (let b = 0; b < cubeSize; b++)
      for (let g = 0; g < cubeSize; g++)
        for (let r = 0; r < cubeSize; r++) {
          const at = 4 * (g * size.width + b * cubeSize + r);
          lines.push([0, 1, 2].map((c) => rgba[at + c].toFixed(6)).join(' '));
        }
    return `${lines.join('\n')}\n`;
  } finally {
    gpu.release(target);
    run.dispose();
  }
}

/** What a node gives as a file. Throws ExportError where it cannot be that. */
export async function dataFile(
  means: ExactMeans,
  show: Show,
  request: DataRequest,
): Promise<Uint8Array<ArrayBuffer>> {
  const { as, node, fps, first } = request;
  const scene = sceneOf(show, request.scene);
  checkData(request);
  if (as === 'md') return bytesOf(patchMarkdown(scene, means.catalogue));
  if (as === 'svg') return bytesOf(patchSvg(scene, means.catalogue));
  const found = node === null ? undefined : scene.nodes[node];
  if (!found) throw new ExportError('The node is not there any more.');
  const kind = kindOf(means.catalogue, found);
  if (!kind || !formatsOf(kind.output).includes(as))
    throw new ExportError(`${found.name} cannot be saved as ${as}.`);
  if (as === 'cube') return bytesOf(await cubeOf(means, show, request));
  if (as === 'glb') return glbOf(found.name, await shapesOf(means, show, request), fps);
  if (as === 'obj') return bytesOf(shapeObj((await shapesOf(means, show, request))[0]));
  if (as === 'ply') return bytesOf(shapePly((await shapesOf(means, show, request))[0]));
  const frames = await signalsOf(means, show, request);
  const all = { rate: as === 'wav' ? wavRate : fps, first, frames };
  if (as === 'csv') return bytesOf(signalCsv(all));
  if (as === 'json') return bytesOf(signalJson(all));
  return as === 'wav' ? signalWav(all) : signalMidi(all, show.tempo);
}
