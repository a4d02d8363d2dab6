import { readDatagrams } from '../../core/wall/pixels/datagrams';

/** Milliseconds until the server is tried again. */
const retryMs = 1000;
/** Bytes that may wait to be sent before frames are left out. */
const mostWaitingBytes = 2 ** 21;

/** What the server tells. */
interface News {
  /** Addresses that it does not send to, since nobody has allowed them on this machine. */
  refused?: string[];
  /** Ports of this machine by which the receiver that is built in listens for each node. */
  ports?: Record<string, number>;
  /** Packets that came to it quicker than they could be handed on. */
  dropped?: number;
}

/** The way of pixels to the server and back from its receiver: a WebSocket that comes back by itself. */
export class PixelLink {
  private socket: WebSocket | null = null;
  private triedAt = -Infinity;
  private nodes = '[]';
  isOpen = false;
  /** It was tried and is not there. */
  isAway = false;
  refused: readonly string[] = [];
  ports: Readonly<Record<string, number>> = {};
  dropped = 0;

  constructor(
    private readonly address: string,
    /** Takes what arrived over the network for a node. */
    private readonly take: (node: string, bytes: Uint8Array) => void,
  ) {}

  /** Sends the packets of a frame; false: the server is away, or does not keep up. Connects when it has to. */
  send(message: Uint8Array<ArrayBuffer>, now: number): boolean {
    if (!this.socket && now - this.triedAt > retryMs) this.open(now);
    if (!this.isOpen || !this.socket || this.socket.bufferedAmount > mostWaitingBytes) return false;
    this.socket.send(message);
    return true;
  }

  /** Hands over packets that the server sends once nothing else comes any more. */
  leave(message: Uint8Array<ArrayBuffer>): void {
    if (!this.isOpen || !this.socket) return;
    this.socket.send(JSON.stringify({ atEnd: true }));
    this.socket.send(message);
  }

  /** Asks the receiver to listen for these nodes, and for no others. */
  listen(nodes: readonly string[]): void {
    const text = JSON.stringify(nodes);
    if (text === this.nodes) return;
    this.nodes = text;
    this.ports = {};
    if (this.isOpen) this.socket?.send(JSON.stringify({ listen: nodes }));
  }

  /** Ends the connection while nothing is sent. */
  close(): void {
    const { socket } = this;
    if (!socket) return;
    this.forget();
    this.isAway = false;
    socket.close();
  }

  private forget(): void {
    this.isOpen = false;
    this.refused = [];
    this.ports = {};
    this.socket = null;
  }

  private open(now: number): void {
    this.triedAt = now;
    const socket = new WebSocket(this.address);
    socket.binaryType = 'arraybuffer';
    this.socket = socket;
    socket.onopen = () => {
      this.isOpen = true;
      this.isAway = false;
      socket.send(`{"listen":${this.nodes}}`);
    };
    socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
      if (typeof data === 'string') Object.assign(this, JSON.parse(data) as News);
      else
        for (const { address, bytes } of readDatagrams(new Uint8Array(data)) ?? []) this.take(address, bytes);
    };
    socket.onclose = () => {
      if (this.socket !== socket) return;
      this.forget();
      this.isAway = true;
    };
  }
}
