import { create } from 'zustand';

/** Whether starting points are offered: for another scene, or for the one that is open and still empty. */
export const startSession = create<{ isOpen: 'another' | 'this' | null }>()(() => ({ isOpen: null }));

export const offerStarts = (of: 'another' | 'this'): void => startSession.setState({ isOpen: of });
