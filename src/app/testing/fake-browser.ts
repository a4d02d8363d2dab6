import type { FromEngine, ToEngine } from '../../engine/protocol/protocol';

/** The worker of an engine, as a page sees it: what was sent, and a way to answer. */
export class FakeWorker {
  static readonly all: FakeWorker[] = [];
  static get last(): FakeWorker {
    return FakeWorker.all[FakeWorker.all.length - 1];
  }
  readonly sent: ToEngine[] = [];
  readonly transferred: Transferable[][] = [];
  isTerminated = false;
  onmessage: ((event: { data: FromEngine }) => void) | null = null;
  onerror: ((event: { message: string; preventDefault(): void }) => void) | null = null;

  constructor() {
    FakeWorker.all.push(this);
  }

  postMessage(message: ToEngine, transfer: Transferable[] = []): void {
    this.sent.push(message);
    this.transferred.push(transfer);
  }

  terminate(): void {
    this.isTerminated = true;
  }

  /** What the engine says. */
  say(message: FromEngine): void {
    this.onmessage?.({ data: message });
  }

  /** Messages of a type, in the order they were sent. */
  of<T extends ToEngine['type']>(type: T): Extract<ToEngine, { type: T }>[] {
    return this.sent.filter((message): message is Extract<ToEngine, { type: T }> => message.type === type);
  }
}

/** Storage of a browser, in memory. */
class FakeStorage {
  private readonly items = new Map<string, string>();
  getItem(key: string): string | null {
    return this.items.get(key) ?? null;
  }
  setItem(key: string, value: string): void {
    this.items.set(key, value);
  }
  removeItem(key: string): void {
    this.items.delete(key);
  }
  clear(): void {
    this.items.clear();
  }
}

/** Locks that are granted when the test says so: an engine that dies lets go of its own. */
export const fakeLocks = {
  waiting: [] as (() => unknown)[],
  request(_name: string, ...rest: unknown[]): Promise<unknown> {
    fakeLocks.waiting.push(rest[rest.length - 1] as () => unknown);
    return new Promise(() => undefined);
  },
};

/** A channel on which nobody else is. */
class FakeChannel {
  addEventListener(): void {
    // Nobody speaks.
  }
  postMessage(): void {
    // Nobody hears it.
  }
}

/** A target of events without a document around it. */
export class FakeTarget {
  private readonly listeners = new Map<string, Set<(event: never) => void>>();
  addEventListener(type: string, listener: (event: never) => void): void {
    this.listeners.set(type, (this.listeners.get(type) ?? new Set()).add(listener));
  }
  removeEventListener(type: string, listener: (event: never) => void): void {
    this.listeners.get(type)?.delete(listener);
  }
  fire(type: string, event: object = {}): void {
    for (const listener of [...(this.listeners.get(type) ?? [])]) listener({ type, ...event } as never);
  }
}

export const fakeWindow = Object.assign(new FakeTarget(), {
  setTimeout: (run: () => void, ms: number) => setTimeout(run, ms),
  clearTimeout: (timer: number) => clearTimeout(timer),
});

/** A browser that has no time until the test says so: gives what waits for it, and what brings back how it was. */
export function holdIdle(): { waiting: (() => void)[]; release(): void } {
  const whole = globalThis as { requestIdleCallback?: unknown };
  const before = whole.requestIdleCallback;
  const waiting: (() => void)[] = [];
  whole.requestIdleCallback = (run: () => void) => waiting.push(run);
  return { waiting, release: () => (whole.requestIdleCallback = before) };
}

/**
 * Puts what modules of the app ask a browser for in place. Call it before they are imported: some read storage or the address
 * while they are loaded.
 */
export function installFakeBrowser(path = '/build'): void {
  const localStorage = new FakeStorage();
  Object.assign(fakeWindow, { localStorage });
  const globals: Record<string, unknown> = {
    Worker: FakeWorker,
    BroadcastChannel: FakeChannel,
    localStorage,
    sessionStorage: new FakeStorage(),
    location: { pathname: path, origin: 'http://localhost' },
    window: fakeWindow,
    document: Object.assign(new FakeTarget(), { querySelector: () => null, hidden: false }),
    requestAnimationFrame: (run: () => void) => setTimeout(run, 16),
    requestIdleCallback: (run: () => void) => setTimeout(run),
    cancelAnimationFrame: (frame: number) => clearTimeout(frame),
  };
  for (const [name, value] of Object.entries(globals))
    Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  Object.defineProperty(globalThis, 'navigator', { value: { locks: fakeLocks }, configurable: true });
}
