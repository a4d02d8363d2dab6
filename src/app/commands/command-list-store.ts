import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Commands that are remembered as run last. */
const mostRecent = 5;

/** Whether the list of all commands is open. */
export const commandList = create<{ open: boolean }>()(() => ({ open: false }));

/** Commands that were run from the list, newest first, for this browser. */
export const usedCommands = create<{ recent: readonly string[] }>()(
  persist(() => ({ recent: [] as readonly string[] }), { name: 'pyrvel-commands' }),
);

export const noteRun = (id: string): void =>
  void usedCommands.setState(({ recent }) => ({
    recent: [id, ...recent.filter((one) => one !== id)].slice(0, mostRecent),
  }));
