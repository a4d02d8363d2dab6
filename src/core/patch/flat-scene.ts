import type { Scene } from '../document/types';

/** A part of a control that is set wherever another is. */
export interface Forward {
  node: string;
  part: string;
  /** Value = factor x value of the other + offset. */
  factor: number;
  offset: number;
}

/** A scene whose modules were taken apart: all their nodes lie in it, under ids that say where they are from. */
export interface FlatScene extends Scene {
  /** Parts of controls of module nodes, as node and part with a blank between, and what they set inside. */
  forwards?: Readonly<Record<string, readonly Forward[]>>;
}

/** What a control of a module node sets, and what that sets in turn. */
export function* forwardsFrom(
  forwards: FlatScene['forwards'],
  node: string,
  part: string,
  factor = 1,
  offset = 0,
): Iterable<Forward> {
  for (const next of forwards?.[`${node} ${part}`] ?? []) {
    const own = { ...next, factor: next.factor * factor, offset: next.factor * offset + next.offset };
    yield own;
    yield* forwardsFrom(forwards, own.node, own.part, own.factor, own.offset);
  }
}
