import { asideOf } from '../document/return-settings';
import { triggersOf } from '../document/motions';
import type { Patch, PatchNode } from '../document/types';
import { formulaName } from '../formula/names';
import type { Catalogue } from '../kind/kind';
import { formulasOf } from '../kind/node-formulas';
import { nodesNamedIn } from './plan';

/** That one node uses another without a wire. */
export interface Link {
  from: string;
  to: string;
  /** What names it. */
  by: 'formula' | 'trigger' | 'return';
}

/** Ids of nodes by the names that formulas have for them. */
export const idsByName = ({ nodes }: Patch): ReadonlyMap<string, string> =>
  new Map(Object.values(nodes).map(({ id, name }) => [formulaName(name), id]));

/** Nodes that a node uses without a wire: by their names in formulas, and as what its motions wait for. */
export const usedWithoutWire = (
  node: PatchNode,
  byName: ReadonlyMap<string, string>,
  catalogue: Catalogue,
): { id: string; by: 'formula' | 'trigger' }[] => [
  ...formulasOf(node, catalogue)
    .flatMap((text) => nodesNamedIn(text, byName))
    .map((id) => ({ id, by: 'formula' as const })),
  ...triggersOf(Object.values(node.motions).flat()).map((id) => ({ id, by: 'trigger' as const })),
];

/** Every use of a node without a wire; what a return wire starts from, or is cleared by, is one too. */
export function linksOf(scene: Patch, catalogue: Catalogue): Link[] {
  const byName = idsByName(scene);
  const links = new Map<string, Link>();
  const add = (from: string, to: string, by: Link['by']): void => {
    if (from !== to && Object.hasOwn(scene.nodes, from)) links.set(`${from} ${to}`, { from, to, by });
  };
  for (const node of Object.values(scene.nodes))
    for (const { id, by } of usedWithoutWire(node, byName, catalogue)) add(id, node.id, by);
  for (const { to, back } of Object.values(scene.wires))
    for (const aside of asideOf(back)) add(aside, to.node, 'return');
  return [...links.values()];
}

function along(from: Iterable<string>, next: ReadonlyMap<string, readonly string[]>): Set<string> {
  const seen = new Set(from);
  const open = [...seen];
  while (open.length)
    for (const id of next.get(open.pop()!) ?? []) {
      if (seen.has(id)) continue;
      seen.add(id);
      open.push(id);
    }
  return seen;
}

/** All that some nodes are made of and all that is made of them, themselves included: along wires and links. Linear in both. */
export function connectedTo(scene: Patch, links: readonly Link[], nodes: readonly string[]): Set<string> {
  const up = new Map<string, string[]>();
  const down = new Map<string, string[]>();
  const join = (from: string, to: string): void => {
    (up.get(to) ?? up.set(to, []).get(to)!).push(from);
    (down.get(from) ?? down.set(from, []).get(from)!).push(to);
  };
  for (const { from, to } of Object.values(scene.wires)) join(from.node, to.node);
  for (const { from, to } of links) join(from, to);
  return new Set([...along(nodes, up), ...along(nodes, down)]);
}
