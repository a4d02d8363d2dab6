import type { PreviewCell } from '../../engine/protocol/protocol';

const colours = new Map<string, string>();
const listeners = new Map<string, Set<(colour: string) => void>>();
/** Looks at every so many pixels of a row, and at every so many rows. */
const stride = 4;

/** Keeps the mean colour of a node's picture, lifted so that its wires can be seen on the dark ground. */
export function setMeanColour(node: string, sheet: ImageData, cell: PreviewCell): void {
  if (!listeners.has(node)) return;
  const sum = [0, 0, 0];
  let count = 0;
  for (let y = cell.y; y < cell.y + cell.height; y += stride) {
    for (let x = cell.x; x < cell.x + cell.width; x += stride) {
      const at = 4 * (y * sheet.width + x);
      for (let c = 0; c < 3; c++) sum[c] += sheet.data[at + c];
      count++;
    }
  }
  const [r, g, b] = sum.map((v) => v / count);
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
