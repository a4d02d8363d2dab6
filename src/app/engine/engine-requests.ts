import type { EngineAnswer, EngineRequest, FromEngine, ToEngine } from '../../engine/protocol/protocol';
import { requestInEngine } from './places';

const usualMs = 20000;

interface Open {
  request: EngineRequest;
  sent: boolean;
  resolve(answer: EngineAnswer): void;
  reject(error: Error): void;
  timer: number;
}

/** What the engine was asked and has not answered. */
export class EngineRequests {
  private readonly open = new Map<number, Open>();
  private count = 0;

  constructor(
    private readonly post: (message: ToEngine) => void,
    /** Whether there is an engine that has a show. */
    private readonly canBeAsked: () => boolean,
  ) {}

  /** Sends a request; rejects if the engine refuses, dies or takes longer than `limitMs`. */
  ask<T extends EngineRequest['type']>(
    request: Extract<EngineRequest, { type: T }>,
    limitMs = usualMs,
  ): Promise<Extract<EngineAnswer, { type: T }>> {
    return new Promise((resolve, reject) => {
      const id = ++this.count;
      const timer = window.setTimeout(() => {
        this.open.delete(id);
        reject(new Error('The engine did not answer in time.'));
      }, limitMs);
      const answer = resolve as (answer: EngineAnswer) => void;
      this.open.set(id, { request, sent: false, resolve: answer, reject, timer });
      this.sendAll();
    });
  }

  /** Sends those that came before there was an engine with a show. */
  sendAll(): void {
    if (!this.canBeAsked()) return;
    for (const [id, one] of this.open) {
      if (one.sent) continue;
      one.sent = true;
      this.post({ type: 'request', id, request: requestInEngine(one.request) });
    }
  }

  settle(message: Extract<FromEngine, { type: 'answer' | 'refusal' }>): void {
    const one = this.open.get(message.id);
    this.open.delete(message.id);
    if (!one) return;
    clearTimeout(one.timer);
    if (message.type === 'answer') one.resolve(message.answer);
    else one.reject(new Error(message.message));
  }

  /** The engine is gone. */
  rejectAll(): void {
    for (const { reject, timer } of this.open.values()) {
      clearTimeout(timer);
      reject(new Error('The engine stopped before it could answer.'));
    }
    this.open.clear();
  }
}
