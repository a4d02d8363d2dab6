import { copyNodes, pasteNodes, type Clipping } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { moduleIdOf } from '../../core/module/module-kind';
import { catalogueWith } from '../../core/module/show-catalogue';
import { packModule, type ModulePack } from '../../core/show/module-pack';
import type { Patch, Scene } from '../../core/document/types';
import { choose } from '../data/session';
import { showStore } from '../data/show-store';
import { bringModules, editPatch, giveFilesOf } from './module-actions';

/** What was copied, and the modules that it needs. */
interface Copied extends Clipping {
  packs: readonly ModulePack[];
}

/** Kept beside the system's clipboard, which a page may not always read. */
let last: Copied | null = null;

/** Copies with the modules that they need, as another show does not have these. */
function clip(scene: Scene, ids: readonly string[]): Copied {
  const { show } = showStore.getState();
  const clipping = copyNodes(scene, ids);
  const wanted = clipping.nodes.flatMap(({ kind }) => moduleIdOf(kind) ?? []);
  const packs = wanted
    .filter((id) => Object.hasOwn(show.modules, id))
    .map((id) => packModule(show, catalogue, id));
  return { ...clipping, packs };
}

export function copy(scene: Scene, ids: readonly string[]): void {
  if (ids.length === 0) return;
  last = clip(scene, ids);
}

const step = 36;

/** How far copies are moved, so that none of them covers a card that is there. */
function openOffset(scene: Patch, { nodes }: Clipping): [number, number] {
  const places = Object.values(scene.nodes).map(({ place }) => place);
  const covers = (by: number): boolean =>
    nodes.some(({ place: [x, y] }) =>
      places.some(([px, py]) => Math.abs(px - x - by) < step / 2 && Math.abs(py - y - by) < step / 2),
    );
  let by = step;
  while (covers(by)) by += step;
  return [by, by];
}

/** Puts copies beside what is there, and chooses them. */
function put(scene: Scene, clipping: Copied): void {
  const ids = editPatch(scene.id, (show, patch) => {
    bringModules(show, clipping.packs, scene.id);
    const known = catalogueWith(catalogue, show.modules);
    return pasteNodes(patch, known, clipping, openOffset(patch, clipping));
  });
  if (!ids) return;
  giveFilesOf(clipping.packs);
  choose(ids);
}

export function paste(scene: Scene): void {
  if (last) put(scene, last);
}

/** Puts the nodes of an example into the scene, with its first card at a place. */
export function placeExample(
  scene: Scene,
  example: Scene,
  at: readonly [number, number],
  packs: readonly ModulePack[] = [],
): void {
  const nodes = Object.values(example.nodes);
  const left = Math.min(...nodes.map((node) => node.place[0]));
  const top = Math.min(...nodes.map((node) => node.place[1]));
  const clipping = copyNodes(example, Object.keys(example.nodes));
  // Nothing of it is known here, whatever ids it has.
  clipping.outside = {};
  const ids = editPatch(scene.id, (show, patch) => {
    bringModules(show, packs, scene.id);
    const known = catalogueWith(catalogue, show.modules);
    return pasteNodes(patch, known, clipping, [Math.round(at[0] - left), Math.round(at[1] - top)]);
  });
  if (!ids) return;
  giveFilesOf(packs);
  choose(ids);
}

export function duplicate(scene: Scene, ids: readonly string[]): void {
  put(scene, clip(scene, ids));
}
