import type { PreviewCell } from '../../engine/protocol';

const colours = new Map<string, string>();
const listeners = new Map<string, Set<(colour: string) => void>>();
const one = document.createElement('canvas');
one.width = one.height = 1;
const context = one.getContext('2d', { willReadFrequently: true })!;

/** Keeps the mean colour of a node's picture, lifted so that its wires can be seen on the dark ground. */
export function setMeanColour(node: string, bitmap: ImageBitmap, cell: PreviewCell): void {
  if (!listeners.has(node)) return;
  context.drawImage(bitmap, cell.x, cell.y, cell.width, cell.height, 0, 0, 1, 1);
  const [r, g, b] = context.getImageData(0, 0, 1, 1).data;
  const most = Math.max(r, g, b, 1);
  const lift = Math.max(1, 150 / most);
  // Nearly grey or black pictures keep the colour of image wires.
  const colour =
    most < 12
      ? 'var(--wire-image)'
      : `rgb(${[r, g, b].map((v) => Math.min(255, Math.round(v * lift + 20))).join(' ')})`;
  if (colours.get(node) === colour) return;
  colours.set(node, colour);
  for (const listener of listeners.get(node) ?? []) listener(colour);
}

export function onMeanColour(node: string, listener: (colour: string) => void): () => void {
  const set = listeners.get(node) ?? new Set();
  listeners.set(node, set);
  set.add(listener);
  const now = colours.get(node);
  if (now) listener(now);
  return () => {
    set.delete(listener);
    if (set.size === 0) listeners.delete(node);
  };
}
