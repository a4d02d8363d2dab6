import { asideOf, defaultReturn } from '../show/return-settings';
import { kindOf } from '../kind/kind';
import { formulaName } from '../formula/names';
import { partName, partsOf, type ControlSpec } from '../kind/controls';
import type { Catalogue, Kind } from '../kind/kind';
import { motionsOf, triggersOf } from '../show/motions';
import type { PatchNode, Scene, Wire } from '../show/types';
import { portOf, sourceOf, wiresInto } from './wiring';

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

const formulaWord = /(?<![A-Za-z0-9_.])[A-Za-z_][A-Za-z0-9_]*/g;

/** Ids of the nodes whose names a formula text speaks of. */
export function nodesNamedIn(text: string, byName: ReadonlyMap<string, string>): string[] {
  const found: string[] = [];
  for (const [word] of text.matchAll(formulaWord)) {
    const id = byName.get(word);
    if (id) found.push(id);
  }
  return found;
}

function planNode(
  scene: Scene,
  catalogue: Catalogue,
  into: Map<string, Wire[]>,
  node: PatchNode,
  kind: Kind,
  isOff: (node: PatchNode) => boolean,
): PlanNode {
  const inputs: Record<string, PlanSource[]> = {};
  for (const name of Object.keys(kind.inputs)) inputs[name] = [];
  const drives = new Map<string, PlanSource>();
  for (const wire of into.get(node.id) ?? []) {
    const port = portOf(kind, wire.to.port);
    const from = port && sourceOf(scene, catalogue, into, wire, isOff);
    if (!from) continue;
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
  return { id: node.id, kind, inputs, ports, sources: Object.values(inputs).flat(), parts, named: [] };
}

/**
 * Works out what has to run for the `roots` and in which order. Nodes that are off (and `without`, for a look at the
 * picture without that node) hand on their first input. A circle that no return wire opens, as a damaged file may hold,
 * is opened where it closes.
 */
export function buildPlan(
  scene: Scene,
  catalogue: Catalogue,
  roots: Iterable<string>,
  without: string | null = null,
): Plan {
  const into = wiresInto(scene);
  const isOff = (node: PatchNode): boolean => !node.on || node.id === without;
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

  const follow = (source: PlanSource): void => {
    if (!source.back && visiting.has(source.node)) {
      source.back = { ...source.wire, back: defaultReturn() };
    }
    if (source.back) {
      returns.set(source.back.id, source.back);
      later.push(source.node);
      for (const aside of asideOf(source.back.back)) {
        if (!visiting.has(aside)) visit(aside);
      }
    } else visit(source.node);
  };

  const visit = (id: string): void => {
    if (nodes.has(id) || visiting.has(id)) return;
    const node = scene.nodes[id];
    const kind = node && kindOf(catalogue, node);
    if (!node || !kind) return;
    visiting.add(id);
    const planned = planNode(scene, catalogue, into, node, kind, isOff);
    for (const sources of Object.values(planned.inputs)) sources.forEach(follow);
    for (const part of planned.parts) {
      if (part.source) follow(part.source);
      if (part.formula !== null) {
        for (const named of nodesNamedIn(part.formula, byName)) if (!visiting.has(named)) visit(named);
      }
      for (const trigger of triggersOf(node.motions[part.name])) if (!visiting.has(trigger)) visit(trigger);
    }
    for (const [control, spec] of Object.entries(kind.controls)) {
      const text = node.controls[control];
      if (spec.type === 'formula' && typeof text === 'string') {
        for (const named of nodesNamedIn(text, byName)) {
          planned.named.push(named);
          if (!visiting.has(named)) visit(named);
        }
      }
    }
    visiting.delete(id);
    nodes.set(id, planned);
    order.push(planned);
  };

  for (const root of roots) visit(root);
  while (later.length) visit(later.pop()!);
  return { order, nodes, returns: [...returns.values()], byName };
}

/** The node whose input is the scene's picture; null if the scene has none. */
export function sceneOutOf(scene: Scene, catalogue: Catalogue): string | null {
  for (const node of Object.values(scene.nodes)) {
    const kind = kindOf(catalogue, node);
    if (kind?.output === 'image' && kind.isSceneOut) return node.id;
  }
  return null;
}
