import { create } from 'zustand';
import { shallow } from 'zustand/shallow';
import type { WorkScale } from '../../engine/protocol/protocol';

/** A control part on its way to another that will follow it. */
export interface ControlLink {
  scene: string;
  node: string;
  part: string;
  /** How formulas name it. */
  text: string;
}

interface SessionState {
  sceneId: string;
  selection: readonly string[];
  /** Wire whose controls the inspector shows, if no node is chosen. */
  wire: string | null;
  benchOpen: boolean;
  /** What the bench shows of a picture node: its pixels, its own code, or the shader it is drawn by. */
  benchTab: 'output' | 'code' | 'shader' | 'curves';
  /** The control whose curves are drawn on the bench. */
  benchControl: string;
  /** What the monitor shows over the picture; never on stage. */
  guides: { cross: boolean; safe: boolean; handles: boolean };
  theme: 'pyrvel-night' | 'pyrvel-day';
  workScale: WorkScale;
  /** Values for work are used while no stage is open. */
  usesDrafts: boolean;
  /** Which controls the inspector shows. */
  shownControls: 'all' | 'changed' | 'driven';
  /** A control that was copied as a link. */
  link: ControlLink | null;
}

/** Where the performer is and how the desk is set: kept through a reload, but no part of the show and not undone. */
export const sessionStore = create<SessionState>()(() => ({
  sceneId: '',
  selection: [],
  wire: null,
  benchOpen: true,
  benchTab: 'output',
  benchControl: '',
  guides: { cross: false, safe: false, handles: true },
  theme: localStorage.getItem('pyrvel.theme') === 'pyrvel-day' ? 'pyrvel-day' : 'pyrvel-night',
  workScale: 'auto',
  usesDrafts: true,
  shownControls: 'all',
  link: null,
}));

export const useSession = sessionStore;

export function choose(selection: readonly string[], wire: string | null = null): void {
  const now = sessionStore.getState();
  if (now.wire !== wire || !shallow(selection, now.selection)) sessionStore.setState({ selection, wire });
}

export const openScene = (sceneId: string): void =>
  sessionStore.setState({ sceneId, selection: [], wire: null });
