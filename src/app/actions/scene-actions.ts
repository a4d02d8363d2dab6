import { forgetScene } from '../../core/show/edit-desk';
import { freeId, freeName, makeScene, structuredCloneOf } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import type { Scene, Show } from '../../core/document/types';
import { openScene } from '../data/session';
import { editShow, showStore, undo } from '../data/show-store';
import { say } from '../parts/notices';

const named = (
  scenes: readonly { id: string; name: string }[],
  name: string,
): { id: string; name: string } => ({
  id: freeId(
    's',
    scenes.map((scene) => scene.id),
  ),
  name: freeName(
    name,
    scenes.map((scene) => scene.name),
  ),
});

/** What a new scene of a show has of its own, called as is wanted or nearly so. `id`: that of a scene that is only renamed. */
export function freshScene(show: Show, name: string, id?: string): Pick<Scene, 'id' | 'name'> {
  const others = show.scenes.filter((scene) => scene.id !== id);
  return { ...named(others, name), ...(id === undefined ? {} : { id }) };
}

/** Adds an empty scene at the end and opens it. */
export function addScene(): void {
  const id = editShow((show) => {
    const fresh = named(show.scenes, 'Scene 1');
    show.scenes.push(makeScene(catalogue, fresh.id, fresh.name));
    return fresh.id;
  });
  if (id) openScene(id);
}

/** Copies a scene to the place after it and opens the copy. */
export function duplicateScene(sceneId: string): void {
  const id = editShow((show) => {
    const source = show.scenes.find((scene) => scene.id === sceneId)!;
    const copy = { ...structuredCloneOf(source), ...named(show.scenes, source.name) };
    show.scenes.splice(show.scenes.indexOf(source) + 1, 0, copy);
    return copy.id;
  });
  if (id) openScene(id);
}

/** Moves a scene to the place of another, which makes room. */
export function moveScene(sceneId: string, toPlaceOf: string): void {
  editShow((show) => {
    const from = show.scenes.findIndex(({ id }) => id === sceneId);
    const to = show.scenes.findIndex(({ id }) => id === toPlaceOf);
    if (from < 0 || to < 0 || from === to) return;
    const [scene] = show.scenes.splice(from, 1);
    show.scenes.splice(to, 0, scene);
  });
}

/** Deletes a scene and opens its neighbour; the last one stays. */
export function removeScene(sceneId: string): void {
  const { scenes } = showStore.getState().show;
  if (scenes.length === 1) {
    say({ tone: 'warning', text: 'A show keeps at least one scene. Add another before this one goes.' });
    return;
  }
  const at = scenes.findIndex((scene) => scene.id === sceneId);
  const { name } = scenes[at];
  const neighbour = scenes[at === 0 ? 1 : at - 1].id;
  editShow((show) => {
    show.scenes.splice(at, 1);
    forgetScene(show, sceneId);
  });
  openScene(neighbour);
  say({
    tone: 'info',
    text: `${name} is deleted.`,
    action: { label: 'Undo', run: () => (undo(), openScene(sceneId)) },
  });
}
