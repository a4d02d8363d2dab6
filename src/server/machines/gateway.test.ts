import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import http from 'node:http';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { io, type Socket } from 'socket.io-client';
import {
  linkPath,
  linkVersion,
  type FromServer,
  type NetworkState,
  type Place,
  type ToServer,
} from '../../core/machines/link';
import { ownClock } from '../../core/own-clock';
import { cable } from '../testing/cable';
import { ask, network, start, until, Window, type Server } from '../testing/machine';
import { certificateAt } from './certificate';
import { Gateway } from './gateway';

/** A player's page, opened at the address of a gateway. */
class Player {
  times: unknown[] = [];
  servers: string[] = [];
  given: (string | null)[] = [];
  fault = '';
  readonly link: Socket<FromServer, ToServer>;

  constructor(address: string, token: string) {
    this.link = io(address, {
      path: linkPath,
      transports: ['websocket'],
      forceNew: true,
      reconnectionDelay: 50,
      reconnectionDelayMax: 200,
      extraHeaders: { origin: address },
      auth: { version: linkVersion, role: 'player', machine: 'player-left', name: 'Left', token },
    });
    this.link.on('welcome', ({ server }) => this.servers.push(server));
    this.link.on('state', ({ transport }) => this.times.push(transport?.time));
    this.link.on('given', (screen) => this.given.push(screen));
    this.link.on('connect_error', ({ message }) => (this.fault = message));
  }
}

describe('the gateway of a player', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-gateway-'));
  let first: Server;
  let second: Server;
  let mine: Window;
  let its: Window;
  let gateway: Gateway;
  let address: string;
  let kept: readonly Place[] = [];
  let player: Player | null = null;
  let net: NetworkState;

  beforeEach(async () => {
    kept = [];
    [first, second] = [await start(path.join(folder, 'first')), await start(path.join(folder, 'second'))];
    mine = new Window(first);
    its = new Window(second);
    net = await network(first);
  });
  afterEach(async () => {
    player?.link.disconnect();
    player = null;
    for (const window of [mine, its]) window.link.disconnect();
    await gateway.close();
    await first.close().catch(() => undefined);
    await second.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const open = async (at = net.addresses[0]): Promise<void> => {
    const certificate = (await certificateAt(new URL(at))).toString();
    gateway = new Gateway([{ addresses: [at], certificate }], (places) => (kept = places));
    address = await gateway.listen(0);
  };
  const enter = async (code: string): Promise<string> => {
    const answer = await fetch(`${address}/machines/enter`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Origin: address },
      body: JSON.stringify({ code, machine: 'player-left' }),
    });
    if (answer.status !== 200) throw new Error(await answer.text());
    return ((await answer.json()) as { token: string }).token;
  };
  const follow = async (): Promise<void> => {
    const answer = await ask(second, '/machines/follow', 'POST', {
      address: net.addresses[0],
      code: net.codes!.spare,
    });
    expect(answer.status).toBe(200);
    mine.link.emit('show', new Uint8Array([0, 0]), true);
    mine.tell(1, ownClock());
    await until('the spare', () => its.isFollowing() && its.states.length > 0);
  };
  /** Where the spare is, is asked for at first and then every few seconds. */
  const known = async (): Promise<void> => {
    await until('the spare to be known', () => kept.length === 2);
  };

  it('lets a player in by its code, passes on what is told and files, and refuses other pages', async () => {
    await open();
    await expect(enter('000000')).rejects.toThrow(/not one of those/);
    player = new Player(address, await enter(net.codes!.player));
    mine.tell(4, ownClock());
    await until('the state', () => player!.times.includes(4));
    const file = await fetch(`${address}/machines/files/f${'0'.repeat(24)}`);
    expect(file.status).toBe(401);
    const other = await fetch(`${address}/machines/enter`, {
      method: 'POST',
      headers: { Origin: 'http://elsewhere.example' },
    });
    expect([other.status, await other.text()]).toEqual([
      502,
      expect.stringContaining('of this computer only'),
    ]);
    // Under another name a page of the web could lead here.
    const named = await new Promise<number>((resolve) =>
      http.get(address, { headers: { host: 'elsewhere.example' } }, (answer) => {
        answer.resume();
        resolve(answer.statusCode!);
      }),
    );
    expect(named).toBe(502);
  });

  it('goes on at the spare when the main machine is gone, with the same pass and the same screen', async () => {
    await follow();
    await open();
    await known();
    player = new Player(address, await enter(net.codes!.player));
    await until('a link', () => player!.servers.length === 1);
    mine.link.emit('give', 'player-left', 'screen-2');
    await until('its screen', () => player!.given.at(-1) === 'screen-2');
    mine.link.disconnect();
    await first.close();
    await until('the takeover', () => !its.isFollowing());
    its.tell(8, ownClock());
    await until('what the spare performs', () => player!.times.at(-1) === 8);
    await until('its welcome', () => new Set(player!.servers).size === 2);
    expect(player.given.at(-1)).toBe('screen-2');
    // It leads now, also after it was started again.
    its.link.disconnect();
    const { port } = new URL(kept[1].addresses[0]);
    await second.close();
    second = await start(path.join(folder, 'second'), Number(port));
    its = new Window(second);
    await until('its window', () => its.follows.length > 0);
    await network(second);
    its.tell(9, ownClock());
    await until('what it performs', () => player!.times.at(-1) === 9);
    expect(player.fault).not.toContain('let in');
  });

  it('goes to the spare when nothing comes through any more', async () => {
    await follow();
    const line = await cable(Number(new URL(net.addresses[0]).port));
    try {
      await open(`https://127.0.0.1:${line.port}`);
      await known();
      player = new Player(address, await enter(net.codes!.player));
      await until('a link', () => player!.servers.length === 1);
      line.hold(true);
      // The page finds that out by itself after some seconds; here it is told.
      player.link.io.engine.close();
      mine.tell(6, ownClock());
      await until('what the main machine performs, by its spare', () => player!.times.at(-1) === 6);
      await until('its welcome', () => new Set(player!.servers).size === 2);
    } finally {
      line.close();
    }
  });

  it('lets players and remote desks of the main machine in at the spare, until that follows no more', async () => {
    await follow();
    await open();
    await known();
    const player2 = await enter(net.codes!.player);
    const desk = await enter(net.codes!.all);
    const { addresses } = await network(second);
    const certificate = (await certificateAt(new URL(addresses[0]))).toString();
    const there = new Gateway([{ addresses, certificate }]);
    const at = await there.listen(0);
    const read = async (token: string): Promise<number> =>
      (
        await fetch(`${at}/machines/files/f${'0'.repeat(24)}`, {
          headers: { Authorization: `Bearer ${token}` },
        })
      ).status;
    expect([await read(player2), await read(desk)]).toEqual([404, 404]);
    await ask(second, '/machines/follow', 'DELETE');
    expect([await read(player2), await read(desk)]).toEqual([401, 401]);
    // Nor does the main machine send players there.
    let spare: unknown = '';
    const look = async (): Promise<void> => {
      spare = await (await ask(first, '/machines/spare')).json();
    };
    await look();
    await until('it to be forgotten', () => (void look(), spare === null));
    await there.close();
  });

  it('says so where nobody answers', async () => {
    await open();
    await first.close();
    const answer = await fetch(`${address}/player`);
    expect([answer.status, await answer.text()]).toEqual([
      502,
      'Neither the main machine nor its spare answers.',
    ]);
  });
});
