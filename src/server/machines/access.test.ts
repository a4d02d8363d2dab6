import { describe, expect, it } from '@jest/globals';
import { Access } from './access';
import { passRoles } from '../../core/machines/roles';

const key = (byte: number): Uint8Array => new Uint8Array(32).fill(byte);

describe('who was let in by another machine', () => {
  const there = new Access(key(1));

  it('is let in where that is trusted, as what it was, but for its spare', async () => {
    const here = new Access(key(2));
    here.trust(key(1));
    for (const role of passRoles) {
      const pass = here.check(await there.tokenFor(role, 'machine-1'));
      if (role === 'spare') await expect(pass).rejects.toThrow(/has to be let in again/);
      else expect(await pass).toEqual({ role, machine: 'machine-1' });
    }
  });

  it('is not let in elsewhere, nor once it was sent away or the trust has ended', async () => {
    const here = new Access(key(2));
    const token = await there.tokenFor('all', 'machine-1');
    await expect(here.check(token)).rejects.toThrow(/has to be let in again/);
    here.trust(key(1));
    here.dismiss('machine-1');
    await expect(here.check(token)).rejects.toThrow(/has to be let in again/);
    here.renew(key(3));
    await expect(here.check(token)).rejects.toThrow(/has to be let in again/);
  });
});
