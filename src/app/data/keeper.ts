import type { Show } from '../../core/show/types';
import { catalogue } from '../../nodes/catalogue';
import { readShow } from '../../core/show/validate';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';
import { database } from './db';
import { giveFiles } from './files';
import { sessionStore } from './session';
import { openShow, showStore } from './show-store';

/** Milliseconds from the first unsaved edit until it is written. */
const saveMs = 400;

export const demoShowId = 'night-apiary';

let timer: number | null = null;
let dirty = false;

async function save(): Promise<void> {
  if (timer !== null) clearTimeout(timer);
  timer = null;
  if (!dirty) return;
  dirty = false;
  const { id, show } = showStore.getState();
  if (!id) return;
  try {
    await database.shows.update(id, { show, name: show.name, updated: Date.now() });
  } catch (error) {
    dirty = true;
    say({
      tone: 'error',
      text: `The show could not be saved in this browser (${String(error)}). Export it to keep it.`,
    });
  }
}

async function saveSession(): Promise<void> {
  const { sceneId, selection } = sessionStore.getState();
  const { id } = showStore.getState();
  if (!id) return;
  const { program, incoming } = liveStore.getState().program;
  await database.session.put({
    id: 'here',
    showId: id,
    sceneId,
    selection: [...selection],
    program: incoming ?? program,
  });
}

/** Fetches the demo show that ships with the app. */
export async function fetchDemo(): Promise<Show> {
  const response = await fetch('/demo/night-apiary.pyrvel.json');
  if (!response.ok) throw new Error(`The demo show is not there (${response.status}).`);
  return readShow(await response.text(), catalogue).show;
}

/** Puts the demo show back as it ships; a changed one is kept beside it under another name. */
export async function restoreDemo(): Promise<string> {
  const show = await fetchDemo();
  await save();
  const old = await database.shows.get(demoShowId);
  if (old && JSON.stringify(old.show) !== JSON.stringify(show)) {
    await database.shows.put({
      ...old,
      id: newShowId(),
      name: `${old.name} (changed)`,
      show: { ...old.show, name: `${old.name} (changed)` },
    });
  }
  await database.shows.put({
    id: demoShowId,
    name: show.name,
    updated: Date.now(),
    show,
    picture: old?.picture,
  });
  return demoShowId;
}

export const newShowId = (): string => crypto.randomUUID();

/** Opens a stored show in the editor and the engine. */
export async function loadShow(
  id: string,
  place?: { sceneId: string; selection: string[]; program: string },
): Promise<boolean> {
  const stored = await database.shows.get(id);
  if (!stored) return false;
  await save();
  // Shows kept by older versions are brought up to date as files are.
  const { show } = readShow(JSON.stringify(stored.show), catalogue);
  const has = (scene: string | undefined): scene is string => show.scenes.some((s) => s.id === scene);
  const sceneId = has(place?.sceneId) ? place!.sceneId : show.scenes[0].id;
  const program = has(place?.program) ? place!.program : sceneId;
  openShow(id, show);
  sessionStore.setState({ sceneId, selection: place?.selection ?? [], wire: null });
  engine().open(show, program);
  void giveFiles(show);
  await saveSession();
  return true;
}

/** Comes back to where the performer was; on the first visit, to the demo show. */
export async function comeBack(): Promise<void> {
  const session = await database.session.get('here');
  if (session && (await loadShow(session.showId, session))) return;
  const [latest] = await database.shows.orderBy('updated').reverse().limit(1).toArray();
  if (latest && (await loadShow(latest.id))) return;
  await loadShow(await restoreDemo());
}

/** Keeps the database in step with the open show, and the engine with it; called once. */
export function keepEverything(): void {
  showStore.subscribe((now, before) => {
    if (now.id !== before.id || !now.id) return;
    if (now.show === before.show) return;
    engine().update(now.show);
    dirty = true;
    timer ??= window.setTimeout(() => void save(), saveMs);
  });
  sessionStore.subscribe((now, before) => {
    if (now.sceneId !== before.sceneId || now.selection !== before.selection) void saveSession();
  });
  liveStore.subscribe((now, before) => {
    const at = (s: typeof now): string => s.program.incoming ?? s.program.program;
    if (at(now) !== at(before)) void saveSession();
  });
  window.addEventListener('pagehide', () => void save());
  document.addEventListener('visibilitychange', () => void save());
}

/** Takes a small picture of the open show's first scene for the list. */
export async function keepPicture(): Promise<void> {
  const { id, show } = showStore.getState();
  if (!id) return;
  try {
    const { png } = await engine().ask({
      what: 'picture',
      scene: show.scenes[0].id,
      width: 320,
      height: 180,
    });
    await database.shows.update(id, { picture: new Blob([png], { type: 'image/png' }) });
  } catch {
    // The list does without: a picture is never worth a message in the middle of a show.
  }
}

export const saveNow = save;
