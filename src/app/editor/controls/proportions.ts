import type { ControlSpec } from '../../../core/kind/controls';

/** Whether the parts of a control stand in a proportion: a size or a factor of each axis, none of which begins at 0. */
export const hasProportions = (spec: ControlSpec): boolean =>
  spec.type === 'vector' && spec.default.length > 1 && spec.default.every((v) => v !== 0);

/** The parts of a control once one of them has moved and the others follow in proportion; from 0 on, by the same amount. */
export function inProportion(parts: readonly number[], moved: number, to: number): number[] {
  const from = parts[moved];
  return parts.map((value, k) => {
    if (k === moved) return to;
    return Number((from === 0 ? value + to : (value * to) / from).toFixed(6));
  });
}
