import type { Scene } from '../../core/document/types';
import { sceneAt } from '../../core/module/open-place';
import { sessionStore } from '../data/session';
import { showStore } from '../data/show-store';
import { wallSession } from '../data/wall-session';

/** The patch that is open in Build (a scene, or what lies in a module), while Build is shown; else null. */
export function sceneAtHand(): Scene | null {
  if (!location.pathname.startsWith('/build')) return null;
  const { sceneId } = sessionStore.getState();
  return sceneAt(showStore.getState().show, sceneId);
}

/** The chosen nodes of that scene. */
export function chosenNodes(): string[] {
  const scene = sceneAtHand();
  return scene ? sessionStore.getState().selection.filter((id) => scene.nodes[id]) : [];
}

/** The chosen outputs, while the Wall is shown. */
export const chosenOutputs = (): readonly string[] =>
  location.pathname.startsWith('/wall') ? wallSession.getState().chosen : [];
