import { create } from 'zustand';

/** Whether help is open, and what it shows: the id of a section, "node " or "command " with an id; null: where it begins. */
export const helpSession = create<{ isOpen: boolean; at: string | null }>()(() => ({
  isOpen: false,
  at: null,
}));

export const openHelp = (at: string | null = null): void => helpSession.setState({ isOpen: true, at });

export const closeHelp = (): void => helpSession.setState({ isOpen: false });
