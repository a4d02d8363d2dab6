import { create } from 'zustand';
import type { MachineCard, NetworkState } from '../../core/machines/link';

interface MachinesState {
  /** null: the server has not said it yet, or is away. */
  network: NetworkState | null;
  /** Why the server does not answer; empty: it does. */
  fault: string;
  cards: readonly MachineCard[];
  /** What this window is among machines. */
  link: 'away' | 'main' | 'refused';
}

export const machinesStore = create<MachinesState>()(() => ({
  network: null,
  fault: '',
  cards: [],
  link: 'away',
}));

async function ask(route: string, body?: object): Promise<void> {
  try {
    const response = await fetch(`/machines/${route}`, {
      ...((body || route === 'renew') && {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body ?? {}),
      }),
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
export const renewCodes = (): Promise<void> => ask('renew');
