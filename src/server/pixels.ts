import { createSocket, type Socket } from 'node:dgram';
import type { IncomingMessage, Server } from 'node:http';
import { isIPv4 } from 'node:net';
import express, { Router } from 'express';
import { WebSocketServer, type WebSocket } from 'ws';
import { readDatagrams } from '../core/wall/pixels/datagrams';

/** Most bytes of one message: the packets of a frame. */
const mostMessageBytes = 2 ** 21;
const mostAllowed = 1024;

const isThisMachine = (address: string): boolean => address.startsWith('127.');

/**
 * Sends UDP packets for the pixels of a wall. They arrive from the engine over a WebSocket, packed; nothing but sending is done here.
 * Only addresses are sent to that a person has allowed on this machine since the server was started, and its own.
 */
export class PixelSender {
  private readonly allowed = new Set<string>();
  private socket: Socket | null = null;
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: mostMessageBytes });

  /** `POST /pixels/allow` with a list of addresses. */
  router(): Router {
    const router = Router();
    router.post('/allow', express.json({ limit: '64kb' }), (request, response) => {
      const { addresses } = (request.body ?? {}) as { addresses?: unknown };
      if (
        !Array.isArray(addresses) ||
        addresses.length > mostAllowed ||
        !addresses.every((a) => typeof a === 'string' && isIPv4(a))
      ) {
        response.status(400).type('text/plain').send('A list of IPv4 addresses is expected.');
        return;
      }
      for (const address of addresses as string[])
        if (this.allowed.size < mostAllowed) this.allowed.add(address);
      response.json({ allowed: [...this.allowed] });
    });
    return router;
  }

  /** Takes WebSockets of the app; `isOurs` says whether a request comes from its own pages. */
  attach(server: Server, isOurs: (request: IncomingMessage) => boolean): void {
    server.on('upgrade', (request, socket, head) => {
      if (request.url !== '/pixels' || !isOurs(request)) {
        socket.end('HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n');
        return;
      }
      this.sockets.handleUpgrade(request, socket, head, (page) => this.serve(page));
    });
    server.on('close', () => {
      for (const page of this.sockets.clients) page.terminate();
      this.socket?.close();
      this.socket = null;
    });
  }

  private serve(page: WebSocket): void {
    const refused = new Set<string>();
    let told = JSON.stringify({ refused: [] });
    page.on('error', () => undefined);
    page.on('message', (data, isBinary) => {
      const datagrams = isBinary ? readDatagrams(data as Buffer) : null;
      if (!datagrams) {
        page.close(1007, 'Packets are expected.');
        return;
      }
      for (const { address, port, bytes } of datagrams) {
        if (isIPv4(address) && (isThisMachine(address) || this.allowed.has(address)))
          this.send(address, port, bytes);
        else refused.add(address);
      }
      for (const address of refused) if (this.allowed.has(address)) refused.delete(address);
      const news = JSON.stringify({ refused: [...refused] });
      if (news === told) return;
      told = news;
      page.send(news);
    });
  }

  private send(address: string, port: number, bytes: Uint8Array): void {
    if (!this.socket) {
      const socket = createSocket('udp4');
      // A network that is away is no reason to stop: the next packet may arrive.
      socket.on('error', () => undefined);
      socket.bind(() => socket.setBroadcast(true));
      this.socket = socket;
    }
    this.socket.send(bytes, port, address, () => undefined);
  }
}
