import { describe, expect, test } from '@jest/globals';
import { linkVersion, type Handshake } from '../../core/machines/link';
import type { Pass } from './access';
import { admit } from './admission';

const hello: Handshake = {
  version: linkVersion,
  role: 'remote',
  machine: 'desk-0123456789',
  name: 'Balcony',
  token: 'good',
};
const afar = { isLocal: false, address: '192.168.1.30' };
const here = { isLocal: true, address: '127.0.0.1' };

/** Comes with a token for a role. */
const come = (change: Partial<Handshake>, from = afar, role: Pass['role'] = 'desk', others = 0) => {
  const check = (token: string): Promise<Pass> =>
    token === 'good'
      ? Promise.resolve({ machine: hello.machine, role } as Pass)
      : Promise.reject(new Error('This code is over.'));
  return admit({ ...hello, ...change }, from, { check }, others);
};

describe('a machine that comes', () => {
  test('is let in as what its code was for, with a card of its own', async () => {
    await expect(come({})).resolves.toMatchObject({
      role: 'remote',
      desk: 'desk',
      card: { machine: hello.machine, name: 'Balcony', address: afar.address, clock: null },
    });
    await expect(come({ role: 'player' }, afar, 'player')).resolves.toMatchObject({ desk: null });
    await expect(come({ role: 'spare' }, afar, 'spare')).resolves.toMatchObject({ desk: 'all' });
  });

  test('is the main one, or a player, without a code on the machine of the server only', async () => {
    for (const role of ['main', 'player'] as const)
      await expect(come({ role, token: '' }, here)).resolves.toMatchObject({ role, desk: null });
    await expect(come({ role: 'main' })).rejects.toThrow(/Only the machine of the server itself/);
    await expect(come({ role: 'player', token: '' })).rejects.toThrow(/code is over/);
    await expect(come({ token: '' }, here)).rejects.toThrow(/code is over/);
  });

  test.each<[string, Promise<unknown>, RegExp]>([
    ['with the code of another kind', come({ role: 'player' }), /for another kind of machine/],
    ['with the code of another machine', come({ machine: 'desk-9999999999' }), /let in again/],
    ['of another version', come({ version: linkVersion + 1 }), /another version/],
    ['that is none', admit('hello', afar, { check: () => Promise.reject(new Error()) }, 0), /no machine/],
    ['when all places are taken', come({}, afar, 'desk', 64), /64 machines are there already/],
  ])('%s is told why it is not', async (_name, coming, words) => {
    await expect(coming).rejects.toThrow(words);
  });

  test('has its place as the main one however many there are', async () => {
    await expect(come({ role: 'main' }, here, 'desk', 64)).resolves.toMatchObject({ role: 'main' });
  });
});
