import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { packHeard } from '../../core/audio/heard';
import { silence } from '../../core/audio/listener';
import { ownClock } from '../../core/own-clock';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import * as Y from 'yjs';
import type { NetworkState } from '../../core/machines/link';
import { fileNameOfDigest } from '../../core/show/file-name';
import { cable } from '../testing/cable';
import { ask, guestOf, network, start, until, Window, type Server } from '../testing/machine';

describe('the spare', () => {
  /** What the first machine keeps. */
  let folder: string;
  let first: Server;
  let second: Server;
  let mine: Window;
  let its: Window;

  beforeEach(async () => {
    folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-'));
    [first, second] = [await start(folder), await start()];
    mine = new Window(first);
    its = new Window(second);
    await until('both windows', () => mine.follows.length > 0 && its.follows.length > 0);
  });
  afterEach(async () => {
    for (const window of [mine, its]) window.link.disconnect();
    await second.close();
    await first.close();
    rmSync(folder, { recursive: true });
  });

  const begin = async (at?: string): Promise<void> => {
    const { addresses, codes } = await network(first);
    const answer = await ask(second, '/machines/follow', 'POST', {
      address: at ?? addresses[0],
      code: codes!.spare,
    });
    expect([answer.status, await answer.text()]).toEqual([200, expect.stringContaining('isOpen')]);
    const document = new Y.Doc();
    document.getMap('show').set('name', 'Night');
    mine.link.emit('show', Y.encodeStateAsUpdate(document), true);
    mine.tell(3, ownClock());
    await until('it to follow', () => its.isFollowing() && its.states.length > 0);
  };

  it('is told all that the main machine does, by its own clock, and has what it does done there', async () => {
    await begin();
    await until('the show', () => its.document.getMap('show').get('name') === 'Night');
    expect(its.states.at(-1)!.time).toBe(3);
    // Both servers have the clock of this machine, which is found however busy that is.
    const told = new Map<unknown, number>([[3, -Infinity]]);
    await until('the news by its own clock', () => {
      mine.tell(4 + told.size, ownClock());
      told.set(4 + told.size, ownClock());
      const { time, at } = its.states.at(-1)!;
      return Math.abs(at - told.get(time)!) < 100;
    });
    its.link.emit('perform', { type: 'desk', control: 'glow', value: [0.5] }, () => undefined);
    await until('the command', () => mine.commands.length > 0);
    expect(mine.commands).toEqual([{ type: 'desk', control: 'glow', value: [0.5] }]);
    const large = new Uint8Array(150_000).fill(7);
    for (let k = 0; k < large.length; k += 40_000)
      its.link.emit('edit', large.slice(k, k + 40_000), k + 40_000 >= large.length);
    await until('the edit', () => mine.edits.length > 0);
    expect(mine.edits[0].byteLength).toBe(large.length);
    mine.link.emit('refuse', 'No such scene.');
    await until('the refusal', () => its.refusals.length > 0);
    expect(its.refusals).toEqual(['No such scene.']);
    const packed = packHeard({ number: 5, state: silence });
    // What is told many times a second may be left out.
    await until('what is heard there', () => {
      mine.link.emit('sound', packed);
      return its.sounds.length > 0;
    });
    expect(new Uint8Array(its.sounds[0])).toEqual(packed);
    const jpeg = new Uint8Array([255, 216, 9]);
    await until('a small picture of it', () => {
      its.link.emit('shown', jpeg);
      return mine.shown.length > 0;
    });
    expect(mine.shown[0]).toEqual([expect.stringMatching(/^spare-/), Buffer.from(jpeg)]);
    const { following } = (await (await ask(second, '/machines/network')).json()) as NetworkState;
    expect(following!.phase).toBe('following');
  });

  it('has the files of the show, and those that are added on it come to the main machine', async () => {
    await begin();
    for (const [from, to] of [
      [first, second],
      [second, first],
    ]) {
      const file = Buffer.from(`A picture of ${from.address}`);
      const id = fileNameOfDigest(createHash('sha256').update(file).digest());
      expect(
        (await fetch(`${from.address}/machines/files/${id}`, { method: 'PUT', body: file })).status,
      ).toBe(204);
      const there = await ask(to, `/machines/files/${id}`);
      expect(Buffer.from(await there.arrayBuffer())).toEqual(file);
    }
  });

  it('takes over when the window of the main machine is gone, which follows when it comes back', async () => {
    await begin();
    mine.link.disconnect();
    await until('the takeover', () => !its.isFollowing());
    mine = new Window(first);
    await until('the first to follow', () => mine.isFollowing());
    its.tell(9, ownClock());
    await until('its state', () => mine.states.some(({ time }) => time === 9));
    mine.link.emit('perform', { type: 'freeze', on: true }, () => undefined);
    await until('the command', () => its.commands.length > 0);
    // And back, by a key.
    mine.link.emit('lead');
    await until('the first to perform again', () => !mine.isFollowing() && its.isFollowing());
  });

  it('is where guests of the main machine may go, also once that follows it, and the other way round', async () => {
    const [here, there] = [guestOf(first), guestOf(second)];
    const places = async (): Promise<string[]> => [
      (await network(first)).addresses[0],
      (await network(second)).addresses[0],
    ];
    try {
      await begin();
      const [own, other] = await places();
      await until('both ways out', () => [here, there].every(({ wayOut }) => wayOut.at(-1)?.length));
      expect([here.wayOut.at(-1), there.wayOut.at(-1)]).toEqual([[other], [own]]);
      here.wayOut.length = 0;
      mine.link.disconnect();
      await until('the takeover', () => !its.isFollowing());
      mine = new Window(first);
      await until('the first to follow', () => mine.isFollowing());
      // Between the two it was never told that there is nowhere to go.
      expect(here.wayOut.every((addresses) => addresses[0] === other)).toBe(true);
      await until('the way back', () => there.wayOut.at(-1)?.[0] === own);
      await ask(first, '/machines/follow', 'DELETE');
      await until('no way out', () => here.wayOut.at(-1)?.length === 0 && there.wayOut.at(-1)?.length === 0);
    } finally {
      here.close();
      there.close();
    }
  });

  it('takes over when the server of the main machine is gone, which follows when it is started again', async () => {
    await begin();
    await until('the main machine to know its heir', () => existsSync(path.join(folder, 'heir.json')));
    mine.link.disconnect();
    await first.close();
    await until('the takeover', () => !its.isFollowing());
    const { following } = (await (await ask(second, '/machines/network')).json()) as NetworkState;
    expect(following!.phase).toBe('leading');
    its.tell(5, ownClock());
    first = await start(folder);
    mine = new Window(first);
    await until('it to follow', () => mine.isFollowing() && mine.states.some(({ time }) => time === 5));
  });

  it('goes on as the main machine when it is started again and the spare has not taken over', async () => {
    await begin();
    await until('the main machine to know its heir', () => existsSync(path.join(folder, 'heir.json')));
    // Nobody could perform there.
    its.link.disconnect();
    mine.link.disconnect();
    await first.close();
    first = await start(folder);
    mine = new Window(first);
    await until('a word', () => mine.follows.length > 0);
    // The second is let go of: whoever comes as what it knew the first by is refused, and forgets it.
    await ask(second, '/machines/follow', 'DELETE');
    its = new Window(second);
    await until('its window', () => its.follows.length > 0);
    mine.link.disconnect();
    await first.close();
    first = await start(folder);
    mine = new Window(first);
    await until('the heir to be forgotten', () => !existsSync(path.join(folder, 'heir.json')));
    expect([mine.isFollowing(), its.isFollowing()]).toEqual([false, false]);
  });

  it('follows again when it is started again, also where both are: the one that was the main one goes on', async () => {
    await ask(second, '/machines/follow', 'DELETE');
    its.link.disconnect();
    await second.close();
    const kept = path.join(folder, 'second');
    second = await start(kept);
    its = new Window(second);
    await until('its window', () => its.follows.length > 0);
    await begin();
    await until('it to be kept', () => existsSync(path.join(kept, 'followed.json')));
    await until('the main machine to know its heir', () => existsSync(path.join(folder, 'heir.json')));
    its.link.disconnect();
    await second.close();
    second = await start(kept);
    its = new Window(second);
    await until('it to follow again', () => its.isFollowing());
    // It was never told that it performs.
    expect(its.follows).not.toContain(null);
    const ports: number[] = [];
    for (const machine of [first, second])
      ports.push(Number(new URL((await network(machine)).addresses[0]).port));
    for (const window of [mine, its]) window.link.disconnect();
    await Promise.all([second.close(), first.close()]);
    [second, first] = await Promise.all([start(kept, ports[1]), start(folder, ports[0])]);
    await network(first);
    its = new Window(second);
    mine = new Window(first);
    await until('the spare to follow', () => its.isFollowing());
    await until('the first to perform', () => mine.follows.length > 0);
    expect(mine.follows).toEqual([null]);
  });

  it('takes over when nothing comes through, and follows again where the main machine performed all along', async () => {
    const { addresses } = await network(first);
    const line = await cable(Number(new URL(addresses[0]).port));
    const guest = guestOf(first);
    try {
      await begin(`https://127.0.0.1:${line.port}`);
      await until('a way out', () => guest.wayOut.at(-1)?.length === 1);
      guest.wayOut.length = 0;
      line.hold(true);
      await until('it to perform', () => !its.isFollowing());
      mine.tell(7, ownClock());
      line.hold(false);
      await until('it to follow again', () => its.isFollowing() && its.states.at(-1)!.time === 7);
      expect(mine.follows).toEqual([null]);
      // It was the spare all along, and guests could have gone there.
      expect(guest.wayOut).toEqual([]);
    } finally {
      guest.close();
      line.close();
    }
  });

  it('performs by itself when the main machine has closed its network', async () => {
    await begin();
    const { addresses } = await network(first);
    // The network of the first is closed: the spare is sent away, and performs by itself.
    await ask(first, '/machines/network', 'POST', { isOpen: false });
    await until('it to perform', () => !its.isFollowing());
    expect(addresses).toHaveLength(1);
    expect(mine.isFollowing()).toBe(false);
  });

  it('is refused with a code of another kind, and with an address that nobody has', async () => {
    const { addresses, codes } = await network(first);
    const other = await ask(second, '/machines/follow', 'POST', {
      address: addresses[0],
      code: codes!.player,
    });
    expect([other.status, await other.text()]).toEqual([
      502,
      expect.stringContaining('the one for the spare'),
    ]);
    const none = await ask(second, '/machines/follow', 'POST', { address: '127.0.0.1:1', code: '123456' });
    expect([none.status, await none.text()]).toEqual([502, expect.stringContaining('does not answer')]);
    const odd = await ask(second, '/machines/follow', 'POST', { address: 'not an address', code: '1' });
    expect([odd.status, await odd.text()]).toEqual([502, expect.stringContaining('is no address')]);
  });
});
