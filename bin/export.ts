import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { SingleBar } from 'cli-progress';
import { loopSentence } from '../src/core/export/loop-sentence';
import { framesIn, piecesOf, type ExportPlan } from '../src/core/export/schedule';
import { checkSpec, ExportError, type ExportSpec } from '../src/core/export/spec';
import type { Show } from '../src/core/document/types';
import { writeShow } from '../src/core/show/validate';
import { stringOf } from '../src/core/wall/outputs';
import { fileOfPiece, frameName, soundPieceName } from '../src/core/export/names';
import { join } from '../src/engine/record/join';
import { UsageError, type Options } from './arguments';
import { readRenderer, type Renderer } from './browser';
import { EngineFault, EnginePage } from './engine-page';
import { fileOfFrame, isData, readDataRequest, readGoal, readSpec, type Goal } from './export-spec';

/** What an export needs that is not in the options. */
interface ExportTask {
  show: Show;
  files: ReadonlyMap<string, Uint8Array>;
  spec: ExportSpec;
  plan: ExportPlan;
  /** Folder in which pieces lie until they are joined. */
  folder: string;
}

/** Carries out pieces of an export, and tells of each that is done. */
export type PieceRunner = (
  task: ExportTask,
  pieces: readonly number[],
  done: (frames: number) => void,
  /** A browser in which the show is open. */
  page: EnginePage,
) => Promise<string[]>;

/** Times that a browser that died is started again for what it had left. */
const mostStarts = 3;

/** Says of an export what makes its pieces another's: the show, its files, and what is asked for. */
function markOf(show: Show, files: ReadonlyMap<string, Uint8Array>, spec: ExportSpec): string {
  const hash = createHash('sha256').update(writeShow(show)).update(JSON.stringify(spec));
  for (const [id, bytes] of files) hash.update(id).update(bytes);
  return hash.digest('hex');
}

/** The folder of pieces: what was finished by an export that was broken off is kept, if it was this one. */
async function prepareFolder(goal: Goal, mark: string, again: boolean): Promise<string> {
  const folder = `${goal.file.replace(/#/g, '_')}.pieces`;
  const note = path.join(folder, 'export.txt');
  const before = existsSync(note) ? await readFile(note, 'utf8') : null;
  if (before !== null && before !== mark && !again)
    throw new UsageError(
      `${folder} holds pieces of another export: the show or the options have changed. Add --again to begin anew.`,
    );
  if (before !== mark || again) await rm(folder, { recursive: true, force: true });
  await mkdir(folder, { recursive: true });
  await writeFile(note, mark);
  return folder;
}

/** Pieces in runs that lie together: whoever has a run need not begin with a preroll more than once. */
function inRuns(pieces: readonly number[], runs: number): number[][] {
  const size = Math.ceil(pieces.length / Math.max(1, runs));
  const out: number[][] = [];
  for (let at = 0; at < pieces.length; at += size) out.push(pieces.slice(at, at + size));
  return out;
}

/** Browsers of this machine, each with a part of the pieces; the first is the one that is open already. */
const localRunner =
  (jobs: number, renderer: Renderer | undefined): PieceRunner =>
  async (task, pieces, done, page) => {
    const { show, files, spec, plan, folder } = task;
    const remarks: string[] = [];
    const isLeft = (piece: number): boolean => !existsSync(path.join(folder, fileOfPiece(spec, plan, piece)));
    await Promise.all(
      inRuns(pieces, jobs).map(async (run, k) => {
        for (let start = 1; run.some(isLeft); start++) {
          const isOpen = k === 0 && start === 1;
          const own = isOpen ? page : await EnginePage.open(show, files, { renderer, pieces: folder });
          try {
            remarks.push(...(await runPieces(task, run.filter(isLeft), own, done)));
          } catch (error) {
            // A sentence of the engine is one; a browser that died is started again.
            if (error instanceof EngineFault || error instanceof UsageError || start >= mostStarts)
              throw error;
          } finally {
            if (!isOpen) await own.close();
          }
        }
      }),
    );
    return remarks;
  };

/** Has pieces drawn by a browser. Gives what is worth saying of them. */
async function runPieces(
  { spec, plan }: ExportTask,
  pieces: readonly number[],
  page: EnginePage,
  done: (frames: number) => void,
): Promise<string[]> {
  let counted = 0;
  const { loop } = await page.order({ do: 'pieces', spec, plan, pieces }, ({ frames }) => {
    done(frames - counted);
    counted = frames;
  });
  return loop ? [loopSentence(loop)] : [];
}

/** Writes a file under another name, and gives it its own when it is whole. */
async function writeWhole(
  file: string,
  write: (target: WritableStream<{ type: 'write'; data: Uint8Array; position: number }>) => Promise<void>,
): Promise<void> {
  const unfinished = `${file}.unfinished`;
  const handle = await open(unfinished, 'w');
  try {
    await write(
      new WritableStream({
        write: async ({ data, position }) => void (await handle.write(data, 0, data.length, position)),
      }),
    );
    await handle.close();
    await rename(unfinished, file);
  } catch (error) {
    await handle.close().catch(() => undefined);
    await rm(unfinished, { force: true });
    throw error;
  }
}

async function finish(task: ExportTask, goal: Goal): Promise<string> {
  const { spec, plan, folder, show } = task;
  await mkdir(path.dirname(path.resolve(goal.file)), { recursive: true });
  if (spec.format.type === 'images') {
    for (let piece = 0; piece < plan.count; piece++) {
      const frame = plan.first + piece;
      await rename(path.join(folder, frameName(spec, frame)), fileOfFrame(goal, frame));
    }
  } else {
    const read = async (name: string): Promise<Uint8Array<ArrayBuffer>> =>
      new Uint8Array(await readFile(path.join(folder, name)));
    const string = stringOf(show, spec.output);
    await writeWhole(goal.file, (target) => join(spec, plan, string, read, target as WritableStream));
  }
  await rm(folder, { recursive: true, force: true });
  return spec.format.type === 'images' && plan.count > 1 ? path.dirname(goal.file) : goal.file;
}

/** Saves what a node gives, or the patch, as a file for another program. */
async function saveData(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  file: string,
): Promise<void> {
  const request = readDataRequest(show, options, file);
  const page = await EnginePage.open(
    { ...show, scenes: show.scenes.filter(({ id }) => id === request.scene) },
    files,
    {
      renderer: readRenderer(options.get('renderer')),
    },
  );
  try {
    const packed = await page.ask<string>('This file', 'data', request);
    await mkdir(path.dirname(path.resolve(file)), { recursive: true });
    await writeFile(file, Buffer.from(packed, 'base64'));
  } finally {
    await page.close();
  }
}

/** The show as it is needed: of a scene by itself, no other. */
const partOf = (show: Show, { source }: ExportSpec): Show =>
  source.type === 'scene' ? { ...show, scenes: show.scenes.filter(({ id }) => id === source.scene) } : show;

/**
 * Exports what the options ask for. What was finished by a call that was broken off is not done again. `runner`: who draws the pieces;
 * absent: browsers of this machine.
 */
export async function exportShow(
  whole: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  say: (line: string) => void,
  runner?: PieceRunner,
): Promise<void> {
  const goal = readGoal(options.get('to'));
  if (isData(goal, options)) {
    await saveData(whole, files, options, goal.file);
    say(goal.file);
    return;
  }
  const spec = readSpec(whole, options, goal);
  try {
    checkSpec(whole, spec);
  } catch (error) {
    throw error instanceof ExportError ? new UsageError(error.message) : error;
  }
  const renderer = readRenderer(options.get('renderer'));
  const jobs = Number(options.get('jobs') ?? 1);
  if (!Number.isInteger(jobs) || jobs < 1 || jobs > 64)
    throw new UsageError(
      `--jobs takes a whole number from 1 to 64; this machine has ${os.cpus().length} cores.`,
    );
  const show = partOf(whole, spec);
  const folder = await prepareFolder(goal, markOf(show, files, spec), options.get('again') !== undefined);
  const page = await EnginePage.open(show, files, { renderer, pieces: folder });
  const task: ExportTask = { show, files, spec, plan: nothingPlanned, folder };
  try {
    task.plan = await page.plan(spec);
    await drawAll(task, page, runner ?? localRunner(jobs, renderer), say);
  } finally {
    await page.close();
  }
  say(await finish(task, goal));
}

const nothingPlanned: ExportPlan = { first: 0, count: 0, meets: null, remarks: [] };

/** Draws the pieces that are not there yet, and the sound. */
async function drawAll(
  task: ExportTask,
  page: EnginePage,
  run: PieceRunner,
  say: (line: string) => void,
): Promise<void> {
  const { spec, plan, folder } = task;
  const hasSound = spec.format.type === 'video' && spec.format.sound !== 'none';
  if (hasSound && !existsSync(path.join(folder, soundPieceName)))
    await page.order({ do: 'sound', spec, plan });
  for (const remark of plan.remarks) say(remark);
  const there = new Set(await readdir(folder));
  const all = piecesOf(spec, plan);
  const left = all.filter((piece) => !there.has(fileOfPiece(spec, plan, piece)));
  if (left.length < all.length) say(`${all.length - left.length} of ${all.length} pieces are there already.`);
  const bar = new SingleBar({
    format: '{bar} {percentage} %  {value} of {total} frames  {eta_formatted} left',
    stream: process.stderr,
    noTTYOutput: false,
    etaBuffer: 40,
  });
  bar.start(plan.count, plan.count - framesIn(spec, plan, left));
  try {
    const remarks = await run(task, left, (count) => bar.increment(count), page);
    bar.update(plan.count);
    bar.stop();
    for (const remark of remarks) say(remark);
  } catch (error) {
    bar.stop();
    if (error instanceof EngineFault)
      throw new EngineFault(
        `${error.message}\nWhat is finished is kept in ${folder}: the same command goes on.`,
      );
    throw error;
  }
}
