import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { packHeard } from '../../core/audio/heard';
import { silence } from '../../core/audio/listener';
import { ownClock } from '../../core/own-clock';
import { mkdtemp, rm } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import https from 'node:https';
import os from 'node:os';
import path from 'node:path';
import { io, type Socket } from 'socket.io-client';
import * as Y from 'yjs';
import type { PerformanceCommand } from '../../core/desk/command';
import {
  linkPath,
  linkVersion,
  type FromServer,
  type NetworkState,
  type ToServer,
} from '../../core/machines/link';
import type { PassRole } from '../../core/machines/roles';
import { fileNameOfDigest } from '../../core/show/file-name';
import { ClockMeter } from '../../core/machines/clock';
import { listen, makeApp } from '../server';
import { cable, type Badness, type Cable } from '../testing/cable';
import { certificateFor } from './certificate';

type Client = Socket<FromServer, ToServer>;

let server: Awaited<ReturnType<typeof listen>>;
const clients: Client[] = [];

const start = async (limits?: { messages: number; refused: number }): Promise<void> => {
  const machines = { folder: null, host: '127.0.0.1', port: 0, limits };
  server = await listen(makeApp({ dist: os.tmpdir(), machines }), 0);
};
beforeEach(() => start());
afterEach(async () => {
  for (const client of clients.splice(0)) client.disconnect();
  await server.close();
});

const here = (route: string, init: RequestInit = {}): Promise<Response> =>
  fetch(server.address + route, { headers: { 'Content-Type': 'application/json' }, ...init });

async function setNetwork(isOpen: boolean): Promise<NetworkState> {
  const response = await here('/machines/network', { method: 'POST', body: JSON.stringify({ isOpen }) });
  expect(response.status).toBe(200);
  return (await response.json()) as NetworkState;
}

/** Asks over the network, whose certificate nobody has signed. */
function there(
  address: string,
  route: string,
  {
    method = 'GET',
    body,
    origin = address,
    token,
  }: { method?: string; body?: object; origin?: string; token?: string } = {},
): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const request = https.request(
      address + route,
      {
        method,
        agent: false,
        rejectUnauthorized: false,
        headers: {
          'Content-Type': 'application/json',
          origin,
          ...(token && { authorization: `Bearer ${token}` }),
        },
      },
      (response) => {
        let text = '';
        response.on('data', (data: Buffer) => (text += data.toString()));
        response.on('end', () => resolve({ status: response.statusCode!, text }));
      },
    );
    request.on('error', reject);
    request.end(body && JSON.stringify(body));
  });
}

const enter = (address: string, code: string, machine: string): Promise<{ status: number; text: string }> =>
  there(address, '/machines/enter', { method: 'POST', body: { code, machine } });

function link(address: string, auth: object, origin = address): Client {
  const client: Client = io(address, {
    path: linkPath,
    transports: ['websocket'],
    reconnection: false,
    rejectUnauthorized: false,
    extraHeaders: { origin },
    auth: { version: linkVersion, machine: 'machine-0', name: 'Test', token: '', ...auth },
  });
  clients.push(client);
  return client;
}

/** What comes next of an event. */
const next = <K extends keyof FromServer>(client: Client, event: K): Promise<Parameters<FromServer[K]>> =>
  new Promise((resolve) =>
    client.once(event, ((...args: Parameters<FromServer[K]>) => resolve(args)) as never),
  );
/** Sends again and again what may be left out on its way. */
function untilHeard<T>(heard: Promise<T>, send: () => void): Promise<T> {
  send();
  const again = setInterval(send, 100);
  return heard.finally(() => clearInterval(again));
}
const refusal = (client: Client): Promise<string> =>
  new Promise((resolve) => client.once('connect_error', (error) => resolve(error.message)));

async function main(): Promise<Client> {
  const client = link(server.address, { role: 'main', machine: 'main-machine' });
  await next(client, 'welcome');
  return client;
}

/** What a machine is let in with over the network, and where. */
async function letIn(role: PassRole, machine: string): Promise<{ address: string; token: string }> {
  const { addresses, codes } = await setNetwork(true);
  const entered = await enter(addresses[0], codes![role], machine);
  const { token } = JSON.parse(entered.text) as { token: string };
  return { address: addresses[0], token };
}

/** A machine that was let in over the network. */
async function remote(role: PassRole, machine = `remote-${role}`) {
  const { address, token } = await letIn(role, machine);
  const client = link(address, { role: role === 'player' ? 'player' : 'remote', machine, token });
  const state = next(client, 'state');
  const show = new Y.Doc();
  client.on('show', (update) => Y.applyUpdate(show, new Uint8Array(update)));
  await next(client, 'welcome');
  return { client, state, show, address, token };
}

const perform = (client: Client, command: unknown): Promise<string> =>
  client.timeout(5000).emitWithAck('perform', command as PerformanceCommand);

const fader: PerformanceCommand = { type: 'desk', control: 'glow', value: [0.5] };

describe('the network', () => {
  it('is not there until it is opened, and shows nothing of this machine but a remote desk', async () => {
    const closed = (await (await here('/machines/network')).json()) as NetworkState;
    expect(closed).toEqual({ isOpen: false, addresses: [], fault: '', codes: null, following: null });
    const { addresses, codes } = await setNetwork(true);
    expect(addresses).toHaveLength(1);
    expect(Object.values(codes!).every((code) => /^\d{6}$/.test(code))).toBe(true);
    for (const route of ['/osc/stream?port=9000', '/farm', '/demo/show.json', '/build', '/machines/network'])
      expect([route, (await there(addresses[0], route)).status]).toEqual([route, 404]);
    expect(
      (await there(addresses[0], '/machines/network', { method: 'POST', body: { isOpen: true } })).status,
    ).toBe(404);
    expect((await there(addresses[0], '/', { origin: 'https://elsewhere.example' })).status).toBe(403);
    expect((await there(addresses[0], '/')).status).toBe(302);
    await setNetwork(false);
    await expect(there(addresses[0], '/')).rejects.toThrow('ECONNREFUSED');
  });

  it('keeps its certificate, and makes another for an address that it does not name', async () => {
    const folder = await mkdtemp(path.join(os.tmpdir(), 'pyrvel-'));
    try {
      const first = await certificateFor(folder, ['10.0.0.2']);
      expect(await certificateFor(folder, ['10.0.0.2'])).toEqual(first);
      const second = await certificateFor(folder, ['10.0.0.2', '10.0.0.3']);
      expect(second.cert).not.toBe(first.cert);
      const late = Date.now() + 720 * 86400000;
      expect((await certificateFor(folder, ['10.0.0.3'], late)).cert).not.toBe(second.cert);
    } finally {
      await rm(folder, { recursive: true });
    }
  });
});

describe('a code', () => {
  it('lets a machine in, for its role; wrong ones are refused, and after five the right one as well', async () => {
    const { addresses, codes } = await setNetwork(true);
    const right = await enter(
      addresses[0],
      `${codes!.desk.slice(0, 3)} ${codes!.desk.slice(3)}`,
      'machine-1',
    );
    expect(JSON.parse(right.text)).toMatchObject({ role: 'desk' });
    const wrong = Object.values(codes!).includes('000000') ? '999999' : '000000';
    for (let k = 0; k < 5; k++) expect((await enter(addresses[0], wrong, 'machine-2')).status).toBe(401);
    const late = await enter(addresses[0], codes!.desk, 'machine-2');
    expect(late).toEqual({
      status: 429,
      text: 'Too many wrong codes came from this machine. Wait a minute and try again.',
    });
    expect((await there(addresses[0], '/machines/enter', { method: 'POST', body: { code: 5 } })).status).toBe(
      400,
    );
  });

  it('is worth nothing any more once all are renewed, and neither is what was given for it', async () => {
    const { address, token, client } = await remote('all');
    const gone = next(client, 'farewell');
    const { codes } = (await (await here('/machines/renew', { method: 'POST' })).json()) as NetworkState;
    expect(codes).not.toBeNull();
    await gone;
    const again = link(address, { role: 'remote', machine: 'remote-all', token });
    expect(await refusal(again)).toMatch('has to be let in again');
  });
});

describe('a link', () => {
  it('is refused to what is no machine, of another version, of another page, or has another token', async () => {
    const { address, token } = await remote('look');
    const cases: [object, string, RegExp][] = [
      [{ role: 'main' }, address, /Only the machine of the server/],
      [{ role: 'remote', machine: 'remote-look', token: `${token}x` }, address, /has to be let in/],
      [{ role: 'remote', machine: 'another-one', token }, address, /has to be let in/],
      [{ role: 'remote', machine: 'remote-look', token, version: 0 }, address, /another version/],
      [{ role: 'king', machine: 'remote-look', token }, address, /no machine/],
      [{ role: 'remote', machine: 'remote-look', token }, 'https://elsewhere.example', /websocket error/],
    ];
    for (const [auth, origin, sentence] of cases)
      expect(await refusal(link(address, auth, origin))).toMatch(sentence);
  });

  it('has one main machine: a second is sent away, and the first stays', async () => {
    const first = await main();
    const second = link(server.address, { role: 'main', machine: 'other-window' });
    expect(await next(second, 'farewell')).toEqual(['Another window of this machine performs already.']);
    const { client } = await remote('all');
    const heard = next(first, 'perform');
    expect(await perform(client, { type: 'panic' })).toBe('');
    expect(await heard).toEqual([[{ type: 'panic' }]]);
  });

  it('answers by the clock of the server', async () => {
    const client = await main();
    const before = ownClock();
    const at = await new Promise<number>((resolve) => client.emit('clock', resolve));
    expect(at).toBeGreaterThanOrEqual(before);
    expect(at).toBeLessThanOrEqual(ownClock());
  });
});

describe('a remote desk', () => {
  it('does what its role may, and only commands to the letter are passed on', async () => {
    const owner = await main();
    const heard: PerformanceCommand[] = [];
    owner.on('perform', (commands) => heard.push(...commands));
    const look = (await remote('look')).client;
    const desk = (await remote('desk')).client;
    const all = (await remote('all')).client;
    expect(await perform(look, fader)).toBe('This remote desk may not do that.');
    expect(await perform(desk, fader)).toBe('');
    expect(await perform(desk, { type: 'blackout', on: true })).toBe('This remote desk may not do that.');
    expect(await perform(all, { type: 'blackout', on: true })).toBe('');
    for (const strange of [
      null,
      'panic',
      { type: 'toString' },
      { type: 'desk', control: 'glow', value: [1e99] },
      { type: 'desk', control: '../x', value: [1] },
      { ...fader, also: 1 },
      { type: 'crossfade', to: 2 },
      { type: 'layer', layer: { scene: 's', blend: 'other', opacity: 1 } },
    ])
      expect(await perform(all, strange)).toBe('This is no command of Pyrvel.');
    expect(heard).toEqual([fader, { type: 'blackout', on: true }]);
  });

  it('is told where the spare is found, and that there is none any more', async () => {
    await main();
    const { address, token } = await letIn('spare', 'spare-machine');
    const spare = link(address, { role: 'spare', machine: 'spare-machine', token });
    await next(spare, 'welcome');
    const first = (await remote('look')).client;
    const place = { addresses: ['https://192.0.2.7:4171'], certificate: 'its certificate' };
    const known = next(first, 'spare');
    spare.emit('heir', { ...place, token: 'let in', machine: 'main-machine' });
    expect(await known).toEqual([place.addresses]);
    // Who comes later is told as well.
    const later = await letIn('desk', 'remote-desk');
    const late = link(address, { role: 'remote', machine: 'remote-desk', token: later.token });
    expect(await next(late, 'spare')).toEqual([place.addresses]);
    const gone = next(first, 'spare');
    spare.disconnect();
    expect(await gone).toEqual([[]]);
  });

  it('is told all at first and then what changed, also of the show', async () => {
    const owner = await main();
    const show = new Y.Doc();
    show.getMap('show').set('name', 'Moth Hours');
    owner.emit('show', Y.encodeStateAsUpdate(show), true);
    owner.emit('state', { blackout: true, freeze: false }, true);
    const { client, state, show: own } = await remote('look');
    expect(await state).toEqual([{ blackout: true, freeze: false }, true]);
    const news = next(client, 'state');
    show.on('update', (update: Uint8Array) => owner.emit('show', update, false));
    show.getMap('show').set('name', 'Night Apiary');
    owner.emit('state', { freeze: true }, false);
    expect(await news).toEqual([{ freeze: true }, false]);
    const late = await remote('all');
    expect(await late.state).toEqual([{ blackout: true, freeze: true }, true]);
    expect(own.getMap('show').get('name')).toBe('Night Apiary');
  });

  it('is told of no performance before the main machine has told of one', async () => {
    const owner = await main();
    const { state } = await remote('look');
    owner.emit('state', { blackout: true }, true);
    expect(await state).toEqual([{ blackout: true }, true]);
  });

  it('lets go what it holds when it is gone, and is told when the main machine is', async () => {
    const owner = await main();
    const { client } = await remote('all');
    await perform(client, { type: 'press', control: 'flash', down: true });
    await perform(client, { type: 'hit', hit: 'invert', on: true });
    await perform(client, { type: 'press', control: 'other', down: true });
    await perform(client, { type: 'press', control: 'other', down: false });
    const heard: PerformanceCommand[] = [];
    const done = new Promise<void>((resolve) =>
      owner.on('perform', (commands) => {
        if (heard.push(...commands) === 2) resolve();
      }),
    );
    client.disconnect();
    await done;
    expect(heard).toEqual([
      { type: 'press', control: 'flash', down: false },
      { type: 'hit', hit: 'invert', on: false },
    ]);
    const other = (await remote('desk')).client;
    const away = next(other, 'main');
    owner.disconnect();
    expect(await away).toEqual([false, '']);
    expect(await perform(other, fader)).toBe('The main machine is away.');
  });

  it('has the last places of its faders passed on together, before what it does next', async () => {
    const owner = await main();
    const heard: PerformanceCommand[][] = [];
    owner.on('perform', (commands) => heard.push(commands));
    const { client } = await remote('all');
    const to = (control: string, value: number): PerformanceCommand => ({
      type: 'desk',
      control,
      value: [value],
    });
    for (let k = 0; k < 40; k++) client.emit('perform', to(k % 2 ? 'glow' : 'size', k), () => undefined);
    expect(await perform(client, { type: 'panic' })).toBe('');
    await new Promise((resolve) => owner.emit('clock', resolve));
    expect(heard.at(-1)).toEqual([{ type: 'panic' }]);
    const moves = heard.slice(0, -1).flat();
    expect(moves.slice(-2)).toEqual([to('size', 38), to('glow', 39)]);
    expect(moves.length).toBeLessThan(40);
  });

  it('is sent away where it floods, and nobody else is', async () => {
    await server.close();
    await start({ messages: 20, refused: 50 });
    const owner = await main();
    const { client } = await remote('desk');
    const calm = (await remote('all')).client;
    const farewell = next(client, 'farewell');
    let passed = 0;
    owner.on('perform', (commands) => (passed += commands.length));
    for (let k = 0; k < 2000; k++) client.emit('perform', fader, () => undefined);
    expect(await farewell).toEqual(['This machine sends more than can be followed, and was sent away.']);
    expect(passed).toBeLessThan(1000);
    expect(await perform(calm, { type: 'panic' })).toBe('');
    // A message that is larger than any a desk has to send ends the link at once.
    const ended = new Promise((resolve) => calm.once('disconnect', resolve));
    calm.emit('perform', { type: 'desk', control: 'x', value: 'x'.repeat(1e5) }, () => undefined);
    await ended;
  });

  it('is dismissed by the main machine, and has to be let in again', async () => {
    const owner = await main();
    const { client, address, token } = await remote('all');
    const gone = next(client, 'farewell');
    owner.emit('dismiss', 'remote-all');
    expect(await gone).toEqual(['This machine was sent away by the main one.']);
    expect(await refusal(link(address, { role: 'remote', machine: 'remote-all', token }))).toMatch(
      'let in again',
    );
  });

  it('goes on with the last show where the main machine says what cannot be read', async () => {
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const owner = await main();
    const show = new Y.Doc();
    show.getMap('show').set('name', 'Moth Hours');
    owner.emit('show', Y.encodeStateAsUpdate(show), true);
    owner.emit('show', new Uint8Array([1, 200, 3, 9]), false);
    owner.emit('state', { blackout: true }, true);
    const { state, show: own } = await remote('look');
    expect(await state).toEqual([{ blackout: true }, true]);
    expect(own.getMap('show').get('name')).toBe('Moth Hours');
    expect(said).toHaveBeenCalledWith(expect.stringMatching(/could not be read/));
    said.mockRestore();
  });
});

describe('a player', () => {
  it('needs no code on the machine itself, and over the network one of its own, with which it plays nothing', async () => {
    const own = link(server.address, { role: 'player', machine: 'player-here' });
    expect(await next(own, 'welcome')).toEqual([{ role: 'player', desk: null, server: expect.any(String) }]);
    const { client, address, token } = await remote('player');
    expect(await refusal(link(address, { role: 'remote', machine: 'remote-player', token }))).toMatch(
      'another kind',
    );
    expect(await refusal(link(address, { role: 'player', machine: 'player-there' }))).toMatch('let in again');
    const owner = await main();
    const heard: unknown[] = [];
    owner.on('perform', (commands) => heard.push(...commands));
    client.emit('perform', { type: 'panic' }, () => undefined);
    client.emit('state', { blackout: true }, true);
    // What comes after on the same link was handled after.
    await new Promise((resolve) => client.emit('clock', resolve));
    expect(heard).toEqual([]);
    owner.emit('state', { freeze: true }, true);
    const late = await remote('look');
    expect(await late.state).toEqual([{ freeze: true }, true]);
  });

  it('is given its screen and the hands of the main machine, also when it comes again', async () => {
    const owner = await main();
    const first = link(server.address, { role: 'player', machine: 'player-left' });
    await next(first, 'welcome');
    const given = next(first, 'given');
    owner.emit('give', 'player-left', 'o2');
    expect(await given).toEqual(['o2']);
    const hands = { keys: { KeyA: { down: true, presses: 3 } } };
    owner.emit('inputs', hands as never);
    expect(await next(first, 'inputs')).toEqual([hands]);
    const packed = packHeard({ number: 1, state: silence });
    const heard = await untilHeard(next(first, 'sound'), () => {
      owner.emit('sound', new Uint8Array(5000));
      owner.emit('sound', packed);
    });
    expect(heard.map((bytes) => new Uint8Array(bytes))).toEqual([packed]);
    const shown = await untilHeard(next(owner, 'shown'), () => {
      first.emit('shown', new Uint8Array(40000));
      first.emit('shown', new Uint8Array([255, 216]));
    });
    expect(shown).toEqual(['player-left', Buffer.from([255, 216])]);
    const named = next(first, 'identify');
    owner.emit('identify', 'player-left');
    await named;
    first.disconnect();
    const again = link(server.address, { role: 'player', machine: 'player-left' });
    const [givenAgain, handsAgain] = await Promise.all([next(again, 'given'), next(again, 'inputs')]);
    expect([givenAgain, handsAgain]).toEqual([['o2'], [hands]]);
  });

  it('gets files by what they hold: whole, in parts, and only once it was let in', async () => {
    const bytes = Buffer.from('petals '.repeat(5000));
    const id = fileNameOfDigest(createHash('sha256').update(bytes).digest());
    const put = (name: string): Promise<Response> =>
      here(`/machines/files/${name}`, { method: 'PUT', body: bytes });
    expect((await here(`/machines/files/${id}`)).status).toBe(404);
    expect((await put(`f${'0'.repeat(24)}`)).status).toBe(400);
    expect((await put(id)).status).toBe(204);
    expect(Buffer.from(await (await here(`/machines/files/${id}`)).arrayBuffer())).toEqual(bytes);
    const part = await here(`/machines/files/${id}`, { headers: { Range: 'bytes=7-12' } });
    expect([part.status, await part.text()]).toEqual([206, 'petals']);
    expect((await here(`/machines/files/..%2f..%2fetc%2fpasswd`)).status).toBe(404);
    const { address, token } = await remote('player');
    expect((await there(address, `/machines/files/${id}`)).status).toBe(401);
    const allowed = await there(address, `/machines/files/${id}`, { token });
    expect([allowed.status, allowed.text.length]).toEqual([200, bytes.length]);
    expect((await there(address, `/machines/files/${id}`, { method: 'PUT', token })).status).toBe(401);
  });
});

/** A cable between a machine and the server. */
async function line(badness: Badness = {}): Promise<Cable & { address: string }> {
  const made = await cable(Number(new URL(server.address).port), badness);
  return { ...made, address: `http://127.0.0.1:${made.port}` };
}

/** A remote desk at the other end of a cable. */
async function farDesk({ address }: { address: string }): Promise<Client> {
  const { codes } = await setNetwork(true);
  const entered = await here('/machines/enter', {
    method: 'POST',
    body: JSON.stringify({ code: codes!.desk, machine: 'remote-far' }),
  });
  const { token } = (await entered.json()) as { token: string };
  const client = link(address, { role: 'remote', machine: 'remote-far', token });
  await next(client, 'welcome');
  return client;
}

describe('a bad network', () => {
  it('with 150 ms each way is measured as such, and hands are still heard', async () => {
    const owner = await main();
    const far = await line({ delayMs: 150 });
    try {
      const client = await farDesk(far);
      const meter = new ClockMeter();
      for (let k = 0; k < 4; k++) {
        const sent = ownClock();
        const at = await new Promise<number>((resolve) => client.emit('clock', resolve));
        meter.add({ sent, server: at, received: ownClock() });
      }
      expect(meter.state!.roundTrip).toBeGreaterThanOrEqual(295);
      // Both clocks are one: what is measured between them is wrong by half of the way at most.
      expect(Math.abs(meter.state!.offset)).toBeLessThan(meter.state!.roundTrip / 2);
      const heard = next(owner, 'perform');
      expect(await perform(client, fader)).toBe('');
      expect(await heard).toEqual([[fader]]);
    } finally {
      far.close();
    }
  });

  it('with 300 ms there and back and every twentieth piece lost has all that hands do come in order', async () => {
    const owner = await main();
    const far = await line({ delayMs: 150, lost: 0.05 });
    try {
      const client = await farDesk(far);
      const heard: PerformanceCommand[] = [];
      owner.on('perform', (commands) => heard.push(...commands));
      const presses = Array.from({ length: 60 }, (_, k): PerformanceCommand => ({
        type: 'press',
        control: `pad${k >> 1}`,
        down: k % 2 === 0,
      }));
      const answers = await Promise.all(presses.map((command) => perform(client, command)));
      expect(answers.every((fault) => fault === '')).toBe(true);
      expect(heard).toEqual(presses);
      expect(client.connected).toBe(true);
    } finally {
      far.close();
    }
  });

  it('whose cable is pulled is come back to, with all that has changed meanwhile', async () => {
    const owner = await main();
    owner.emit('state', { blackout: false, freeze: false }, true);
    const far = await line();
    try {
      const player = link(far.address, { role: 'player', machine: 'player-far' });
      await next(player, 'welcome');
      player.io.reconnection(true);
      player.io.reconnectionDelay(20);
      const cut = new Promise((resolve) => player.once('disconnect', resolve));
      far.pull();
      await cut;
      owner.emit('state', { blackout: true }, false);
      expect((await next(player, 'state'))[0]).toMatchObject({ freeze: false });
      // Told once more where it came back before the main machine had said it.
      const state = new Promise<void>((resolve) =>
        player.on('state', (news) => {
          if (news.blackout) resolve();
        }),
      );
      owner.emit('state', { blackout: true }, false);
      await state;
    } finally {
      far.close();
    }
  });
});
