import type { Patch } from '../document/types';

export type Direction = 'left' | 'right' | 'up' | 'down';

const ways: Readonly<Record<Direction, readonly [number, number]>> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1],
};

/** How much further a patch pixel aside counts than one straight on. */
const asideWeight = 2;

/**
 * The node that one comes to from another in a direction: the nearest, where what lies aside counts as further. Null if there is none.
 * `from` null: the first from the left.
 */
export function nextNode(patch: Patch, from: string | null, direction: Direction): string | null {
  const nodes = Object.values(patch.nodes);
  const start = from === null ? undefined : patch.nodes[from];
  if (!start) {
    const [first] = [...nodes].sort((a, b) => a.place[0] - b.place[0] || a.place[1] - b.place[1]);
    return first?.id ?? null;
  }
  const [dx, dy] = ways[direction];
  let best: string | null = null;
  let least = Infinity;
  for (const node of nodes) {
    const [x, y] = [node.place[0] - start.place[0], node.place[1] - start.place[1]];
    const along = x * dx + y * dy;
    const aside = Math.abs(x * dy) + Math.abs(y * dx);
    if (node.id === from || along <= 0 || aside > 3 * along) continue;
    const far = along + asideWeight * aside;
    if (far < least) {
      least = far;
      best = node.id;
    }
  }
  return best;
}
