import type { PerformanceState } from '../../core/desk/performance-state';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';
import { emptyBin } from './bin';
import { database, type StoredShow } from './db';
import { giveFiles } from './files';
import { keepPerformance, keptPerformance, standing, type Standing } from './kept-performance';
import { clearJournal, journalOf, noteAtOnce, noteOnDisk, withNoted } from './journal';
import { openingStore } from './opened';
import { askToSave, letGo, own, ownership, saveWhenAsked } from './ownership';
import { sessionStore } from './session';
import { openShow, showStore } from './show-store';

/** What reads and checks shows is large: it comes beside the first look of the page. */
const reader = import('../../core/show/validate');

/** Milliseconds from an edit until the database has a note of it. */
const noteMs = 400;
/**
 * Milliseconds from the last edit until the whole show is written. The browser copies all of it for that, in which it answers nothing:
 * 40 to 60 ms for the demo show. Hands rest then.
 */
const saveMs = 1500;

export const demoShowId = 'night-apiary';

let timer: number | undefined;
let noteTimer: number | undefined;
/** What the database holds of the open show. */
let stored: { show: Show; updated: number } | null = null;
/** Edits of it that the database does not hold as a whole: notes are told apart by them. */
let edits = 0;
let saving: Promise<void> = Promise.resolve();

/** Writes the open show into the database if it differs from what is there; one writing after the other. */
function save(): Promise<void> {
  clearTimeout(timer);
  clearTimeout(noteTimer);
  noteTimer = undefined;
  saving = saving.then(write);
  return saving;
}

/** Writes into the database how the open show differs from what is there. */
function note(): Promise<void> {
  noteTimer = undefined;
  saving = saving.then(async () => {
    const { id, show } = showStore.getState();
    if (!id || !stored || stored.show === show || ownership.getState().elsewhere) return;
    await orSay(() => noteOnDisk(id, journalOf(stored!, show, edits)));
  });
  return saving;
}

/** Why nothing can be written just now, in a rehearsal; null: it is no rehearsal. */
let refusal: Error | null = null;

/** Has the storage of the open show refuse to take anything for a while, as a full one does; gives whether its edits were safe all the same. */
export async function rehearseFullStorage(ms: number): Promise<boolean> {
  const { id, show } = showStore.getState();
  if (!id || !stored) return false;
  refusal = new DOMException('rehearsal: the storage is full', 'QuotaExceededError');
  try {
    const isNoted = noteAtOnce(id, journalOf(stored, show, edits));
    // As if the show had been edited: what is stored is written again.
    stored = { ...stored, show: { ...stored.show } };
    await save();
    await new Promise((resolve) => setTimeout(resolve, ms));
    return isNoted;
  } finally {
    refusal = null;
    await save();
  }
}

async function write(): Promise<void> {
  const { id, show } = showStore.getState();
  if (!id || !stored || stored.show === show || ownership.getState().elsewhere) return;
  // Later than what is there, whatever the clock says: the journal goes by it.
  const updated = Math.max(Date.now(), stored.updated + 1);
  if (!(await orSay(() => database.shows.update(id, { show, name: show.name, updated })))) return;
  const now = showStore.getState();
  if (now.id !== id) return;
  stored = { show, updated };
  if (now.show === show) await clearJournal(id);
  else noteAtOnce(id, journalOf(stored, now.show, edits));
}

/** Has the database keep something of the open show; where it can't, says so. Gives whether it is kept. */
async function orSay(keep: () => Promise<unknown>): Promise<boolean> {
  try {
    if (refusal) throw refusal;
    await keep();
    return true;
  } catch (error) {
    say({
      tone: 'error',
      text: `The show could not be saved in this browser (${String(error)}). Export it to keep it.`,
    });
    return false;
  }
}

async function saveSession(): Promise<void> {
  const { id } = showStore.getState();
  if (!id) return;
  const { sceneId, selection, program } = here();
  await database.session.put({ id: 'here', showId: id, sceneId, program, selection: [...selection] });
}

/** Fetches the demo show that ships with the app. */
async function fetchDemo(): Promise<Show> {
  const response = await fetch('/demo/night-apiary.pyrvel.json');
  if (!response.ok) throw new Error(`The demo show is not there (${response.status}).`);
  const { readShow } = await reader;
  return readShow(await response.text(), catalogue).show;
}

/** Puts the demo show back as it ships; a changed one is kept beside it under another name. */
export async function restoreDemo(): Promise<string> {
  const show = await fetchDemo();
  await save();
  const old = await database.shows.get(demoShowId);
  await clearJournal(demoShowId);
  if (old && old.deleted === undefined && JSON.stringify(old.show) !== JSON.stringify(show)) {
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

/** The show of that id, if it is there and not deleted. */
async function storedShow(id: string): Promise<StoredShow | null> {
  const found = await database.shows.get(id);
  return found && found.deleted === undefined ? found : null;
}

/** A stored show as it is read today. One that cannot be opened stays as it is, and that is said. */
async function readStored({ show, name }: StoredShow): Promise<Show | null> {
  const { readShow, ShowFileError } = await reader;
  try {
    return readShow(JSON.stringify(show), catalogue).show;
  } catch (error) {
    if (!(error instanceof ShowFileError)) throw error;
    say({ tone: 'error', text: `“${name}” can't be opened; nothing of it is changed. ${error.message}` });
    return null;
  }
}

/** The show that was edited last. */
export const latestShow = (): Promise<StoredShow | undefined> =>
  database.shows
    .orderBy('updated')
    .reverse()
    .filter(({ deleted }) => deleted === undefined)
    .first();

/** Opens a stored show in the editor and the engine. `takeOver`: also where another tab edits it. */
export async function loadShow(id: string, place?: Place, takeOver = false): Promise<boolean> {
  if (!(await storedShow(id))) return false;
  await save();
  if (takeOver) await askToSave(id);
  await own(id, () => void loadShow(id, here()), takeOver);
  const found = await storedShow(id);
  if (!found) return false;
  // Shows kept by older versions are brought up to date as files are.
  const read = await readStored(found);
  if (!read) {
    letGo();
    return false;
  }
  stored = { show: read, updated: found.updated };
  const { show, ...noted } = ownership.getState().elsewhere
    ? { show: read, edits: 0 }
    : await withNoted(id, stored);
  edits = noted.edits;
  const has = (scene: string | undefined): scene is string => show.scenes.some((s) => s.id === scene);
  const sceneId = has(place?.sceneId) ? place!.sceneId : show.scenes[0].id;
  const program = has(place?.program) ? place!.program : sceneId;
  // The show that is open already is only read again: the stage goes on.
  const isOpen = showStore.getState().id === id;
  const going = place?.going ?? (isOpen ? standing() : null);
  openShow(id, show);
  sessionStore.setState({ sceneId, selection: place?.selection ?? [], wire: null });
  engine().open(show, program, going?.resume ?? null, going?.due);
  void giveFiles(show);
  await save();
  await saveSession();
  return true;
}

/**
 * Opens a show that another machine performs, at its state; this browser keeps it under an id of its own. `isOwn`: what is kept
 * there was edited here without the other one, and stays beside it under another name.
 */
export async function openCopy(
  id: string,
  show: Show,
  resume: PerformanceState,
  isOwn: boolean,
): Promise<boolean> {
  await save();
  await clearJournal(id);
  const old = isOwn ? await database.shows.get(id) : undefined;
  if (old && JSON.stringify(old.show) !== JSON.stringify(show)) {
    const name = `${old.name} (of this machine)`;
    await database.shows.put({ ...old, id: newShowId(), name, show: { ...old.show, name } });
    say({ tone: 'info', text: `What was edited here alone is kept in Shows as “${name}”.` });
  }
  await database.shows.put({ id, name: show.name, updated: Date.now(), show });
  const { program } = resume.program;
  return loadShow(id, { sceneId: program, selection: [], program, going: { resume, due: [] } });
}

/** Where this tab is in a show. */
interface Place {
  sceneId: string;
  selection: readonly string[];
  /** Scene on air. */
  program: string;
  /** How the performance stood, if it goes on; undefined: as it stands when the show is opened, if that is the open one. */
  going?: Standing | null;
}

const here = (): Place => {
  const { sceneId, selection } = sessionStore.getState();
  const { program, incoming } = liveStore.getState().program;
  return { sceneId, selection, program: incoming ?? program };
};

/** Goes on editing the open show here, though another tab has it. */
export const takeOver = (): Promise<boolean> => loadShow(showStore.getState().id, here(), true);

async function openLast(): Promise<void> {
  await emptyBin();
  const session = await database.session.get('here');
  if (session) {
    const going = keptPerformance(session.showId);
    if (await loadShow(session.showId, { ...session, going })) return;
  }
  const latest = await latestShow();
  if (latest && (await loadShow(latest.id))) return;
  await loadShow(await restoreDemo());
}

/** Comes back to where the performer was; on the first visit, to the demo show. */
export async function comeBack(): Promise<void> {
  try {
    await openLast();
  } catch (error) {
    openingStore.setState({ failure: error instanceof Error ? error.message : String(error) });
  }
}

/** Keeps the database in step with the open show, and the engine with it; called once. */
export function keepEverything(): void {
  showStore.subscribe((now, before) => {
    if (now.id !== before.id || !now.id) return;
    if (now.show === before.show) return;
    engine().update(now.show);
    edits++;
    const isNoted = stored !== null && noteAtOnce(now.id, journalOf(stored, now.show, edits));
    noteTimer ??= window.setTimeout(() => void note(), isNoted ? noteMs : 0);
    clearTimeout(timer);
    timer = window.setTimeout(() => void save(), saveMs);
  });
  sessionStore.subscribe((now, before) => {
    if (now.sceneId !== before.sceneId || now.selection !== before.selection) void saveSession();
  });
  liveStore.subscribe((now, before) => {
    const at = (s: typeof now): string => s.program.incoming ?? s.program.program;
    if (at(now) !== at(before)) void saveSession();
  });
  saveWhenAsked(save);
  keepPerformance(() => showStore.getState().id);
  window.addEventListener('pagehide', () => void save());
  document.addEventListener('visibilitychange', () => void save());
}

/** Takes a small picture of the open show's first scene for the list. */
export async function keepPicture(): Promise<void> {
  const { id, show } = showStore.getState();
  if (!id) return;
  try {
    const { png } = await engine().request({
      type: 'picture',
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
