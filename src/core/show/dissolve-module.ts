import { renameAsides } from '../document/return-settings';
import { renameTriggers } from '../document/motions';
import type { Module, Patch, PatchNode, Show, Wire } from '../document/types';
import { formulaName } from '../formula/names';
import { renamedFormulas } from '../kind/node-formulas';
import { kindOf, type Catalogue } from '../kind/kind';
import { inside } from '../module/place';
import { catalogueWith } from '../module/show-catalogue';
import { takeNodeApart } from '../module/take-apart';
import { freeId, freeName, structuredCloneOf } from './create';
import { moduleOf } from './edit-module';

/** Puts what lies in a module node back into the patch, wired as it was. Gives the ids of the nodes. */
export function dissolveModule(show: Show, shipped: Catalogue, patch: Patch, id: string): string[] {
  const catalogue = catalogueWith(shipped, show.modules);
  const node = patch.nodes[id];
  const module = moduleOf(show, node);
  const flat = takeNodeApart(patch, node, module, catalogue);
  const ends = new Set<string>([id]);
  for (const inner of Object.values(module.nodes))
    if (kindOf(catalogue, inner)?.end) ends.add(inside(id, inner.id));
  const into = new Map<string, Wire>();
  for (const wire of flat.wires.values())
    if (ends.has(wire.to.node) && wire.to.port === kindOf(catalogue, flat.nodes.get(wire.to.node))!.handsOn)
      into.set(wire.to.node, wire);
  const middle = node.place;
  const inner = Object.values(module.nodes).filter(({ id: own }) => !ends.has(inside(id, own)));
  const mean = (k: 0 | 1): number =>
    inner.length ? Math.round(inner.reduce((sum, { place }) => sum + place[k], 0) / inner.length) : 0;
  const offset = [middle[0] - mean(0), middle[1] - mean(1)];
  delete patch.nodes[id];
  const fresh = new Map<string, string>();
  const names = new Map<string, string>();
  for (const { id: own } of inner) {
    const from = flat.nodes.get(inside(id, own))!;
    const free = freeId('n', Object.keys(patch.nodes));
    const name = freeName(
      module.nodes[own].name,
      Object.values(patch.nodes).map((other) => other.name),
    );
    names.set(formulaName(from.name), formulaName(name));
    fresh.set(from.id, free);
    const copy = structuredCloneOf(from);
    delete copy.delay;
    patch.nodes[free] = {
      ...copy,
      id: free,
      name,
      place: [from.place[0] + offset[0], from.place[1] + offset[1]],
    };
  }
  /** Where a wire begins once the ends are gone, and the feedback on the way there. */
  const origin = (wire: Wire): Pick<Wire, 'from' | 'back'> | null => {
    let [{ from }, back] = [wire, wire.back];
    for (const seen = new Set<string>(); ends.has(from.node);) {
      const before = into.get(from.node);
      if (!before || seen.has(from.node)) return null;
      seen.add(from.node);
      back ??= before.back;
      from = before.from;
    }
    return { from: { ...from, node: fresh.get(from.node) ?? from.node }, ...(back ? { back } : {}) };
  };
  const endOf = (end: string): string | null => {
    if (!ends.has(end)) return fresh.get(end) ?? end;
    const before = into.get(end);
    return before ? (origin(before)?.from.node ?? null) : null;
  };
  for (const wire of Object.values(patch.wires)) {
    const begin =
      wire.from.node === id && wire.to.node !== id ? origin(flat.wires.get(wire.id) ?? wire) : null;
    // Wires that leave keep their places: nodes that take many go by their order.
    if (begin) patch.wires[wire.id] = { ...wire, ...structuredCloneOf(begin) };
    else if (wire.from.node === id || wire.to.node === id) delete patch.wires[wire.id];
  }
  for (const wire of flat.wires.values()) {
    if (Object.hasOwn(patch.wires, wire.id)) continue;
    const touches = [wire.from.node, wire.to.node].some(
      (end) => end === id || flat.nodes.get(end)?.id.startsWith(`${inside(id, '')}`),
    );
    if (!touches || ends.has(wire.to.node)) continue;
    const begin = origin(wire);
    if (!begin) continue;
    const free = freeId('w', Object.keys(patch.wires));
    const to = fresh.get(wire.to.node) ?? wire.to.node;
    const copy: Wire = {
      ...structuredCloneOf(wire),
      id: free,
      ...structuredCloneOf(begin),
      to: { ...wire.to, node: to },
    };
    if (copy.back) renameAsides(copy.back, endOf);
    patch.wires[free] = copy;
  }
  for (const own of fresh.values()) {
    const copy = patch.nodes[own];
    renameTriggers(copy, endOf);
    const entries = entryNames(module, catalogue, id, flat.nodes, (end) => endOf(end), patch);
    const all = new Map([...names, ...entries]);
    Object.assign(copy, renamedFormulas(copy, all, catalogue));
  }
  return [...fresh.values()];
}

/** What formulas called the inputs of a module, and what they call the nodes that were wired in there. */
function entryNames(
  module: Module,
  catalogue: Catalogue,
  id: string,
  flat: ReadonlyMap<string, PatchNode>,
  endOf: (end: string) => string | null,
  patch: Patch,
): [string, string][] {
  return Object.values(module.nodes).flatMap((inner): [string, string][] => {
    if (kindOf(catalogue, inner)?.end !== 'in') return [];
    const end = inside(id, inner.id);
    const source = endOf(end);
    const node = source === null ? undefined : patch.nodes[source];
    return node ? [[formulaName(flat.get(end)!.name), formulaName(node.name)]] : [];
  });
}
