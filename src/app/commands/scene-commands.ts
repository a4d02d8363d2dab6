import { sceneOfPlace } from '../../core/module/place';
import { offerStarts } from '../data/start-session';
import { openScene } from '../data/session';
import { showStore } from '../data/show-store';
import type { Scene } from '../../core/document/types';
import { addScene, duplicateScene, moveScene, removeScene } from '../actions/scene-actions';
import { sceneAtHand } from './at-hand';
import type { Command } from './command';

/** The scene that is open, or that the open module lies in. */
const sceneOfHand = (): string => sceneOfPlace(sceneAtHand()!.id);

const isBuild = (): boolean => sceneAtHand() !== null;

/** Opens the scene so many places further on, round the end. */
function go(by: number): void {
  const { scenes } = showStore.getState().show;
  const at = scenes.findIndex(({ id }) => id === sceneOfHand());
  openScene(scenes[(at + by + scenes.length) % scenes.length].id);
}

/** The scene so many places from the open one, if there is one. */
function neighbour(by: number): Scene | undefined {
  const { scenes } = showStore.getState().show;
  return scenes[scenes.findIndex(({ id }) => id === sceneOfHand()) + by] as Scene | undefined;
}

const moves = [
  ['forward', 'Move the scene before its neighbour', -1],
  ['back', 'Move the scene after its neighbour', 1],
] as const;

export const sceneCommands: readonly Command[] = [
  {
    id: 'scene.start',
    label: 'Begin a scene',
    help: 'Offers twelve scenes to begin from, and an empty one',
    keys: ['Alt+N'],
    when: isBuild,
    run: () => offerStarts('another'),
  },
  {
    id: 'scene.new',
    label: 'New empty scene',
    help: 'Adds an empty scene at the end and opens it',
    when: isBuild,
    run: addScene,
  },
  {
    id: 'scene.duplicate',
    label: 'Duplicate scene',
    help: 'Copies the open scene and opens the copy',
    when: isBuild,
    run: () => duplicateScene(sceneOfHand()),
  },
  {
    id: 'scene.delete',
    label: 'Delete scene',
    help: 'Deletes the open scene; the message that follows can undo it',
    when: isBuild,
    run: () => removeScene(sceneOfHand()),
  },
  ...moves.map(([id, label, by]): Command => ({
    id: `scene.${id}`,
    label,
    help: 'Changes the order of the scenes; their tabs can be dragged as well',
    words: ['reorder', 'sort'],
    when: () => isBuild() && neighbour(by) !== undefined,
    run: () => moveScene(sceneOfHand(), neighbour(by)!.id),
  })),
  {
    id: 'scene.after',
    label: 'Open the scene after this one',
    help: 'Opens the scene after this one in Build; the stage stays as it is',
    keys: ['Alt+ArrowRight'],
    when: isBuild,
    run: () => go(1),
  },
  {
    id: 'scene.before',
    label: 'Open the scene before this one',
    help: 'Opens the scene before this one in Build; the stage stays as it is',
    keys: ['Alt+ArrowLeft'],
    when: isBuild,
    run: () => go(-1),
  },
];
