import type { FromServer } from '../../core/machines/link';

/** The link of a window: what it told, and a way to say what others do. */
export class FakeLink {
  readonly sent: unknown[][] = [];
  readonly volatile = this;
  readonly connected = true;
  /** It comes back by itself. */
  active = true;
  private readonly listeners = new Map<string, ((...args: never[]) => void)[]>();
  on(event: string, listener: (...args: never[]) => void): void {
    this.listeners.set(event, [...(this.listeners.get(event) ?? []), listener]);
  }
  emit(...message: unknown[]): void {
    this.sent.push(message);
  }
  connect(): this {
    return this;
  }
  disconnect(): this {
    return this;
  }
  say<K extends keyof FromServer | 'disconnect' | 'connect_error'>(
    event: K,
    ...args: K extends keyof FromServer ? Parameters<FromServer[K]> : unknown[]
  ): void {
    for (const listener of this.listeners.get(event) ?? []) listener(...(args as never[]));
  }
  /** What was told by an event, each time. */
  of(event: string): unknown[][] {
    return this.sent.filter(([name]) => name === event).map(([, ...args]) => args);
  }
}
