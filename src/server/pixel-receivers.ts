import { createSocket, type Socket } from 'node:dgram';
import type { WebSocket } from 'ws';
import { writeDatagrams, type Datagram } from '../core/wall/pixels/datagrams';

/** Nodes that one page listens for. */
const mostNodes = 64;
/** Milliseconds that packets are gathered for before they are handed on. */
const gatherMs = 8;
/** Bytes that are handed on at once, and that may wait to be read by a page; what comes beyond is dropped and counted. */
const mostBytes = { gathered: 2 ** 21, waiting: 2 ** 22 };

/** What a page asks for beside sending packets. */
export interface Wish {
  listen?: string[];
  atEnd?: boolean;
}

const isNode = (value: unknown): value is string => typeof value === 'string' && value.length <= 40;

/** Reads such a message; null if it is none. */
export function readWish(text: string): Wish | null {
  try {
    const wish = JSON.parse(text) as Wish | null;
    if (typeof wish !== 'object' || wish === null) return null;
    if (wish.listen !== undefined && !(Array.isArray(wish.listen) && wish.listen.every(isNode))) return null;
    return wish;
  } catch {
    return null;
  }
}

/**
 * The stand-in for what hangs on the network: for each node of a wall a UDP port of this machine, and all that comes there is handed on to
 * the page as it came. Listens on the loopback address only.
 */
export class PixelReceivers {
  private readonly sockets = new Map<string, { socket: Socket; port: number }>();
  private gathered: Datagram[] = [];
  private bytes = 0;
  private dropped = 0;
  private timer: NodeJS.Timeout | null = null;

  constructor(private readonly page: WebSocket) {}

  /** Listens for these nodes and no others, and tells the page by which ports. */
  listen(nodes: readonly string[]): void {
    const wanted = new Set(nodes.slice(0, mostNodes));
    for (const [node, { socket }] of this.sockets) {
      if (wanted.has(node)) continue;
      socket.close();
      this.sockets.delete(node);
    }
    for (const node of wanted) if (!this.sockets.has(node)) this.open(node);
    this.tell();
  }

  close(): void {
    for (const { socket } of this.sockets.values()) socket.close();
    this.sockets.clear();
    if (this.timer) clearTimeout(this.timer);
  }

  private open(node: string): void {
    const socket = createSocket({ type: 'udp4', recvBufferSize: 2 ** 22 });
    const entry = { socket, port: 0 };
    this.sockets.set(node, entry);
    // A port that is lost shows nothing; the page asks again when it connects anew.
    socket.on('error', () => undefined);
    socket.on('message', (bytes) => this.take(node, bytes));
    socket.bind(0, '127.0.0.1', () => {
      if (this.sockets.get(node) !== entry) return;
      entry.port = socket.address().port;
      this.tell();
    });
    socket.unref();
  }

  private tell(): void {
    const ports = Object.fromEntries(
      [...this.sockets].filter(([, { port }]) => port > 0).map(([node, { port }]) => [node, port]),
    );
    if (this.page.readyState === this.page.OPEN) this.page.send(JSON.stringify({ ports }));
  }

  private take(node: string, bytes: Uint8Array): void {
    if (this.bytes + bytes.length > mostBytes.gathered) this.dropped++;
    else {
      this.bytes += bytes.length;
      this.gathered.push({ address: node, port: 0, bytes });
    }
    this.timer ??= setTimeout(() => this.handOn(), gatherMs);
  }

  private handOn(): void {
    const { page, gathered } = this;
    this.timer = null;
    this.gathered = [];
    this.bytes = 0;
    if (page.readyState !== page.OPEN) return;
    if (page.bufferedAmount > mostBytes.waiting) this.dropped += gathered.length;
    else page.send(writeDatagrams(gathered));
    if (this.dropped) page.send(JSON.stringify({ dropped: this.dropped }));
  }
}
