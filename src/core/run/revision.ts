const revisions = new WeakMap<Float32Array, number>();

/** Says that numbers which are kept in the same room have been written anew. */
export function markWritten(room: Float32Array): void {
  revisions.set(room, (revisions.get(room) ?? 0) + 1);
}

/** How often a room was written anew: who keeps a copy of it compares this, as the room itself stays the same. */
export const revisionOf = (room: Float32Array): number => revisions.get(room) ?? 0;
