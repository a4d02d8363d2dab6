import { kindOf } from '../kind/kind';
import { partName, partsOf } from '../kind/controls';
import { passThroughOf, type Carries, type Catalogue, type Kind } from '../kind/kind';
import type { PatchNode, Scene, Wire } from '../show/types';

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

/** What a port takes; null if there is no such port. */
export function portTakes(kind: Kind, port: string): readonly Carries[] | null {
  const found = portOf(kind, port);
  if (!found) return null;
  if (found.type === 'control') return ['signal'];
  const input = kind.inputs[found.name];
  return input.also ? [input.carries, input.also] : [input.carries];
}

/** Wires into each node, in the order they were drawn. */
export function wiresInto(scene: Scene): Map<string, Wire[]> {
  const into = new Map<string, Wire[]>();
  for (const wire of Object.values(scene.wires)) {
    const list = into.get(wire.to.node);
    if (list) list.push(wire);
    else into.set(wire.to.node, [wire]);
  }
  return into;
}

/** Whether `to` can be reached from `from` along wires that carry this frame. */
export function reaches(scene: Scene, from: string, to: string): boolean {
  if (from === to) return true;
  const seen = new Set([from]);
  const open = [from];
  const wires = Object.values(scene.wires).filter((wire) => !wire.back);
  while (open.length) {
    const here = open.pop()!;
    for (const wire of wires) {
      if (wire.from.node !== here || seen.has(wire.to.node)) continue;
      if (wire.to.node === to) return true;
      seen.add(wire.to.node);
      open.push(wire.to.node);
    }
  }
  return false;
}

/** Where a wire really comes from once nodes that are switched off hand on what enters them. */
export function sourceOf(
  scene: Scene,
  catalogue: Catalogue,
  into: Map<string, Wire[]>,
  wire: Wire,
  isOff: (node: PatchNode) => boolean,
): { node: string; back: Wire | null } | null {
  let back = wire.back ? wire : null;
  let id = wire.from.node;
  const seen = new Set<string>();
  for (;;) {
    const node = scene.nodes[id];
    const kind = node && kindOf(catalogue, node);
    if (!node || !kind || seen.has(id)) return null;
    if (!isOff(node)) return { node: id, back };
    seen.add(id);
    const through = passThroughOf(kind);
    const next = through && into.get(id)?.find((w) => w.to.port === through);
    if (!next) return null;
    if (next.back) back = next;
    id = next.from.node;
  }
}
