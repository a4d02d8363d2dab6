import { partsOf, type ResolvedControl } from '../kind/controls';
import { kindOf, type Catalogue } from '../kind/kind';
import type { PatchNode } from '../document/types';
import { plainValue } from './node-run';

/** The range that a signal node gives by nature. */
export function naturalRangeOf(node: PatchNode, catalogue: Catalogue): [number, number] {
  const kind = kindOf(catalogue, node);
  if (kind?.output !== 'signal') return [0, 1];
  const controls: Record<string, ResolvedControl> = {};
  for (const [name, spec] of Object.entries(kind.controls)) {
    const value = plainValue(spec, node.controls[name]);
    controls[name] = (
      Array.isArray(value) && partsOf(spec).length === 1 ? value[0] : value
    ) as ResolvedControl;
  }
  const [low, high] = kind.naturalRange(controls);
  return [low, high];
}
