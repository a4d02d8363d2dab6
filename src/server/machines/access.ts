import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { jwtVerify, SignJWT } from 'jose';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { isPassRole, passRoles, type PassRole } from '../../core/machines/roles';

const codeDigits = 6;
/** Wrong codes from one address in a minute, after which it waits as long; and those from all addresses, after which there are new codes. */
const mostTries = { address: 5, all: 40 };
const tryWindowSeconds = 60;
const tokenLife = '12h';

/** Why somebody is not let in. */
export class AccessError extends Error {
  constructor(
    readonly status: 401 | 429,
    message: string,
  ) {
    super(message);
  }
}

/** Who a token was given to. */
export interface Pass {
  role: PassRole;
  machine: string;
}

/**
 * Lets other machines in: a code of six digits for each role, shown on the main machine, is given for a token that lives twelve hours. Tokens are signed with
 * `key` (32 bytes; kept by the caller, so that they outlive a restart of the server) and end when it is changed.
 */
export class Access {
  private codes = this.freshCodes();
  private key: Uint8Array;
  private trusted: Uint8Array | null = null;
  private tries = this.freshTries();
  private readonly dismissed = new Set<string>();

  constructor(key: Uint8Array = randomBytes(32)) {
    this.key = key;
  }

  private freshTries() {
    const window = { duration: tryWindowSeconds, blockDuration: tryWindowSeconds };
    return {
      address: new RateLimiterMemory({ points: mostTries.address, ...window }),
      all: new RateLimiterMemory({ points: mostTries.all, duration: tryWindowSeconds }),
    };
  }

  private freshCodes(): Record<PassRole, string> {
    const codes = new Set<string>();
    while (codes.size < passRoles.length)
      codes.add(String(randomInt(10 ** codeDigits)).padStart(codeDigits, '0'));
    const [look, desk, all, player, spare] = codes;
    return { look, desk, all, player, spare };
  }

  get shown(): Readonly<Record<PassRole, string>> {
    return this.codes;
  }

  /** What tokens are signed with: for the spare, which lets in those who were let in here. */
  get signature(): Uint8Array {
    return this.key;
  }

  /** Who was let in by another machine, whose key this is, is let in here too, but for its spare; null: nobody. */
  trust(key: Uint8Array | null): void {
    this.trusted = key;
  }

  /** New codes; with `key`, tokens that were given end as well. */
  renew(key: Uint8Array | null = null): void {
    this.codes = this.freshCodes();
    if (!key) return;
    this.key = key;
    this.trusted = null;
    this.dismissed.clear();
  }

  /** Gives a token for a code. Throws `AccessError`. */
  async enter(code: string, machine: string, address: string): Promise<{ token: string; role: PassRole }> {
    const given = Buffer.from(code.padEnd(codeDigits).slice(0, codeDigits));
    try {
      await this.tries.address.consume(address);
    } catch {
      throw new AccessError(429, 'Too many wrong codes came from this machine. Wait a minute and try again.');
    }
    const role = passRoles.find((one) => timingSafeEqual(Buffer.from(this.codes[one]), given));
    if (!role || code.length !== codeDigits) {
      await this.tries.all.consume('all').catch(() => {
        this.codes = this.freshCodes();
        return this.tries.all.delete('all');
      });
      throw new AccessError(401, 'This code is not one of those on the main machine. Read it again there.');
    }
    await this.tries.address.delete(address);
    this.dismissed.delete(machine);
    return { token: await this.tokenFor(role, machine), role };
  }

  /** A token without a code, for a machine that this one asks to come. */
  tokenFor(role: PassRole, machine: string): Promise<string> {
    return new SignJWT({ role, machine })
      .setProtectedHeader({ alg: 'HS256' })
      .setIssuedAt()
      .setExpirationTime(tokenLife)
      .sign(this.key);
  }

  /** Who has a token. Throws `AccessError` for one that is none, has expired, or whose machine was sent away. */
  async check(token: string): Promise<Pass> {
    for (const key of this.trusted ? [this.key, this.trusted] : [this.key])
      try {
        const { payload } = await jwtVerify(token, key, { algorithms: ['HS256'] });
        const { role, machine } = payload;
        const isHere = key === this.key || role !== 'spare';
        if (isPassRole(role) && isHere && typeof machine === 'string' && !this.dismissed.has(machine))
          return { role, machine };
      } catch {
        // Said below, alike for all that is wrong with it.
      }
    throw new AccessError(401, 'This machine has to be let in again: type the code of the main machine.');
  }

  /** A machine whose token is good no longer. */
  dismiss(machine: string): void {
    this.dismissed.add(machine);
  }
}
