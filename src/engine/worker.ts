import { catalogue } from '../nodes/catalogue';
import { Engine } from './engine';
import type { FromEngine, ToEngine } from './protocol/protocol';

interface WorkerScope {
  onmessage: ((event: MessageEvent<ToEngine>) => void) | null;
  postMessage(message: FromEngine, transfer?: Transferable[]): void;
  close(): void;
}

const scope = self as unknown as WorkerScope;
const engine = new Engine(catalogue, (message, transfer) => scope.postMessage(message, transfer ?? []));
scope.onmessage = (event) => {
  const message = event.data;
  if (message.type === 'inject-fault' && message.fault === 'hang') for (;;);
  if (message.type === 'inject-fault' && message.fault === 'crash') {
    // An engine that died says nothing any more: neither messages nor frames.
    scope.close();
    return;
  }
  engine.receive(message);
};
// Held as long as this worker lives: the interface waits for the lock and so learns at once when the engine is gone. It
// hears of a ready engine only when the lock is really held, or it might be given the lock first.
void navigator.locks.request(self.name, () => {
  scope.postMessage({ type: 'ready' });
  return new Promise(() => undefined);
});
