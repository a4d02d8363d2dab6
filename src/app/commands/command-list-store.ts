import { create } from 'zustand';

/** Whether the list of all commands is open. */
export const commandList = create<{ open: boolean }>()(() => ({ open: false }));
