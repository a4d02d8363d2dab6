import { copyNodes, pasteNodes, type Clipping } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../../core/document/types';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';

/** Kept beside the system's clipboard, which a page may not always read. */
let last: Clipping | null = null;

export function copy(scene: Scene, ids: readonly string[]): void {
  if (ids.length === 0) return;
  last = copyNodes(scene, ids);
}

const step = 36;

/** How far copies are moved, so that none of them covers a card that is there. */
function openOffset(scene: Scene, { nodes }: Clipping): [number, number] {
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
function put(scene: Scene, clipping: Clipping): void {
  const ids = editScene(scene.id, (draft) =>
    pasteNodes(draft, catalogue, clipping, openOffset(draft, clipping)),
  );
  if (ids) choose(ids);
}

export function paste(scene: Scene): void {
  if (last) put(scene, last);
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
  put(scene, copyNodes(scene, ids));
}
