import { sceneOfPlace } from '../../core/module/place';
import { catalogue } from '../../nodes/catalogue';
import { openScene, sessionStore } from '../data/session';
import { redo, showStore, undo } from '../data/show-store';
import { say } from '../parts/notices';

/** Goes a step of undo or redo, says what it was, and shows the scene it was made in. */
async function go(step: () => void, isUndo: boolean): Promise<void> {
  const { show: before } = showStore.getState();
  step();
  const { show: after } = showStore.getState();
  if (before === after) return;
  const { describeChange } = await import('../../core/show/describe-change');
  const told = isUndo ? describeChange(after, before, catalogue) : describeChange(before, after, catalogue);
  say({ tone: 'info', text: `${isUndo ? 'Undone' : 'Made again'}: ${told.text}.` });
  const { sceneId } = sessionStore.getState();
  const isThere = told.scene !== null && after.scenes.some(({ id }) => id === told.scene);
  if (isThere && location.pathname.startsWith('/build') && sceneOfPlace(sceneId) !== told.scene)
    openScene(told.scene!);
}

export const undoStep = (): void => void go(undo, true);
export const redoStep = (): void => void go(redo, false);
