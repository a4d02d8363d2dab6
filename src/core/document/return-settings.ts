import type { ReturnSettings } from './types';

/** How a wire that closes a cycle starts. */
export const defaultReturn = (): ReturnSettings => ({
  keep: 0.95,
  startsFrom: null,
  clearWhen: null,
  guard: 'soft',
  limit: 8,
  reading: 'smooth',
  size: null,
  precision: 'auto',
  clearWhere: null,
  tap: 'after',
});

const asides = ['startsFrom', 'clearWhen', 'clearWhere'] as const;

/** Nodes that a return wire needs beside its source. */
export function asideOf(settings: ReturnSettings | undefined): string[] {
  return settings ? asides.flatMap((name) => settings[name] ?? []) : [];
}

/** Names other nodes in place of those a return wire needs; null takes one away. */
export function renameAsides(settings: ReturnSettings, other: (id: string) => string | null): void {
  for (const name of asides) {
    const id = settings[name];
    if (id !== null) settings[name] = other(id);
  }
}

/**
 * Whether a loop of pictures is kept in a picture of its own, drawn once a step, and not read where its source stands:
 * where it has another size or precision, comes home by a mask, or is shown as it was before this step.
 */
export const keptApart = (settings: ReturnSettings): boolean =>
  settings.size !== null ||
  settings.precision !== 'auto' ||
  settings.clearWhere !== null ||
  settings.tap === 'before';
