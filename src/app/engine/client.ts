import type { PerformanceState } from '../../core/desk/performance-state';
import { assertNever } from '../../core/assert-never';
import { aheadOfMachine } from '../../core/own-clock';
import { changesBetween } from '../../core/show/changes';
import { prefixOf, sceneOfPlace } from '../../core/module/place';
import type { PerformanceCommand } from '../../core/desk/command';
import type { Show } from '../../core/document/types';
import { Cameras } from './cameras';
import { DueCommands } from './due-commands';
import { EngineOutputs } from './engine-outputs';
import { EngineRequests } from './engine-requests';
import { idAtPlace, layoutInEngine, watchInEngine } from './places';
import { Silence } from './silence';
import { watchCard } from './card-watch';
import { drawVector } from './vector';
import type {
  EngineAnswer,
  EngineRequest,
  EventMessage,
  FromEngine,
  HandoverMessage,
  InjectedFault,
  SettingMessage,
  ToEngine,
  Watch,
} from '../../engine/protocol/protocol';

type Listener<T extends FromEngine['type']> = (message: Extract<FromEngine, { type: T }>) => void;

let launches = 0;
/**
 * The interface's end of the connection to the engine. Keeps all the engine has to know, so that an engine that died is
 * replaced by one that goes on where it was.
 */
export class EngineClient {
  private worker: Worker | null = null;
  private ready = false;
  private readonly listeners = new Map<FromEngine['type'], Set<unknown>>();
  /** The place that the editor looks at, and the one that the live layer is of. */
  private place = '';
  private layerPlace = '';
  private show: Show | null = null;
  private program = '';
  /** The last report of the performance, from which the next engine goes on. */
  private performance: PerformanceState | null = null;
  /** The latest of each setting, for the next engine. */
  private readonly settings = new Map<string, SettingMessage>();
  /** Files of shows, to be given to the next engine too. */
  private readonly files = new Map<string, { name: string; blob: Blob | null }>();
  private readonly tell = (message: ToEngine, transfer?: Transferable[]): void =>
    this.post(message, transfer);
  private readonly cameras = new Cameras(this.tell);
  private readonly due = new DueCommands(this.tell);
  private readonly requests = new EngineRequests(this.tell, () => this.ready && this.show !== null);
  /** All that engines paint in this page. */
  readonly outputs: EngineOutputs;
  private readonly silence = new Silence();
  private restarts = 0;

  private readonly watching = setInterval(() => this.watchOver(), 250);
  private isClosed = false;

  /** `hearOfLoss`: calls what it is given whenever this page hears that the graphics card is lost. */
  constructor(hearOfLoss: (lost: () => void) => void = watchCard) {
    this.outputs = new EngineOutputs({
      post: this.tell,
      isReady: () => this.ready,
      isBlackedOut: () => this.performance?.blackout === true,
      hearOfLoss,
    });
    this.launch();
  }

  /** Ends this engine for good. */
  close(): void {
    this.isClosed = true;
    clearInterval(this.watching);
    this.worker?.terminate();
    this.worker = null;
  }

  private launch(): void {
    if (this.isClosed) return;
    this.ready = false;
    this.silence.begin(performance.now());
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
    if (this.isClosed) return;
    this.worker?.terminate();
    this.ready = false;
    this.requests.rejectAll();
    this.due.lose();
    this.restarts++;
    this.emit({ type: 'graphics', state: 'lost', message: 'The engine stopped and is being started again.' });
    // A second fault right after the first waits longer, so that a scene that cannot run does not keep the desk busy.
    setTimeout(() => this.launch(), Math.min(5000, 100 * 2 ** Math.min(6, this.restarts - 1)));
    this.worker = null;
  }

  /** Replaces the engine by a fresh one, which goes on where this one was. */
  restart(): void {
    if (this.worker) this.relaunch();
  }

  /** How often the engine was replaced. */
  get restartCount(): number {
    return this.restarts;
  }

  private watchOver(): void {
    if (!this.worker || !this.show || !this.silence.isTooLong(performance.now())) return;
    const worker = this.worker;
    // If this very window was blocked, words of the engine lie in the queue behind this call: let them arrive first.
    setTimeout(() => {
      if (this.worker === worker && this.silence.isTooLong(performance.now())) this.relaunch();
    }, 300);
  }

  private receive(message: FromEngine): void {
    this.silence.hear(performance.now());
    switch (message.type) {
      case 'answer':
      case 'refusal':
        this.requests.settle(message);
        break;
      case 'draw-vector':
        void this.drawVector(message.id, message.file, message.height);
        break;
      case 'making':
        this.silence.setMaking(message.on);
        break;
      case 'want-camera':
        this.cameras.want(message.device);
        break;
      case 'ready':
        this.emit(message);
        this.greet();
        break;
      case 'performance':
        if (message.state.blackout && !this.performance?.blackout) this.outputs.darken();
        this.performance = message.state;
        this.due.hear(message.performed);
        this.emit(message);
        break;
      case 'layer-painted':
        this.emit({ ...message, layout: { ...message.layout, scene: this.layerPlace } });
        // A patch that is gone has not taken it.
        message.bitmap.close();
        this.post({ type: 'taken', what: 'layer' });
        break;
      case 'glance': {
        const { nodes, bench } = message;
        const own = <T extends { node: string }>(one: T): T[] => {
          const node = idAtPlace(this.place, one.node);
          return node === null ? [] : [{ ...one, node }];
        };
        const [shown = null] = bench ? own(bench) : [];
        this.emit({ ...message, nodes: nodes && nodes.flatMap(own), bench: shown });
        break;
      }
      case 'opened':
      case 'stats':
      case 'recorded':
      case 'export':
      case 'pixels':
      case 'flashes':
      case 'look':
      case 'faults':
      case 'dark':
      case 'heard':
      case 'sound-shared':
      case 'graphics':
        this.emit(message);
        break;
      case 'pictures':
        this.outputs.show(message.pictures);
        this.post({ type: 'taken', what: 'outputs' });
        break;
      case 'output-painted':
        this.outputs.settle(message);
        this.emit(message);
        break;
      case 'stand-in':
        this.outputs.keepStandIn(message);
        break;
      case 'output-lost':
        this.outputs.replace(message);
        break;
      default:
        assertNever(message);
    }
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
    this.post({ type: 'clock', ahead: aheadOfMachine() });
    this.outputs.handAll();
    for (const [id, file] of this.files) this.post({ type: 'file', id, ...file });
    if (!this.show) return;
    this.post({ type: 'open', show: this.show, program: this.program, resume: this.performance });
    for (const setting of this.settings.values()) this.post(setting);
    this.due.tellAll();
    if (this.restarts > 0) this.emit({ type: 'graphics', state: 'back', message: 'The engine is back.' });
    this.requests.sendAll();
  }

  private post(message: ToEngine, transfer: Transferable[] = []): void {
    if (this.ready) this.worker?.postMessage(message, transfer);
  }

  private listenersTo<T extends FromEngine['type']>(type: T): Set<Listener<T>> {
    const set = this.listeners.get(type) ?? new Set();
    this.listeners.set(type, set);
    // Under each type only its own listeners are put.
    return set as Set<Listener<T>>;
  }

  private emit<T extends FromEngine['type']>(message: Extract<FromEngine, { type: T }>): void {
    for (const listener of this.listenersTo(message.type as T)) listener(message);
  }

  /** Calls a listener with each message of a type; gives what ends that. */
  on<T extends FromEngine['type']>(type: T, listener: Listener<T>): () => void {
    const set = this.listenersTo(type);
    set.add(listener);
    return () => set.delete(listener);
  }

  /** How the performance stood when the engine last spoke of it. */
  get lastReport(): PerformanceState | null {
    return this.performance;
  }

  /** What the performer did that the last report does not hold. */
  get dueCommands(): PerformanceCommand[] {
    return this.due.commands;
  }

  /**
   * Opens a show at a scene; or where `resume`, a report of an earlier engine, says, with what it did not hold. What is pressed before the
   * first show is there is done to that.
   */
  open(
    show: Show,
    program: string,
    resume: PerformanceState | null = null,
    due: readonly PerformanceCommand[] = [],
  ): void {
    if (this.show) this.due.forget();
    this.due.precede(due);
    this.show = show;
    this.program = program;
    this.performance = resume;
    this.post({ type: 'open', show, program, resume });
    if (this.ready) this.due.tellAll();
    this.requests.sendAll();
  }

  /** Sends what changed since the last call. */
  update(show: Show): void {
    if (!this.show || show === this.show) return;
    const changes = changesBetween(this.show, show);
    this.show = show;
    if (changes.length) this.post({ type: 'change', changes });
  }

  /** Gives the engine the bytes of a file of a show; null if unavailable. */
  giveFile(id: string, name: string, blob: Blob | null): void {
    this.files.set(id, { name, blob });
    this.post({ type: 'file', id, name, blob });
  }

  watch(watch: Watch): void {
    this.place = watch.scene ?? '';
    this.set({ type: 'watch', watch: watchInEngine(watch) });
  }

  /** Sends a setting, which holds until the next of its type: an engine that comes later is told as well. */
  set(setting: SettingMessage): void {
    if (setting.type === 'layer') this.layerPlace = setting.layout?.scene ?? '';
    const message =
      setting.type === 'layer' ? { ...setting, layout: layoutInEngine(setting.layout) } : setting;
    this.settings.set(message.type, message);
    this.post(message);
  }

  /** Sends a message about something that happens once. */
  send(
    message: Exclude<
      EventMessage | HandoverMessage,
      { type: 'clock' | 'open' | 'change' | 'request' | 'file' | 'inject-fault' }
    >,
    transfer: Transferable[] = [],
  ): void {
    this.post(message, transfer);
  }

  /** Has the engine do what the performer did; one that is still being started does it as soon as it has the show. */
  perform(command: PerformanceCommand): void {
    this.do({ type: 'perform', command });
  }

  /** Has a fault befall the engine, on purpose; also as soon as it has the show. */
  inject(fault: InjectedFault): void {
    this.do({ type: 'inject-fault', fault });
  }

  private do(message: ToEngine): void {
    this.due.add(message, this.ready && this.show !== null);
  }

  /** Starts feedback again: that of a return wire of a place. */
  clearReturn(place: string, wire: string): void {
    this.post({ type: 'clear-return', scene: sceneOfPlace(place), wire: prefixOf(place) + wire });
  }

  /** Sends a request; rejects if the engine refuses, dies or takes longer than `limitMs`. */
  request<T extends EngineRequest['type']>(
    request: Extract<EngineRequest, { type: T }>,
    limitMs?: number,
  ): Promise<Extract<EngineAnswer, { type: T }>> {
    return this.requests.ask(request, limitMs);
  }
}

let client: EngineClient | null = null;

/** The one engine of this window, started when it is first needed. */
export function engine(): EngineClient {
  client ??= new EngineClient();
  return client;
}
