import { createSocket, type Socket } from 'node:dgram';
import express, { Router, type Response } from 'express';
import { OscError, readPacket, writePacket, type OscArgument, type OscMessage } from '../core/osc/packet';

/** Milliseconds that messages are gathered for, so that a page is told once a frame and not a thousand times a second. */
const gatherMs = 4;
/** Milliseconds until a port that was taken is tried again. */
const retryMs = 2000;
const mostArguments = 64;
/** Ports that are open at once, and pages that listen to one. */
const mostPorts = 16;
const mostPages = 16;
/** Bytes that may wait to be read by a page before it is told no more. */
const mostWaitingBytes = 512 * 1024;
/** Messages and bytes that are told at once, each few milliseconds; what comes beyond is dropped and said. */
const mostGathered = { messages: 1000, bytes: 128 * 1024 };

interface Ear {
  socket: Socket | null;
  pages: Set<Response>;
  /** Pages that have not read what they were told, each with the fault it will hear of once it has. */
  slow: Map<Response, { fault: string } | null>;
  gathered: OscMessage[];
  gatheredBytes: number;
  timer: NodeJS.Timeout | null;
  /** That more came than could be told was said already. */
  flooded: boolean;
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
 * address unless told otherwise; a port is open as long as a page listens to it. `mayReach`: whether an address may be sent to.
 */
export function oscRouter(
  host = '127.0.0.1',
  mayReach: (address: string) => boolean = (address) => address === '127.0.0.1',
): Router {
  const ears = new Map<number, Ear>();
  const router = Router();

  const tell = (ear: Ear, page: Response, what: { fault: string } | { messages: OscMessage[] }): void => {
    if (ear.slow.has(page)) {
      // Values of a fader are soon old: a page that does not keep up misses some. What is wrong it hears later.
      if ('fault' in what) ear.slow.set(page, what);
      return;
    }
    if (page.write(`data: ${JSON.stringify(what)}\n\n`) || page.writableLength < mostWaitingBytes) return;
    ear.slow.set(page, null);
    page.once('drain', () => {
      const missed = ear.slow.get(page);
      ear.slow.delete(page);
      if (missed) tell(ear, page, missed);
    });
  };
  const tellAll = (ear: Ear, what: { fault: string } | { messages: OscMessage[] }): void => {
    for (const page of ear.pages) tell(ear, page, what);
  };

  const fail = (ear: Ear, fault: string): void => {
    ear.fault = fault;
    tellAll(ear, { fault });
  };

  const hear = (ear: Ear, packet: Uint8Array): void => {
    let dropped = 0;
    try {
      const messages = readPacket(packet);
      ear.gatheredBytes += packet.length;
      const space = ear.gatheredBytes > mostGathered.bytes ? 0 : mostGathered.messages - ear.gathered.length;
      ear.gathered.push(...messages.slice(0, space));
      dropped = messages.length - Math.max(0, Math.min(space, messages.length));
    } catch (error) {
      if (!(error instanceof OscError)) throw error;
      tellAll(ear, { fault: `A packet that is no OSC came in. ${error.message}` });
      return;
    }
    if (dropped && !ear.flooded) {
      ear.flooded = true;
      tellAll(ear, {
        fault: 'More OSC comes in than can be followed. Some of it is dropped; send less often.',
      });
    }
    ear.timer ??= setTimeout(() => {
      ear.timer = null;
      ear.gatheredBytes = 0;
      const messages = ear.gathered.splice(0);
      tellAll(ear, { messages });
      if (messages.length < mostGathered.messages / 2) ear.flooded = false;
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
    const ear: Ear = {
      socket: null,
      pages: new Set(),
      slow: new Map(),
      gathered: [],
      gatheredBytes: 0,
      timer: null,
      flooded: false,
      fault: '',
    };
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
    if (!ears.has(port) && ears.size >= mostPorts) {
      response.status(503).send(`${mostPorts} ports are listened to already. Close some pages of Pyrvel.`);
      return;
    }
    if ((ears.get(port)?.pages.size ?? 0) >= mostPages) {
      response.status(503).send(`${mostPages} pages listen to the port ${port} already. Close some of them.`);
      return;
    }
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    response.write(': listening\n\n');
    const ear = ears.get(port) ?? open(port);
    ear.pages.add(response);
    if (ear.fault) tell(ear, response, { fault: ear.fault });
    response.on('close', () => {
      ear.pages.delete(response);
      ear.slow.delete(response);
      if (ear.pages.size > 0 || ears.get(port) !== ear) return;
      ears.delete(port);
      if (ear.timer) clearTimeout(ear.timer);
      ear.socket?.close();
    });
  });

  router.post('/send', express.json({ limit: '16kb' }), (request, response) => {
    const { port, to = '127.0.0.1' } = (request.body ?? {}) as { port?: unknown; to?: unknown };
    if (!isPort(port) || !isMessage(request.body)) {
      response
        .status(400)
        .send('An address that begins with a slash, up to 64 values, and a port are needed.');
      return;
    }
    if (typeof to !== 'string' || !mayReach(to)) {
      response.status(403).send(`Nobody has allowed on this machine that ${String(to)} is sent to.`);
      return;
    }
    const socket = createSocket('udp4');
    const { address, args } = request.body;
    socket.send(writePacket({ address, args }), port, to, (error) => {
      socket.close();
      if (error) response.status(500).send(`It could not be sent (${error.message}).`);
      else response.status(204).end();
    });
  });
  return router;
}
