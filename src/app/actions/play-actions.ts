import type { Scene } from '../../core/document/types';
import { putOnDesk, storeSnapshot, writeDesk } from '../../core/show/edit-desk';
import { storedValue } from '../../core/desk/value';
import { catalogue } from '../../nodes/catalogue';
import { playSession } from '../data/play-session';
import { editShow, showStore } from '../data/show-store';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';

/** Words by which a control that is dragged is known. */
export const controlDrag = 'application/x-pyrvel-control';

/** Page that a scene button lies on. */
export const scenePageOf = (scene: Scene): number => scene.button?.page ?? 1;

/** Scenes whose buttons are shown: those of the page, or all that are found. */
export function scenesShown(): readonly Scene[] {
  const { scenes } = showStore.getState().show;
  const { scenePage, search } = playSession.getState();
  return shownOf(scenes, scenePage, search);
}

/** The same of any scenes. */
export function shownOf(scenes: readonly Scene[], page: number, search: string): readonly Scene[] {
  const wanted = search.trim().toLowerCase();
  if (wanted) return scenes.filter(({ name }) => name.toLowerCase().includes(wanted));
  return scenes.filter((scene) => scenePageOf(scene) === page);
}

/** Puts a control of a node on the desk and says so. */
export function sendToDesk(scene: string, node: string, part: string): void {
  const id = editShow((show) => putOnDesk(show, catalogue, { scene, node, part }));
  if (id === null) return;
  const { show } = showStore.getState();
  const page = show.desk.find(({ controls }) => controls.some((one) => one.id === id))!;
  const { name } = page.controls.find((one) => one.id === id)!;
  say({ tone: 'info', text: `${name} is on the desk, on the page ${page.name} of Play.` });
}

/** How controls of pages stand now, as the engine last said. */
function standing(pageIds: readonly string[]): Record<string, number[] | string> {
  const { show } = showStore.getState();
  const { values } = liveStore.getState().desk;
  return Object.fromEntries(
    show.desk
      .filter(({ id }) => pageIds.includes(id))
      .flatMap(({ controls }) =>
        controls
          .filter(({ stored }) => stored)
          .map((control) => [control.id, values[control.id] ?? storedValue(show, control, catalogue)]),
      ),
  );
}

/** Stores how a page stands as a new snapshot, or in one that is there. */
export function takeSnapshot(page: string, into: string | null = null): void {
  const { show } = showStore.getState();
  const scene = show.desk.find(({ id }) => id === page)?.scene ?? null;
  editShow((draft) => storeSnapshot(draft, standing([page]), scene, into));
}

/** What the desk stands at becomes what the patches hold. */
export function keepDesk(): void {
  const { values } = liveStore.getState().desk;
  editShow((show) => writeDesk(show, catalogue, values));
}
