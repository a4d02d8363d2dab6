import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import { writeDatagrams } from '../core/wall/pixels/datagrams';
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
