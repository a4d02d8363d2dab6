import { kindOf } from '../kind/kind';
import { partLabel, partName, partsOf } from '../kind/controls';
import { passThroughOf, type Carries, type Catalogue, type Kind } from '../kind/kind';
import type { PatchNode, Patch, Wire } from '../document/types';

/** What a port of a kind is: an input, a control, or one part of a control. */
export type Port =
  { type: 'input'; name: string } | { type: 'control'; control: string; part: number | null } | null;

export function portOf(kind: Kind, port: string): Port {
  if (Object.hasOwn(kind.inputs, port)) return { type: 'input', name: port };
  if (Object.hasOwn(kind.controls, port)) {
    const parts = partsOf(kind.controls[port]);
    if (parts.length === 0) return null;
    return { type: 'control', control: port, part: parts.length === 1 ? 0 : null };
  }
  const dot = port.lastIndexOf('.');
  const control = port.slice(0, dot);
  if (dot < 0 || !Object.hasOwn(kind.controls, control)) return null;
  const part = partsOf(kind.controls[control]).findIndex((name) => partName(control, name) === port);
  return part < 0 ? null : { type: 'control', control, part };
}

/** What a port is called: its input or control, and which part of it. */
export function portLabel(kind: Kind, port: string): string {
  const found = portOf(kind, port);
  if (found?.type === 'input') return kind.inputs[found.name].label;
  if (!found) return port;
  const spec = kind.controls[found.control];
  const parts = partsOf(spec).map((part) => partName(found.control, part));
  return port === found.control ? spec.label : partLabel(spec, parts.indexOf(port));
}

/** What a port takes; null if there is no such port. */
export function portTakes(kind: Kind, port: string): readonly Carries[] | null {
  const found = portOf(kind, port);
  if (!found) return null;
  if (found.type === 'control') return ['signal'];
  const input = kind.inputs[found.name];
  return input.also ? [input.carries, input.also] : [input.carries];
}

/** Wires by a node at one of their ends, in the order they were drawn. */
function wiresBy(wires: readonly Wire[], nodeOf: (wire: Wire) => string): Map<string, Wire[]> {
  const by = new Map<string, Wire[]>();
  for (const wire of wires) {
    const list = by.get(nodeOf(wire));
    if (list) list.push(wire);
    else by.set(nodeOf(wire), [wire]);
  }
  return by;
}

/** Wires into each node, in the order they were drawn. */
export const wiresInto = (scene: Patch): Map<string, Wire[]> =>
  wiresBy(Object.values(scene.wires), ({ to }) => to.node);

/** Wires out of each node that count, in the order they were drawn. */
export const wiresFrom = (scene: Patch, counts: (wire: Wire) => boolean = () => true): Map<string, Wire[]> =>
  wiresBy(Object.values(scene.wires).filter(counts), ({ from }) => from.node);

/** Whether `to` can be reached from `from` along wires that carry this frame. Linear in nodes and wires. */
export function reaches(scene: Patch, from: string, to: string): boolean {
  if (from === to) return true;
  const next = wiresFrom(scene, (wire) => !wire.back);
  const seen = new Set([from]);
  const open = [from];
  while (open.length) {
    for (const { to: end } of next.get(open.pop()!) ?? []) {
      const { node } = end;
      if (seen.has(node)) continue;
      if (node === to) return true;
      seen.add(node);
      open.push(node);
    }
  }
  return false;
}

/** Where a wire really comes from: a node, and the return wire on the way there, if any. */
export interface Origin {
  node: string;
  back: Wire | null;
}

/**
 * Finds where wires really come from once relays, and nodes that are switched off, hand on what enters them. Each such node
 * is gone through once, however many wires leave it.
 */
export function originFinder(
  scene: Patch,
  catalogue: Catalogue,
  into: ReadonlyMap<string, readonly Wire[]>,
  isOff: (node: PatchNode) => boolean,
): (wire: Wire) => Origin | null {
  const found = new Map<string, Origin | null>();
  const originOf = (start: string): Origin | null => {
    const way: { id: string; back: Wire | null }[] = [];
    const seen = new Set<string>();
    let id = start;
    let origin: Origin | null;
    for (;;) {
      const known = found.get(id);
      const node = Object.hasOwn(scene.nodes, id) ? scene.nodes[id] : undefined;
      const kind = kindOf(catalogue, node);
      if (known !== undefined) origin = known;
      else if (!node || !kind || seen.has(id)) origin = null;
      else if (!kind.handsOn && !isOff(node)) origin = { node: id, back: null };
      else {
        seen.add(id);
        const through = isOff(node) ? passThroughOf(kind) : kind.handsOn!;
        const next = through === null ? undefined : into.get(id)?.find((w) => w.to.port === through);
        way.push({ id, back: next?.back ? next : null });
        if (next) {
          id = next.from.node;
          continue;
        }
        origin = null;
      }
      break;
    }
    for (const { id: passed, back } of way.reverse()) {
      // The return wire nearest to the origin is the one whose past is read.
      origin = origin && { node: origin.node, back: origin.back ?? back };
      found.set(passed, origin);
    }
    return origin;
  };
  return (wire) => {
    const origin = originOf(wire.from.node);
    return origin && { node: origin.node, back: origin.back ?? (wire.back ? wire : null) };
  };
}
