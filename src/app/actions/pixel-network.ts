import type { ArtNetNode } from '../../core/wall/pixels/art-net';
import { addressesOf } from '../../core/wall/pixels/datagrams';
import type { Show } from '../../core/document/types';
import { showStore } from '../data/show-store';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';

const storeKey = 'pyrvel.pixels.allowed';

/** Addresses that were allowed on this machine: a show from elsewhere must not send to the network by itself. */
function allowedHere(): string[] {
  try {
    return JSON.parse(localStorage.getItem(storeKey) ?? '[]') as string[];
  } catch {
    return [];
  }
}

const addressesIn = (show: Show): string[] => [
  ...new Set([
    ...show.wall.outputs.flatMap((output) => (output.type === 'string' ? addressesOf(output) : [])),
    ...(show.inputs.osc.to ? [show.inputs.osc.to.split(':')[0]] : []),
  ]),
];

async function tellServer(addresses: readonly string[]): Promise<void> {
  if (addresses.length === 0) return;
  const response = await fetch('/pixels/allow', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ addresses }),
  });
  if (!response.ok) throw new Error(await response.text());
}

/** Asks the network, and the addresses that the show names, for Art-Net nodes. Throws with what is in the way. */
export async function findNodes(): Promise<ArtNetNode[]> {
  const response = await fetch('/pixels/discover', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ addresses: addressesIn(showStore.getState().show) }),
  }).catch(() => null);
  if (!response) throw new Error('The server is away, so the network can’t be asked.');
  if (!response.ok) throw new Error(await response.text());
  return ((await response.json()) as { nodes: ArtNetNode[] }).nodes;
}

/** Whether an address was allowed on this machine. */
export const isAllowedHere = (address: string): boolean => allowedHere().includes(address);

/** Allows that something is sent to addresses from this machine, now and later. */
export async function allowAddresses(addresses: readonly string[]): Promise<void> {
  localStorage.setItem(storeKey, JSON.stringify([...new Set([...allowedHere(), ...addresses])]));
  await tellServer(addresses).catch((error: Error) =>
    say({ tone: 'warning', text: `The server could not be told: ${error.message}` }),
  );
}

/** Tells the server, whenever it comes back or the show names others, which of the show's addresses were allowed here; called once. */
export function keepAddresses(): void {
  let told = '';
  const tell = (): void => {
    const allowed = new Set(allowedHere());
    const known = addressesIn(showStore.getState().show).filter((address) => allowed.has(address));
    const { pixels } = liveStore.getState();
    const now = `${known.join()} ${pixels?.isConnected}`;
    if (now === told) return;
    told = now;
    // A server that is away hears it when it is back.
    void tellServer(known).catch(() => undefined);
  };
  showStore.subscribe(tell);
  liveStore.subscribe((now, before) => now.pixels?.isConnected !== before.pixels?.isConnected && tell());
  tell();
}
