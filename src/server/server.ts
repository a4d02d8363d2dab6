import type { IncomingMessage, Server } from 'node:http';
import type { TLSSocket } from 'node:tls';
import path from 'node:path';
import { isIP } from 'node:net';
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import { linkPath } from '../core/machines/link';
import { farmRouter } from './farm/routes';
import { Machines, type MachinesOptions } from './machines/machines';
import { oscRouter } from './osc';
import { PixelSender } from './pixels';

const root = path.resolve(import.meta.dirname, '../..');

/** No `eval`, nothing from elsewhere; workers and pictures may come from memory. */
const headers = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      workerSrc: ["'self'", 'blob:'],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'blob:', 'data:'],
      connectSrc: ["'self'"],
      fontSrc: ["'self'", 'data:'],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  // Plain HTTP on this machine: a browser that once heard otherwise would find no app here any more.
  strictTransportSecurity: false,
});

/** Whether an address or name means this machine and nobody else. */
export const isLoopback = (host: string): boolean => /^(localhost|127(\.\d{1,3}){3}|\[?::1\]?)$/i.test(host);

/**
 * Whether requests under a name are answered. A name that is looked up may be made to lead here by whoever owns it, and
 * then its pages would speak with us as if they were ours: only addresses, and names we were told, are safe.
 */
function isOurs(host: string, bound: string): boolean {
  const name = host.replace(/:\d+$/, '');
  if (isLoopback(name)) return true;
  if (isLoopback(bound)) return false;
  return isIP(name.replace(/^\[|\]$/g, '')) > 0 || name.toLowerCase() === bound.toLowerCase();
}

const refuse = (response: Response, status: number, sentence: string): void =>
  void response.status(status).type('text/plain').send(sentence);

/** The origin of this server's own pages, as a request has come to it. */
const originOf = ({ headers, socket }: IncomingMessage): string =>
  `${(socket as TLSSocket).encrypted ? 'https' : 'http'}://${headers.host}`;

/** Whether a request that opens a WebSocket comes from a page of this server. */
const isOwnPage =
  (bound: string) =>
  (request: IncomingMessage): boolean =>
    isOurs(request.headers.host ?? '', bound) && request.headers.origin === originOf(request);

/** Address that stands for all of this machine: what comes over the network is asked for under any of its numbers. */
const anyAddress = '0.0.0.0';

/** Refuses what comes under another name or from a page of another origin. */
function guard(bound: string): RequestHandler {
  return (request, response, next) => {
    const host = request.headers.host ?? '';
    const { origin } = request.headers;
    const site = request.headers['sec-fetch-site'];
    // A link from elsewhere may open the app; nothing else from elsewhere may ask for anything.
    const isVisit =
      request.headers['sec-fetch-mode'] === 'navigate' && request.headers['sec-fetch-dest'] === 'document';
    if (!isOurs(host, bound)) refuse(response, 403, 'Pyrvel answers on its own address only.');
    else if (origin !== undefined && origin !== originOf(request))
      refuse(response, 403, 'Requests from other origins are refused.');
    else if ((site === 'cross-site' || site === 'same-site') && !isVisit)
      refuse(response, 403, 'Requests from other sites are refused.');
    else next();
  };
}

/** What could not be read is said in a sentence, and nothing of the machine is shown. */
const sayFault: ErrorRequestHandler = (
  error: { status?: number; type?: string },
  _request,
  response,
  next,
) => {
  if (response.headersSent) return next(error);
  const status = error.status ?? 500;
  if (error.type === 'entity.parse.failed') refuse(response, 400, 'The body of this request is not JSON.');
  else if (error.type === 'entity.too.large') refuse(response, 413, 'The body of this request is too large.');
  else if (status < 500) refuse(response, status, 'This request could not be read.');
  else {
    console.error(error);
    refuse(response, 500, 'Something went wrong on the server. Its window says more.');
  }
};

/** Views of other machines, each a page of its own. */
const pages = ['remote', 'player'] as const;

function servePages(app: Express, dist: string): void {
  for (const page of pages)
    app.get(`/${page}`, (_request, response) => response.sendFile(path.join(dist, `${page}.html`)));
}

/** What comes over the network, once it is open: a remote desk and what it is made of, and nothing else of this machine. */
function makeGuests(machines: Machines, dist: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(headers);
  app.use(guard(anyAddress));
  app.use('/machines', machines.guestRouter());
  servePages(app, dist);
  app.get('/', (_request, response) => response.redirect('/remote'));
  app.use('/assets', express.static(path.join(dist, 'assets'), { index: false }));
  app.get('/mark.svg', (_request, response) => response.sendFile(path.join(dist, 'mark.svg')));
  app.use((_request, response) => refuse(response, 404, 'There is nothing here.'));
  app.use(sayFault);
  return app;
}

/**
 * Serves the built app and the demo show. Requests that come under another name than the loopback one (or, where it is
 * bound to another address, than that), or from a page of another origin, are refused, so that no page of the web can
 * speak with it through the browser. `dist`: the built app, if it is not that of this tree. `redis`: where the farm is that
 * exports may use. `machines`: how others of the show come to this one. `isKept`: whether browsers may keep the app for a start
 * without its server (default: yes), which takes one that is new to it some ten seconds of work.
 */
export function makeApp(
  options: {
    host?: string;
    oscHost?: string;
    dist?: string;
    redis?: string;
    machines?: MachinesOptions;
    isKept?: boolean;
  } = {},
): Express {
  const dist = options.dist ?? path.join(root, 'dist');
  const app = express();
  const pixels = new PixelSender();
  app.locals.pixels = pixels;
  const machines = new Machines(options.machines ?? { folder: null });
  app.locals.machines = machines;
  app.locals.guests = makeGuests(machines, dist);
  app.disable('x-powered-by');
  app.use(headers);
  app.use(guard(options.host ?? '127.0.0.1'));
  app.use(
    '/osc',
    oscRouter(options.oscHost, (address) => pixels.mayReach(address)),
  );
  app.use('/pixels', pixels.router());
  app.use('/farm', farmRouter(options.redis ?? null));
  app.use('/machines', machines.router());
  app.use('/demo', express.static(path.join(root, 'demo'), { extensions: [], index: false }));
  if (options.isKept === false)
    app.get('/sw.js', (_request, response) => refuse(response, 404, 'The app is not kept.'));
  app.use(express.static(dist, { index: 'index.html' }));
  servePages(app, dist);
  // Views are addresses of the app; a missing file is not.
  app.get(/^\/[a-z]*$/, (_request, response) => response.sendFile(path.join(dist, 'index.html')));
  app.use((_request, response) => refuse(response, 404, 'There is nothing here.'));
  app.use(sayFault);
  return app;
}

/** Starts on the loopback address; port 0 takes any that is free. `close` ends all connections, also those of pixels. */
export function listen(
  app: Express,
  port: number,
  host = '127.0.0.1',
): Promise<{ server: Server; address: string; close(): Promise<void> }> {
  const { pixels, machines, guests } = app.locals as {
    pixels?: PixelSender;
    machines?: Machines;
    guests?: Express;
  };
  return new Promise((resolve, reject) => {
    const server = app.listen(port, host, () => {
      const at = server.address();
      const real = typeof at === 'object' && at ? at.port : port;
      const name = isLoopback(host) ? 'localhost' : isIP(host) === 6 ? `[${host}]` : host;
      const close = async (): Promise<void> => {
        pixels?.disconnect();
        await machines?.close();
        server.closeAllConnections();
        await new Promise((done) => server.close(done));
      };
      const links = machines?.attach(server, guests!, (request) =>
        isOwnPage((request.socket as TLSSocket).encrypted ? anyAddress : host)(request),
      );
      Promise.resolve(links).then(
        () => resolve({ server, address: `http://${name}:${real}`, close }),
        reject,
      );
    });
    server.on('error', reject);
    pixels?.attach(server, isOwnPage(host), linkPath);
  });
}
