/** Milliseconds until the server is tried again. */
const retryMs = 1000;
/** Bytes that may wait to be sent before frames are left out. */
const mostWaitingBytes = 2 ** 21;

/** The way of pixels to the server: a WebSocket that comes back by itself. */
export class PixelLink {
  private socket: WebSocket | null = null;
  private triedAt = -Infinity;
  isOpen = false;
  /** Addresses that the server refused, since nobody has allowed them on this machine. */
  refused: readonly string[] = [];

  constructor(private readonly address: string) {}

  /** Sends the packets of a frame; false: the server is away, or does not keep up. Connects when it has to. */
  send(message: Uint8Array<ArrayBuffer>, now: number): boolean {
    if (!this.socket && now - this.triedAt > retryMs) this.open(now);
    if (!this.isOpen || !this.socket || this.socket.bufferedAmount > mostWaitingBytes) return false;
    this.socket.send(message);
    return true;
  }

  /** Ends the connection while nothing is sent. */
  close(): void {
    this.socket?.close();
  }

  private open(now: number): void {
    this.triedAt = now;
    const socket = new WebSocket(this.address);
    this.socket = socket;
    socket.onopen = () => (this.isOpen = true);
    socket.onmessage = ({ data }) => {
      if (typeof data === 'string') this.refused = (JSON.parse(data) as { refused: string[] }).refused;
    };
    socket.onclose = () => {
      this.isOpen = false;
      this.refused = [];
      this.socket = null;
    };
  }
}
