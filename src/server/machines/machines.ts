import { randomBytes } from 'node:crypto';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server as TlsServer } from 'node:https';
import type { IncomingMessage, Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import express, { Router, type Express, type NextFunction, type Response } from 'express';
import {
  isMachineId,
  isSuccessor,
  type NetworkState,
  type Place,
  type Successor,
} from '../../core/machines/link';
import { Access, AccessError, type Pass } from './access';
import { certificateFor, networkAddresses } from './certificate';
import { FileError, SharedFiles } from './files';
import {
  enterAt,
  Follower,
  FollowError,
  isEntrance,
  placeOf,
  type Entrance,
  type HowFollowed,
} from './follower';
import { Hub, isLocal, type Limits } from './hub';

const usualPort = 4171;
const keyBytes = 32;

/** What a machine keeps of others, beside its certificate and its own key. */
type KeptFile = 'heir.json' | 'followed.json' | 'trusted.key';

export interface MachinesOptions {
  /** Where the certificate and the key of tokens are kept; null: for this run of the server only. */
  folder: string | null;
  /** Address that is listened at while the network is open. */
  host?: string;
  /** 0: any that is free. */
  port?: number;
  limits?: Limits;
}

/** Says why somebody was not let in or a file not taken; all else is a fault of the server. */
const refuse =
  (response: Response, next: NextFunction) =>
  (error: Error): void => {
    if (error instanceof AccessError || error instanceof FileError)
      response.status(error.status).type('text/plain').send(error.message);
    else if (error instanceof FollowError) response.status(502).type('text/plain').send(error.message);
    else next(error);
  };

/** What a file of ours holds; null: it is not there, or of another form. */
async function readKept<T>(file: string | null, is: (value: unknown) => value is T): Promise<T | null> {
  try {
    const value: unknown = file && JSON.parse(await readFile(file, 'utf8'));
    return is(value) ? value : null;
  } catch {
    return null;
  }
}

/** Other machines of a show: the network that they come by, who is let in, and what they say to each other. */
export class Machines {
  private access: Access | null = null;
  private hub: Hub | null = null;
  private network: TlsServer | null = null;
  private fault = '';
  private follower: Follower | null = null;
  private certificate = '';
  /** Where the spare is found, for players that may need it. */
  private heir: Successor | null = null;
  /** By which name the machine that was followed may come here as the spare. */
  private invited: string | null = null;
  private readonly files = new SharedFiles();
  private guests: Express = express();
  private mayCome: (request: IncomingMessage) => boolean = () => false;

  constructor(private readonly options: MachinesOptions) {}

  /** Takes links of this machine; `guests` answers those that come over the network, whose links `mayCome` looks at. */
  async attach(
    server: Server,
    guests: Express,
    mayCome: (request: IncomingMessage) => boolean,
  ): Promise<void> {
    this.guests = guests;
    this.mayCome = mayCome;
    this.access = new Access(await this.keptKey());
    this.access.trust(await this.keptTrust());
    this.hub = new Hub(this.access, this.options.limits);
    const followed = await readKept(this.fileOf('followed.json'), isEntrance);
    this.setHeir(await readKept(this.fileOf('heir.json'), isSuccessor));
    // Until the other one is asked, nobody is told that this one performs.
    this.hub.setYielding(Boolean(followed ?? this.heir));
    this.hub.attach(server, false, mayCome);
    this.hub.onTaken = (successor) => {
      placeOf(successor).then(
        (place) => {
          this.followAt(place);
          // It performs now, and is the spare of nobody.
          this.setHeir(null);
        },
        (error: Error) => (this.fault = error.message),
      );
    };
    this.hub.onHeir = (successor) => void this.keepHeir(successor);
    // Players must not go there; started again, this machine asks it all the same.
    this.hub.onHeirGone = () => this.setHeir(null);
    void this.comeBack(followed);
  }

  private setHeir(heir: Successor | null): void {
    this.heir = heir;
    this.tellGuests();
  }

  /** Where guests find the show should this machine be gone: where it follows, else at its spare; null: nowhere. */
  private get other(): Place | null {
    const { heir, follower } = this;
    const followed = follower && {
      addresses: [follower.place.address],
      certificate: follower.place.certificate,
    };
    return follower?.state.phase === 'leading' ? (heir ?? followed) : (followed ?? heir);
  }

  private tellGuests(): void {
    this.hub!.setSpare(this.other?.addresses ?? []);
  }

  private async keepHeir(successor: Successor): Promise<void> {
    this.setHeir(successor);
    await this.keep('heir.json', JSON.stringify(successor));
  }

  /** Where this machine keeps something; null: for this run only, nowhere. */
  private fileOf(name: KeptFile): string | null {
    return this.options.folder && path.join(this.options.folder, name);
  }

  /** Keeps something for the next start, or no longer. */
  private async keep(name: KeptFile, data: string | Uint8Array | null): Promise<void> {
    const file = this.fileOf(name);
    if (!file) return;
    await (data ? writeFile(file, data, { mode: 0o600 }) : rm(file, { force: true })).catch(() => undefined);
  }

  /** What this machine follows if it is started again; null: nobody. */
  private keepFollowed(place: Entrance | null): Promise<void> {
    return this.keep('followed.json', place && JSON.stringify(place));
  }

  /** Started again: a spare follows as before; where the spare has taken over meanwhile, this machine follows it. */
  private async comeBack(followed: Entrance | null): Promise<void> {
    const hub = this.hub!;
    try {
      if (followed) {
        await this.open();
        this.followAt(followed, 'again');
      } else if (this.heir) this.followAt(await placeOf(this.heir), 'return');
    } catch {
      // It is not there: this machine performs.
      hub.setYielding(false);
    }
  }

  private followAt(place: Entrance, how: HowFollowed = 'told'): void {
    if (this.follower?.state.address === place.address) return;
    this.stopFollowing();
    const machine = `spare-${randomBytes(8).toString('hex')}`;
    const follower = new Follower(
      place,
      this.hub!,
      this.files,
      {
        successor: () => this.asSuccessor(machine),
        trust: (key) => void this.trust(key),
        onPhase: (phase) => {
          this.tellGuests();
          void this.keepFollowed(phase === 'following' ? place : null);
        },
        onEnd: (fault) => {
          if (this.follower === follower) this.follower = null;
          this.tellGuests();
          this.fault = fault;
          void this.keepFollowed(null);
          // Let in no longer: it is no heir any more.
          if (how === 'return' && fault) void this.keep('heir.json', null);
        },
      },
      how,
    );
    this.follower = follower;
    this.invited = machine;
    this.tellGuests();
  }

  /** Performs by itself, and is followed by none that knew it as the spare. */
  private stopFollowing(): void {
    this.follower?.close();
    this.follower = null;
    this.tellGuests();
    if (this.invited) this.access?.dismiss(this.invited);
    this.invited = null;
    void this.keepFollowed(null);
    void this.trust(null);
  }

  private async keptTrust(): Promise<Uint8Array | null> {
    const file = this.fileOf('trusted.key');
    const kept = file && (await readFile(file).catch(() => null));
    if (!kept) return null;
    return kept.length === keyBytes ? kept : null;
  }

  /** Lets in whom a machine that is followed has let in, also after a restart; null: nobody. */
  private async trust(key: Uint8Array | null): Promise<void> {
    this.access!.trust(key);
    await this.keep('trusted.key', key);
  }

  /** How another main machine, known here by that name, follows this one. */
  private async asSuccessor(machine: string): Promise<Successor> {
    await this.open();
    return {
      addresses: this.state.addresses.slice(0, 8),
      machine,
      token: await this.access!.tokenFor('spare', machine),
      certificate: this.certificate,
    };
  }

  private async keptKey(isNew = false): Promise<Uint8Array> {
    const { folder } = this.options;
    if (!folder) return randomBytes(keyBytes);
    const file = path.join(folder, 'tokens.key');
    const kept = isNew ? null : await readFile(file).catch(() => null);
    if (kept?.length === keyBytes) return kept;
    const key = randomBytes(keyBytes);
    try {
      await mkdir(folder, { recursive: true, mode: 0o700 });
      await writeFile(file, key, { mode: 0o600 });
    } catch (error) {
      console.error(`Remote desks have to be let in again after each start: ${(error as Error).message}`);
    }
    return key;
  }

  get state(): NetworkState {
    const at = this.network?.address() as AddressInfo | null | undefined;
    const { host = '0.0.0.0' } = this.options;
    const hosts = host === '0.0.0.0' ? networkAddresses() : [host];
    return {
      isOpen: Boolean(at),
      addresses: at ? hosts.map((name) => `https://${name}:${at.port}`) : [],
      fault: this.fault,
      codes: at && this.access ? this.access.shown : null,
      following: this.follower?.state ?? null,
    };
  }

  /** Listens on the network, with TLS; a port that is taken gives way to any that is free. */
  async open(): Promise<void> {
    if (this.network || !this.hub) return;
    const { folder, host = '0.0.0.0', port = usualPort } = this.options;
    this.fault = '';
    try {
      const certificate = await certificateFor(folder, host === '0.0.0.0' ? networkAddresses() : [host]);
      this.certificate = certificate.cert;
      const listenAt = (wanted: number): Promise<TlsServer> =>
        new Promise((resolve, reject) => {
          const server = createServer(certificate, this.guests);
          server.once('error', reject);
          server.listen(wanted, host, () => resolve(server));
        });
      this.network = await listenAt(port).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'EADDRINUSE' && port === usualPort) return listenAt(0);
        throw error;
      });
      this.hub.attach(this.network, true, this.mayCome);
    } catch (error) {
      this.fault = `The network could not be opened (${(error as Error).message}).`;
    }
  }

  /** Nobody of the network is heard any more. */
  async shut(): Promise<void> {
    const { network } = this;
    this.network = null;
    if (!network) return;
    this.hub?.closeNetwork();
    // What is said to them goes out first.
    await new Promise((done) => setTimeout(done, 150));
    network.closeAllConnections();
    await new Promise((done) => network.close(done));
  }

  async close(): Promise<void> {
    this.follower?.close();
    this.hub?.close();
    await this.shut();
    await this.files.close();
  }

  /** `/machines` for guests: only being let in. */
  guestRouter(): Router {
    const router = Router();
    router.post('/enter', express.json({ limit: '4kb' }), (request, response, next) => {
      const { code, machine } = (request.body ?? {}) as { code?: unknown; machine?: unknown };
      if (typeof code !== 'string' || !isMachineId(machine)) {
        response.status(400).type('text/plain').send('A code and the name of a machine are expected.');
        return;
      }
      this.access!.enter(code.replace(/\D/g, ''), machine, request.socket.remoteAddress ?? '').then(
        (pass) => response.json(pass),
        refuse(response, next),
      );
    });
    // For those who come by a gateway: where to go should this machine be gone. Both are seen on the network anyway.
    router.get('/spare', (_request, response) => {
      const { addresses, certificate } = this.other ?? {};
      response.json(addresses ? { addresses, certificate } : null);
    });
    router.get('/key', (request, response, next) => {
      this.checkSpare(request).then(
        () => response.type('text/plain').send(Buffer.from(this.access!.signature).toString('hex')),
        refuse(response, next),
      );
    });
    // Files of the show, with ranges, for machines that were let in.
    router.get('/files/:id', (request, response, next) => {
      this.mayRead(request)
        .then(() => this.find(request.params.id))
        .then((file) => {
          if (file) response.type('application/octet-stream').sendFile(file);
          else response.status(404).type('text/plain').send('This file is not on the main machine.');
        })
        .catch(refuse(response, next));
    });
    // Files that were added on the spare.
    router.put('/files/:id', (request, response, next) => {
      this.mayAdd(request)
        .then(() => this.files.take(request.params.id, request))
        .then(() => this.follower?.sendFile(request.params.id))
        .then(() => response.status(204).end(), refuse(response, next));
    });
    return router;
  }

  /** A file of the show, from where this machine follows if it is not here. */
  private async find(id: string): Promise<string | null> {
    return (await this.files.find(id)) ?? (await this.follower?.fetchFile(id)) ?? null;
  }

  private async mayAdd(request: IncomingMessage): Promise<void> {
    if (!isLocal(request)) await this.checkSpare(request);
  }

  private async checkSpare(request: IncomingMessage): Promise<void> {
    const pass = await this.passOf(request);
    if (pass.role !== 'spare') throw new AccessError(401, 'Only the spare may do this.');
  }

  private async mayRead(request: IncomingMessage): Promise<void> {
    if (isLocal(request)) return;
    await this.passOf(request);
  }

  /** With what a request over the network was let in. Throws `AccessError`. */
  private passOf(request: IncomingMessage): Promise<Pass> {
    return this.access!.check((request.headers.authorization ?? '').replace(/^Bearer /, ''));
  }

  /** `/machines` for this machine: what a guest can, and opening and closing the network. */
  router(): Router {
    const router = this.guestRouter();
    router.use((request, response, next) => {
      if (isLocal(request)) next();
      else response.status(403).type('text/plain').send('Only the main machine itself can do this.');
    });
    router.get('/network', (_request, response) => void response.json(this.state));
    router.post('/network', express.json({ limit: '4kb' }), (request, response, next) => {
      const { isOpen } = (request.body ?? {}) as { isOpen?: unknown };
      if (typeof isOpen !== 'boolean') {
        response.status(400).type('text/plain').send('Whether the network is to be open is expected.');
        return;
      }
      (isOpen ? this.open() : this.shut()).then(() => response.json(this.state), next);
    });
    // This machine becomes the spare of another one; its own network is opened, for the day that it performs.
    router.post('/follow', express.json({ limit: '4kb' }), (request, response, next) => {
      const { address, code } = (request.body ?? {}) as { address?: unknown; code?: unknown };
      if (typeof address !== 'string' || typeof code !== 'string') {
        response.status(400).type('text/plain').send('An address and a code are expected.');
        return;
      }
      enterAt(address.trim(), code.replace(/\D/g, ''))
        .then(async (place) => {
          await this.open();
          this.followAt(place);
          response.json(this.state);
        })
        .catch(refuse(response, next));
    });
    router.delete('/follow', (_request, response) => {
      this.stopFollowing();
      response.json(this.state);
    });
    // All that were let in have to type a code again.
    router.post('/renew', (_request, response, next) => {
      this.keptKey(true)
        .then((key) => {
          this.access?.renew(key);
          void this.trust(null);
          this.hub?.closeNetwork();
          response.json(this.state);
        })
        .catch(next);
    });
    return router;
  }
}
