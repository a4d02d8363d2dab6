import { copyNodes, pasteNodes, type Clipping } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../../core/show/types';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';

/** Kept beside the system's clipboard, which a page may not always read. */
let last: Clipping | null = null;
let pasted = 0;

export function copy(scene: Scene, ids: readonly string[]): void {
  if (ids.length === 0) return;
  last = copyNodes(scene, ids);
  pasted = 0;
}

export function paste(scene: Scene): void {
  if (!last) return;
  pasted++;
  const clipping = last;
  const ids = editScene(scene.id, (draft) =>
    pasteNodes(draft, catalogue, clipping, [36 * pasted, 36 * pasted]),
  );
  if (ids) choose(ids);
}

/** Puts the nodes of an example into the scene, with its first card at a place. */
export function placeExample(scene: Scene, example: Scene, at: readonly [number, number]): void {
  const nodes = Object.values(example.nodes);
  const left = Math.min(...nodes.map((node) => node.place[0]));
  const top = Math.min(...nodes.map((node) => node.place[1]));
  const clipping = copyNodes(example, Object.keys(example.nodes));
  // Nothing of it is known here, whatever ids it has.
  clipping.outside = {};
  const ids = editScene(scene.id, (draft) =>
    pasteNodes(draft, catalogue, clipping, [Math.round(at[0] - left), Math.round(at[1] - top)]),
  );
  if (ids) choose(ids);
}

export function duplicate(scene: Scene, ids: readonly string[]): void {
  const clipping = copyNodes(scene, ids);
  const fresh = editScene(scene.id, (draft) => pasteNodes(draft, catalogue, clipping, [36, 36]));
  if (fresh) choose(fresh);
}
