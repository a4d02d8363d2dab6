import { castDraft, produce, type Draft } from 'immer';
import { temporal } from 'zundo';
import { create, useStore } from 'zustand';
import { EditError } from '../../core/show/edit';
import { rebased } from '../../core/show/rebase';
import { tidyModule } from '../../core/show/edit-module';
import { makeShow } from '../../core/show/create';
import { moduleAt, sceneAt } from '../../core/module/open-place';
import { splitPlace } from '../../core/module/place';
import type { Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { say } from '../parts/notices';
import { lockStore } from './lock';
import { ownership } from './ownership';

interface ShowState {
  /** Key in the database; empty while no show is open. */
  id: string;
  show: Show;
}

/** The open show. Undo covers the document and nothing else. */
export const showStore = create<ShowState>()(
  temporal((): ShowState => ({ id: '', show: makeShow(catalogue, 'Untitled') }), {
    partialize: ({ show }) => ({ show }),
    equality: (a, b) => a.show === b.show,
    limit: 400,
  }),
);

/** Rises when kinds of modules have changed. */
const kindsStore = create<{ version: number }>()(() => ({ version: 0 }));

// Kinds of modules are there before anything that looks them up is drawn again.
showStore.subscribe(({ show }) => {
  if (catalogue.take(show.modules)) kindsStore.setState(({ version }) => ({ version: version + 1 }));
});

/** For what shows kinds: has it drawn again when those of modules have changed. */
export const useKinds = (): number => kindsStore((s) => s.version);

/** Edits with the same key that follow each other become one step of undo: all moves of one drag. */
let gesture: string | null = null;

/** Whether the show can be edited here; another tab that has it would save over it. */
const isHere = (): boolean => !ownership.getState().elsewhere;

/** Says that an edit is not made while the show is locked. */
function refuseLocked(): boolean {
  const { locked } = lockStore.getState();
  if (locked) say({ tone: 'info', text: 'The show is locked. Unlock it to change it (Ctrl+Shift+K).' });
  return locked;
}

function commit(next: Show, gestureKey: string | null): void {
  const { show } = showStore.getState();
  // What is played goes on, and so does the tempo that follows a source.
  if (next === show || !isHere() || (gestureKey !== 'clock' && refuseLocked())) return;
  const history = showStore.temporal.getState();
  const goesOn = gestureKey !== null && gestureKey === gesture;
  if (goesOn) history.pause();
  showStore.setState({ show: next });
  if (goesOn) history.resume();
  gesture = gestureKey;
}

/** Changes the show. What makes no sense is said and changes nothing; gives what the recipe gives, or null then. */
export function editShow<T>(recipe: (show: Draft<Show>) => T, gestureKey: string | null = null): T | null {
  let result: T | null = null;
  try {
    const next = produce(showStore.getState().show, (draft) => {
      result = recipe(draft);
    });
    commit(next, gestureKey);
    return result;
  } catch (error) {
    if (!(error instanceof EditError)) throw error;
    say({ tone: 'warning', text: error.message });
    return null;
  }
}

/** Takes what somebody else did to the show on another machine. It is no step here: undo goes back past it and leaves it as it is. */
export function takeFromOthers(next: Show): void {
  const { show: before } = showStore.getState();
  if (next === before) return;
  const history = showStore.temporal.getState();
  const withTheirs = (states: readonly Partial<{ show: Show }>[]): { show: Show }[] =>
    states.map(({ show }) => ({ show: rebased(show!, before, next) }));
  history.pause();
  showStore.setState({ show: next });
  showStore.temporal.setState({
    pastStates: withTheirs(history.pastStates),
    futureStates: withTheirs(history.futureStates),
  });
  history.resume();
}

/** Changes one patch of the show: that of a scene, or what lies in a module ("s1/n5"). */
export function editScene<T>(
  place: string,
  recipe: (scene: Scene) => T,
  gestureKey: string | null = null,
): T | null {
  return editShow((show) => {
    const { scene: id, path } = splitPlace(place);
    const scene = show.scenes.find((s) => s.id === id) as Scene | undefined;
    if (!scene) throw new EditError('This scene is gone.');
    if (path.length === 0) return recipe(scene);
    const module = moduleAt(show as Show, place);
    if (!module) throw new EditError('This module is gone.');
    const { name, nodes, wires, frames } = module;
    const patch: Scene = { id: place, name, loop: scene.loop, nodes, wires };
    if (frames) patch.frames = frames;
    const result = recipe(patch);
    if (patch.frames) module.frames = patch.frames;
    tidyModule(show as Show, catalogue, module);
    return result;
  }, gestureKey);
}

/** Ends a gesture: the next edit is a step of its own. */
export const endGesture = (): void => {
  gesture = null;
};

/** Opens a show: nothing before it can be undone. */
export function openShow(id: string, show: Show): void {
  gesture = null;
  showStore.setState({ id, show: castDraft(show) });
  showStore.temporal.getState().clear();
}

export function undo(): void {
  gesture = null;
  if (isHere() && !refuseLocked()) showStore.temporal.getState().undo();
}

export function redo(): void {
  gesture = null;
  if (isHere() && !refuseLocked()) showStore.temporal.getState().redo();
}

export const useShow = <T>(pick: (show: Show) => T): T => useStore(showStore, (state) => pick(state.show));

/** The patch at a place: a scene, or what lies in a module, as a scene. */
export const useScene = (place: string): Scene | undefined =>
  useShow((show) => sceneAt(show, place) ?? undefined);
