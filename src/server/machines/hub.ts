import { randomUUID } from 'node:crypto';
import type { IncomingMessage, Server as HttpServer } from 'node:http';
import type { TLSSocket } from 'node:tls';
import { Server as Engine } from 'engine.io';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Server, type Socket } from 'socket.io';
import * as Y from 'yjs';
import { heardBytes } from '../../core/audio/heard';
import { ownClock } from '../../core/own-clock';
import type { PerformanceCommand } from '../../core/desk/command';
import {
  isSuccessor,
  linkPath,
  type Audience,
  type FromServer,
  type MachineCard,
  type StateNews,
  type Successor,
  type ToServer,
} from '../../core/machines/link';
import type { ControllerState } from '../../core/inputs/inputs';
import type { DeskRole } from '../../core/machines/roles';
import type { Access } from './access';
import { admit, type Admitted } from './admission';
import { Hands, type Held } from './hands';
import { isReport, readCommand } from './message-check';

/** Most bytes of one message: of a page of this machine, which sends whole shows, and of one that came over the network. */
const mostBytes = { local: 64 * 2 ** 20, network: 64 * 1024 };
/** What a machine may send. */
export interface Limits {
  /** Messages in a second. */
  messages: number;
  /** Messages beyond that in the same second, which end its link. */
  refused: number;
}
const usualLimits: Limits = { messages: 400, refused: 1000 };
/** Milliseconds between two lists of machines. */
const rosterMs = 1000;
/** Milliseconds between two signs of life for the spare. */
const pulseMs = 200;
/** Most bytes of a small picture of what a machine shows. */
const mostShownBytes = 32 * 1024;
/** Most bytes of an edit, put together. */
const mostEditBytes = 64 * 2 ** 20;

interface Known extends Admitted {
  held: Held;
  refused: number;
  /** Parts of an edit that is on its way. */
  parts: Uint8Array[];
}

type Link = Socket<ToServer, FromServer, Record<string, never>, Known>;

/** Whether a request comes from this machine, over the address that nobody else can reach. */
export const isLocal = ({ socket }: IncomingMessage): boolean =>
  !(socket as TLSSocket).encrypted && /^(::ffff:)?127\.|^::1$/.test(socket.remoteAddress ?? '');

/** The main machine elsewhere that this one follows. */
export interface Upstream {
  /** Its id. */
  main: string;
  perform(command: PerformanceCommand): void;
  edit(part: Uint8Array, isLast: boolean): void;
  /** A small picture of what is seen here. */
  shown(jpeg: Uint8Array): void;
  /** Somebody wants this machine to perform instead. */
  lead(): void;
}

/**
 * Passes what machines of a show say to each other. Keeps the last state and the document of the show for those that come later, says who is there, answers for
 * the clock, and holds everybody to their role: nothing that a remote desk may not do, and nothing that is not a command, is passed on.
 */
export class Hub {
  private readonly io = new Server<ToServer, FromServer, Record<string, never>, Known>({
    serveClient: false,
    transports: ['websocket'],
  });
  private readonly id = randomUUID();
  private readonly engines: Engine[] = [];
  private readonly limiter: RateLimiterMemory;
  private main: Link | null = null;
  private state: StateNews = {};
  private document: Y.Doc | null = null;
  private inputs: ControllerState | null = null;
  /** The screen that each player shows. */
  private readonly given = new Map<string, string | null>();
  private readonly roster: NodeJS.Timeout;
  private readonly pulse: NodeJS.Timeout;
  private upstream: Upstream | null = null;
  private isYielding = false;
  /** Addresses of the spare of this machine. */
  private spareAt: readonly string[] = [];
  private elsewhere: MachineCard[] = [];
  private readonly hands = new Hands(
    () => this.isLed,
    (commands) => this.perform(commands),
  );
  /** Called when the spare says that it has taken over. */
  onTaken: (successor: Successor) => void = () => undefined;
  /** Called when a spare says where it is found. */
  onHeir: (successor: Successor) => void = () => undefined;
  /** Called when a spare has said goodbye: it follows no more. */
  onHeirGone: () => void = () => undefined;

  constructor(
    private readonly access: Access,
    private readonly limits = usualLimits,
  ) {
    this.limiter = new RateLimiterMemory({ points: limits.messages, duration: 1 });
    this.io.use((link, next) => {
      this.letIn(link as Link).then(
        () => next(),
        (error: Error) => next(error),
      );
    });
    this.io.on('connection', (link) => this.serve(link as Link));
    this.roster = setInterval(() => this.tellRoster(), rosterMs);
    this.roster.unref();
    this.pulse = setInterval(() => {
      for (const spare of this.spares) spare.emit('pulse');
    }, pulseMs);
    this.pulse.unref();
  }

  /** Another main machine is followed from now on; null: this one performs. */
  follow(upstream: Upstream | null): void {
    this.upstream = upstream;
    this.isYielding = false;
    this.main?.emit('follows', upstream?.main ?? null);
    this.tellOfMain();
  }

  /** Whether this machine waits for another one to say whether that performs. Until then it does not say that it does itself. */
  setYielding(isYielding: boolean): void {
    if (isYielding === this.isYielding) return;
    this.isYielding = isYielding;
    if (!isYielding) this.main?.emit('follows', this.upstream?.main ?? null);
    this.tellOfMain();
  }

  private tellOfMain(): void {
    for (const other of this.others) this.tellMainTo(other);
  }

  private tellMainTo(link: Link): void {
    const performs = this.main !== null && !this.upstream && !this.isYielding;
    const isThere = link.data.role === 'spare' ? performs : this.isLed;
    link.emit('main', isThere, this.run);
  }

  /** Whether there is a window that can perform. */
  get hasMain(): boolean {
    return this.main !== null;
  }

  /** What the window of this machine says of itself; null: there is none. */
  get mainCard(): MachineCard | null {
    return this.main?.data.card ?? null;
  }

  /** Whether somebody performs, here or where is followed. */
  private get isLed(): boolean {
    return this.upstream !== null || this.main !== null;
  }

  private get run(): string {
    return this.main?.id ?? '';
  }

  /** Takes links that come to a server. `mayCome`: whether a request is from a page of ours. */
  attach(server: HttpServer, isNetwork: boolean, mayCome: (request: IncomingMessage) => boolean): void {
    const engine = new Engine({
      transports: ['websocket'],
      maxHttpBufferSize: isNetwork ? mostBytes.network : mostBytes.local,
      perMessageDeflate: isNetwork && { threshold: 16 * 1024 },
      pingInterval: 2000,
      pingTimeout: 4000,
      allowRequest: (request, answer) => answer(null, mayCome(request)),
    });
    engine.attach(server, { path: linkPath, destroyUpgrade: false });
    this.io.bind(engine);
    this.engines.push(engine);
  }

  /** Ends all links. */
  close(): void {
    clearInterval(this.roster);
    clearInterval(this.pulse);
    this.hands.end();
    for (const engine of this.engines) engine.close();
    this.io.disconnectSockets(true);
  }

  /** Ends the links that came over the network. */
  closeNetwork(): void {
    for (const link of this.links())
      if (!isLocal(link.request)) this.sendAway(link, 'The network was closed on the main machine.');
  }

  private links(): Link[] {
    return [...this.io.sockets.sockets.values()] as Link[];
  }

  private get remotes(): Link[] {
    return this.links().filter(({ data }) => data.role === 'remote');
  }

  private get players(): Link[] {
    return this.links().filter(({ data }) => data.role === 'player');
  }

  /** Those that draw by their own engine, and need all that the main one draws by. */
  private get drawing(): Link[] {
    return [...this.players, ...this.spares];
  }

  private get spares(): Link[] {
    return this.links().filter(({ data }) => data.role === 'spare');
  }

  /** All but the main machine. */
  private get others(): Link[] {
    return this.links().filter(({ data }) => data.role !== 'main');
  }

  private async letIn(link: Link): Promise<void> {
    const { handshake, request } = link;
    const address = (request.socket.remoteAddress ?? '').replace('::ffff:', '');
    const origin = { isLocal: isLocal(request), address };
    const admitted = await admit(handshake.auth, origin, this.access, this.others.length);
    link.data = { ...admitted, held: new Map(), refused: 0, parts: [] };
  }

  /** Counts a message; false: there were too many. */
  private async counts(link: Link): Promise<boolean> {
    try {
      await this.limiter.consume(link.id);
      link.data.refused = 0;
      return true;
    } catch {
      if (++link.data.refused === this.limits.refused)
        this.sendAway(link, 'This machine sends more than can be followed, and was sent away.');
      return false;
    }
  }

  private sendAway(link: Link, sentence: string): void {
    link.emit('farewell', sentence);
    // Let the sentence arrive first.
    setTimeout(() => link.disconnect(true), 100).unref();
  }

  private serve(link: Link): void {
    const { role, desk } = link.data;
    if (role === 'main' && this.main?.connected) {
      this.sendAway(link, 'Another window of this machine performs already.');
      return;
    }
    link.on('clock', (answer) => {
      const now = ownClock();
      void this.counts(link).then((fine) => fine && typeof answer === 'function' && answer(now));
    });
    link.on('report', (report) => {
      void this.counts(link).then((fine) => {
        if (!fine || !isReport(report)) return;
        const { clock, asked, lost, framesPerSecond, lacks, where } = report;
        Object.assign(link.data.card, { clock, asked, lost, framesPerSecond, lacks, where });
      });
    });
    if (role === 'main') this.serveMain(link);
    else this.serveOther(link);
    if (desk) this.serveHands(link, desk);
    if (role === 'spare') this.serveSpare(link);
    link.emit('welcome', { role, desk, server: this.id });
    this.tellAudience();
  }

  private serveMain(link: Link): void {
    this.main = link;
    if (!this.isYielding) link.emit('follows', this.upstream?.main ?? null);
    if (this.upstream) this.tellWhole(link);
    this.tellOfMain();
    const ifLeading =
      <T extends unknown[]>(take: (...args: T) => void) =>
      (...args: T): void => {
        if (!this.upstream) take(...args);
      };
    link.on(
      'state',
      ifLeading((news, isWhole) => this.takeState(news, isWhole)),
    );
    link.on(
      'show',
      ifLeading((update, isWhole) => this.takeShow(update, isWhole)),
    );
    link.on(
      'inputs',
      ifLeading((inputs) => this.takeInputs(inputs)),
    );
    link.on(
      'sound',
      ifLeading((packed) => this.takeSound(packed)),
    );
    link.on(
      'give',
      ifLeading((machine, screen) => this.take(machine, screen)),
    );
    link.on(
      'refuse',
      ifLeading((sentence) => {
        for (const spare of this.spares) spare.emit('refused', String(sentence));
      }),
    );
    link.on('picture', (jpeg) => {
      for (const remote of this.remotes) remote.volatile.emit('picture', jpeg);
    });
    link.on('shown', (jpeg) => this.upstream?.shown(jpeg));
    // What is done in a window that follows is done where it follows.
    link.on('perform', (asked, answer) => {
      const command = readCommand(asked);
      if (command) this.upstream?.perform(command);
      if (typeof answer === 'function') answer(command ? '' : 'This is no command of Pyrvel.');
    });
    link.on('edit', (part, isLast) => this.upstream?.edit(part, isLast));
    link.on('lead', () => this.upstream?.lead());
    link.on('identify', (machine) => this.tell(machine, (player) => player.emit('identify')));
    link.on('restart', (machine) => this.tell(machine, (player) => player.emit('restart')));
    link.on('dismiss', (machine) => {
      this.access.dismiss(machine);
      for (const remote of this.others)
        if (remote.data.card.machine === machine)
          this.sendAway(remote, 'This machine was sent away by the main one.');
    });
    link.on('disconnect', () => {
      if (this.main !== link) return;
      this.main = null;
      this.tellOfMain();
    });
  }

  /** What is told of the performance, here or where is followed. */
  takeState(news: StateNews, isWhole: boolean): void {
    if (isWhole) this.state = news;
    else Object.assign(this.state, news);
    this.tellWatchers('state', news, isWhole);
  }

  takeShow(update: Uint8Array, isWhole: boolean): void {
    try {
      const next = isWhole || !this.document ? new Y.Doc() : this.document;
      Y.applyUpdate(next, update);
      this.document = next;
      this.tellWatchers('show', update, isWhole);
    } catch (error) {
      console.error(
        `What the main machine said of the show could not be read (${(error as Error).message}).`,
      );
    }
  }

  takeInputs(inputs: ControllerState): void {
    this.inputs = inputs;
    for (const one of this.drawing) one.emit('inputs', inputs);
    if (this.upstream) this.main?.emit('inputs', inputs);
  }

  /** What is heard, here or where is followed. */
  takeSound(packed: Uint8Array): void {
    if (packed.byteLength !== heardBytes) return;
    for (const one of this.drawing) one.volatile.emit('sound', packed);
    if (this.upstream) this.main?.volatile.emit('sound', packed);
  }

  /** The screens of all players, as they are given where is followed. */
  takeGiven(given: Readonly<Record<string, string | null>>): void {
    for (const [machine, screen] of Object.entries(given)) this.take(machine, screen);
    if (this.upstream) this.main?.emit('gives', given);
  }

  /** Who is where is followed. */
  takeRoster(cards: MachineCard[]): void {
    this.elsewhere = cards;
  }

  /** An edit was not taken where is followed. */
  takeRefusal(sentence: string): void {
    this.main?.emit('refused', sentence);
  }

  /** Tells guests where the spare is found; nowhere: there is none. */
  setSpare(addresses: readonly string[]): void {
    if (addresses.join() === this.spareAt.join()) return;
    this.spareAt = addresses;
    for (const guest of [...this.remotes, ...this.players]) guest.emit('spare', addresses);
  }

  private take(machine: string, screen: string | null): void {
    this.given.set(machine, screen);
    this.tell(machine, (player) => player.emit('given', screen));
    for (const spare of this.spares) spare.emit('gives', { [machine]: screen });
  }

  private tell(machine: string, what: (player: Link) => void): void {
    for (const player of this.players) if (player.data.card.machine === machine) what(player);
  }

  /** Tells all who do not perform: a window of this machine too, where another one does. */
  private tellWatchers<K extends keyof FromServer>(event: K, ...args: Parameters<FromServer[K]>): void {
    this.tellOthers(event, ...args);
    if (this.upstream) this.main?.emit(event, ...args);
  }

  private tellOthers<K extends keyof FromServer>(event: K, ...args: Parameters<FromServer[K]>): void {
    for (const other of this.others) other.emit(event, ...args);
  }

  /** Tells a machine that has come where everything stands. */
  private serveOther(link: Link): void {
    const { machine, role } = link.data.card;
    this.tellMainTo(link);
    this.tellWhole(link);
    if (role === 'player') link.emit('given', this.given.get(machine) ?? null);
    if (role === 'spare') link.emit('gives', Object.fromEntries(this.given));
    else link.emit('spare', this.spareAt);
    if (role !== 'remote')
      link.on('shown', (jpeg) => {
        void this.counts(link).then((fine) => {
          if (!fine || !(jpeg instanceof Uint8Array) || jpeg.byteLength > mostShownBytes) return;
          this.main?.volatile.emit('shown', machine, jpeg);
        });
      });
    link.on('disconnect', () => this.tellAudience());
  }

  private tellWhole(link: Link): void {
    if (this.document) link.emit('show', Y.encodeStateAsUpdate(this.document), true);
    // Whoever is told of a performance takes it up, and one that nobody has told of yet would begin at no time.
    if (Object.keys(this.state).length > 0) link.emit('state', this.state, true);
    if (this.inputs && link.data.role !== 'remote') link.emit('inputs', this.inputs);
  }

  private serveSpare(link: Link): void {
    link.on('edit', (part, isLast) => {
      void this.counts(link).then((fine) => {
        const { parts } = link.data;
        const bytes = parts.reduce((sum, one) => sum + one.byteLength, 0);
        if (!fine || !(part instanceof Uint8Array) || bytes + part.byteLength > mostEditBytes) {
          parts.length = 0;
          return;
        }
        parts.push(part);
        if (isLast !== true) return;
        const update = Buffer.concat(parts.splice(0));
        this.main?.emit('edit', update);
      });
    });
    link.on('heir', (successor) => {
      if (isSuccessor(successor)) this.onHeir(successor);
    });
    let hasTaken = false;
    // A cut or a machine that is gone sounds otherwise; and one that has taken over is followed from here on.
    link.on('disconnect', (reason) => {
      if (reason === 'client namespace disconnect' && !hasTaken) this.onHeirGone();
    });
    link.on('taken', (successor, answer) => {
      if (typeof answer === 'function') answer();
      if (!isSuccessor(successor)) return;
      hasTaken = true;
      this.onTaken(successor);
    });
  }

  private serveHands(link: Link, desk: DeskRole): void {
    const { held } = link.data;
    link.on('perform', (asked, answer) => {
      void this.counts(link).then((fine) => {
        const fault = fine
          ? this.hands.take(asked, desk, held)
          : 'This machine sends more than can be followed.';
        if (typeof answer === 'function') answer(fault);
      });
    });
    link.on('disconnect', () => this.hands.letGo(held));
  }

  /** Has commands carried out where it is performed. */
  private perform(commands: readonly PerformanceCommand[]): void {
    if (this.upstream) for (const command of commands) this.upstream.perform(command);
    else this.main?.emit('perform', [...commands]);
  }

  private tellAudience(): void {
    const audience: Audience = {
      remotes: this.remotes.length,
      // The spare needs all that a player does.
      players: this.drawing.length,
    };
    this.main?.emit('audience', audience);
    this.tellRoster();
  }

  private tellRoster(): void {
    const cards = this.links().map(({ data }) => data.card);
    this.main?.emit('machines', cards, this.upstream ? this.elsewhere : []);
    for (const spare of this.spares) spare.emit('machines', cards, []);
  }
}
