import { createSocket, type Socket } from 'node:dgram';
import type { IncomingMessage, Server } from 'node:http';
import { isIPv4 } from 'node:net';
import express, { Router } from 'express';
import { WebSocketServer, type WebSocket } from 'ws';
import { readDatagrams, type Datagram } from '../core/wall/pixels/datagrams';
import type { ArtNetNode } from '../core/wall/pixels/art-net';
import { discover, DiscoveryError } from './discovery';
import { PixelReceivers, readWish } from './pixel-receivers';

/** Most bytes of one message: the packets of a frame. */
const mostMessageBytes = 2 ** 21;
const mostAllowed = 1024;

const isAddressList = (value: unknown): value is string[] =>
  Array.isArray(value) &&
  value.length <= mostAllowed &&
  value.every((address) => typeof address === 'string' && isIPv4(address));

/** Milliseconds from the end of a connection until what it left to be sent at its end is sent. */
const endMs = 1500;

const isThisMachine = (address: string): boolean => address.startsWith('127.');

/**
 * Sends UDP packets for the pixels of a wall. They arrive from the engine over a WebSocket, packed; nothing but sending is done here.
 * Only addresses are sent to that a person has allowed on this machine since the server was started, and its own.
 */
export class PixelSender {
  private readonly allowed = new Set<string>();
  private socket: Socket | null = null;
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: mostMessageBytes });

  /** Under way; a second question waits for the same answers. */
  private search: Promise<ArtNetNode[]> | null = null;

  /** `POST /pixels/allow` with a list of addresses; `POST /pixels/discover`, which asks them and the network for nodes. */
  router(): Router {
    const router = Router();
    router.post('/allow', express.json({ limit: '64kb' }), (request, response) => {
      const { addresses } = (request.body ?? {}) as { addresses?: unknown };
      if (!isAddressList(addresses)) {
        response.status(400).type('text/plain').send('A list of IPv4 addresses is expected.');
        return;
      }
      for (const address of addresses) if (this.allowed.size < mostAllowed) this.allowed.add(address);
      response.json({ allowed: [...this.allowed] });
    });
    // Asked for by a person: nothing but the question goes to the network.
    router.post('/discover', express.json({ limit: '64kb' }), (request, response, next) => {
      const { addresses } = (request.body ?? {}) as { addresses?: unknown };
      if (!isAddressList(addresses)) {
        response.status(400).type('text/plain').send('A list of IPv4 addresses is expected.');
        return;
      }
      this.search ??= discover(addresses).finally(() => (this.search = null));
      this.search.then(
        (nodes) => response.json({ nodes }),
        (error: Error) => {
          if (error instanceof DiscoveryError) response.status(503).type('text/plain').send(error.message);
          else next(error);
        },
      );
    });
    return router;
  }

  /** Takes WebSockets of the app; `isOurs` says whether a request comes from its own pages. Those under `others` are somebody else's. */
  attach(server: Server, isOurs: (request: IncomingMessage) => boolean, others: string): void {
    server.on('upgrade', (request, socket, head) => {
      if (request.url?.startsWith(others)) return;
      if (request.url !== '/pixels' || !isOurs(request)) {
        socket.end('HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n');
        return;
      }
      this.sockets.handleUpgrade(request, socket, head, (page) => this.serve(page));
    });
    server.on('close', () => {
      this.disconnect();
      this.socket?.close();
      this.socket = null;
    });
  }

  /** Ends the connections of all pages. */
  disconnect(): void {
    for (const page of this.sockets.clients) page.terminate();
  }

  private serve(page: WebSocket): void {
    const refused = new Set<string>();
    const receiver = new PixelReceivers(page);
    let told = JSON.stringify({ refused: [] });
    let isForEnd = false;
    let atEnd: Datagram[] = [];
    page.on('error', () => undefined);
    page.on('close', () => {
      receiver.close();
      // A page that is only loaded again is soon back, and nothing has to go dark for it.
      setTimeout(() => {
        if (this.sockets.clients.size === 0) for (const datagram of atEnd) this.sendAllowed(datagram);
      }, endMs).unref();
    });
    page.on('message', (data, isBinary) => {
      if (!isBinary) {
        const wish = readWish((data as Buffer).toString());
        if (!wish) page.close(1007, 'Packets are expected.');
        else if (wish.listen) receiver.listen(wish.listen);
        isForEnd = wish?.atEnd === true;
        return;
      }
      const datagrams = readDatagrams(data as Buffer);
      if (!datagrams) {
        page.close(1007, 'Packets are expected.');
        return;
      }
      if (isForEnd) {
        isForEnd = false;
        atEnd = datagrams;
        return;
      }
      for (const datagram of datagrams) if (!this.sendAllowed(datagram)) refused.add(datagram.address);
      for (const address of refused) if (this.allowed.has(address)) refused.delete(address);
      const news = JSON.stringify({ refused: [...refused] });
      if (news === told) return;
      told = news;
      page.send(news);
    });
  }

  /** Whether an address may be sent to: one of this machine, or one that a person has allowed on it. */
  mayReach(address: string): boolean {
    return isIPv4(address) && (isThisMachine(address) || this.allowed.has(address));
  }

  /** Sends a packet, unless nobody has allowed its address. */
  private sendAllowed({ address, port, bytes }: Datagram): boolean {
    if (!this.mayReach(address)) return false;
    this.send(address, port, bytes);
    return true;
  }

  private send(address: string, port: number, bytes: Uint8Array): void {
    if (!this.socket) {
      // Addresses are numbers already: the usual look-up would cost as much as sending.
      const socket = createSocket({ type: 'udp4', lookup: (host, _options, found) => found(null, host, 4) });
      // A network that is away is no reason to stop: the next packet may arrive.
      socket.on('error', () => undefined);
      socket.bind(() => socket.setBroadcast(true));
      this.socket = socket;
    }
    this.socket.send(bytes, port, address, () => undefined);
  }
}
