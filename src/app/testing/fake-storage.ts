const missing = (name: string): Error =>
  Object.assign(new Error(`There is no ${name}.`), { name: 'NotFoundError' });

/** A folder of the browser’s own storage, in memory: folders and the names of files. */
export class FakeFolder {
  readonly entries = new Map<string, FakeFolder | null>();

  getDirectoryHandle(name: string, { create = false } = {}): Promise<FakeFolder> {
    let folder = this.entries.get(name);
    if (!folder && !create) return Promise.reject(missing(name));
    if (!folder) this.entries.set(name, (folder = new FakeFolder()));
    return Promise.resolve(folder);
  }

  getFileHandle(name: string, { create = false } = {}): Promise<object> {
    if (!this.entries.has(name) && !create) return Promise.reject(missing(name));
    this.entries.set(name, null);
    return Promise.resolve({});
  }

  removeEntry(name: string): Promise<void> {
    return this.entries.delete(name) ? Promise.resolve() : Promise.reject(missing(name));
  }

  async *keys(): AsyncGenerator<string> {
    yield* [...this.entries.keys()];
    await Promise.resolve();
  }
}

/** Locks of a browser: each is held by one at a time, until what was done with it is done. */
export class FakeLocks {
  private readonly held = new Map<string, Promise<unknown>>();

  async request(name: string, ...rest: unknown[]): Promise<unknown> {
    const run = rest[rest.length - 1] as (lock: object | null) => unknown;
    const { ifAvailable = false } = (rest.length > 1 ? rest[0] : {}) as { ifAvailable?: boolean };
    if (ifAvailable && this.held.has(name)) return run(null);
    while (this.held.has(name)) await this.held.get(name);
    const done = Promise.resolve(run({ name }));
    this.held.set(
      name,
      done.catch(() => undefined),
    );
    try {
      return await done;
    } finally {
      this.held.delete(name);
    }
  }
}
