import { moduleIdOf, moduleKindId } from '../../core/module/module-kind';
import { moduleAt } from '../../core/module/open-place';
import { inside, placeAround, splitPlace } from '../../core/module/place';
import { EditError, renameNode } from '../../core/show/edit';
import { bringOut, refuseInItself, takeIn } from '../../core/show/edit-module';
import { takeModules, type ModulePack } from '../../core/show/module-pack';
import type { Module, Patch, Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose, openScene, sessionStore } from '../data/session';
import { giveFiles } from '../data/files';
import { editShow, showStore } from '../data/show-store';

/** The module of a node of a patch, if it is one. */
export function moduleOfNode(show: Show, node: { kind: string } | undefined): Module | null {
  const id = node ? moduleIdOf(node.kind) : null;
  return id !== null && Object.hasOwn(show.modules, id) ? show.modules[id] : null;
}

/** The patch of a place while the show is edited: the scene itself, or what lies in a module. */
function patchAt(show: Show, place: string): Patch {
  const { scene, path } = splitPlace(place);
  const patch = path.length ? moduleAt(show, place) : show.scenes.find(({ id }) => id === scene);
  if (!patch) throw new EditError('This patch is gone.');
  return patch;
}

/** Changes what lies at a place, and the show around it. */
export const editPatch = <T>(place: string, recipe: (show: Show, patch: Patch) => T): T | null =>
  editShow((draft) => recipe(draft as Show, patchAt(draft as Show, place)));

/** Brings modules that the show has not into it, while it is edited, for nodes at a place: none of them may lie in itself. */
export function bringModules(show: Show, packs: readonly ModulePack[], place: string): void {
  for (const pack of packs) {
    if (!Object.hasOwn(show.modules, pack.main)) takeModules(show, pack);
    refuseInItself(show, pack.main, moduleAt(show, place)?.id ?? null);
  }
}

/** Hands over the files that came with modules, once the show has these. */
export function giveFilesOf(packs: readonly ModulePack[]): void {
  if (packs.some(({ files }) => Object.keys(files).length > 0)) void giveFiles(showStore.getState().show);
}

/** Opens what lies in a module node. */
export const openModule = (scene: Scene, node: string): void => openScene(inside(scene.id, node));

/** Goes back to where the open module is used, and chooses it there. */
export function leaveModule(): void {
  const around = placeAround(sessionStore.getState().sceneId);
  if (!around) return;
  openScene(around.place);
  choose([around.node]);
}

export const isInModule = (): boolean => placeAround(sessionStore.getState().sceneId) !== null;

/** Changes the module that is edited at a place. */
export const editModule = (
  place: string,
  recipe: (module: Module, show: Show) => void,
  gesture: string | null = null,
): void =>
  void editShow((draft) => {
    const module = moduleAt(draft as Show, place);
    if (!module) throw new EditError('This module is gone.');
    recipe(module, draft as Show);
  }, gesture);

/** Brings a control of a node in the open module out. */
export function bringControlOut(place: string, node: string, control: string): void {
  editModule(place, (module) => void bringOut(module, catalogue, node, control));
}

export const takeControlIn = (place: string, control: string): void =>
  editModule(place, (module, show) => takeIn(show, catalogue, module, control));

/** Gives a module another name; nodes that are called as it was are called so as well. */
export function renameModule(id: string, wanted: string): void {
  const name = wanted.trim().slice(0, 60);
  if (!name) return;
  editShow((draft) => {
    const show = draft as Show;
    const module = show.modules[id];
    if (Object.values(show.modules).some((other) => other.id !== id && other.name === name))
      throw new EditError(`There is a module called ${name} already.`);
    const before = module.name;
    module.name = name;
    for (const patch of [...show.scenes, ...Object.values(show.modules)])
      for (const node of Object.values(patch.nodes))
        if (node.kind === moduleKindId(id) && node.name === before) renameNode(patch, node.id, name);
  });
}
