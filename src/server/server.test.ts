import { request, type IncomingHttpHeaders, type Server } from 'node:http';
import { afterEach, describe, expect, test } from '@jest/globals';
import { isLoopback, listen, makeApp } from './server';

let server: Server | null = null;
let port = 0;

async function start(host?: string): Promise<void> {
  const started = await listen(makeApp({ host }), 0);
  ({ server } = started);
  port = Number(started.address.split(':').pop());
}
afterEach(async () => {
  server?.closeAllConnections();
  await new Promise((resolve) => server?.close(resolve));
});

interface Answer {
  status: number;
  text: string;
  headers: IncomingHttpHeaders;
}

/** A request as any program could make it: fetch sets some of these headers itself. */
function ask(path: string, headers: Record<string, string>, body?: string): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const asked = request({ port, path, headers, method: body === undefined ? 'GET' : 'POST' }, (answer) => {
      let text = '';
      answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
      answer.on('end', () => resolve({ status: answer.statusCode!, text, headers: answer.headers }));
    });
    asked.on('error', reject);
    asked.end(body);
  });
}

const demo = '/demo/night-apiary.pyrvel.json';

describe('who is answered', () => {
  test.each([undefined, 'localhost', '::1', '127.0.0.1', '127.0.0.2'])(
    'bound to %s, loopback names only',
    async (host) => {
      await start(host);
      for (const name of ['localhost', '127.0.0.1', '[::1]', 'LOCALHOST'])
        expect((await ask(demo, { Host: `${name}:${port}` })).status).toBe(200);
      for (const name of ['pyrvel.test', '192.168.1.5', 'localhost.pyrvel.test', '127.0.0.1.pyrvel.test', ''])
        expect((await ask(demo, { Host: `${name}:${port}` })).status).toBe(403);
    },
  );

  test('bound to the network, addresses and the name it was given, but no other name', async () => {
    await start('stage-left.local');
    for (const name of ['192.168.1.5', '[fe80::1]', 'stage-left.local', 'localhost'])
      expect((await ask(demo, { Host: `${name}:${port}` })).status).toBe(200);
    expect((await ask(demo, { Host: 'elsewhere.test' })).status).toBe(403);
  });

  test('a link from another site opens the app; its pages may ask for nothing', async () => {
    await start();
    const from = (site: string, more: Record<string, string> = {}) =>
      ask('/osc/stream?port=1', { Host: `localhost:${port}`, 'Sec-Fetch-Site': site, ...more });
    expect((await from('cross-site')).status).toBe(403);
    expect((await from('same-site')).status).toBe(403);
    expect(
      (await from('cross-site', { 'Sec-Fetch-Mode': 'navigate', 'Sec-Fetch-Dest': 'iframe' })).status,
    ).toBe(403);
    expect((await from('same-origin')).status).toBe(400);
    expect((await from('none')).status).toBe(400);
    const visit = {
      'Sec-Fetch-Site': 'cross-site',
      'Sec-Fetch-Mode': 'navigate',
      'Sec-Fetch-Dest': 'document',
    };
    expect((await ask(demo, { Host: 'localhost', ...visit })).status).toBe(200);
  });

  test('every way to say loopback', () => {
    for (const host of ['localhost', '127.0.0.1', '127.1.2.3', '::1', '[::1]'])
      expect(isLoopback(host)).toBe(true);
    for (const host of ['0.0.0.0', '::', '10.0.0.1', '128.0.0.1', 'localhost.test', ''])
      expect(isLoopback(host)).toBe(false);
  });
});

describe('what is answered', () => {
  test('bad JSON, a body that is too large and a missing page get a sentence', async () => {
    await start();
    const headers = { Host: 'localhost', 'Content-Type': 'application/json' };
    expect(await ask('/osc/send', headers, '{"a":')).toMatchObject({
      status: 400,
      text: 'The body of this request is not JSON.',
    });
    expect(await ask('/osc/send', headers, `"${'x'.repeat(20_000)}"`)).toMatchObject({
      status: 413,
      text: expect.stringMatching(/too large/),
    });
    const missing = await ask('/nothing/here', { Host: 'localhost' });
    expect(missing).toMatchObject({ status: 404, text: 'There is nothing here.' });
    expect(missing.headers['content-type']).toMatch(/^text\/plain/);
  });

  test('headers forbid eval, framing and what comes from elsewhere, refusals included', async () => {
    await start();
    for (const host of ['localhost', 'elsewhere.test']) {
      const { headers } = await ask(demo, { Host: host });
      const policy = headers['content-security-policy'] as string;
      expect(policy).toContain("script-src 'self';");
      expect(policy).toContain("frame-ancestors 'none'");
      expect(policy).not.toMatch(/unsafe-eval|https?:/);
      expect(headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'referrer-policy': 'no-referrer',
        'cross-origin-resource-policy': 'same-origin',
      });
      expect(headers['strict-transport-security']).toBeUndefined();
      expect(headers['x-powered-by']).toBeUndefined();
    }
  });
});
