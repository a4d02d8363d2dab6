import type { ImageKind } from '../kind/kind';
import type { Scene } from '../show/types';
import type { Plan, PlanNode, PlanSource } from './plan';

/** A read of an image by an input of a node. */
interface Read {
  reader: PlanNode;
  reads: 'same' | 'moved' | 'many' | 'data';
  source: PlanSource;
}

export interface StorageQuestion {
  plan: Plan;
  scene: Scene;
  /** Pixels of each live image node. */
  sizeOf(id: string): string;
  /** Nodes whose picture somebody else needs: shown on a surface, or read by props. */
  wanted: ReadonlySet<string>;
}

/** More calls of one function than this in a single shader, and its result is stored instead. */
const mostCalls = 4;

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

/**
 * Decides which pictures are drawn into a texture of their own; all others become part of the shader that reads them.
 * Stored is what two readers or many places read, what comes back around a circle, what another size or an explicit
 * precision asks for, and what is no single shader.
 */
export function storedImages(question: StorageQuestion): Set<string> {
  const { plan, scene, sizeOf, wanted } = question;
  const reads = imageReads(plan);
  const starts = new Set(plan.returns.map((wire) => wire.back?.startsFrom).filter((id) => id != null));
  const stored = new Set<string>();
  // How often the function of a node is called in the shader it ends up in; readers come after sources in the order,
  // so calls are counted from the sources on.
  const calls = new Map<string, number>();
  for (const node of plan.order) {
    if (node.kind.output !== 'image') continue;
    const kind: ImageKind = node.kind;
    let own = 1;
    for (const [name, sources] of Object.entries(node.inputs)) {
      const source = sources[0];
      if (!source || stored.has(source.node) || source.back) continue;
      const dry =
        kind.inputs[name].reads === 'moved' && kind.paint.type === 'shader' && kind.paint.wet ? 2 : 1;
      own += dry * (calls.get(source.node) ?? 1);
    }
    const list = reads.get(node.id) ?? [];
    const [read] = list;
    const alone =
      list.length === 1 &&
      (read.reads === 'same' || read.reads === 'moved') &&
      read.source.back === null &&
      read.reader.kind.output === 'image' &&
      read.reader.kind.paint.type === 'shader' &&
      sizeOf(read.reader.id) === sizeOf(node.id);
    const moved = alone && read.reads === 'moved';
    const wet =
      moved &&
      read.reader.kind.output === 'image' &&
      read.reader.kind.paint.type === 'shader' &&
      read.reader.kind.paint.wet;
    const keeps =
      !alone ||
      kind.paint.type !== 'shader' ||
      scene.nodes[node.id].precision !== 'auto' ||
      wanted.has(node.id) ||
      starts.has(node.id) ||
      own * (wet ? 2 : 1) > mostCalls * 2 ||
      // Moving what is itself a stored picture would read it between pixels twice; once is exact.
      (moved && own > mostCalls);
    if (keeps) stored.add(node.id);
    calls.set(node.id, keeps ? 1 : own);
  }
  return stored;
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
