import { createSocket } from 'node:dgram';
import type { Server } from 'node:http';
import type { Socket } from 'node:net';
import { afterEach, describe, expect, test } from '@jest/globals';
import { writePacket, type OscMessage } from '../core/osc/packet';
import { listen, makeApp } from './server';

interface Said {
  messages?: OscMessage[];
  fault?: string;
}

let server: Server | null = null;
let address = '';
const cuts: AbortController[] = [];
let port = 9310;

const sockets = new Set<Socket>();

async function start(): Promise<void> {
  ({ server, address } = await listen(makeApp(), 0));
  sockets.clear();
  server.on('connection', (socket) => void sockets.add(socket));
  port++;
}
afterEach(async () => {
  for (const cut of cuts.splice(0)) cut.abort();
  server?.closeAllConnections();
  await new Promise((resolve) => server?.close(resolve));
});

/** Opens the stream as a page does; `next` gives what is said next. */
async function page(on = port): Promise<{ next(): Promise<Said> }> {
  const cut = new AbortController();
  cuts.push(cut);
  const response = await fetch(`${address}/osc/stream?port=${on}`, { signal: cut.signal });
  expect(response.headers.get('content-type')).toBe('text/event-stream');
  const reader = response.body!.getReader();
  let text = '';
  const said: Said[] = [];
  return {
    async next() {
      while (!said.length) {
        const { value } = await reader.read();
        text += Buffer.from(value!).toString();
        const parts = text.split('\n\n');
        text = parts.pop()!;
        for (const part of parts) if (part.startsWith('data: ')) said.push(JSON.parse(part.slice(6)) as Said);
      }
      return said.shift()!;
    },
  };
}

/** Sends over UDP until the page has heard: the port may not be open yet. */
async function send(packet: Uint8Array, heard: Promise<Said>, to = port): Promise<Said> {
  const socket = createSocket('udp4');
  const timer = setInterval(() => socket.send(packet, to, '127.0.0.1'), 20);
  const said = await heard;
  clearInterval(timer);
  await new Promise<void>((resolve) => socket.close(resolve));
  return said;
}

/** Bytes that wait to be read by each connection. */
const waitingBytes = (): number[] => [...sockets].map((socket) => socket.writableLength);

const post = (body: unknown, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(`${address}/osc/send`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', ...headers },
    body: JSON.stringify(body),
  });

describe('OSC through the server', () => {
  test('a packet over UDP comes to every page that listens', async () => {
    await start();
    const pages = [await page(), await page()];
    const message = { address: '/hive/glow', args: [0.75, 3, true] };
    const [first] = await Promise.all([
      send(writePacket(message), pages[0].next()),
      pages[1].next().then((said) => expect(said.messages?.[0]).toEqual(message)),
    ]);
    expect(first.messages?.[0]).toEqual(message);
  });
  test('the sender of the desk takes the same way', async () => {
    await start();
    const { next } = await page();
    // The port may not be open yet when the first is sent.
    let said: Said | null = null;
    void next().then((heard) => (said = heard));
    while (!said) await post({ port, address: '/a', args: [0.5, 'text'] });
    expect((said as Said).messages?.[0]).toEqual({ address: '/a', args: [0.5, 'text'] });
  });
  test('what is no OSC is said and changes nothing', async () => {
    await start();
    const { next } = await page();
    expect((await send(Uint8Array.of(1, 2, 3), next())).fault).toMatch(/no OSC.*filled up to four/);
  });
  test('a port that is taken is said, and picked up once it is free', async () => {
    await start();
    const other = createSocket('udp4');
    await new Promise<void>((resolve) => other.bind(port, '127.0.0.1', resolve));
    const { next } = await page();
    expect((await next()).fault).toMatch(/Another program has the port/);
    await new Promise<void>((resolve) => other.close(resolve));
    expect((await next()).fault).toBe('');
    expect((await send(writePacket({ address: '/x', args: [1] }), next())).messages).toHaveLength(1);
  });
  test.each([
    [{}],
    [{ port: 80, address: '/a', args: [] }],
    [{ port: 9140, address: 'a', args: [] }],
    [{ port: 9140, address: '/a', args: [[1]] }],
    [{ port: 9140, address: '/a', args: Array(65).fill(1) }],
  ])('%j is refused', async (body) => {
    await start();
    expect((await post(body)).status).toBe(400);
  });
  test('other origins and wrong ports are refused', async () => {
    await start();
    expect((await post({ port, address: '/a', args: [] }, { Origin: 'http://elsewhere.test' })).status).toBe(
      403,
    );
    expect((await fetch(`${address}/osc/stream?port=banana`)).status).toBe(400);
  });

  test('a page that stops reading misses messages, and they pile up nowhere', async () => {
    await start();
    const cut = new AbortController();
    cuts.push(cut);
    // Headers are read, the body never is.
    await fetch(`${address}/osc/stream?port=${port}`, { signal: cut.signal });
    const { next } = await page();
    const big = writePacket({ address: '/big', args: Array<string>(60).fill('x'.repeat(800)) });
    await send(big, next());
    const socket = createSocket('udp4');
    let heard = 0;
    const counted = (async () => {
      for (; heard < 60; heard++) await next();
    })();
    const timer = setInterval(() => socket.send(big, port, '127.0.0.1'), 2);
    await counted;
    clearInterval(timer);
    await new Promise<void>((resolve) => socket.close(resolve));
    // 60 messages of 48 kB are 3 MB, which without a limit would all wait for that page.
    expect(Math.max(...waitingBytes())).toBeLessThan(1024 * 1024);
  });

  test('a flood is cut to what can be followed, and said', async () => {
    await start();
    const { next } = await page();
    await send(writePacket({ address: '/x', args: [1] }), next());
    const socket = createSocket('udp4');
    const many = writePacket({ address: '/big', args: Array<string>(60).fill('x'.repeat(800)) });
    const timer = setInterval(() => {
      for (let k = 0; k < 12; k++) socket.send(many, port, '127.0.0.1');
    }, 1);
    for (let said = await next(); !said.fault?.includes('More OSC');) said = await next();
    clearInterval(timer);
    await new Promise<void>((resolve) => socket.close(resolve));
  });

  test('messages go to this machine, and to another only after it was allowed here', async () => {
    await start();
    const post = (path: string, body: object): Promise<Response> =>
      fetch(`${address}${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
    const sendTo = (to: unknown): Promise<Response> =>
      post('/osc/send', { address: '/fader', args: [0.5], port: 9000, to });
    expect((await sendTo('127.0.0.1')).status).toBe(204);
    const refused = await sendTo('192.0.2.7');
    expect(refused.status).toBe(403);
    expect(await refused.text()).toMatch(/Nobody has allowed.*192\.0\.2\.7/);
    for (const wrong of ['desk.example', 7, '::1']) expect((await sendTo(wrong)).status).toBe(403);
    await post('/pixels/allow', { addresses: ['127.9.9.9'] });
    expect((await sendTo('127.9.9.9')).status).toBe(204);
  });

  test('ports and pages have a limit', async () => {
    await start();
    for (let k = 0; k < 16; k++) await page(9400 + k);
    const refused = await fetch(`${address}/osc/stream?port=9450`);
    expect(refused.status).toBe(503);
    expect(await refused.text()).toMatch(/16 ports/);
    for (let k = 1; k < 16; k++) await page(9400);
    expect((await fetch(`${address}/osc/stream?port=9400`)).status).toBe(503);
  });
});
