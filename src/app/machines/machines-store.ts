import { create } from 'zustand';
import type { MachineCard, NetworkState } from '../../core/machines/link';

interface MachinesState {
  /** null: the server has not said it yet, or is away. */
  network: NetworkState | null;
  /** Why the server does not answer; empty: it does. */
  fault: string;
  cards: readonly MachineCard[];
  /** Those at the main machine that this one follows. */
  elsewhere: readonly MachineCard[];
  /** What this window is among machines. */
  link: 'away' | 'main' | 'refused';
  /** It follows another main machine, as its spare. */
  follows: boolean;
  /** Addresses of small pictures of what machines show, by machine. */
  pictures: Readonly<Record<string, string>>;
}

export const machinesStore = create<MachinesState>()(() => ({
  network: null,
  fault: '',
  cards: [],
  elsewhere: [],
  link: 'away',
  follows: false,
  pictures: {},
}));

/** Takes a small picture of what a machine shows; null: it is gone. */
export function showMachine(machine: string, jpeg: Uint8Array<ArrayBuffer> | null): void {
  const { [machine]: before, ...others } = machinesStore.getState().pictures;
  if (before) URL.revokeObjectURL(before);
  const now = jpeg && { [machine]: URL.createObjectURL(new Blob([jpeg], { type: 'image/jpeg' })) };
  machinesStore.setState({ pictures: { ...others, ...now } });
}

async function ask(route: string, body?: object, method = body ? 'POST' : 'GET'): Promise<void> {
  try {
    const response = await fetch(`/machines/${route}`, {
      method,
      ...(body && { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(await response.text());
    machinesStore.setState({ network: (await response.json()) as NetworkState, fault: '' });
  } catch (error) {
    const isAway = error instanceof TypeError;
    const fault = isAway ? 'The server of Pyrvel does not answer. Start it again.' : (error as Error).message;
    machinesStore.setState({ fault });
  }
}

/** Asks whether the network is open, and how others come. */
export const lookAtNetwork = (): Promise<void> => ask('network');
/** Opens or closes the network. */
export const openNetwork = (isOpen: boolean): Promise<void> => ask('network', { isOpen });
/** Sends all machines away, and makes new codes. */
export const renewCodes = (): Promise<void> => ask('renew', {});
/** Makes this machine the spare of the main machine at an address. */
export const followMain = (address: string, code: string): Promise<void> => ask('follow', { address, code });
/** Performs by itself again, and is the spare of nobody. */
export const stopFollowing = (): Promise<void> => ask('follow', undefined, 'DELETE');
