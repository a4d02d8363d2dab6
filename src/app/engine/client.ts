import { changesBetween } from '../../core/show/changes';
import type { Show } from '../../core/show/types';
import { Cameras } from './cameras';
import { drawVector } from './vector';
import type { Answer, Ask, FromEngine, SurfaceRole, ToEngine, Watch } from '../../engine/protocol';

type Listener<T extends FromEngine['type']> = (message: Extract<FromEngine, { type: T }>) => void;

/**
 * Milliseconds without a word after which the engine counts as hanging. Long, since a heavy scene may keep a slow card
 * busy for seconds; an engine that is gone is noticed at once by its lock.
 */
const silenceMs = 20000;
let launches = 0;
const askMs = 20000;

/** A canvas the engine paints. It is made anew for every engine, since a canvas can be handed over only once. */
export interface SurfaceHost {
  role: SurfaceRole;
  /** Makes a fresh canvas and gives its off-screen half with its size. */
  make(): { canvas: OffscreenCanvas; width: number; height: number } | null;
}

/**
 * The interface's end of the wire to the engine. Keeps all the engine has to know, so that an engine that died is
 * replaced by one that goes on where it was.
 */
export class EngineClient {
  private worker: Worker | null = null;
  private ready = false;
  private readonly listeners = new Map<string, Set<(message: never) => void>>();
  private readonly hosts = new Map<string, SurfaceHost>();
  private readonly asks = new Map<
    number,
    { ask: Ask; sent: boolean; resolve(answer: Answer): void; reject(error: Error): void; timer: number }
  >();
  private askId = 0;
  private surfaceId = 0;
  private show: Show | null = null;
  private program = '';
  private time = 0;
  private playing = true;
  /** Latest of each message that sets a state, to be told again to the next engine. */
  private readonly states = new Map<string, ToEngine>();
  /** Files of shows, to be given to the next engine too. */
  private readonly files = new Map<string, { name: string; blob: Blob | null }>();
  private cameras = new Cameras((message, transfer) => this.post(message, transfer));
  private heard = 0;
  private restarts = 0;

  constructor() {
    setInterval(() => this.watchOver(), 1000);
    this.on('beat', ({ transport, program }) => {
      this.time = transport.time;
      this.playing = transport.playing;
      this.program = program.incoming ?? program.program;
    });
    this.launch();
  }

  private launch(): void {
    this.ready = false;
    this.heard = performance.now();
    const name = `pyrvel-engine-${performance.timeOrigin}-${++launches}`;
    const worker = new Worker(new URL('../../engine/worker.ts', import.meta.url), { type: 'module', name });
    this.worker = worker;
    const off = this.on('ready', () => {
      off();
      void navigator.locks.request(name, () => {
        if (this.worker === worker) this.relaunch();
      });
    });
    worker.onmessage = (event: MessageEvent<FromEngine>) => this.receive(event.data);
    worker.onerror = (event) => {
      event.preventDefault();
      console.error('engine:', event.message);
      if (this.worker === worker) this.relaunch();
    };
  }

  private relaunch(): void {
    this.worker?.terminate();
    for (const { reject, timer } of this.asks.values()) {
      clearTimeout(timer);
      reject(new Error('The engine stopped before it could answer.'));
    }
    this.asks.clear();
    this.restarts++;
    this.emit({ type: 'graphics', state: 'lost', message: 'The engine stopped and is being started again.' });
    // A second fault right after the first waits longer, so that a scene that cannot run does not keep the desk busy.
    setTimeout(() => this.launch(), Math.min(5000, 100 * 2 ** Math.min(6, this.restarts - 1)));
    this.worker = null;
  }

  /** How often the engine was replaced. */
  get restartCount(): number {
    return this.restarts;
  }

  private watchOver(): void {
    if (!this.worker || !this.show || performance.now() - this.heard < silenceMs) return;
    const worker = this.worker;
    // If this very window was blocked, words of the engine lie in the queue behind this call: let them arrive first.
    setTimeout(() => {
      if (this.worker === worker && performance.now() - this.heard >= silenceMs) this.relaunch();
    }, 300);
  }

  private receive(message: FromEngine): void {
    this.heard = performance.now();
    if (message.type === 'answer' || message.type === 'refusal') {
      const ask = this.asks.get(message.id);
      this.asks.delete(message.id);
      if (!ask) return;
      clearTimeout(ask.timer);
      if (message.type === 'answer') ask.resolve(message.answer);
      else ask.reject(new Error(message.message));
      return;
    }
    if (message.type === 'draw-vector') void this.drawVector(message.id, message.file, message.height);
    if (message.type === 'want-camera') this.cameras.want(message.device);
    this.emit(message);
    if (message.type === 'ready') this.greet();
  }

  private async drawVector(id: number, file: Blob, height: number): Promise<void> {
    try {
      const bitmap = await drawVector(file, height);
      this.post({ type: 'vector', id, bitmap, message: '' }, [bitmap]);
    } catch (error) {
      this.post({ type: 'vector', id, bitmap: null, message: (error as Error).message });
    }
  }

  /** Tells a fresh engine everything. */
  private greet(): void {
    this.ready = true;
    for (const [id, host] of this.hosts) this.hand(id, host);
    for (const [id, file] of this.files) this.post({ type: 'file', id, ...file });
    if (!this.show) return;
    this.post({
      type: 'open',
      show: this.show,
      program: this.program,
      time: this.time,
      playing: this.playing,
    });
    for (const state of this.states.values()) this.post(state);
    if (this.restarts > 0) this.emit({ type: 'graphics', state: 'back', message: 'The engine is back.' });
    this.sendAsks();
  }

  /** Puts the questions that came before there was an engine with a show. */
  private sendAsks(): void {
    if (!this.ready || !this.show) return;
    for (const [id, entry] of this.asks) {
      if (entry.sent) continue;
      entry.sent = true;
      this.post({ type: 'ask', id, ask: entry.ask });
    }
  }

  private hand(id: string, host: SurfaceHost): void {
    const made = host.make();
    if (made) this.post({ type: 'surface', id, role: host.role, ...made }, [made.canvas]);
  }

  private post(message: ToEngine, transfer: Transferable[] = []): void {
    if (this.ready) this.worker?.postMessage(message, transfer);
  }

  private emit(message: FromEngine): void {
    for (const listener of this.listeners.get(message.type) ?? []) listener(message as never);
  }

  on<T extends FromEngine['type']>(type: T, listener: Listener<T>): () => void {
    const set = this.listeners.get(type) ?? new Set();
    this.listeners.set(type, set);
    set.add(listener as never);
    return () => set.delete(listener as never);
  }

  open(show: Show, program: string): void {
    this.show = show;
    this.program = program;
    this.time = 0;
    this.playing = true;
    this.post({ type: 'open', show, program, time: 0, playing: true });
    this.sendAsks();
  }

  /** Sends what changed since the last call. */
  update(show: Show): void {
    if (!this.show || show === this.show) return;
    const changes = changesBetween(this.show, show);
    this.show = show;
    if (changes.length) this.post({ type: 'change', changes });
  }

  /** Gives the engine the bytes of a file of a show; null: they are not to be had. */
  giveFile(id: string, name: string, blob: Blob | null): void {
    this.files.set(id, { name, blob });
    this.post({ type: 'file', id, name, blob });
  }

  watch(watch: Watch): void {
    this.state({ type: 'watch', watch });
  }

  /** A message whose latest value holds until the next: also told to an engine that comes later. */
  state(
    message: Extract<
      ToEngine,
      {
        type: 'watch' | 'stage' | 'work-scale' | 'hand' | 'hear' | 'midi-file' | 'next' | 'example' | 'range';
      }
    >,
  ): void {
    this.states.set(message.type, message);
    this.post(message);
  }

  /** A message that happens once. */
  command(
    message: Extract<
      ToEngine,
      {
        type:
          | 'transport'
          | 'seek'
          | 'step'
          | 'sound-file'
          | 'sound-stream'
          | 'take'
          | 'clear-return'
          | 'rehearse';
      }
    >,
    transfer: Transferable[] = [],
  ): void {
    // An engine that is still being started is told when it opens the show.
    if (message.type === 'transport') this.playing = message.playing;
    if (message.type === 'seek') this.time = message.time;
    this.post(message, transfer);
  }

  addSurface(host: SurfaceHost): string {
    const id = `surface-${++this.surfaceId}`;
    this.hosts.set(id, host);
    if (this.ready) this.hand(id, host);
    return id;
  }

  resizeSurface(id: string, width: number, height: number): void {
    this.post({ type: 'surface-size', id, width, height });
  }

  removeSurface(id: string): void {
    this.hosts.delete(id);
    this.post({ type: 'surface-gone', id });
  }

  /** Asks a question; rejects if the engine refuses, dies or takes too long. */
  ask<W extends Ask['what']>(
    ask: Extract<Ask, { what: W }>,
    limitMs = askMs,
  ): Promise<Extract<Answer, { what: W }>> {
    return new Promise((resolve, reject) => {
      const id = ++this.askId;
      const timer = window.setTimeout(() => {
        this.asks.delete(id);
        reject(new Error('The engine did not answer in time.'));
      }, limitMs);
      const answer = resolve as (answer: Answer) => void;
      this.asks.set(id, { ask, sent: false, resolve: answer, reject, timer });
      this.sendAsks();
    });
  }
}

let client: EngineClient | null = null;

/** The one engine of this window, started when it is first needed. */
export function engine(): EngineClient {
  client ??= new EngineClient();
  return client;
}
