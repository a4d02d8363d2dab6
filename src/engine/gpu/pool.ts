/** Most that are kept of a kind: more would only fill the GPU after a change of size. */
const most = 4;
/** Calls of `trim` that one stays without being taken. */
const patience = 5;

/** What is dear to make and free at the moment, by its kind, for the next who needs one. */
export class Pool<T extends { dispose(): void }> {
  private readonly free = new Map<string, { one: T; at: number }[]>();
  private round = 0;

  /** The one that was given back last; undefined: there is none. */
  take(kind: string): T | undefined {
    return this.free.get(kind)?.pop()?.one;
  }

  /** Keeps one, or disposes of it where there are enough. */
  give(kind: string, one: T): void {
    const list = this.free.get(kind) ?? [];
    if (list.length >= most) {
      one.dispose();
      return;
    }
    list.push({ one, at: this.round });
    this.free.set(kind, list);
  }

  /** How many are kept. */
  get size(): number {
    let size = 0;
    for (const list of this.free.values()) size += list.length;
    return size;
  }

  /** To be called now and then: disposes of what nobody has wanted for some calls. */
  trim(): void {
    this.round++;
    for (const [kind, list] of this.free) {
      // Those that lie lowest have waited longest.
      const stays = list.findIndex(({ at }) => this.round - at <= patience);
      for (const { one } of list.splice(0, stays < 0 ? list.length : stays)) one.dispose();
      if (list.length === 0) this.free.delete(kind);
    }
  }

  clear(): void {
    for (const list of this.free.values()) for (const { one } of list) one.dispose();
    this.free.clear();
  }
}
