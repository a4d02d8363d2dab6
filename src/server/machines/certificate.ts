import { X509Certificate } from 'node:crypto';
import { Agent } from 'node:https';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { networkInterfaces } from 'node:os';
import path from 'node:path';
import { connect } from 'node:tls';
import { generate } from 'selfsigned';

const dayMs = 86400000;
const lifeDays = 730;
/** Days before its end from which a certificate is made anew. */
const renewDays = 30;

export interface Certificate {
  key: string;
  cert: string;
}

/** IPv4 addresses at which other machines can reach this one. */
export const networkAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);

/** Milliseconds in which a machine has to show its certificate. */
const patienceMs = 5000;

/** With what a machine is reached that shows this very certificate, whatever its address is called: it is its own, and nobody has signed it. */
const trusting = (certificate: string) => ({ ca: certificate, checkServerIdentity: () => undefined });

/**
 * The certificate that a machine shows at an address. `trusted`: the only one that it may be; null: any. Throws where it does not answer, or shows
 * another.
 */
export function certificateAt(
  { hostname, port }: URL,
  trusted: string | null = null,
  timeout = patienceMs,
): Promise<X509Certificate> {
  return new Promise((resolve, reject) => {
    const trust = trusted === null ? { rejectUnauthorized: false } : trusting(trusted);
    const socket = connect({ host: hostname, port: Number(port || 443), ...trust }, () => {
      const certificate = new X509Certificate(socket.getPeerCertificate().raw);
      socket.end();
      resolve(certificate);
    });
    socket.setTimeout(timeout, () => socket.destroy(new Error('no answer')));
    socket.on('error', reject);
  });
}

/** Asks a machine that shows this very certificate. */
export const agentFor = (certificate: string): Agent => new Agent(trusting(certificate));

/** Whether a certificate still holds, for all these addresses. */
function holds(cert: string, addresses: readonly string[], now: number): boolean {
  try {
    const { validTo, subjectAltName = '' } = new X509Certificate(cert);
    const named = subjectAltName.split(', ');
    return (
      Date.parse(validTo) - now > renewDays * dayMs &&
      addresses.every((address) => named.includes(`IP Address:${address}`))
    );
  } catch {
    return false;
  }
}

async function make(addresses: readonly string[], now: number): Promise<Certificate> {
  const { private: key, cert } = await generate([{ name: 'commonName', value: 'Pyrvel on this network' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notBeforeDate: new Date(now - dayMs),
    notAfterDate: new Date(now + lifeDays * dayMs),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: [{ type: 2, value: 'localhost' }, ...addresses.map((ip) => ({ type: 7 as const, ip }))],
      },
    ],
  });
  return { key, cert };
}

/**
 * The certificate of this machine, made on first use and kept in a folder (null: only for this run of the server). Another is made when it ends
 * soon or the machine has an address that it does not name; visitors then have to accept it once more.
 */
export async function certificateFor(
  folder: string | null,
  addresses: readonly string[],
  now = Date.now(),
): Promise<Certificate> {
  if (!folder) return make(addresses, now);
  const [keyFile, certFile] = ['key.pem', 'certificate.pem'].map((name) => path.join(folder, name));
  const [key, cert] = await Promise.all(
    [keyFile, certFile].map((file) => readFile(file, 'utf8').catch(() => '')),
  );
  if (key && holds(cert, addresses, now)) return { key, cert };
  const made = await make(addresses, now);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await writeFile(keyFile, made.key, { mode: 0o600 });
  await writeFile(certFile, made.cert, { mode: 0o600 });
  return made;
}
