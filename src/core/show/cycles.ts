import { componentsOf } from '../patch/components';
import { wiresFrom } from '../patch/wiring';
import { defaultReturn } from '../document/return-settings';
import type { Patch, Wire } from '../document/types';

/** Return wires that lie on no cycle. */
export function wiresThatCloseNothing(scene: Patch): Wire[] {
  const backs = Object.values(scene.wires).filter((wire) => wire.back);
  if (!backs.length) return [];
  const next = wiresFrom(scene);
  const componentOf = new Map<string, number>();
  componentsOf(next.keys(), (id) => (next.get(id) ?? []).map(({ to }) => to.node)).forEach((ids, k) => {
    for (const id of ids) componentOf.set(id, k);
  });
  return backs.filter(({ from, to }) => componentOf.get(from.node) !== componentOf.get(to.node));
}

/**
 * Makes return wires of those that close a cycle which no return wire opens, as a file changed by hand may hold them.
 * Gives those wires. Linear: only the wires inside of strongly connected parts are walked.
 */
export function openCycles(scene: Patch): Wire[] {
  const next = wiresFrom(scene, (wire) => !wire.back);
  const ends = (id: string): string[] => (next.get(id) ?? []).map((wire) => wire.to.node);
  const cyclic = componentsOf(next.keys(), ends).filter(
    (ids) => ids.length > 1 || ends(ids[0]).includes(ids[0]),
  );
  const opened: Wire[] = [];
  const order = new Map(Object.keys(scene.nodes).map((id, k) => [id, k]));
  for (const ids of cyclic) {
    const members = new Set(ids);
    const done = new Set<string>();
    const above = new Set<string>();
    // Begun at the oldest node, from which all others of the part can be reached: the wire that leads back to it returns.
    const root = ids.reduce((a, b) => (order.get(b)! < order.get(a)! ? b : a));
    const walk = [{ id: root, wires: (next.get(root) ?? []).values() }];
    above.add(root);
    while (walk.length) {
      const { id, wires } = walk[walk.length - 1];
      const step = wires.next();
      if (step.done) {
        walk.pop();
        above.delete(id);
        done.add(id);
        continue;
      }
      const to = step.value.to.node;
      if (!members.has(to) || done.has(to)) continue;
      if (above.has(to)) {
        step.value.back = defaultReturn();
        opened.push(step.value);
      } else {
        above.add(to);
        walk.push({ id: to, wires: (next.get(to) ?? []).values() });
      }
    }
  }
  return opened;
}
