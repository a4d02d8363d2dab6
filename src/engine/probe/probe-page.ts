import { toBase64 } from '../../core/base64';
import { idleInputs } from '../../core/inputs/inputs';
import type { ControlValue, Scene } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import { flashProbe, type FlashProbeAnswer, type FlashProbeRequest } from './flash-probe';
import { Gpu, type Bits, type ShareBox } from '../gpu/gpu';
import { MediaLibrary } from '../media/library';
import { ScenePlayer } from '../playback/scene-player';

/** A control that goes from one value to another in every frame. */
export interface ProbeEdit {
  node: string;
  control: string;
  from: number;
  to: number;
}

export interface ProbeRequest {
  scene: Scene;
  /** Node whose picture is read. */
  node: string;
  width: number;
  height: number;
  /** Frames that are played, the first at time 0; its picture is read after the last. */
  frames: number;
  fps: number;
  bits?: Bits;
  /** A node that is looked at instead, as its card shows it. */
  peek?: string;
  /** Every node in a pass of its own. */
  apart?: boolean;
  /** Vectors that corners of pictures hand on; absent: as the renderer likes it. */
  cornerRoom?: number;
  /** The only parts of its picture that are drawn, until the frame before the last; the last is whole again if `takenToEnd` is not set. */
  taken?: ShareBox[];
  takenToEnd?: true;
  /** Nodes that are looked at in every frame, as cards are. */
  watched?: string[];
  edits?: ProbeEdit[];
  /** Files of the show by id, in base64. */
  files?: Record<string, string>;
  /** Other values from a frame on, as a hand would set them. */
  later?: { frame: number; node: string; control: string; value: ControlValue }[];
}

export interface ProbeAnswer {
  width: number;
  height: number;
  /** Red, green, blue and alpha of each pixel, first row lowest: floats of 32 bits in base64, since as text they take a driver half a second. */
  pixels: string;
  /** Counted over all frames after the tenth. */
  compiles: number;
  targets: number;
  shaders: number;
  textures: number;
  /** Meshes built or refilled. */
  meshes: number;
  faults: Record<string, string>;
  notes: Record<string, string>;
}

/** What tests call in this page: the engine at work on one scene, read in numbers. */
export interface ProbePage {
  pyrvelProbe: (request: ProbeRequest) => Promise<ProbeAnswer>;
  pyrvelFlashes: (request: FlashProbeRequest) => Promise<FlashProbeAnswer>;
}

const gpu = new Gpu();
const usualRoom = gpu.flatVaryings;
const media = new MediaLibrary(
  () => Promise.reject(new Error('Vector drawings are for the app to draw.')),
  () => undefined,
);
const warm = 10;

const withControl = (scene: Scene, node: string, control: string, value: ControlValue): Scene => ({
  ...scene,
  nodes: {
    ...scene.nodes,
    [node]: { ...scene.nodes[node], controls: { ...scene.nodes[node].controls, [control]: value } },
  },
});

const count = (): Pick<ProbeAnswer, 'compiles' | 'targets' | 'shaders' | 'textures'> => ({
  compiles: gpu.compiles,
  targets: gpu.targetCount,
  shaders: gpu.shaderCount,
  textures: gpu.textureCount,
});

async function probe(request: ProbeRequest): Promise<ProbeAnswer> {
  const { node, width, height, frames, fps, bits, apart, watched = [], edits = [], later = [] } = request;
  let { scene } = request;
  gpu.flatVaryings = request.cornerRoom ?? usualRoom;
  for (const [id, packed] of Object.entries(request.files ?? {}))
    media.addFile(id, id, new Blob([Uint8Array.from(atob(packed), (c) => c.charCodeAt(0))]));
  const player = new ScenePlayer(gpu, catalogue, media, scene, { waits: true, bits, apart });
  const feedback = new FeedbackClock();
  const look = gpu.acquire(16, 16, '8');
  try {
    let before = count();
    let meshesBefore = 0;
    for (let k = 0; k < frames; k++) {
      for (const { node: id, control, from, to } of edits)
        scene = withControl(scene, id, control, from + ((to - from) * k) / frames);
      for (const edit of later)
        if (edit.frame === k) scene = withControl(scene, edit.node, edit.control, edit.value);
      const moment = momentAt(k / fps, k === 0 ? 0 : 1 / fps, fps, { bpm: 120, beatsPerBar: 4 });
      const frame = {
        moment,
        live: idleInputs(),
        canvas: { width, height },
        feedback: feedback.next(moment.dt),
      };
      const isTaken = request.taken && (request.takenToEnd || k < frames - 1);
      player.renderer.taken = isTaken ? { node, boxes: request.taken! } : null;
      await player.playExactly(scene, frame, [node, ...watched], height);
      for (const id of watched) player.peek(id, look);
      if (k === warm) {
        before = count();
        meshesBefore = player.renderer.meshesBuilt;
      }
      if (k % 64 === 63) await gpu.finish();
    }
    const after = count();
    const image = player.run.runs.get(node)?.image;
    if (!image) throw new Error('This node has no picture.');
    const shown = request.peek ?? node;
    const target = gpu.acquire(image.width, image.height, '32');
    const pixels = new Float32Array(4 * image.width * image.height);
    player.peek(shown, target, undefined, true);
    gpu.renderer.readRenderTargetPixels(target, 0, 0, image.width, image.height, pixels);
    gpu.release(target);
    return {
      width: image.width,
      height: image.height,
      pixels: toBase64(new Uint8Array(pixels.buffer)),
      compiles: after.compiles - before.compiles,
      targets: after.targets - before.targets,
      shaders: after.shaders - before.shaders,
      textures: after.textures - before.textures,
      meshes: player.renderer.meshesBuilt - meshesBefore,
      faults: player.faults(),
      notes: player.notes(),
    };
  } finally {
    gpu.release(look);
    player.dispose();
  }
}

const page = window as unknown as ProbePage;
page.pyrvelProbe = probe;
page.pyrvelFlashes = (request) => flashProbe(gpu, request);
