import { asideOf } from '../document/return-settings';
import type { Kind } from '../kind/kind';
import type { Cycle } from './cycles';
import type { Plan } from './plan';

/** Whether a kind keeps past pictures of what enters it. */
export const keepsPictures = (kind: Kind): boolean =>
  kind.output === 'image' &&
  'sheets' in kind.paint &&
  Object.values(kind.paint.sheets ?? {}).some((sheet) => sheet.from === 'past');

/**
 * Image nodes whose pictures of earlier frames count for a later one: those that are fed back, those whose past is kept,
 * those whose pixels are read as numbers, and all that enters these. Where there are none, a frame can be drawn without
 * any of the frames before it.
 */
export function picturesWithHistory(plan: Plan, cycles: readonly Cycle[]): ReadonlySet<string> {
  const isImage = (id: string): boolean => plan.nodes.get(id)?.kind.output === 'image';
  const seen = new Set<string>();
  const open: string[] = [];
  const want = (id: string | null | undefined): void => {
    if (id == null || seen.has(id)) return;
    seen.add(id);
    open.push(id);
  };
  for (const { returns, nodes } of cycles) if (returns) for (const { id } of nodes) want(id);
  for (const { kind, sources } of plan.order)
    if (keepsPictures(kind) || (kind.output === 'signal' && kind.pixels))
      for (const { node } of sources) want(node);
  while (open.length) {
    for (const { node, back } of plan.nodes.get(open.pop()!)?.sources ?? []) {
      want(node);
      if (back) for (const aside of asideOf(back.back)) want(aside);
    }
  }
  return new Set([...seen].filter(isImage));
}
