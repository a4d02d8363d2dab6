import type { PatchNode, Scene } from '../../../core/document/types';

/** Whether two records have the same entries, but for those of some keys. */
function isSameBut<T extends object>(a: T, b: T, but: string): boolean {
  if (a === b) return true;
  const keys = Object.keys(a) as (keyof T & string)[];
  return (
    keys.length === Object.keys(b).length && keys.every((key) => key === but || Object.is(a[key], b[key]))
  );
}

/**
 * Whether all that the row of a control can show is the same in two states of a patch that share by identity what did not change: only values of
 * other controls of the node differ. While one is dragged, the rows of the others need not be drawn again.
 */
export function isSameRow(a: Scene, b: Scene, node: string, control: string): boolean {
  if (a === b) return true;
  const [before, after]: (PatchNode | undefined)[] = [a.nodes[node], b.nodes[node]];
  return (
    before !== undefined &&
    after !== undefined &&
    isSameBut(a, b, 'nodes') &&
    isSameBut(a.nodes, b.nodes, node) &&
    isSameBut(before, after, 'controls') &&
    before.controls[control] === after.controls[control]
  );
}
