import { createSocket, type Socket } from 'node:dgram';
import express, { Router, type Response } from 'express';
import { OscError, readPacket, writePacket, type OscArgument, type OscMessage } from '../core/osc/packet';

/** Milliseconds that messages are gathered for, so that a page is told once a frame and not a thousand times a second. */
const gatherMs = 4;
/** Milliseconds until a port that was taken is tried again. */
const retryMs = 2000;
const mostArguments = 64;

interface Ear {
  socket: Socket | null;
  pages: Set<Response>;
  gathered: OscMessage[];
  timer: NodeJS.Timeout | null;
  /** Said once to each page while it holds. */
  fault: string;
}

const isPort = (value: unknown): value is number =>
  Number.isInteger(value) && (value as number) >= 1024 && (value as number) <= 65535;

const isMessage = (value: unknown): value is OscMessage => {
  const { address, args } = (value ?? {}) as { address?: unknown; args?: unknown };
  return (
    typeof address === 'string' &&
    /^\/[\x21-\x7e]{0,200}$/.test(address) &&
    Array.isArray(args) &&
    args.length <= mostArguments &&
    args.every((arg: OscArgument) => ['number', 'string', 'boolean'].includes(typeof arg))
  );
};

/**
 * Hears Open Sound Control on UDP ports and tells it to pages of the app as a stream of events. Listens on the loopback
 * address unless told otherwise; a port is open as long as a page listens to it.
 */
export function oscRouter(host = '127.0.0.1'): Router {
  const ears = new Map<number, Ear>();
  const router = Router();

  const tell = (page: Response, what: object): void => void page.write(`data: ${JSON.stringify(what)}\n\n`);

  const fail = (ear: Ear, fault: string): void => {
    ear.fault = fault;
    for (const page of ear.pages) tell(page, { fault });
  };

  const hear = (ear: Ear, packet: Uint8Array): void => {
    try {
      ear.gathered.push(...readPacket(packet));
    } catch (error) {
      if (!(error instanceof OscError)) throw error;
      for (const page of ear.pages)
        tell(page, { fault: `A packet that is no OSC came in. ${error.message}` });
      return;
    }
    ear.timer ??= setTimeout(() => {
      ear.timer = null;
      const messages = ear.gathered.splice(0);
      for (const page of ear.pages) tell(page, { messages });
    }, gatherMs);
  };

  /** Opens the port; one that is taken is tried again. */
  const bind = (ear: Ear, port: number): void => {
    const socket = createSocket('udp4');
    ear.socket = socket;
    socket.on('message', (packet) => hear(ear, packet));
    socket.on('listening', () => {
      if (ear.fault) fail(ear, '');
    });
    socket.on('error', (error: NodeJS.ErrnoException) => {
      socket.close();
      ear.socket = null;
      fail(
        ear,
        error.code === 'EADDRINUSE'
          ? `Another program has the port ${port}. Close it, or choose another port.`
          : `OSC cannot be heard on port ${port} (${error.message}).`,
      );
      setTimeout(() => {
        if (ears.get(port) === ear) bind(ear, port);
      }, retryMs).unref();
    });
    socket.bind(port, host);
    // Listening alone does not keep the server up.
    socket.unref();
  };

  const open = (port: number): Ear => {
    const ear: Ear = { socket: null, pages: new Set(), gathered: [], timer: null, fault: '' };
    ears.set(port, ear);
    bind(ear, port);
    return ear;
  };

  router.get('/stream', (request, response) => {
    const port = Number(request.query.port);
    if (!isPort(port)) {
      response.status(400).send('The port must be a whole number from 1024 to 65535.');
      return;
    }
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    response.write(': listening\n\n');
    const ear = ears.get(port) ?? open(port);
    ear.pages.add(response);
    if (ear.fault) tell(response, { fault: ear.fault });
    response.on('close', () => {
      ear.pages.delete(response);
      if (ear.pages.size > 0) return;
      ears.delete(port);
      if (ear.timer) clearTimeout(ear.timer);
      ear.socket?.close();
    });
  });

  router.post('/send', express.json({ limit: '16kb' }), (request, response) => {
    const { port } = (request.body ?? {}) as { port?: unknown };
    if (!isPort(port) || !isMessage(request.body)) {
      response
        .status(400)
        .send('An address that begins with a slash, up to 64 values, and a port are needed.');
      return;
    }
    const socket = createSocket('udp4');
    const { address, args } = request.body;
    socket.send(writePacket({ address, args }), port, '127.0.0.1', (error) => {
      socket.close();
      if (error) response.status(500).send(`It could not be sent (${error.message}).`);
      else response.status(204).end();
    });
  });
  return router;
}
