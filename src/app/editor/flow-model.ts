import { carriedBy, kindOf } from '../../core/kind/kind';
import type { Edge, Node } from '@xyflow/react';
import { shallow } from 'zustand/shallow';
import { portLabel, portOf } from '../../core/patch/wiring';
import type { Carries, Kind } from '../../core/kind/kind';
import type { Patch, PatchNode, Scene, Wire } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';

/** `node` is as it was when what its card shows last changed: its values may be others by now. */
export type CardNode = Node<{ node: PatchNode; driven: string[]; loops: boolean; aside: boolean }, 'card'>;
export type WireEdge = Edge<
  {
    wire: Wire;
    carries: Carries;
    /** Where it parts from the wires that it runs with. */
    joint?: readonly [number, number];
    /** It has stepped back: what is looked at is made of other things. */
    aside?: boolean;
  },
  'wire'
>;

/** About what a card takes, in patch pixels. */
export const cardSize = { width: 154, height: 114 };

export const wireColour = (carries: Carries): string => `var(--wire-${carries})`;

/** Ports on the lower edge of a card: signal inputs, then the controls that are driven. */
export function lowerPorts(kind: Kind, driven: readonly string[]): { port: string; label: string }[] {
  const inputs = Object.entries(kind.inputs)
    .filter(([, spec]) => spec.carries === 'signal')
    .map(([port, spec]) => ({ port, label: spec.label }));
  const controls = driven.map((port) => ({ port, label: portLabel(kind, port) }));
  return [...inputs, ...controls];
}

/** Ports on the left edge: pictures, shapes and props. */
export const leftPorts = (kind: Kind): { port: string; label: string; carries: Carries }[] =>
  Object.entries(kind.inputs)
    .filter(([, spec]) => spec.carries !== 'signal')
    .map(([port, spec]) => ({ port, label: spec.label, carries: spec.carries }));

/** The output that a handle of a card stands for; absent: the first. */
export const outputOf = (handle: string | null | undefined): string | undefined =>
  handle && handle !== 'out' ? handle : undefined;

/**
 * Cards and wires as they were last made: what did not change keeps its identity, so that it is not drawn again. Cards are known by the place of
 * their node, which stays the same while values change.
 */
const cache = new WeakMap<PatchNode['place'], { key: string; kept: PatchNode | null; node: CardNode }>();
const edges = new WeakMap<Wire, { key: string; edge: WireEdge }>();

/** The last lists: where all in a list is the same, so is the list. */
let lastNodes: CardNode[] = [];
let lastEdges: WireEdge[] = [];

/**
 * The scene as the patch canvas draws it; cards that show what they showed keep their identity. `focused`: those that do not step
 * back; null: none does.
 */
export function flowNodes(
  scene: Scene,
  selection: readonly string[],
  focused: ReadonlySet<string> | null = null,
): CardNode[] {
  const driven = new Map<string, string[]>();
  const loops = new Set<string>();
  for (const wire of Object.values(scene.wires)) {
    if (wire.back) loops.add(wire.to.node);
    const kind = kindOf(catalogue, scene.nodes[wire.to.node]);
    if (kind && portOf(kind, wire.to.port)?.type === 'control') {
      const list = driven.get(wire.to.node);
      if (list) list.push(wire.to.port);
      else driven.set(wire.to.node, [wire.to.port]);
    }
  }
  const nodes = Object.values(scene.nodes).map((node) => {
    const ports = driven.get(node.id) ?? [];
    const selected = selection.includes(node.id);
    const aside = focused !== null && !focused.has(node.id);
    const { id, kind, on, name } = node;
    const key = `${id} ${kind} ${on} ${selected} ${aside} ${ports.join(' ')} ${loops.has(id)} ${name}`;
    // Ports of some kinds follow from values.
    const kept = catalogue.get(kind)?.vary ? node : null;
    const known = cache.get(node.place);
    if (known?.key === key && known.kept === kept) return known.node;
    const made: CardNode = {
      id: node.id,
      type: 'card',
      position: { x: node.place[0], y: node.place[1] },
      // Until it was measured: enough to tell whether it is in sight.
      initialWidth: cardSize.width,
      initialHeight: cardSize.height,
      data: { node, driven: ports, loops: loops.has(node.id), aside },
      selected,
    };
    cache.set(node.place, { key, kept, node: made });
    return made;
  });
  if (!shallow(nodes, lastNodes)) lastNodes = nodes;
  return lastNodes;
}

/** What a wire of a patch carries. */
export function carriedAlong(scene: Patch, { from }: Wire): Carries {
  const kind = kindOf(catalogue, scene.nodes[from.node]);
  return (kind && carriedBy(kind, from.output)) ?? 'signal';
}

/** The wires of a scene. `joints`: where some part that run together; `focused`: nodes that do not step back. */
export function flowEdges(
  scene: Scene,
  chosen: string | null,
  joints: ReadonlyMap<string, readonly [number, number]> | null = null,
  focused: ReadonlySet<string> | null = null,
): WireEdge[] {
  const drawn = Object.values(scene.wires).flatMap((wire) => {
    const from = scene.nodes[wire.from.node];
    if (!from || !scene.nodes[wire.to.node]) return [];
    const carries = carriedAlong(scene, wire);
    const aside = focused !== null && !(focused.has(from.id) && focused.has(wire.to.node));
    const to = scene.nodes[wire.to.node];
    const toKind = kindOf(catalogue, to);
    const port = toKind ? portLabel(toKind, wire.to.port) : wire.to.port;
    const joint = joints?.get(wire.id);
    const selected = wire.id === chosen;
    const ariaLabel = `${wire.back ? 'Return wire' : 'Wire'} from ${from.name} to ${to.name}, ${port}`;
    const key = `${selected} ${carries} ${aside} ${joint?.join(' ') ?? ''} ${ariaLabel}`;
    const known = edges.get(wire);
    if (known?.key === key) return known.edge;
    const edge: WireEdge = {
      id: wire.id,
      type: 'wire',
      source: wire.from.node,
      sourceHandle: wire.from.output ?? 'out',
      target: wire.to.node,
      targetHandle: wire.to.port,
      data: { wire, carries, aside, joint },
      selected,
      ariaLabel,
    };
    edges.set(wire, { key, edge });
    return edge;
  });
  if (!shallow(drawn, lastEdges)) lastEdges = drawn;
  return lastEdges;
}
