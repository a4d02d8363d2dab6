import { createHash, randomBytes, X509Certificate } from 'node:crypto';
import { createReadStream } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { hostname } from 'node:os';
import { pipeline } from 'node:stream/promises';
import { io, type Socket } from 'socket.io-client';
import { ownClock } from '../../core/own-clock';
import { ClockRounds } from '../../core/machines/clock-rounds';
import {
  linkPath,
  linkVersion,
  type Following,
  type FromServer,
  type Successor,
  type ToServer,
} from '../../core/machines/link';
import { askMachine, textOf, type Question } from './asking';
import { agentFor, certificateAt } from './certificate';
import type { SharedFiles } from './files';
import type { Hub } from './hub';

/** Milliseconds without a sign of life from the server of the main machine, or without its window, after which this one takes over. */
const patienceMs = { server: 700, window: 500 };
/** Milliseconds between two looks for that. A look that is this many times late says that this machine stood still, and nothing of the other. */
const lookMs = 100;
const lateLooks = 3;
/** Milliseconds between two reports of this machine to the main one. */
const reportMs = 1000;
const answerMs = 5000;
/** Milliseconds for which a spare that was started again waits for the main machine before it performs; it goes on looking for that. */
const againMs = 10000;

/** Why a main machine cannot be followed. */
export class FollowError extends Error {}

/** Where a main machine is entered, and what is shown and trusted there. */
export interface Entrance {
  address: string;
  /** Who the token was given to. */
  machine: string;
  token: string;
  certificate: string;
}

/** Whether what was kept is an entrance. */
export const isEntrance = (value: unknown): value is Entrance => {
  const { address, machine, token, certificate } = (value ?? {}) as Partial<Entrance>;
  return [address, machine, token, certificate].every((one) => typeof one === 'string');
};

/** Asks a main machine for something. Throws FollowError with what it says, or that it says nothing. */
const ask = (
  { token, ...place }: Entrance,
  method: Question['method'],
  route: string,
  send?: Question['send'],
): Promise<IncomingMessage> =>
  askMachine(place, route, {
    method,
    timeout: answerMs,
    headers: { Authorization: `Bearer ${token}`, 'Content-Type': 'application/json' },
    send,
  }).catch((error: Error) => {
    throw new FollowError(`The main machine does not answer at ${place.address} (${error.message}).`);
  });

/** Types the code for the spare at a main machine. Throws FollowError. */
export async function enterAt(given: string, code: string): Promise<Entrance> {
  let address: string;
  try {
    address = new URL(/^https:/.test(given) ? given : `https://${given}`).origin;
  } catch {
    throw new FollowError(`“${given}” is no address. It looks like https://192.168.1.20:4171.`);
  }
  const shown = await certificateAt(new URL(address)).catch((error: Error) => {
    throw new FollowError(`The main machine does not answer at ${address} (${error.message}).`);
  });
  const machine = `spare-${randomBytes(8).toString('hex')}`;
  const place = { address, machine, token: '', certificate: shown.toString() };
  const answer = await ask(place, 'POST', '/machines/enter', (body) =>
    body.end(JSON.stringify({ code, machine })),
  );
  const text = await textOf(answer);
  if (answer.statusCode !== 200) throw new FollowError(text);
  const { token, role } = JSON.parse(text) as { token: string; role: string };
  if (role !== 'spare')
    throw new FollowError('This code is for another kind of machine. Type the one for the spare.');
  return { ...place, token };
}

/** Where a spare that has taken over is found: the first of its addresses that answers with its certificate. Throws FollowError. */
export async function placeOf({ addresses, ...rest }: Successor): Promise<Entrance> {
  let fault = new FollowError('The machine that has taken over has no address.');
  for (const address of addresses) {
    const place = { address, ...rest };
    try {
      (await ask(place, 'HEAD', '/mark.svg')).resume();
      return place;
    } catch (error) {
      fault = error as FollowError;
    }
  }
  throw fault;
}

/** What a follower asks of its machine, and tells it. */
interface FollowerCalls {
  /** How the other one is to follow, once this one performs. */
  successor(): Promise<Successor>;
  /** Players that were let in there, by tokens signed with this key, may come here too. */
  trust(key: Uint8Array): void;
  onPhase(phase: Following['phase']): void;
  /** Nobody is followed or awaited any more, and why; empty: as was asked for. */
  onEnd(fault: string): void;
}

/**
 * Why a machine follows another one: somebody has told it to; it did `again` when it was started again, as the spare; or it was the main one, finds that
 * the spare has taken over, and comes back. The last follows only one that performs; both say meanwhile that they do not perform, so that two that
 * are started at once do not follow each other: the one that was the main one goes on.
 */
export type HowFollowed = 'told' | 'again' | 'return';

/**
 * Follows a main machine as its spare: what is told there is told here too, by the clock of this machine, and what is done here is done there. Takes over when
 * it is gone, waits for it to come back, and has it follow then. A main machine that was there all along is followed again.
 */
export class Follower {
  private readonly link: Socket<FromServer, ToServer>;
  private readonly rounds = new ClockRounds((answer) => void this.link.volatile.emit('clock', answer), {
    now: ownClock,
    later: (run, ms) => {
      const timer = setTimeout(run, ms).unref();
      return () => clearTimeout(timer);
    },
  });
  private readonly looking: NodeJS.Timeout;
  private readonly reporting: NodeJS.Timeout;
  private phase: Following['phase'] = 'joining';
  /** Which window performed there last. */
  private run = '';
  private lastHeard = performance.now();
  private lastLook = performance.now();
  private windowGone: number | null = null;
  private hasShow = false;
  private hasState = false;
  private waiting: NodeJS.Timeout | undefined;
  /** Id of the other machine, the same with each of its starts: its certificate is kept. */
  private readonly main: string;

  constructor(
    readonly place: Entrance,
    private readonly hub: Hub,
    private readonly files: SharedFiles,
    private readonly calls: FollowerCalls,
    private readonly how: HowFollowed = 'told',
  ) {
    hub.setYielding(how !== 'told');
    // Until it is found this machine performs by what it has.
    if (how === 'again')
      this.waiting = setTimeout(() => this.phase === 'joining' && hub.setYielding(false), againMs).unref();
    this.main = createHash('sha256')
      .update(new X509Certificate(place.certificate).raw)
      .digest('hex')
      .slice(0, 16);
    this.link = io(place.address, {
      path: linkPath,
      transports: ['websocket'],
      forceNew: true,
      agent: agentFor(place.certificate) as never,
      extraHeaders: { origin: place.address },
      reconnectionDelay: 200,
      reconnectionDelayMax: 1000,
      timeout: answerMs,
      auth: {
        version: linkVersion,
        role: 'spare',
        machine: place.machine,
        name: hostname().slice(0, 80),
        token: place.token,
      },
    });
    this.listen();
    this.looking = setInterval(() => this.look(), lookMs);
    this.looking.unref();
    this.reporting = setInterval(() => {
      const { framesPerSecond = null, lacks = '', where = '' } = hub.mainCard ?? {};
      const report = { clock: this.rounds.clock.state, ...this.rounds.counts, framesPerSecond, lacks, where };
      this.link.volatile.emit('report', report);
    }, reportMs);
    this.reporting.unref();
  }

  get state(): Following {
    return { address: this.place.address, phase: this.phase };
  }

  private listen(): void {
    const { link, hub } = this;
    const hear =
      <T extends unknown[]>(take: (...args: T) => void) =>
      (...args: T): void => {
        this.lastHeard = performance.now();
        take(...args);
      };
    link.on('connect', () => {
      this.rounds.begin();
      // It is asked for again after each cut: it may be another one by then.
      this.fetchKey().then(this.calls.trust, () => undefined);
    });
    link.on('disconnect', () => this.rounds.end());
    link.on('connect_error', ({ message }) => {
      if (!link.active) this.end(message);
    });
    link.on('farewell', (sentence) => this.end(sentence));
    link.on(
      'main',
      hear((isThere, run) => this.hearOfWindow(isThere, run)),
    );
    link.on(
      'pulse',
      hear(() => undefined),
    );
    link.on(
      'state',
      hear((news, isWhole) => {
        if (this.phase === 'leading') return;
        this.hasState = true;
        hub.takeState(
          news.at === undefined ? news : { ...news, at: this.rounds.clock.toOwn(news.at) },
          isWhole,
        );
      }),
    );
    link.on(
      'show',
      hear((update, isWhole) => {
        if (this.phase === 'leading') return;
        this.hasShow = true;
        hub.takeShow(update, isWhole);
      }),
    );
    link.on(
      'inputs',
      hear((inputs) => {
        if (this.phase !== 'leading') hub.takeInputs(inputs);
      }),
    );
    link.on(
      'sound',
      hear((packed) => {
        if (this.phase !== 'leading') hub.takeSound(packed);
      }),
    );
    link.on(
      'gives',
      hear((given) => {
        if (this.phase !== 'leading') hub.takeGiven(given);
      }),
    );
    link.on(
      'machines',
      // What this machine itself is there for, its own list says.
      hear((cards) => hub.takeRoster(cards.filter(({ machine }) => machine !== this.place.machine))),
    );
    link.on(
      'refused',
      hear((sentence) => hub.takeRefusal(sentence)),
    );
  }

  private hearOfWindow(isThere: boolean, run: string): void {
    if (this.phase === 'leading') {
      // Only the way there was cut: it performs as before, and others may follow it.
      if (isThere && run === this.run) this.follow();
      else this.announce();
      return;
    }
    if (isThere) this.run = run;
    this.windowGone = isThere ? null : (this.windowGone ?? performance.now());
    if (this.phase !== 'joining') return;
    if (!isThere && this.how === 'return') return this.end('');
    if (!isThere && this.how === 'again') return;
    this.follow();
    // So that it finds this machine, should it be started again after this one has taken over.
    void this.calls.successor().then((successor) => this.link.emit('heir', successor));
  }

  private follow(): void {
    this.phase = 'following';
    this.calls.onPhase(this.phase);
    this.windowGone = null;
    const { link } = this;
    this.hub.follow({
      main: this.main,
      perform: (command) => void link.emit('perform', command, () => undefined),
      edit: (part, isLast) => void link.emit('edit', part, isLast),
      shown: (jpeg) => void link.volatile.emit('shown', jpeg),
      lead: () => this.takeOver(false),
    });
  }

  private look(): void {
    const now = performance.now();
    if (now - this.lastLook > lateLooks * lookMs) {
      this.lastHeard = now;
      if (this.windowGone !== null) this.windowGone = now;
    }
    this.lastLook = now;
    // Nobody could perform here, or with what.
    if (this.phase !== 'following' || !this.hasShow || !this.hasState || !this.hub.hasMain) return;
    const isCut = now - this.lastHeard > patienceMs.server;
    const isAlone = this.windowGone !== null && now - this.windowGone > patienceMs.window;
    if (isCut || isAlone) this.takeOver(isCut);
  }

  private takeOver(isCut: boolean): void {
    if (this.phase !== 'following') return;
    this.phase = 'leading';
    this.calls.onPhase(this.phase);
    this.hub.follow(null);
    // Where nothing comes through, the other one may perform as before: that is told when there is a link again. No goodbye is said, which would come
    // through later, and with which this machine would be the spare no longer.
    if (isCut) this.link.io.engine.close();
    else if (this.link.connected) this.announce();
  }

  /** Tells the other machine that this one performs, and that it is to follow. */
  private announce(): void {
    void this.calls
      .successor()
      .then((successor) => this.link.timeout(answerMs).emit('taken', successor, () => this.end('')));
  }

  private async fetchKey(): Promise<Uint8Array> {
    const answer = await ask(this.place, 'GET', '/machines/key');
    const text = await textOf(answer);
    if (answer.statusCode !== 200) throw new FollowError(text);
    return Buffer.from(text, 'hex');
  }

  /** Fetches a file of the show from there. Null: it is not there either. */
  async fetchFile(id: string): Promise<string | null> {
    const answer = await ask(this.place, 'GET', `/machines/files/${id}`);
    if (answer.statusCode === 200) await this.files.take(id, answer);
    else answer.resume();
    return this.files.find(id);
  }

  /** Hands a file that was added here on to there. */
  async sendFile(id: string): Promise<void> {
    const file = await this.files.find(id);
    if (!file) return;
    const answer = await ask(this.place, 'PUT', `/machines/files/${id}`, (body) =>
      pipeline(createReadStream(file), body),
    );
    const text = await textOf(answer);
    if (answer.statusCode !== 204) throw new FollowError(text);
  }

  private end(fault: string): void {
    this.close();
    this.calls.onEnd(fault);
  }

  /** Follows nobody any more: this machine performs by itself. */
  close(): void {
    clearInterval(this.looking);
    clearInterval(this.reporting);
    clearTimeout(this.waiting);
    this.hub.setYielding(false);
    this.rounds.end();
    this.link.disconnect();
    if (this.phase === 'following') this.hub.follow(null);
    this.phase = 'leading';
  }
}
