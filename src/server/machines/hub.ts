import type { IncomingMessage, Server as HttpServer } from 'node:http';
import type { TLSSocket } from 'node:tls';
import { Server as Engine } from 'engine.io';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Server, type Socket } from 'socket.io';
import * as Y from 'yjs';
import type { PerformanceCommand } from '../../core/desk/command';
import {
  linkPath,
  linkVersion,
  type Audience,
  type FromServer,
  type Handshake,
  type MachineCard,
  type MachineReport,
  type StateNews,
  type ToServer,
} from '../../core/machines/link';
import type { ControllerState } from '../../core/inputs/inputs';
import { mayPerform, type DeskRole } from '../../core/machines/roles';
import { AccessError, type Access } from './access';
import { readCommand } from './command-check';

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
const mostOthers = 64;

interface Known {
  role: Handshake['role'];
  desk: DeskRole | null;
  card: MachineCard;
  /** Pads and hits that are held: they are let go for a machine that is gone. */
  held: Map<string, PerformanceCommand>;
  refused: number;
}

type Link = Socket<ToServer, FromServer, Record<string, never>, Known>;

const isReport = (value: unknown): value is MachineReport => {
  const { clock, asked, lost, framesPerSecond, lacks } = (value ?? {}) as Partial<MachineReport>;
  const isCount = (one: unknown): boolean => typeof one === 'number' && one >= 0 && one < 1e6;
  const isClock =
    clock === null ||
    (typeof clock === 'object' &&
      ['offset', 'jitter', 'drift', 'roundTrip', 'rounds'].every((key) =>
        Number.isFinite((clock as unknown as Record<string, unknown>)[key]),
      ));
  const isWord = typeof lacks === 'string' && lacks.length <= 300;
  return (
    isClock &&
    isWord &&
    isCount(asked) &&
    isCount(lost) &&
    (framesPerSecond === null || isCount(framesPerSecond))
  );
};

const readHandshake = (value: unknown): Handshake | null => {
  const { version, role, machine, name, token } = (value ?? {}) as Partial<Handshake>;
  const isFine =
    typeof version === 'number' &&
    (role === 'main' || role === 'remote' || role === 'player') &&
    typeof machine === 'string' &&
    /^[\w-]{8,64}$/.test(machine) &&
    typeof name === 'string' &&
    name.length <= 80 &&
    typeof token === 'string' &&
    token.length <= 2000;
  return isFine ? { version, role, machine, name, token } : null;
};

/** Whether a request comes from this machine, over the address that nobody else can reach. */
export const isLocal = ({ socket }: IncomingMessage): boolean =>
  !(socket as TLSSocket).encrypted && /^(::ffff:)?127\.|^::1$/.test(socket.remoteAddress ?? '');

const milliseconds = (): number => performance.timeOrigin + performance.now();

/**
 * Passes what machines of a show say to each other. Keeps the last state and the document of the show for those that come later, says who is there, answers for
 * the clock, and holds everybody to their role: nothing that a remote desk may not do, and nothing that is not a command, is passed on.
 */
export class Hub {
  private readonly io = new Server<ToServer, FromServer, Record<string, never>, Known>({
    serveClient: false,
    transports: ['websocket'],
  });
  private readonly engines: Engine[] = [];
  private readonly limiter: RateLimiterMemory;
  private main: Link | null = null;
  private state: StateNews = {};
  private document: Y.Doc | null = null;
  private inputs: ControllerState | null = null;
  /** The screen that each player shows. */
  private readonly given = new Map<string, string | null>();
  private readonly roster: NodeJS.Timeout;

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

  /** All but the main machine. */
  private get others(): Link[] {
    return this.links().filter(({ data }) => data.role !== 'main');
  }

  private checkNumber(): void {
    if (this.others.length >= mostOthers)
      throw new Error(`${mostOthers} machines are there already. Close some of them.`);
  }

  private async letIn(link: Link): Promise<void> {
    const hello = readHandshake(link.handshake.auth);
    if (!hello) throw new Error('This is no machine of Pyrvel.');
    if (hello.version !== linkVersion)
      throw new Error('This page is of another version than the main machine. Load it again.');
    let desk: DeskRole | null = null;
    if (hello.role === 'main') {
      if (!isLocal(link.request))
        throw new Error('Only the machine of the server itself can be the main one.');
    } else if (hello.role === 'player' && isLocal(link.request)) {
      // A window of this very machine needs no code to show what is shown here anyway.
      this.checkNumber();
    } else {
      this.checkNumber();
      const pass = await this.access.check(hello.token);
      if (pass.machine !== hello.machine) throw new AccessError(401, 'This machine has to be let in again.');
      if ((pass.role === 'player') !== (hello.role === 'player'))
        throw new AccessError(401, 'This code was for another kind of machine. Type the one for this.');
      desk = pass.role === 'player' ? null : pass.role;
    }
    link.data = {
      role: hello.role,
      desk,
      held: new Map(),
      refused: 0,
      card: {
        machine: hello.machine,
        name: hello.name,
        role: hello.role,
        desk,
        address: (link.request.socket.remoteAddress ?? '').replace('::ffff:', ''),
        since: milliseconds(),
        clock: null,
        asked: 0,
        lost: 0,
        framesPerSecond: null,
        lacks: '',
      },
    };
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
      const now = milliseconds();
      void this.counts(link).then((fine) => fine && typeof answer === 'function' && answer(now));
    });
    link.on('report', (report) => {
      void this.counts(link).then((fine) => {
        if (!fine || !isReport(report)) return;
        const { clock, asked, lost, framesPerSecond, lacks } = report;
        Object.assign(link.data.card, { clock, asked, lost, framesPerSecond, lacks });
      });
    });
    if (role === 'main') this.serveMain(link);
    else this.serveOther(link);
    if (role === 'remote') this.serveRemote(link, desk!);
    link.emit('welcome', { role, desk });
    this.tellAudience();
  }

  private serveMain(link: Link): void {
    this.main = link;
    this.tellOthers('main', true);
    link.on('state', (news, isWhole) => {
      if (isWhole) this.state = news;
      else Object.assign(this.state, news);
      this.tellOthers('state', news, isWhole);
    });
    link.on('show', (update, isWhole) => {
      try {
        const next = isWhole || !this.document ? new Y.Doc() : this.document;
        Y.applyUpdate(next, update);
        this.document = next;
        this.tellOthers('show', update, isWhole);
      } catch (error) {
        console.error(
          `What the main machine said of the show could not be read (${(error as Error).message}).`,
        );
      }
    });
    link.on('picture', (jpeg) => {
      for (const remote of this.remotes) remote.volatile.emit('picture', jpeg);
    });
    link.on('inputs', (inputs) => {
      this.inputs = inputs;
      for (const player of this.players) player.emit('inputs', inputs);
    });
    link.on('give', (machine, screen) => {
      this.given.set(machine, screen);
      this.tell(machine, (player) => player.emit('given', screen));
    });
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
      this.tellOthers('main', false);
    });
  }

  private tell(machine: string, what: (player: Link) => void): void {
    for (const player of this.players) if (player.data.card.machine === machine) what(player);
  }

  private tellOthers<K extends keyof FromServer>(event: K, ...args: Parameters<FromServer[K]>): void {
    for (const other of this.others) other.emit(event, ...args);
  }

  /** Tells a machine that has come where everything stands. */
  private serveOther(link: Link): void {
    const { machine, role } = link.data.card;
    link.emit('main', this.main !== null);
    if (this.document) link.emit('show', Y.encodeStateAsUpdate(this.document), true);
    if (this.main || this.document) link.emit('state', this.state, true);
    if (role === 'player') {
      if (this.inputs) link.emit('inputs', this.inputs);
      link.emit('given', this.given.get(machine) ?? null);
    }
    link.on('disconnect', () => this.tellAudience());
  }

  private serveRemote(link: Link, desk: DeskRole): void {
    const { held } = link.data;
    link.on('perform', (asked, answer) => {
      void this.counts(link).then((fine) => {
        const say = (fault: string): void => {
          if (typeof answer === 'function') answer(fault);
        };
        const command = readCommand(asked);
        if (!fine) say('This machine sends more than can be followed.');
        else if (!command) say('This is no command of Pyrvel.');
        else if (!mayPerform(desk, command.type)) say('This remote desk may not do that.');
        else if (!this.main) say('The main machine is away.');
        else {
          this.note(held, command);
          this.main.emit('perform', command);
          say('');
        }
      });
    });
    link.on('disconnect', () => {
      for (const command of held.values()) this.main?.emit('perform', command);
    });
  }

  /** Remembers what lets go what a machine holds. */
  private note(held: Known['held'], command: PerformanceCommand): void {
    if (command.type === 'press') {
      if (command.down) held.set(`press ${command.control}`, { ...command, down: false });
      else held.delete(`press ${command.control}`);
    } else if (command.type === 'hit') {
      if (command.on) held.set(`hit ${command.hit}`, { ...command, on: false });
      else held.delete(`hit ${command.hit}`);
    }
  }

  private tellAudience(): void {
    const audience: Audience = { remotes: this.remotes.length, players: this.players.length };
    this.main?.emit('audience', audience);
    this.tellRoster();
  }

  private tellRoster(): void {
    this.main?.emit(
      'machines',
      this.links().map(({ data }) => data.card),
    );
  }
}
