import { kindOf } from '../../core/kind/kind';
import type { Scene } from '../../core/document/types';
import { moveNode } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { editScene } from '../data/show-store';
import { faceHeight, faceWidth } from './live-layout';

/** Lays the patch out: pictures and shapes from left to right, signals below what they drive. */
export async function tidy(scene: Scene): Promise<void> {
  const isSignal = (id: string): boolean => kindOf(catalogue, scene.nodes[id])?.output === 'signal';
  const size = (id: string): { width: number; height: number } => ({
    width: faceWidth + 2,
    height: isSignal(id) ? 86 : faceHeight + 30,
  });
  const wires = Object.values(scene.wires).filter((wire) => !wire.back);
  const across = Object.keys(scene.nodes).filter((id) => !isSignal(id));
  // More than half of the app's own size, and not needed before the first Tidy.
  const { default: ELK } = await import('elkjs/lib/elk.bundled.js');
  const laid = await new ELK().layout({
    id: 'patch',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.spacing.nodeNode': '48',
      'elk.layered.spacing.nodeNodeBetweenLayers': '64',
      'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
    },
    children: across.map((id) => ({ id, ...size(id) })),
    edges: wires
      .filter((w) => !isSignal(w.from.node) && !isSignal(w.to.node))
      .map((w) => ({ id: w.id, sources: [w.from.node], targets: [w.to.node] })),
  });
  const places = new Map<string, [number, number]>();
  let low = 0;
  for (const child of laid.children ?? []) {
    places.set(child.id, [child.x ?? 0, child.y ?? 0]);
    low = Math.max(low, (child.y ?? 0) + (child.height ?? 0));
  }
  // Signals stand in rows under the picture part, each as near as may be below what it drives.
  const depth = new Map<string, number>();
  const depthOf = (id: string, seen: Set<string>): number => {
    if (depth.has(id) || seen.has(id)) return depth.get(id) ?? 0;
    seen.add(id);
    const next = wires
      .filter((w) => w.from.node === id && isSignal(w.to.node))
      .map((w) => depthOf(w.to.node, seen) + 1);
    depth.set(id, Math.max(0, ...next));
    return depth.get(id)!;
  };
  const rows = new Map<number, { id: string; x: number }[]>();
  const signals = Object.keys(scene.nodes).filter(isSignal);
  signals.sort((a, b) => depthOf(a, new Set()) - depthOf(b, new Set()));
  for (const id of signals) {
    const targets = wires.filter((w) => w.from.node === id).flatMap((w) => places.get(w.to.node) ?? []);
    const xs = targets.filter((_, k) => k % 2 === 0);
    const x = xs.length ? xs.reduce((a, b) => a + b, 0) / xs.length : 0;
    const row = depthOf(id, new Set());
    rows.set(row, [...(rows.get(row) ?? []), { id, x }]);
    places.set(id, [x, 0]);
  }
  for (const [row, list] of rows) {
    list.sort((a, b) => a.x - b.x);
    let free = -Infinity;
    for (const { id, x } of list) {
      const at = Math.max(x, free);
      places.set(id, [at, low + 70 + row * 130]);
      free = at + faceWidth + 28;
    }
  }
  editScene(scene.id, (draft) => {
    for (const [id, place] of places) if (draft.nodes[id]) moveNode(draft, id, place);
  });
}
