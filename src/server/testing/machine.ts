import os from 'node:os';
import { io, type Socket } from 'socket.io-client';
import * as Y from 'yjs';
import {
  linkPath,
  linkVersion,
  type FromServer,
  type NetworkState,
  type ToServer,
} from '../../core/machines/link';
import { listen, makeApp } from '../server';

type Client = Socket<FromServer, ToServer>;
export type Server = Awaited<ReturnType<typeof listen>>;

/** Milliseconds in which a machine takes over, and as long for busy processors. */
const mostMs = 8000;

/** Starts a machine whose network has a port of its own. `folder`: where it keeps what it knows. */
export const start = (folder: string | null = null, port = 0): Promise<Server> =>
  listen(makeApp({ dist: os.tmpdir(), machines: { folder, host: '127.0.0.1', port } }), 0);

/** Asks a machine for something, as its own page does. */
export async function ask(server: Server, route: string, method = 'GET', body?: object): Promise<Response> {
  return fetch(server.address + route, {
    method,
    ...(body && { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
}

/** Opens the network of a machine. */
export async function network(server: Server): Promise<NetworkState> {
  const answer = await ask(server, '/machines/network', 'POST', { isOpen: true });
  return (await answer.json()) as NetworkState;
}

/** A link to a machine, as a page of this computer opens it. */
const linkTo = (server: Server, who: { role: string; machine: string; name: string }): Client =>
  io(server.address, {
    path: linkPath,
    transports: ['websocket'],
    reconnection: false,
    forceNew: true,
    extraHeaders: { origin: server.address },
    auth: { version: linkVersion, token: '', ...who },
  });

/** A window of a main machine, and what it is told. */
export class Window {
  follows: (string | null)[] = [];
  states: { time: unknown; at: number }[] = [];
  commands: unknown[] = [];
  readonly document = new Y.Doc();
  edits: Uint8Array[] = [];
  refusals: string[] = [];
  sounds: Uint8Array[] = [];
  shown: [machine: string, jpeg: Uint8Array][] = [];
  readonly link: Client;

  constructor(server: Server) {
    this.link = linkTo(server, { role: 'main', machine: 'main-machine', name: 'Main' });
    this.link.on('follows', (main) => this.follows.push(main));
    this.link.on('state', ({ transport, at }) => this.states.push({ time: transport?.time, at: at! }));
    this.link.on('perform', (commands) => this.commands.push(...commands));
    this.link.on('show', (update) => Y.applyUpdate(this.document, new Uint8Array(update)));
    this.link.on('edit', (update) => this.edits.push(update));
    this.link.on('sound', (packed) => this.sounds.push(packed));
    this.link.on('shown', (machine, jpeg) => this.shown.push([machine, jpeg]));
    this.link.on('refused', (sentence) => this.refusals.push(sentence));
  }

  tell(time: number, at: number): void {
    this.link.emit('state', { transport: { time } as never, at, number: 1 }, true);
  }

  isFollowing(): boolean {
    return typeof this.follows.at(-1) === 'string';
  }
}

/** A player of this computer, which hears where it would go should the machine be gone. Each list of addresses, as it was told. */
export function guestOf(server: Server): { wayOut: (readonly string[])[]; close(): void } {
  const link = linkTo(server, { role: 'player', machine: 'player-here', name: 'Left' });
  const wayOut: (readonly string[])[] = [];
  link.on('spare', (addresses) => wayOut.push(addresses));
  return { wayOut, close: () => link.disconnect() };
}

/** Waits until something is so. Throws where it never is. */
export async function until(what: string, is: () => boolean): Promise<void> {
  const end = performance.now() + mostMs;
  while (!is()) {
    if (performance.now() > end) throw new Error(`waited for ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}
