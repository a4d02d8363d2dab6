const revisions = new WeakMap<Float32Array, number>();

/** Bumps the revision of a buffer that was rewritten in place. */
export function markWritten(buffer: Float32Array): void {
  revisions.set(buffer, (revisions.get(buffer) ?? 0) + 1);
}

/** How often a buffer was rewritten in place: who keeps a copy compares this, as the buffer itself stays the same. */
export const revisionOf = (buffer: Float32Array): number => revisions.get(buffer) ?? 0;
