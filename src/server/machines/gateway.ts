import { createServer, ServerResponse, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo, Socket } from 'node:net';
import { createProxyServer } from 'httpxy';
import { isPlace, linkPath, type Place } from '../../core/machines/link';
import { askMachine, textOf } from './asking';
import { agentFor, certificateAt } from './certificate';

/** Milliseconds in which a machine has to answer a look, and what is passed on to it. */
const answerMs = 1000;
const passedMs = 5000;
/** Milliseconds between two questions for the spare. */
const askMs = 5000;
const mostCharacters = 64 * 1024;

/** One address of a place, as it was found to answer. */
interface Found {
  place: Place;
  address: string;
}

/** Whether a machine with this very certificate answers at an address. */
const answers = (address: string, certificate: string): Promise<boolean> =>
  certificateAt(new URL(address), certificate, answerMs).then(
    () => true,
    () => false,
  );

/**
 * The way of a player to the machine that leads: its page is opened at an address of its own computer, and what it asks for is passed on to the main machine,
 * or, when that is gone, to the spare. Each of them is known by its certificate; where the spare is, the main one says. The page notices no more
 * than a link that was cut and is there again. `places`: where to look, the main machine first. `keep` is called when there are others.
 */
export class Gateway {
  private readonly proxy = createProxyServer({
    secure: true,
    changeOrigin: true,
    proxyTimeout: passedMs,
    upgradeTimeout: passedMs,
  });
  private readonly server: Server;
  private readonly ends = new Set<Socket>();
  private found: Found | null = null;
  private looking: Promise<Found> | null = null;
  private asking: NodeJS.Timeout | undefined;

  constructor(
    private places: readonly Place[],
    private readonly keep: (places: readonly Place[]) => void = () => undefined,
  ) {
    const fail = (answer: ServerResponse, { message }: Error): void => {
      if (answer.headersSent) answer.destroy();
      else answer.writeHead(502, { 'Content-Type': 'text/plain' }).end(message);
    };
    this.proxy.on('error', (error, _asked, answer) => {
      if (answer instanceof ServerResponse) fail(answer, error);
      else answer?.destroy();
    });
    // Where one end of a link is gone, the other is told.
    this.proxy.on('proxyReqWs', (passed, _asked, near) => {
      passed.on('upgrade', (_answer, far) => {
        near.on('close', () => far.destroy());
        far.on('close', () => near.destroy());
      });
    });
    this.server = createServer((asked, answer) => {
      this.pass(asked, (options) => this.proxy.web(asked, answer, options)).catch((error: Error) =>
        fail(answer, error),
      );
    });
    this.server.on('upgrade', (asked: IncomingMessage, socket: Socket, head: Buffer) => {
      this.ends.add(socket);
      socket.on('close', () => this.ends.delete(socket));
      socket.on('error', () => socket.destroy());
      if (!asked.url?.startsWith(linkPath)) socket.destroy();
      else
        this.pass(asked, (options) => this.proxy.ws(asked, socket, options, head)).catch(() =>
          socket.destroy(),
        );
    });
  }

  /** Listens at a port of this computer only; one that is taken gives way to any that is free. */
  async listen(wanted: number): Promise<string> {
    const at = (port: number): Promise<void> =>
      new Promise((resolve, reject) => {
        this.server.once('error', reject);
        this.server.listen(port, '127.0.0.1', () => resolve());
      });
    await at(wanted).catch(() => at(0));
    this.asking = setInterval(() => void this.askForSpare(), askMs);
    void this.askForSpare();
    return `http://localhost:${(this.server.address() as AddressInfo).port}`;
  }

  async close(): Promise<void> {
    clearInterval(this.asking);
    for (const end of this.ends) end.destroy();
    this.server.closeAllConnections();
    await new Promise((done) => this.server.close(done));
  }

  /** Passes a request on to where somebody answers. Throws where nobody does. */
  private async pass(
    { headers, socket }: IncomingMessage,
    to: (options: { target: string; agent: unknown; headers: Record<string, string> }) => Promise<void>,
  ): Promise<void> {
    const own = `http://${headers.host}`;
    if (
      !/^(localhost|127\.0\.0\.1)(:\d+)?$/.test(headers.host ?? '') ||
      (headers.origin && headers.origin !== own)
    )
      throw new Error('This address is for the player of this computer only.');
    const { place, address } = await this.reach();
    socket.setNoDelay(true);
    // It takes what comes from its own pages only; this is one of them, by another name.
    const origin = headers.origin && { origin: address };
    await to({ target: address, agent: agentFor(place.certificate), headers: { ...origin } });
  }

  /** Where somebody answers: as before, else the first that does. */
  private reach(): Promise<Found> {
    this.looking ??= this.look().finally(() => (this.looking = null));
    return this.looking;
  }

  private async look(): Promise<Found> {
    const known = this.found;
    if (known && (await answers(known.address, known.place.certificate))) return known;
    const tries = this.places.flatMap((place) =>
      place.addresses.map(async (address) => {
        if (!(await answers(address, place.certificate))) throw new Error(address);
        return { place, address };
      }),
    );
    try {
      return (this.found = await Promise.any(tries));
    } catch {
      throw new Error('Neither the main machine nor its spare answers.');
    }
  }

  /** Asks the machine that leads where another one is found, should it be gone. */
  private async askForSpare(): Promise<void> {
    try {
      const { address, place } = await this.reach();
      const answer = await askMachine({ address, certificate: place.certificate }, '/machines/spare', {
        timeout: answerMs,
      });
      const text = await textOf(answer, mostCharacters);
      if (answer.statusCode !== 200) return;
      const spare: unknown = JSON.parse(text);
      this.learn(place, isPlace(spare) ? spare : null);
    } catch {
      // It is asked again.
    }
  }

  /** Who is no spare any more performs a show of its own, and is not gone to. */
  private learn(leads: Place, spare: Place | null): void {
    const places = spare ? [leads, spare] : [leads];
    if (JSON.stringify(places) === JSON.stringify(this.places)) return;
    this.places = places;
    this.keep(places);
  }
}
