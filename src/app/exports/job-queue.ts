import { create } from 'zustand';
import { fileOfPiece, frameName, soundPieceName } from '../../core/export/names';
import { loopSentence } from '../../core/export/loop-sentence';
import { framesIn, piecesOf, type ExportPlan } from '../../core/export/schedule';
import { structuredCloneOf } from '../../core/show/create';
import { migrate } from '../../core/show/migrations';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import type { ExportEvent, ExportOrder } from '../../engine/protocol/export';
import { database, type JobState, type StoredJob } from '../data/db';
import { watchStages } from '../data/stage-windows';
import { EngineClient } from '../engine/client';
import { giveInputs } from '../inputs/give-inputs';
import { say } from '../parts/notices';
import { farmPieces } from './farm-pieces';
import { dropFolder, folderOf, ifLetGo, namesIn, resultName, sweepFolders, zipFolder } from './job-files';

/** Share of the time that exports take while a stage window is open, and else. */
const shares = { stage: 0.25, desk: 0.8 };
/** Milliseconds between two writings of how far an export is. */
const noteMs = 1000;
/** Times that an export is begun again by itself after the engine or the graphics were lost. */
const mostStarts = 3;

type Small = Extract<ExportEvent, { what: 'picture' }>;

/** What is known of the export that runs in this window. */
interface RunningJob {
  id: string;
  frames: number;
  /** Frames a second over the last seconds. */
  rate: number;
  picture: Omit<Small, 'what'> | null;
  /** Pieces are being joined. */
  isJoining: boolean;
}

export const runningStore = create<{ running: RunningJob | null }>()(() => ({ running: null }));

const patch = (change: Partial<RunningJob>): void =>
  runningStore.setState(({ running }) => ({ running: running && { ...running, ...change } }));

/** Somebody has paused or removed the export that is running. */
class Stopped extends Error {
  override name = 'Stopped';
}

/** The engine was lost on the way: the export begins again where it was. */
class EngineLost extends Error {
  override name = 'EngineLost';
}

class JobFault extends Error {
  override name = 'JobFault';
}

/** What stops the order that is under way. */
let stop: (() => void) | null = null;
/** Somebody wants the export that runs here to stop: also heard between two orders. */
let isStopAsked = false;
let isWorking = false;
/** Something was put into the queue meanwhile: it may have been looked through already. */
let isAskedAgain = false;

function askToStop(): void {
  isStopAsked = true;
  stop?.();
}

/** Milliseconds between two looks at whether another window has paused or removed what runs in this one. */
const watchMs = 1000;

/** Hears what other windows do with an export. Gives what ends that. */
function watchJob(id: string): () => void {
  const timer = setInterval(() => {
    void database.jobs.get(id).then((now) => {
      if (!now || now.state === 'paused') askToStop();
    });
  }, watchMs);
  return () => clearInterval(timer);
}

const isFileHandle = (handle: StoredJob['goal']): handle is FileSystemFileHandle => handle?.kind === 'file';
const isFolderHandle = (handle: StoredJob['goal']): handle is FileSystemDirectoryHandle =>
  handle?.kind === 'directory';

/** Carries out an order; resolves when it is done. `stoppable` is given what stops it, and null when it has ended. */
export function carryOut(
  client: EngineClient,
  order: ExportOrder,
  seen: (event: ExportEvent) => void,
  stoppable: (stop: (() => void) | null) => void = () => undefined,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const ends: (() => void)[] = [];
    const end = (finish: () => void): void => {
      for (const off of ends) off();
      stoppable(null);
      finish();
    };
    ends.push(
      client.on('export', ({ job, event }) => {
        if (job !== order.job) return;
        if (event.what === 'done') end(resolve);
        else if (event.what === 'failed') {
          const where = event.frame === null ? '' : `Frame ${event.frame}: `;
          end(() => reject(event.isLost ? new EngineLost() : new JobFault(where + event.message)));
        } else seen(event);
      }),
      client.on('graphics', ({ state }) => {
        if (state === 'lost' || state === 'none') end(() => reject(new EngineLost()));
      }),
    );
    stoppable(() => {
      client.send({ type: 'export', order: { do: 'cancel', job: order.job } });
      end(() => reject(new Stopped()));
    });
    client.send({ type: 'export', order });
  });
}

/** Carries out an order of the export that runs here: it stops where that is paused. */
function carryOutOfQueue(
  client: EngineClient,
  order: ExportOrder,
  seen: (event: ExportEvent) => void = () => undefined,
): Promise<void> {
  if (isStopAsked) return Promise.reject(new Stopped());
  return carryOut(client, order, seen, (now) => (stop = now));
}

/** Waits; rejects where the export is stopped meanwhile. */
function untilStopped(ms: number): Promise<void> {
  if (isStopAsked) return Promise.reject(new Stopped());
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => {
      stop = null;
      resolve();
    }, ms);
    stop = () => {
      stop = null;
      clearTimeout(timer);
      reject(new Stopped());
    };
  });
}

/** An engine beside that of the stage, with a show and all its files: nothing it does can cost the stage more than its share of the GPU. */
export async function engineFor(stored: Show): Promise<EngineClient> {
  // An export that was ordered with an earlier version of the app has a show of that.
  const show = structuredCloneOf(stored);
  migrate(show as unknown as Record<string, unknown>, catalogue);
  const client = new EngineClient();
  client.set({ type: 'desk-hidden', hidden: true });
  const files = new Map<string, Blob>();
  for (const [id, { name }] of Object.entries(show.files)) {
    const stored = await database.files.get(id);
    if (stored) files.set(id, stored.blob);
    client.giveFile(id, name, stored?.blob ?? null);
  }
  const opened = new Promise<void>((resolve) => {
    const off = client.on('opened', () => {
      off();
      resolve();
    });
  });
  client.open(show, show.scenes[0].id);
  await opened;
  try {
    await giveInputs(client, show, files);
  } catch (error) {
    client.close();
    throw error;
  }
  return client;
}

const note = (id: string, change: Partial<StoredJob>): Promise<number> => database.jobs.update(id, change);

/** Notes frames as they come, and how many a second they are. */
function meter(job: StoredJob, before: number): (frames: number) => void {
  const started = performance.now();
  const marks: [number, number][] = [[started, 0]];
  let noted = started;
  return (frames) => {
    const now = performance.now();
    marks.push([now, frames]);
    while (marks.length > 2 && now - marks[0][0] > 8000) marks.shift();
    const [since, from] = marks[0];
    const rate = now > since ? ((frames - from) * 1000) / (now - since) : 0;
    patch({ frames: before + frames, rate });
    if (now - noted < noteMs) return;
    noted = now;
    void note(job.id, { frames: before + frames, seconds: job.seconds + (now - started) / 1000 });
  };
}

async function drawPieces(job: StoredJob, plan: ExportPlan, client: EngineClient): Promise<string[]> {
  const { id, spec, goal } = job;
  const own = await folderOf(id);
  const isSequence = spec.format.type === 'images' && plan.count > 1;
  const folder = isSequence && isFolderHandle(goal) ? goal : own;
  const there = await namesIn(folder);
  const pieces = piecesOf(spec, plan).filter((piece) => !there.has(fileOfPiece(spec, plan, piece)));
  const messages = [...plan.remarks];
  const left = framesIn(spec, plan, pieces);
  patch({ frames: plan.count - left });
  const sink = { type: 'folder', folder } as const;
  const isHeard = spec.format.type === 'video' && spec.format.sound !== 'none';
  if (isHeard && !there.has(soundPieceName))
    await carryOutOfQueue(client, { do: 'sound', job: id, spec, plan, sink });
  const count = meter(job, plan.count - left);
  const checkpoints = { type: 'folder', folder: own } as const;
  if (job.isFarmed && pieces.length)
    await farmPieces(job, plan, pieces, folder, own, {
      checkpoints: (order) => carryOutOfQueue(client, { ...order, job: id }),
      wait: untilStopped,
      frames: count,
      say: (line) => void note(id, { message: line }),
    });
  else if (pieces.length)
    await carryOutOfQueue(
      client,
      { do: 'pieces', job: id, spec, plan, pieces, sink, checkpoints },
      (event) => {
        if (event.what === 'progress') count(event.frames);
        else if (event.what === 'picture') {
          const { width, height, rgba } = event;
          patch({ picture: { width, height, rgba } });
          void note(id, { picture: { width, height, rgba } });
        } else if (event.what === 'loop') messages.push(loopSentence(event));
      },
    );
  return messages;
}

/** Puts what was drawn where it is wanted: pieces into one file, images into a zip. */
async function finish(job: StoredJob, plan: ExportPlan, client: EngineClient): Promise<void> {
  const { id, spec, goal } = job;
  const folder = await folderOf(id);
  patch({ isJoining: true });
  if (spec.format.type === 'images') {
    const names = Array.from({ length: plan.count }, (_, k) => frameName(spec, plan.first + k));
    if (plan.count > 1) {
      if (!isFolderHandle(goal)) await zipFolder(folder, names, 'frames.zip');
    } else await copyTo(await folder.getFileHandle(names[0]), goal, folder, resultName(job));
  } else {
    const to = isFileHandle(goal) ? goal : await folder.getFileHandle(resultName(job), { create: true });
    await carryOutOfQueue(client, { do: 'join', job: id, spec, plan, folder, to });
  }
  // Pieces are kept until all is written.
  if (goal) await dropFolder(id);
}

async function copyTo(
  from: FileSystemFileHandle,
  goal: StoredJob['goal'],
  folder: FileSystemDirectoryHandle,
  name: string,
): Promise<void> {
  const to = isFileHandle(goal) ? goal : await folder.getFileHandle(name, { create: true });
  await (await from.getFile()).stream().pipeTo(await to.createWritable());
}

/** Whether what is on the disk may be written; after a reload it has to be allowed again. */
async function mayWrite({ goal }: StoredJob): Promise<boolean> {
  if (!goal) return true;
  const asked = goal as { queryPermission?(mode: object): Promise<PermissionState> };
  return (await asked.queryPermission?.({ mode: 'readwrite' })) !== 'prompt';
}

async function work(job: StoredJob): Promise<void> {
  const { id } = job;
  runningStore.setState({
    running: { id, frames: job.frames, rate: 0, picture: job.picture ?? null, isJoining: false },
  });
  await note(id, { state: 'running', message: null });
  isStopAsked = false;
  const unwatchJob = watchJob(id);
  try {
    await makeJob(job);
  } finally {
    unwatchJob();
    isStopAsked = false;
  }
}

/** What is to be made: worked out for an export, found in its folder for a recording that was cut off. */
async function planOf({ id, spec, isLive }: StoredJob, client: EngineClient): Promise<ExportPlan> {
  if (!isLive) return (await client.request({ type: 'export-plan', spec }, 600000)).plan;
  let plan: ExportPlan | null = null;
  await carryOutOfQueue(client, { do: 'recover', job: id, spec, folder: await folderOf(id) }, (event) => {
    if (event.what === 'recorded') ({ plan } = event);
  });
  return plan!;
}

async function makeJob(job: StoredJob): Promise<void> {
  const { id } = job;
  const started = performance.now();
  const spent = (): number => job.seconds + (performance.now() - started) / 1000;
  for (let start = 1; ; start++) {
    let client: EngineClient | null = null;
    let unwatch = (): void => undefined;
    try {
      if (!(await mayWrite(job)))
        throw new JobFault('This page may not write there any more. Press Go on and allow it.');
      const opened = (client = await engineFor(job.show));
      unwatch = watchStages((isOpen) =>
        opened.set({ type: 'export-share', share: isOpen ? shares.stage : shares.desk }),
      );
      const plan = job.plan ?? (await planOf(job, client));
      await note(id, { plan });
      const messages = job.isLive ? [] : await drawPieces(job, plan, client);
      await finish(job, plan, client);
      const message = [job.isLive ? job.message : null, ...messages].filter(Boolean).join(' ') || null;
      await note(id, { state: 'done', frames: plan.count, seconds: spent(), message });
      say({ tone: 'info', text: `${job.spec.name} is exported.` });
      return;
    } catch (error) {
      if (error instanceof EngineLost && start < mostStarts) continue;
      // Somebody may have had it go on before it had heard that it was to stop.
      const isWanted = error instanceof Stopped && (await database.jobs.get(id))?.state === 'waiting';
      const state: JobState = isWanted ? 'waiting' : error instanceof Stopped ? 'paused' : 'failed';
      const message =
        error instanceof Stopped
          ? null
          : error instanceof EngineLost
            ? 'The graphics card was lost again and again. Choose a smaller size, or go on later.'
            : (error as Error).message;
      // What came since it was noted last counts too.
      const frames = runningStore.getState().running?.frames ?? job.frames;
      await note(id, { state, message, frames, seconds: spent() });
      return;
    } finally {
      unwatch();
      client?.close();
    }
  }
}

/** Works through all exports that wait, one after the other, in one window of this browser. */
async function workThrough(): Promise<void> {
  isAskedAgain = true;
  if (isWorking) return;
  isWorking = true;
  try {
    await navigator.locks.request('pyrvel-exports', async () => {
      // What another window had under way when it was closed waits again.
      await database.jobs.filter(({ state }) => state === 'running').modify({ state: 'waiting' });
      for (;;) {
        isAskedAgain = false;
        const waiting = await database.jobs.orderBy('created').toArray();
        const next = waiting.find(({ state }) => state === 'waiting');
        if (!next) break;
        await work(next);
        runningStore.setState({ running: null });
      }
    });
  } finally {
    isWorking = false;
  }
  if (isAskedAgain) await workThrough();
}

/** Goes on with what was under way when this browser was closed; what was recorded until then is finished. */
export async function goOn(): Promise<void> {
  // A browser that keeps no folders has none to sweep.
  await sweepFolders(async (id) => (await database.jobs.get(id)) !== undefined).catch(() => undefined);
  for (const { id } of await database.jobs.filter(({ state }) => state === 'recording').toArray())
    await ifLetGo(id, () => note(id, { state: 'waiting', message: cutOff }));
  const left = await database.jobs.filter(({ state }) => state === 'running' || state === 'waiting').count();
  if (left > 0) await workThrough();
}

/** What is said of a recording that was found in its folder. */
export const cutOff = 'It was cut off: its last seconds are missing.';

/** Writes down an export, or a recording that begins. */
export async function keepJob(
  job: Pick<StoredJob, 'spec' | 'show' | 'goal'> &
    Partial<Pick<StoredJob, 'plan' | 'id' | 'state' | 'isLive' | 'isFarmed' | 'message'>>,
): Promise<void> {
  await database.jobs.put({
    id: crypto.randomUUID(),
    created: Date.now(),
    showName: job.show.name,
    plan: null,
    state: 'waiting',
    frames: 0,
    seconds: 0,
    message: null,
    isLive: false,
    isFarmed: false,
    ...job,
  });
}

/** Puts an export into the queue. */
export async function addJob(job: Parameters<typeof keepJob>[0]): Promise<void> {
  await keepJob(job);
  void workThrough();
}

/** A recording has ended: its pieces are joined. `plan`: null where that has to be found in its folder. */
export async function recorded(id: string, plan: ExportPlan | null, message: string): Promise<void> {
  await note(id, { state: 'waiting', plan, message });
  void workThrough();
}

export async function pauseJob(id: string): Promise<void> {
  if (runningStore.getState().running?.id === id) askToStop();
  else await database.jobs.where({ id }).modify({ state: 'paused' });
}

/** Goes on with an export that was paused or has failed, where it was. */
export async function resumeJob(job: StoredJob): Promise<void> {
  const asked = job.goal as { requestPermission?(mode: object): Promise<PermissionState> } | null;
  if (asked?.requestPermission && (await asked.requestPermission({ mode: 'readwrite' })) !== 'granted') {
    say({ tone: 'warning', text: 'Without permission to write there the export cannot go on.' });
    return;
  }
  await note(job.id, { state: 'waiting', message: null });
  void workThrough();
}

/** Forgets an export and its pieces; a file that was written stays. */
export async function removeJob(id: string): Promise<void> {
  await pauseJob(id);
  await database.jobs.delete(id);
  await dropFolder(id);
}
