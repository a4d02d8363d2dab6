import { create } from 'zustand';
import type { BindTarget } from '../../core/document/types';

interface PlaySession {
  /** Desk page that is shown; empty: the first of the scene on air. */
  page: string;
  /** The desk is laid out, and not played. */
  arranging: boolean;
  /** Desk control whose settings are shown while it is laid out. */
  chosen: string | null;
  /** Cue whose settings are shown. */
  cue: string | null;
  /** A click chooses what the next dial or key is to move. */
  binding: boolean;
  /** How a remote desk comes in is shown. */
  inviting: boolean;
  /** Page of scene buttons, 1..9. */
  scenePage: number;
  /** What scenes are searched for. */
  search: string;
  /** Seconds that a recall takes, and when it begins. */
  recallSeconds: number;
  recallStart: 'now' | 'beat' | 'bar';
}

/** What of Play is shown: no part of the show, and not undone. */
export const playSession = create<PlaySession>()(() => ({
  page: '',
  arranging: false,
  chosen: null,
  cue: null,
  binding: false,
  inviting: false,
  scenePage: 1,
  search: '',
  recallSeconds: 1,
  recallStart: 'now',
}));

/** One word for a target: two that say the same are the same. */
export const targetKey = (target: BindTarget): string => JSON.stringify(target);
