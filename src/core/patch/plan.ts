import { asideOf, defaultReturn } from '../document/return-settings';
import { kindOf } from '../kind/kind';
import { formulaName, formulaWords } from '../formula/names';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import { carriedBy, type Catalogue, type Kind } from '../kind/kind';
import { motionsOf, triggersOf } from '../document/motions';
import type { PatchNode, Patch, Wire } from '../document/types';
import { originFinder, portLabel, portOf, portTakes, wiresInto, type Origin } from './wiring';

/** Where an input of a planned node comes from. */
export interface PlanSource {
  node: string;
  wire: Wire;
  /** The return wire it came along, if it carries the frame before. */
  back: Wire | null;
}

/** One driven part of a control. */
export interface PlanPart {
  control: string;
  spec: ControlSpec;
  /** Index among the parts of the control. */
  part: number;
  /** `size`, `place.x`. */
  name: string;
  source: PlanSource | null;
  formula: string | null;
}

export interface PlanNode {
  id: string;
  kind: Kind;
  inputs: Record<string, PlanSource[]>;
  /** The inputs as a list, and all that comes through them as another: both are gone through every frame. */
  ports: readonly { name: string; many: boolean; sources: readonly PlanSource[] }[];
  sources: readonly PlanSource[];
  parts: PlanPart[];
  /** Nodes that its formula controls speak of. */
  named: string[];
  /** What is wrong with wires that enter it, one sentence each: such wires carry nothing. */
  refused: readonly string[];
}

export interface Plan {
  /** Live nodes, each after all it reads this frame. */
  order: readonly PlanNode[];
  nodes: ReadonlyMap<string, PlanNode>;
  /** Return wires that are read, by id. */
  returns: readonly Wire[];
  /** Node ids by the name that formulas use. */
  byName: ReadonlyMap<string, string>;
}

/** Ids of the nodes whose names a formula text speaks of. */
export function nodesNamedIn(text: string, byName: ReadonlyMap<string, string>): string[] {
  return formulaWords(text).flatMap((word) => byName.get(word) ?? []);
}

/**
 * What is wrong with a wire between nodes that are there: its port does not exist or takes something else than the wire
 * carries. Null if it fits, or if one end is of a kind that is not known. `origin`: the node whose output really comes
 * along it, where those between are off.
 */
export function misfit(
  scene: Patch,
  catalogue: Catalogue,
  wire: Wire,
  origin: string = wire.from.node,
): string | null {
  const from = scene.nodes[origin];
  const to = scene.nodes[wire.to.node];
  const fromKind = kindOf(catalogue, from);
  const toKind = kindOf(catalogue, to);
  if (!fromKind || !toKind) return null;
  const accepted = portTakes(toKind, wire.to.port);
  if (!accepted) return `${to.name} has no port ${wire.to.port}; the wire from ${from.name} does nothing.`;
  const carried = origin === wire.from.node ? carriedBy(fromKind, wire.from.output) : fromKind.output;
  if (!carried)
    return `${from.name} has no output ${wire.from.output!}; the wire to ${to.name} does nothing.`;
  if (accepted.includes(carried)) return null;
  return `${from.name} gives ${carried}, and ${to.name} takes ${accepted.join(' or ')} at ${portLabel(toKind, wire.to.port)}; the wire does nothing.`;
}

function planNode(
  scene: Patch,
  catalogue: Catalogue,
  into: ReadonlyMap<string, readonly Wire[]>,
  originOf: (wire: Wire) => Origin | null,
  node: PatchNode,
  kind: Kind,
): PlanNode {
  const inputs: Record<string, PlanSource[]> = {};
  for (const name of Object.keys(kind.inputs)) inputs[name] = [];
  const drives = new Map<string, PlanSource>();
  const refused: string[] = [];
  for (const wire of into.get(node.id) ?? []) {
    const from = originOf(wire);
    if (!from) continue;
    const wrong = misfit(scene, catalogue, wire, from.node);
    if (wrong) {
      refused.push(wrong);
      continue;
    }
    const port = portOf(kind, wire.to.port)!;
    if (port.type === 'input' && kind.handsOn && port.name !== kind.handsOn) continue;
    const source = { node: from.node, wire, back: from.back };
    if (port.type === 'control') drives.set(wire.to.port, source);
    else if (kind.inputs[port.name].many || inputs[port.name].length === 0) inputs[port.name].push(source);
  }
  const parts: PlanPart[] = [];
  for (const [control, spec] of Object.entries(kind.controls)) {
    partsOf(spec).forEach((part, index) => {
      const name = partName(control, part);
      const source = drives.get(name) ?? drives.get(control) ?? null;
      const formula = source ? null : (node.formulas[name] ?? null);
      if (source || formula !== null || motionsOf(node, control, name).length) {
        parts.push({ control, spec, part: index, name, source, formula });
      }
    });
  }
  const ports = Object.entries(kind.inputs).map(([name, spec]) => ({
    name,
    many: spec.many === true,
    sources: inputs[name],
  }));
  return {
    id: node.id,
    kind,
    inputs,
    ports,
    sources: Object.values(inputs).flat(),
    parts,
    named: [],
    refused,
  };
}

/**
 * Works out what has to run for the `roots` and in which order. Nodes that are off (and `without`, for a look at the
 * picture without that node) hand on their first input. A cycle that no return wire opens, as a damaged file may hold,
 * is opened where it closes.
 */
export function buildPlan(
  scene: Patch,
  catalogue: Catalogue,
  roots: Iterable<string>,
  without: string | null = null,
): Plan {
  const into = wiresInto(scene);
  const originOf = originFinder(scene, catalogue, into, (node) => !node.on || node.id === without);
  const byName = new Map<string, string>();
  for (const node of Object.values(scene.nodes)) {
    const name = formulaName(node.name);
    if (!byName.has(name)) byName.set(name, node.id);
  }
  const nodes = new Map<string, PlanNode>();
  const order: PlanNode[] = [];
  const returns = new Map<string, Wire>();
  const visiting = new Set<string>();
  const later: string[] = [];

  function* behind(source: PlanSource): Iterable<string> {
    if (!source.back && visiting.has(source.node)) {
      source.back = { ...source.wire, back: defaultReturn() };
    }
    if (source.back) {
      returns.set(source.back.id, source.back);
      later.push(source.node);
      yield* asideOf(source.back.back);
    } else yield source.node;
  }

  /** All that a node reads, in the order in which it is asked; what is being visited already is passed over. */
  function* readBy(planned: PlanNode, node: PatchNode): Iterable<string> {
    for (const source of planned.sources) yield* behind(source);
    for (const part of planned.parts) {
      if (part.source) yield* behind(part.source);
      if (part.formula !== null) yield* nodesNamedIn(part.formula, byName);
      yield* triggersOf(node.motions[part.name]);
    }
    for (const [control, spec] of Object.entries(planned.kind.controls)) {
      const text = node.controls[control];
      if (spec.type !== 'formula' || typeof text !== 'string') continue;
      const named = nodesNamedIn(text, byName);
      planned.named.push(...named);
      yield* named;
    }
  }

  // Depth first with a stack of its own: a chain may be longer than calls can be nested.
  const walk: { planned: PlanNode; reads: Iterator<string> }[] = [];
  const enter = (id: string): void => {
    if (nodes.has(id) || visiting.has(id) || !Object.hasOwn(scene.nodes, id)) return;
    const node = scene.nodes[id];
    const kind = kindOf(catalogue, node);
    if (!kind) return;
    visiting.add(id);
    const planned = planNode(scene, catalogue, into, originOf, node, kind);
    walk.push({ planned, reads: readBy(planned, node)[Symbol.iterator]() });
  };
  const visit = (root: string): void => {
    enter(root);
    while (walk.length) {
      const { planned, reads } = walk[walk.length - 1];
      const next = reads.next();
      if (!next.done) {
        enter(next.value);
        continue;
      }
      walk.pop();
      visiting.delete(planned.id);
      nodes.set(planned.id, planned);
      order.push(planned);
    }
  };

  for (const root of roots) visit(root);
  while (later.length) visit(later.pop()!);
  return { order, nodes, returns: [...returns.values()], byName };
}

/** The node whose input is the scene's picture; null if the scene has none. */
export function sceneOutOf(scene: Patch, catalogue: Catalogue): string | null {
  for (const node of Object.values(scene.nodes)) {
    const kind = kindOf(catalogue, node);
    if (kind?.output === 'image' && kind.isSceneOut) return node.id;
  }
  return null;
}
