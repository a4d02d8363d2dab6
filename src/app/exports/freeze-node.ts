import { fileOfPiece } from '../../core/export/names';
import { piecesOf } from '../../core/export/schedule';
import { loopFrames, type ExportSpec } from '../../core/export/spec';
import { kindOf } from '../../core/kind/kind';
import { freeze } from '../../core/show/freeze';
import { prefixOf, sceneOfPlace } from '../../core/module/place';
import type { ControlValue, Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { addFile } from '../data/files';
import { choose } from '../data/session';
import { editScene, showStore } from '../data/show-store';
import type { EngineClient } from '../engine/client';
import { liveStore } from '../engine/live';
import { dropFolder, folderOf, holdFolder, zipFolder } from './job-files';
import { carryOut, engineFor } from './job-queue';

/** What a frozen node is: the kind that plays what was stored, with its controls. */
interface Frozen {
  kind: string;
  controls: Record<string, ControlValue>;
}

const safeName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'frozen';

/** How a picture is frozen: as a video of 8 bits a channel, or as images of floats, which give the very numbers back. */
export type FrozenPicture = 'video' | 'floats';

const formats: Record<FrozenPicture, ExportSpec['format']> = {
  video: {
    type: 'video',
    container: 'webm',
    codec: 'vp9',
    quality: 'very-high',
    effort: 'realtime',
    alpha: true,
    sound: 'none',
  },
  floats: { type: 'images', image: 'exr32', alpha: true, linear: false, depth: false },
};

/** A picture over one loop, with its alpha. */
async function freezePicture(
  client: EngineClient,
  show: Show,
  scene: Scene,
  node: string,
  as: FrozenPicture,
): Promise<Frozen> {
  const { name, size } = scene.nodes[node];
  const [width, height] = size ?? [show.canvas.width, show.canvas.height];
  // A video has no half of its chroma.
  const odd = as === 'video' ? 1 : 0;
  const spec: ExportSpec = {
    name: safeName(name),
    source: { type: 'scene', scene: sceneOfPlace(scene.id), node: prefixOf(scene.id) + node },
    range: { type: 'loop', closed: false },
    output: null,
    fps: show.canvas.fps,
    width: width + (width & odd),
    height: height + (height & odd),
    supersample: 1,
    subframes: 1,
    shutter: 180,
    format: formats[as],
  };
  const { plan } = await client.request({ type: 'export-plan', spec }, 600000);
  const job = crypto.randomUUID();
  const letGo = await holdFolder(job);
  try {
    const folder = await folderOf(job);
    const sink = { type: 'folder', folder } as const;
    const quiet = (): void => undefined;
    const pieces = piecesOf(spec, plan);
    const order = { job, spec, plan: { ...plan, meets: null }, pieces, sink, checkpoints: null };
    await carryOut(client, { do: 'pieces', ...order }, quiet);
    const [file, type] = as === 'video' ? ['frozen.webm', 'video/webm'] : ['frozen.zip', 'application/zip'];
    if (as === 'video') {
      const to = await folder.getFileHandle(file, { create: true });
      await carryOut(client, { do: 'join', job, spec, plan, folder, to }, quiet);
    } else {
      const names = pieces.map((piece) => fileOfPiece(spec, plan, piece));
      await zipFolder(folder, names, file);
    }
    const bytes = await (await (await folder.getFileHandle(file)).getFile()).arrayBuffer();
    const named = `${spec.name}${file.slice(file.lastIndexOf('.'))}`;
    return {
      kind: 'clip',
      controls: { file: await addFile(new File([bytes], named, { type })), fit: 'stretch' },
    };
  } finally {
    await dropFolder(job);
    letGo();
  }
}

async function dataOf(
  client: EngineClient,
  show: Show,
  scene: Scene,
  node: string,
  as: 'glb' | 'csv',
  frames: readonly [number, number],
): Promise<Uint8Array<ArrayBuffer>> {
  const [first, last] = frames;
  const request = { scene: scene.id, node, as, first, last, fps: show.canvas.fps };
  return (await client.request({ type: 'data', request }, 600000)).bytes;
}

/** A shape as a model, as it stands at a frame. */
async function freezeShape(
  client: EngineClient,
  show: Show,
  scene: Scene,
  node: string,
  frame: number,
): Promise<Frozen> {
  const bytes = await dataOf(client, show, scene, node, 'glb', [frame, frame]);
  const name = `${safeName(scene.nodes[node].name)}.glb`;
  const file = await addFile(new File([bytes], name, { type: 'model/gltf-binary' }));
  return { kind: 'model', controls: { file, scale: 'own' } };
}

/** A signal as a table: single samples over a loop, or many as they stand at a frame. */
async function freezeSignal(
  client: EngineClient,
  show: Show,
  scene: Scene,
  node: string,
  frame: number,
): Promise<Frozen & { formula: string | null }> {
  const loop = Math.max(1, Math.round(loopFrames(show, scene, show.canvas.fps)));
  const text = new TextDecoder().decode(await dataOf(client, show, scene, node, 'csv', [0, loop - 1]));
  const [head, ...rows] = text.trim().split('\n');
  // Frame, seconds and sample come before the lanes.
  const lanes = head.split(',').slice(3);
  const cells = rows.map((row) => row.split(','));
  const isSingle = cells.every(([, , sample]) => sample === '0');
  const kept = isSingle ? cells : cells.filter(([at]) => Number(at) === frame % loop);
  const csv = [lanes.join(','), ...kept.map((row) => row.slice(3).join(','))].join('\n');
  return isSingle
    ? { kind: 'table', controls: { csv, gives: 'index' }, formula: `frame % ${loop}` }
    : { kind: 'table', controls: { csv, gives: 'all' }, formula: null };
}

/** Replaces a costly node by what it gives, stored: a clip, a model or a table. */
export async function freezeNode(scene: Scene, node: string, as: FrozenPicture): Promise<void> {
  const { show } = showStore.getState();
  const kind = kindOf(catalogue, scene.nodes[node]);
  const { frame } = liveStore.getState().transport;
  const client = await engineFor({
    ...show,
    scenes: show.scenes.filter(({ id }) => id === sceneOfPlace(scene.id)),
  });
  try {
    let made: Frozen & { formula?: string | null };
    if (kind?.output === 'image') made = await freezePicture(client, show, scene, node, as);
    else if (kind?.output === 'shape') made = await freezeShape(client, show, scene, node, frame);
    else made = await freezeSignal(client, show, scene, node, frame);
    editScene(scene.id, (draft) => {
      const id = freeze(draft, catalogue, node, made.kind, made.controls);
      if (made.formula) draft.nodes[id].formulas = { index: made.formula };
      choose([id]);
    });
  } finally {
    client.close();
  }
}
