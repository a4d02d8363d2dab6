import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { homedir } from 'node:os';
import path from 'node:path';
import { certificateAt } from '../src/server/machines/certificate';
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

/** What a browser is started with: one window that fills the display, and trusts one certificate and no other. */
export function playerFlags(address: URL, folder: string, trusted: string | null): string[] {
  return [
    '--kiosk',
    '--no-first-run',
    '--disable-session-crashed-bubble',
    '--disable-backgrounding-occluded-windows',
    `--user-data-dir=${path.join(folder, `player-${address.searchParams.get('name')!.replace(/[^\w-]+/g, '-')}`)}`,
    ...(trusted === null ? [] : [`--ignore-certificate-errors-spki-list=${trusted}`]),
    `--app=${address.href}`,
  ];
}

/** The certificate that a machine shows, and its public key's digest as browsers name it. */
async function shownAt(address: URL): Promise<{ fingerprint: string; key: string }> {
  const certificate = await certificateAt(address).catch((error: Error) => {
    throw new UsageError(`The main machine does not answer at ${address.host} (${error.message}).`);
  });
  const key = certificate.publicKey.export({ type: 'spki', format: 'der' });
  return {
    fingerprint: certificate.fingerprint256,
    key: createHash('sha256').update(key).digest('base64'),
  };
}

/** Starts a player in a browser that fills the display; ends when it is closed. */
export async function startPlayer(options: Options, print: (line: string) => void): Promise<number> {
  const address = playerAddress(options);
  const certificate = address.protocol === 'https:' ? await shownAt(address) : null;
  if (certificate) print(`Certificate of the main machine: ${certificate.fingerprint}`);
  const folder = process.env.PYRVEL_DATA ?? path.join(homedir(), '.pyrvel');
  const flags = playerFlags(address, folder, certificate?.key ?? null);
  const browser = spawn(process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium', flags, { stdio: 'ignore' });
  return new Promise((resolve, reject) => {
    browser.on('error', (error) =>
      reject(new UsageError(`The browser could not be started (${error.message}).`)),
    );
    browser.on('exit', (code) => resolve(code ?? 0));
  });
}
