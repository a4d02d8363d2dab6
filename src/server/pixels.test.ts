import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import { readDatagrams, writeDatagrams } from '../core/wall/pixels/datagrams';
import { listen, makeApp } from './server';

let server: Server;
let address: string;
let node: Socket;
const port = (): number => (node.address() as AddressInfo).port;

beforeEach(async () => {
  ({ server, address } = await listen(makeApp(), 0));
  node = createSocket('udp4');
  node.bind(0, '127.0.0.1');
  await once(node, 'listening');
});
afterEach(async () => {
  node.close();
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

const connect = (origin = address): WebSocket =>
  new WebSocket(`${address.replace('http', 'ws')}/pixels`, { origin });
const allow = (body: string): Promise<Response> =>
  fetch(`${address}/pixels/allow`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: address },
    body,
  });

test('packets are sent to this machine as they came', async () => {
  const page = connect();
  await once(page, 'open');
  const bytes = Uint8Array.of(1, 2, 3, 255);
  page.send(writeDatagrams([{ address: '127.0.0.1', port: port(), bytes }]));
  const [arrived] = (await once(node, 'message')) as [Buffer];
  expect([...arrived]).toEqual([...bytes]);
  page.close();
});

test('an address that nobody allowed is refused by name, until somebody allows it', async () => {
  const page = connect();
  await once(page, 'open');
  const message = writeDatagrams([
    { address: '192.0.2.7', port: 6454, bytes: Uint8Array.of(1) },
    { address: '127.0.0.1', port: port(), bytes: Uint8Array.of(2) },
  ]);
  const refusal = once(page, 'message');
  page.send(message);
  await once(node, 'message');
  expect(JSON.parse(String((await refusal)[0]))).toEqual({ refused: ['192.0.2.7'] });
  expect(await (await allow('{"addresses":["192.0.2.7"]}')).json()).toEqual({ allowed: ['192.0.2.7'] });
  const permission = once(page, 'message');
  page.send(message);
  expect(JSON.parse(String((await permission)[0]))).toEqual({ refused: [] });
  page.close();
});

test('what is no list of addresses is not allowed', async () => {
  for (const body of [
    '{"addresses":["node.example"]}',
    '{"addresses":"10.0.0.1"}',
    '{}',
    '[',
    '{"addresses":["::1"]}',
  ])
    expect((await allow(body)).status).toBe(400);
});

test('pages of other origins get no connection, and torn packets end theirs', async () => {
  const foreign = connect('http://elsewhere.example');
  const [error] = (await once(foreign, 'error')) as [Error];
  expect(error.message).toContain('403');
  const page = connect();
  await once(page, 'open');
  const closed = once(page, 'close');
  page.send(Uint8Array.of(200, 1, 2));
  expect((await closed)[0]).toBe(1007);
});

test('what is sent to the built-in receiver comes back as it came, for each node apart', async () => {
  const page = connect();
  const news: string[] = [];
  const back: Buffer[] = [];
  page.on('message', (data, isBinary) =>
    isBinary ? back.push(data as Buffer) : news.push((data as Buffer).toString()),
  );
  await once(page, 'open');
  page.send('{"listen":["10.0.0.1","built-in"]}');
  const ports = (): Record<string, number> =>
    news.map((text) => (JSON.parse(text) as { ports?: Record<string, number> }).ports ?? {}).at(-1) ?? {};
  while (Object.keys(ports()).length < 2) await once(page, 'message');
  expect(new Set(Object.values(ports())).size).toBe(2);
  page.send(
    writeDatagrams(
      Object.entries(ports()).map(([name, port]) => ({
        address: '127.0.0.1',
        port,
        bytes: Uint8Array.of(name.length),
      })),
    ),
  );
  const arrived = () => back.flatMap((data) => readDatagrams(data) ?? []);
  while (arrived().length < 2) await once(page, 'message');
  expect(Object.fromEntries(arrived().map(({ address: name, bytes }) => [name, [...bytes]]))).toEqual({
    '10.0.0.1': [8],
    'built-in': [8],
  });
  page.send('{"listen":[]}');
  while (Object.keys(ports()).length > 0) await once(page, 'message');
  page.close();
});

test('a flood on the receiver is cut and counted, and the server goes on', async () => {
  const page = connect();
  let dropped = 0;
  let receiver = 0;
  page.on('message', (data, isBinary) => {
    if (isBinary) return;
    const news = JSON.parse((data as Buffer).toString()) as {
      dropped?: number;
      ports?: Record<string, number>;
    };
    dropped = news.dropped ?? dropped;
    receiver = news.ports?.a ?? receiver;
  });
  await once(page, 'open');
  page.send('{"listen":["a"]}');
  while (!receiver) await once(page, 'message');
  const flood = Buffer.alloc(60000);
  const sender = createSocket('udp4');
  while (dropped === 0) {
    for (let k = 0; k < 60; k++) sender.send(flood, receiver, '127.0.0.1');
    await new Promise((resolve) => setImmediate(resolve));
  }
  sender.close();
  expect((await fetch(address)).status).toBeLessThan(500);
  page.close();
});

test('what a page left for its end is sent when it is gone', async () => {
  const leave = async (value: number): Promise<WebSocket> => {
    const page = connect();
    await once(page, 'open');
    page.send('{"atEnd":true}');
    page.send(writeDatagrams([{ address: '127.0.0.1', port: port(), bytes: Uint8Array.of(value) }]));
    // What was left is not sent at once; this one shows that it was read.
    page.send(writeDatagrams([{ address: '127.0.0.1', port: port(), bytes: Uint8Array.of(1) }]));
    const [now] = (await once(node, 'message')) as [Buffer];
    expect([...now]).toEqual([1]);
    return page;
  };
  (await leave(77)).close();
  const [dark] = (await once(node, 'message')) as [Buffer];
  expect([...dark]).toEqual([77]);
});

test('words that are no wish end the connection', async () => {
  const page = connect();
  await once(page, 'open');
  page.send('{"listen":[5]}');
  expect((await once(page, 'close'))[0]).toBe(1007);
});

test('nodes that answer are found, by the address they answered from', async () => {
  const other = createSocket({ type: 'udp4', reuseAddr: true });
  other.bind(6454, '127.0.0.78');
  await once(other, 'listening');
  const reply = Buffer.alloc(239);
  reply.write('Art-Net\0', 'latin1');
  reply.writeUInt16LE(0x2100, 8);
  reply.set([10, 0, 0, 5], 10);
  reply.set([1, 2], 18);
  reply.write('Bench node', 26);
  reply.write('Two outputs beneath the benches', 44);
  reply.writeUInt16BE(2, 172);
  reply.set([0x80, 0x80], 174);
  reply.set([3, 4], 190);
  other.on('message', (bytes, { port: from, address: asker }) => {
    if (bytes.readUInt16LE(8) === 0x2000) other.send(reply, from, asker);
  });
  const answer = await fetch(`${address}/pixels/discover`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: address },
    body: '{"addresses":["127.0.0.78"]}',
  });
  other.close();
  expect(((await answer.json()) as { nodes: unknown[] }).nodes).toContainEqual({
    address: '127.0.0.78',
    name: 'Bench node',
    about: 'Two outputs beneath the benches',
    universes: [0x123, 0x124],
  });
});
