import type { Catalogue } from '../kind/kind';
import { freeName } from './create';
import { addNode } from './edit';
import type { ControlValue, Patch } from '../document/types';

/** How far below a node its frozen copy is put, patch pixels. */
const below = 70;

/** Leads all that a node gives to others from another node instead. */
function moveOutgoing(scene: Patch, from: string, to: string): void {
  for (const wire of Object.values(scene.wires)) if (wire.from.node === from) wire.from.node = to;
}

/** Exchanges the names of two nodes, so that formulas that name the one read the other. */
function swapNames(scene: Patch, a: string, b: string): void {
  const [one, other] = [scene.nodes[a], scene.nodes[b]];
  [one.name, other.name] = [other.name, one.name];
}

/**
 * Puts a node of a kind that holds what a costly one gave in its place: whoever read that one reads this. The costly one stays on the patch
 * and costs nothing, since nobody looks at it. Gives the id of the new node.
 */
export function freeze(
  scene: Patch,
  catalogue: Catalogue,
  original: string,
  kind: string,
  controls: Readonly<Record<string, ControlValue>>,
): string {
  const { name, place, size, precision } = scene.nodes[original];
  const id = addNode(scene, catalogue, kind, [place[0], place[1] + below]);
  const node = scene.nodes[id];
  Object.assign(node.controls, controls);
  node.frozen = original;
  if (size) node.size = [...size];
  node.precision = precision;
  const others = Object.values(scene.nodes).map((one) => one.name);
  node.name = freeName(`${name} live`, others);
  swapNames(scene, original, id);
  moveOutgoing(scene, original, id);
  return id;
}

/** The nodes that stand for others: frozen, and to be thawed. */
export const frozenOf = (scene: Patch, id: string): string | null => {
  const original = scene.nodes[id]?.frozen;
  return original && scene.nodes[original] ? original : null;
};

/** Brings the costly node back where its frozen copy stands, and removes that. Gives the id of what plays again; null: it stood for none. */
export function thaw(scene: Patch, id: string): string | null {
  const original = frozenOf(scene, id);
  if (original === null) return null;
  moveOutgoing(scene, id, original);
  swapNames(scene, id, original);
  for (const wire of Object.values(scene.wires)) if (wire.to.node === id) delete scene.wires[wire.id];
  delete scene.nodes[id];
  return original;
}
