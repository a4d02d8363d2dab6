import { create } from 'zustand';

/** Whether the steps of undo are listed. */
export const historySession = create<{ isOpen: boolean }>()(() => ({ isOpen: false }));
