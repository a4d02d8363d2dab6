import type { WebDriver } from 'selenium-webdriver';
import { WebSocket } from 'ws';

/** Milliseconds that the browser has for an answer. */
const answerMs = 15000;

interface Answer {
  id?: number;
  sessionId?: string;
  method?: string;
  params?: { sessionId: string; targetInfo?: { type: string } };
  result?: Record<string, unknown>;
  error?: { message: string };
}

/** The tools of a browser, as its driver does not give them: also of what runs in workers. */
class Tools {
  private readonly waiting = new Map<
    number,
    { sessionId: string | undefined; resolve(result: unknown): void; reject(error: Error): void }
  >();
  private asked = 0;
  /** Sessions with what was attached to by itself. */
  readonly workers: string[] = [];

  private constructor(private readonly socket: WebSocket) {
    socket.on('message', (data: Buffer) => this.take(JSON.parse(data.toString()) as Answer));
  }

  static async of(driver: WebDriver): Promise<Tools> {
    const capabilities = await driver.getCapabilities();
    const { debuggerAddress } = capabilities.get('goog:chromeOptions') as { debuggerAddress: string };
    const answer = await fetch(`http://${debuggerAddress}/json/version`);
    const { webSocketDebuggerUrl } = (await answer.json()) as { webSocketDebuggerUrl: string };
    const socket = new WebSocket(webSocketDebuggerUrl);
    await new Promise((resolve, reject) => socket.on('open', resolve).on('error', reject));
    return new Tools(socket);
  }

  private take({ id, method, params, result, error }: Answer): void {
    if (method === 'Target.attachedToTarget' && params?.targetInfo?.type === 'worker')
      this.workers.push(params.sessionId);
    // A worker that is gone answers nothing any more.
    if (method === 'Target.detachedFromTarget')
      for (const one of this.waiting.values())
        if (one.sessionId === params?.sessionId) one.reject(new Error('The worker is gone.'));
    const waiting = id === undefined ? undefined : this.waiting.get(id);
    if (error) waiting?.reject(new Error(error.message));
    else waiting?.resolve(result);
    this.waiting.delete(id!);
  }

  ask<T>(method: string, params: object = {}, sessionId?: string): Promise<T> {
    const id = ++this.asked;
    return new Promise<T>((resolve, reject) => {
      this.waiting.set(id, { sessionId, resolve: resolve as (result: unknown) => void, reject });
      setTimeout(() => reject(new Error(`${method} was not answered.`)), answerMs).unref();
      this.socket.send(JSON.stringify({ id, method, params, sessionId }));
    });
  }

  close(): void {
    this.socket.close();
  }
}

/** Bytes that the largest worker of the page that is open keeps, once garbage is collected: that of the engine. */
export async function workerHeap(driver: WebDriver): Promise<number> {
  const tools = await Tools.of(driver);
  try {
    const targetId = await driver.getWindowHandle();
    const { sessionId } = await tools.ask<{ sessionId: string }>('Target.attachToTarget', {
      targetId,
      flatten: true,
    });
    // Answered once all that is there is attached to.
    const how = { autoAttach: true, waitForDebuggerOnStart: false, flatten: true };
    await tools.ask('Target.setAutoAttach', how, sessionId);
    const sizes = tools.workers.map(async (worker) => {
      await tools.ask('HeapProfiler.collectGarbage', {}, worker);
      return (await tools.ask<{ usedSize: number }>('Runtime.getHeapUsage', {}, worker)).usedSize;
    });
    return Math.max(0, ...(await Promise.all(sizes)));
  } finally {
    tools.close();
  }
}
