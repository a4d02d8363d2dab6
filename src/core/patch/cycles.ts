import { componentsOf } from './components';
import type { Plan, PlanNode } from './plan';

/** Nodes that have to be drawn together: one by itself, or all that lie on cycles with each other. */
export interface Cycle {
  nodes: readonly PlanNode[];
  /** Whether a wire among them carries the picture before. */
  returns: boolean;
}

/**
 * The image nodes of a plan in an order in which each cycle is drawn as a whole, after everything that enters it.
 */
export function cyclesOf(plan: Plan): Cycle[] {
  const place = new Map(plan.order.map((node, k) => [node.id, k]));
  const edges = new Map<string, Set<string>>();
  const isImage = (id: string | null | undefined): id is string =>
    id != null && plan.nodes.get(id)?.kind.output === 'image';
  const edge = (from: string, to: string | null | undefined): void => {
    if (!isImage(to)) return;
    const list = edges.get(from);
    if (list) list.add(to);
    else edges.set(from, new Set([to]));
  };
  const returning = new Set<string>();
  for (const node of plan.order) {
    if (node.kind.output !== 'image') continue;
    for (const source of imageSourcesOf(plan, node)) {
      edge(node.id, source.node);
      const settings = source.back?.back;
      if (!settings || !isImage(source.node)) continue;
      edge(source.node, node.id);
      returning.add(node.id);
      edge(node.id, settings.startsFrom);
      edge(node.id, settings.clearWhere);
    }
  }
  const images = plan.order.filter(({ kind }) => kind.output === 'image').map(({ id }) => id);
  return componentsOf(images, (id) => edges.get(id) ?? []).map((ids) => ({
    nodes: ids.sort((a, b) => place.get(a)! - place.get(b)!).map((id) => plan.nodes.get(id)!),
    returns: ids.some((id) => returning.has(id)),
  }));
}

/**
 * Sources of the images that a node reads: its own, and those of props that enter it, since they may carry pictures on
 * their surfaces.
 */
function imageSourcesOf(plan: Plan, node: PlanNode): PlanNode['inputs'][string] {
  const found: PlanNode['inputs'][string] = [];
  const seen = new Set<string>();
  const walk = (at: PlanNode): void => {
    for (const source of Object.values(at.inputs).flat()) {
      const from = plan.nodes.get(source.node);
      if (!from) continue;
      if (from.kind.output === 'image') found.push(source);
      else if ((from.kind.output === 'prop' || from.kind.output === 'field') && !seen.has(from.id)) {
        seen.add(from.id);
        walk(from);
      }
    }
  };
  walk(node);
  return found;
}
