import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { homedir } from 'node:os';
import path from 'node:path';
import { isPlace, type Place } from '../src/core/machines/link';
import { certificateAt } from '../src/server/machines/certificate';
import { Gateway } from '../src/server/machines/gateway';
import { UsageError, type Options } from './arguments';

/** The page of a player on the main machine. Throws UsageError. */
export function playerAddress(options: Options): URL {
  const host = options.get('host');
  if (host === undefined)
    throw new UsageError('--host is missing: the address that Machines shows on the main machine.');
  const code = options.get('code');
  if (code !== undefined && !/^\d{3} ?\d{3}$/.test(code))
    throw new UsageError('--code takes the six digits for players.');
  let address: URL;
  try {
    address = new URL('/player', /^https?:/.test(host) ? host : `https://${host}`);
  } catch {
    throw new UsageError(`“${host}” is no address. It looks like https://192.168.1.20:4171.`);
  }
  address.searchParams.set('name', options.get('name') ?? 'Player');
  if (code !== undefined) address.hash = `code=${code.replace(' ', '')}`;
  return address;
}

const folderName = (address: URL): string =>
  `player-${address.searchParams.get('name')!.replace(/[^\w-]+/g, '-')}`;

/** What a browser is started with: one window that fills the display. */
export const playerFlags = (address: URL, folder: string): string[] => [
  '--kiosk',
  '--no-first-run',
  '--disable-session-crashed-bubble',
  '--disable-backgrounding-occluded-windows',
  `--user-data-dir=${path.join(folder, folderName(address))}`,
  `--app=${address.href}`,
];

/** First of the ports at which pages of players are found, and how many there are. */
const ports = { first: 4180, count: 400 };

/** The port of a player's page: the same with each start, since its browser keeps what it knows by it. */
export function portOf(name: string): number {
  const [a, b] = createHash('sha256').update(name).digest();
  return ports.first + ((a * 256 + b) % ports.count);
}

/** Where the main machine is, and where it may be when that is gone: as was found when this player ran before. */
async function placesFrom(address: URL, file: string, print: Print): Promise<Place[]> {
  let kept: unknown = [];
  try {
    kept = JSON.parse(await readFile(file, 'utf8'));
  } catch {
    // This is its first start.
  }
  const places = Array.isArray(kept) ? kept.filter(isPlace) : [];
  const known = places.find(({ addresses }) => addresses.includes(address.origin));
  try {
    const certificate = await certificateAt(address);
    print(`Certificate of the main machine: ${certificate.fingerprint256}`);
    const main = { addresses: [address.origin], certificate: certificate.toString() };
    return [main, ...places.filter((place) => place !== known && place.certificate !== main.certificate)];
  } catch (error) {
    // The spare may stand in for it by now.
    if (places.every((place) => place === known))
      throw new UsageError(
        `The main machine does not answer at ${address.host} (${(error as Error).message}).`,
      );
    print(`The main machine does not answer at ${address.host}; its spare is looked for.`);
    return places;
  }
}

type Print = (line: string) => void;

/**
 * Opens the way of a player to the machine that leads, and gives the address of its page on this computer. `folder`: where it keeps what it has found.
 * Throws UsageError where nobody answers.
 */
export async function openGateway(
  address: URL,
  folder: string,
  print: Print,
): Promise<{ page: URL; close(): Promise<void> }> {
  const file = path.join(folder, `${folderName(address)}.json`);
  const keep = async (places: readonly Place[]): Promise<void> => {
    try {
      await mkdir(folder, { recursive: true, mode: 0o700 });
      await writeFile(file, JSON.stringify(places), { mode: 0o600 });
    } catch (error) {
      print(`Where the spare is found could not be kept (${(error as Error).message}).`);
    }
  };
  const gateway = new Gateway(await placesFrom(address, file, print), (places) => {
    print(
      places[1] ? `The spare is found at ${places[1].addresses.join(', ')}.` : 'There is no spare any more.',
    );
    void keep(places);
  });
  const page = new URL(await gateway.listen(portOf(address.searchParams.get('name')!)));
  page.pathname = address.pathname;
  page.search = address.search;
  page.hash = address.hash;
  return { page, close: () => gateway.close() };
}

/** Starts a player in a browser that fills the display; ends when it is closed. */
export async function startPlayer(options: Options, print: Print): Promise<number> {
  const address = playerAddress(options);
  const folder = process.env.PYRVEL_DATA ?? path.join(homedir(), '.pyrvel');
  const gateway = address.protocol === 'https:' ? await openGateway(address, folder, print) : null;
  const flags = playerFlags(gateway?.page ?? address, folder);
  const browser = spawn(process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium', flags, { stdio: 'ignore' });
  try {
    return await new Promise((resolve, reject) => {
      browser.on('error', (error) =>
        reject(new UsageError(`The browser could not be started (${error.message}).`)),
      );
      browser.on('exit', (code) => resolve(code ?? 0));
    });
  } finally {
    await gateway?.close();
  }
}
