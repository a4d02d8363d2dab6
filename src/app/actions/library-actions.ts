import { toBase64 } from '../../core/base64';
import { readModule, writeModule } from '../../core/show/module-file';
import {
  conflictsWith,
  isSameModule,
  moduleChanges,
  packModule,
  takeModules,
  type ModulePack,
} from '../../core/show/module-pack';
import { ShowFileError } from '../../core/show/validate';
import { moduleIdOf, moduleKindId } from '../../core/module/module-kind';
import { addNode } from '../../core/show/edit';
import { freePlace } from '../../core/show/free-place';
import { refuseInItself, usesOf } from '../../core/show/edit-module';
import { moduleAt } from '../../core/module/open-place';
import { catalogueWith } from '../../core/module/show-catalogue';
import type { PatchNode, Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { database } from '../data/db';
import { giveFiles, nameOf } from '../data/files';
import { libraryStore, loadLibrary, packOf, putInLibrary } from '../data/module-library';
import { editScene, editShow, showStore } from '../data/show-store';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { editPatch } from './module-actions';

/** Keeps a module of the show in the library; where that has another state of it, as its next version. */
export async function keepInLibrary(id: string): Promise<void> {
  await loadLibrary();
  const { show } = showStore.getState();
  const kept = packOf(id)?.modules[id];
  const module = show.modules[id];
  if (kept && isSameModule(kept, module) && libraryStore.getState().modules.some((one) => one.id === id)) {
    say({ tone: 'info', text: `${module.name} is in the library as it is.` });
    return;
  }
  const version =
    kept && !isSameModule(kept, module) ? Math.max(kept.version, module.version) + 1 : module.version;
  if (version !== module.version) editShow((draft) => void (draft.modules[id].version = version));
  const pack = packModule(showStore.getState().show, catalogue, id);
  await putInLibrary({ id, name: module.name, pack, updated: Date.now() });
  say({
    tone: 'info',
    text: `${module.name} is in the library, version ${version}. Add finds it in every show.`,
  });
}

/** Saves a module of the show as a file. */
export async function exportModule(id: string): Promise<void> {
  const pack = packModule(showStore.getState().show, catalogue, id);
  const bytes: Record<string, string> = {};
  for (const file of Object.keys(pack.files)) {
    const stored = await database.files.get(file);
    if (stored) bytes[file] = toBase64(new Uint8Array(await stored.blob.arrayBuffer()));
  }
  const name = pack.modules[id].name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'module';
  saveAs(new Blob([writeModule(pack, bytes)], { type: 'application/json' }), `${name}${moduleEnding}`);
}

/** Files that came with a module are kept by what they hold: under another name than that they are not taken. */
async function keepBytes(pack: ModulePack, bytes: Readonly<Record<string, string>>): Promise<void> {
  for (const [id, base64] of Object.entries(bytes)) {
    if (!Object.hasOwn(pack.files, id)) continue;
    const held = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
    const blob = new Blob([held], { type: pack.files[id].type });
    if (id === `f${await nameOf(blob)}`) await database.files.put({ id, blob });
  }
}

/** Puts a node of a module into a patch, with its middle at a place. */
function placeModule(scene: Scene, module: string, at: readonly [number, number]): string | null {
  const { show } = showStore.getState();
  const id = editScene(scene.id, (draft) => {
    refuseInItself(show, module, moduleAt(show, scene.id)?.id ?? null);
    return addNode(draft, catalogueWith(catalogue, show.modules), moduleKindId(module), [
      Math.round(at[0]),
      Math.round(at[1]),
    ]);
  });
  if (id) choose([id]);
  return id;
}

/** Brings in a module from a file, and puts a node of it into the patch. What differs from one that is there is asked for. */
async function importModule(text: string, scene: Scene, at: readonly [number, number]): Promise<void> {
  try {
    const { pack, bytes } = readModule(text, catalogue);
    await keepBytes(pack, bytes);
    const take = (conflict: 'keep' | 'beside'): string | null => {
      const main = editShow((draft) => takeModules(draft as Show, pack, conflict));
      void giveFiles(showStore.getState().show);
      return main && placeModule(scene, main, at);
    };
    const conflicts = conflictsWith(showStore.getState().show, pack);
    const [first] = conflicts;
    if (!first) {
      take('keep');
      return;
    }
    const placed = take('beside');
    const { before, after } = first;
    say({
      tone: 'warning',
      text: `${before.name} is in this show as version ${before.version}; the file has version ${after.version}. ${moduleChanges(before, after, catalogue).join(' ')} It came in beside it.`,
      action: { label: 'Replace instead', run: () => replaceInstead(pack, scene.id, placed) },
    });
  } catch (error) {
    if (!(error instanceof ShowFileError)) throw error;
    say({ tone: 'error', text: error.message });
  }
}

/** Takes the modules of a pack in place of those of the show that have their ids. */
function replaceBy(pack: ModulePack): void {
  editShow((draft) => void takeModules(draft as Show, pack, 'replace'));
  void giveFiles(showStore.getState().show);
}

const moduleEnding = '.pyrvel-module.json';

export const takeModuleFile = async (
  file: File,
  scene: Scene,
  at: readonly [number, number],
): Promise<void> => importModule(await file.text(), scene, at);

/** Asks for module files and brings them into a patch. */
export function chooseModuleFiles(scene: Scene): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = '.json';
  input.multiple = true;
  input.onchange = () => {
    [...(input.files ?? [])].forEach((file, k) => {
      void takeModuleFile(file, scene, freePlace(scene, [200 * k, 0]));
    });
  };
  input.click();
}

/** Puts a module that came in beside another in its place: the node that was placed is one of it as well. */
function replaceInstead(pack: ModulePack, place: string, placed: string | null): void {
  replaceBy(pack);
  editPatch(place, (show, patch) => {
    const node = placed === null ? undefined : (patch.nodes[placed] as PatchNode | undefined);
    const beside = node && moduleIdOf(node.kind);
    if (!node || !beside) return;
    node.kind = moduleKindId(pack.main);
    if (usesOf(show, beside) === 0) delete show.modules[beside];
  });
}

/** Takes the newer version of a module that the library has. */
export function updateFromLibrary(id: string): void {
  const pack = packOf(id);
  if (pack) replaceBy(pack);
}
