import { asideOf } from '../document/return-settings';
import { triggersOf } from '../document/motions';
import type { Patch } from '../document/types';
import { formulaName } from '../formula/names';
import { kindOf, type Catalogue } from '../kind/kind';
import { nodesNamedIn } from './plan';

/** That one node uses another without a wire. */
export interface Link {
  from: string;
  to: string;
  /** What names it. */
  by: 'formula' | 'trigger' | 'return';
}

/** Every use of a node without a wire: by its name in a formula, as what a motion waits for, as what a return wire starts from or is cleared by. */
export function linksOf(scene: Patch, catalogue: Catalogue): Link[] {
  const byName = new Map(Object.values(scene.nodes).map(({ id, name }) => [formulaName(name), id]));
  const links = new Map<string, Link>();
  const add = (by: Link['by'], to: string, from: readonly string[]): void => {
    for (const id of from)
      if (id !== to && Object.hasOwn(scene.nodes, id)) links.set(`${id} ${to}`, { from: id, to, by });
  };
  for (const node of Object.values(scene.nodes)) {
    for (const text of Object.values(node.formulas)) add('formula', node.id, nodesNamedIn(text, byName));
    for (const [control, spec] of Object.entries(kindOf(catalogue, node)?.controls ?? {})) {
      const text = node.controls[control];
      if (spec.type === 'formula' && typeof text === 'string')
        add('formula', node.id, nodesNamedIn(text, byName));
    }
    add('trigger', node.id, triggersOf(Object.values(node.motions).flat()));
  }
  for (const { to, back } of Object.values(scene.wires)) add('return', to.node, asideOf(back));
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
