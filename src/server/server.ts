import type { Server } from 'node:http';
import path from 'node:path';
import express, { type Express } from 'express';
import { oscRouter } from './osc';

const root = path.resolve(import.meta.dirname, '../..');

/** No `eval`, nothing from elsewhere; workers and pictures may come from memory. */
const policy = [
  "default-src 'self'",
  "script-src 'self'",
  "worker-src 'self' blob:",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' blob: data:",
  "connect-src 'self'",
  "font-src 'self' data:",
  "object-src 'none'",
  "base-uri 'none'",
  "frame-ancestors 'none'",
].join('; ');

const localNames = new Set(['localhost', '127.0.0.1', '[::1]']);

/**
 * Serves the built app and the demo show. Requests that come under another name than the loopback one, or from a page of
 * another origin, are refused, so that no page of the web can speak with it through the browser.
 */
export function makeApp(options: { anyHost?: boolean; oscHost?: string } = {}): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((request, response, next) => {
    const host = request.headers.host ?? '';
    const { origin } = request.headers;
    if (!options.anyHost && !localNames.has(host.replace(/:\d+$/, ''))) {
      response.status(403).send('Pyrvel answers on the loopback address only.');
      return;
    }
    if (origin !== undefined && origin !== `http://${host}`) {
      response.status(403).send('Requests from other origins are refused.');
      return;
    }
    response.setHeader('Content-Security-Policy', policy);
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('Referrer-Policy', 'no-referrer');
    response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
    next();
  });
  app.use('/osc', oscRouter(options.oscHost));
  app.use('/demo', express.static(path.join(root, 'demo'), { extensions: [], index: false }));
  app.use(express.static(path.join(root, 'dist'), { index: 'index.html' }));
  // Views are addresses of the app; a missing file is not.
  app.get(/^\/[a-z]*$/, (_request, response) => response.sendFile(path.join(root, 'dist/index.html')));
  app.use((_request, response) => void response.status(404).send('There is nothing here.'));
  return app;
}

/** Starts on the loopback address; port 0 takes any that is free. */
export function listen(
  app: Express,
  port: number,
  host = '127.0.0.1',
): Promise<{ server: Server; address: string }> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, host, () => {
      const at = server.address();
      const real = typeof at === 'object' && at ? at.port : port;
      resolve({ server, address: `http://${host === '127.0.0.1' ? 'localhost' : host}:${real}` });
    });
    server.on('error', reject);
  });
}
