import { asideOf } from '../document/return-settings';
import type { ImageKind, Reads } from '../kind/kind';
import type { Scene } from '../document/types';
import type { Cycle } from './cycles';
import type { Plan, PlanNode, PlanSource } from './plan';

/** A read of an image by an input of a node. */
interface Read {
  reader: PlanNode;
  reads: Reads;
  source: PlanSource;
}

export interface StorageQuestion {
  plan: Plan;
  scene: Scene;
  /** Pixels of each live image node. */
  sizeOf(id: string): string;
  /** Nodes whose picture somebody else needs: shown on a surface, or read by props. */
  wanted: ReadonlySet<string>;
  /** A node that is not drawn at all, since whoever shows what enters it does its part; null: all are. */
  unshown?: string | null;
}

/** What a node brings into the shader that it would be joined into. */
interface Tree {
  /** How often its most called function is called for one pixel. */
  calls: number;
  /** Nodes, itself included. */
  nodes: number;
  /** Textures that are read, of other pictures and in all. */
  textures: number;
  samplers: number;
}

/** Beyond these a picture is stored: a function would be worked out too often, or a shader outgrow what GPUs take. */
const most: Tree = { calls: 4, nodes: 24, textures: 5, samplers: 8 };

function imageReads(plan: Plan): Map<string, Read[]> {
  const reads = new Map<string, Read[]>();
  for (const reader of plan.order) {
    for (const [name, sources] of Object.entries(reader.inputs)) {
      for (const source of sources) {
        if (plan.nodes.get(source.node)?.kind.output !== 'image') continue;
        const how = reader.kind.output === 'image' ? (reader.kind.inputs[name].reads ?? 'same') : 'data';
        const list = reads.get(source.node);
        const read = { reader, reads: how, source };
        if (list) list.push(read);
        else reads.set(source.node, [read]);
      }
    }
  }
  return reads;
}

/** How often a reader calls the function of an input: with Amount, once for the dry picture as well. */
const callsBy = (kind: ImageKind, reads: Read['reads']): number =>
  reads === 'moved' && kind.paint.type === 'shader' && kind.paint.wet ? 2 : 1;

function treeOf(
  node: PlanNode,
  kind: ImageKind,
  stored: ReadonlySet<string>,
  trees: ReadonlyMap<string, Tree>,
): Tree {
  const sheets = 'sheets' in kind.paint ? Object.keys(kind.paint.sheets ?? {}).length : 0;
  const tree: Tree = { calls: 1, nodes: 1, textures: 0, samplers: sheets };
  for (const [name, [source]] of Object.entries(node.inputs)) {
    if (!source) continue;
    const above = source.back || stored.has(source.node) ? undefined : trees.get(source.node);
    if (!above) {
      tree.textures++;
      tree.samplers++;
      continue;
    }
    tree.calls = Math.max(tree.calls, above.calls * callsBy(kind, kind.inputs[name].reads ?? 'same'));
    tree.nodes += above.nodes;
    tree.textures += above.textures;
    tree.samplers += above.samplers;
  }
  return tree;
}

/**
 * Decides which pictures are drawn into a texture of their own; all others become part of the shader that reads them.
 * Stored is what two readers or many places read, what comes back around a cycle, what another size or an explicit
 * precision asks for, and what is no single shader.
 */
export function storedImages(question: StorageQuestion): Set<string> {
  const { plan, scene, sizeOf, wanted, unshown } = question;
  const reads = imageReads(plan);
  const asides = new Set(plan.returns.flatMap((wire) => asideOf(wire.back)));
  const stored = new Set<string>();
  const trees = new Map<string, Tree>();
  for (const node of plan.order) {
    if (node.kind.output !== 'image' || node.id === unshown) continue;
    const tree = treeOf(node, node.kind, stored, trees);
    const list = reads.get(node.id) ?? [];
    const [read] = list;
    const joinable =
      list.length === 1 &&
      (read.reads === 'same' || read.reads === 'moved') &&
      read.source.back === null &&
      read.reader.kind.output === 'image' &&
      read.reader.kind.paint.type === 'shader' &&
      sizeOf(read.reader.id) === sizeOf(node.id) &&
      node.kind.paint.type === 'shader' &&
      !node.kind.paint.alone &&
      !read.reader.kind.paint.alone &&
      scene.nodes[node.id].precision === 'auto' &&
      !wanted.has(node.id) &&
      !asides.has(node.id);
    // Moving what reads a texture would mix its pixels first and change them then, which is another picture.
    const fits =
      joinable &&
      tree.nodes < most.nodes &&
      tree.samplers <= most.samplers &&
      tree.textures <= (read.reads === 'moved' ? 0 : most.textures) &&
      tree.calls * callsBy(read.reader.kind as ImageKind, read.reads) <= most.calls;
    if (!fits) stored.add(node.id);
    trees.set(node.id, tree);
  }
  return stored;
}

/**
 * Above this Keep, `auto` gives feedback 32 bits. Each round is rounded to 1 part in 4096 (half of a step of 16-bit floats
 * just below 1), and what is lost adds up to that over 1 - Keep: at 0.95 one step of an 8-bit display, beyond it more.
 */
const longKeep = 0.95;

/**
 * Precision that feedback asks of the image nodes on its way round, by node: a picture that is rounded anywhere on the way
 * is rounded every time. `asked`: set by hand on a return wire; else by how long it keeps.
 */
export function feedbackPrecision(
  cycles: readonly Cycle[],
): Map<string, { bits: '8' | '16' | '32'; isByHand: boolean }> {
  const precision = new Map<string, { bits: '8' | '16' | '32'; isByHand: boolean }>();
  for (const { nodes, returns } of cycles) {
    if (!returns) continue;
    const settings = nodes.flatMap((node) => node.sources.flatMap(({ back }) => back?.back ?? []));
    const asked = (['32', '16', '8'] as const).find((bits) => settings.some((s) => s.precision === bits));
    const isLong = settings.some((s) => s.precision === 'auto' && s.keep > longKeep);
    const bits = isLong ? '32' : asked;
    if (bits) for (const { id } of nodes) precision.set(id, { bits, isByHand: bits === asked });
  }
  return precision;
}

/** Nodes whose pixels are used as numbers, directly or through nodes that only change them: `auto` gives them 32 bits. */
export function numberImages(plan: Plan): Set<string> {
  const numbers = new Set<string>();
  for (const node of [...plan.order].reverse()) {
    for (const [name, spec] of Object.entries(node.kind.inputs)) {
      const asNumbers = spec.reads === 'data' || (node.kind.output === 'image' && numbers.has(node.id));
      if (!asNumbers) continue;
      for (const source of node.inputs[name]) numbers.add(source.node);
    }
  }
  return numbers;
}
