import type { Scene } from '../../core/document/types';
import { sessionStore } from '../data/session';
import { showStore } from '../data/show-store';
import { wallSession } from '../data/wall-session';

/** The scene that is open in Build, while Build is shown; else null. */
export function sceneAtHand(): Scene | null {
  if (!location.pathname.startsWith('/build')) return null;
  const { sceneId } = sessionStore.getState();
  return showStore.getState().show.scenes.find(({ id }) => id === sceneId) ?? null;
}

/** The chosen nodes of that scene. */
export function chosenNodes(): string[] {
  const scene = sceneAtHand();
  return scene ? sessionStore.getState().selection.filter((id) => scene.nodes[id]) : [];
}

/** The chosen outputs, while the Wall is shown. */
export const chosenOutputs = (): readonly string[] =>
  location.pathname.startsWith('/wall') ? wallSession.getState().chosen : [];
