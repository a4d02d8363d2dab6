import { mostWaiting, partsAtOnce, partsOf } from '../../core/export/farm';
import { checkpointNameOf } from '../../core/export/names';
import type { ExportPlan } from '../../core/export/schedule';
import { packShow } from '../../core/show/archive';
import { database, type StoredJob } from '../data/db';
import type { ExportOrder } from '../../engine/protocol/export';
import { FarmClient } from './farm-client';

/** Milliseconds between two looks at how far workers are. */
const lookMs = 500;

type Checkpoints = Omit<Extract<ExportOrder, { do: 'checkpoints' }>, 'job'>;

interface FarmHelp {
  /** Has checkpoints written by the engine of this browser. */
  checkpoints(order: Checkpoints): Promise<void>;
  /** Waits; rejects where the export is stopped. */
  wait(ms: number): Promise<void>;
  frames(count: number): void;
  say(line: string | null): void;
}

async function packed({ show, spec }: StoredJob): Promise<Uint8Array<ArrayBuffer>> {
  const files = new Map<string, Uint8Array>();
  for (const id of Object.keys(show.files)) {
    const stored = await database.files.get(id);
    if (stored) files.set(id, new Uint8Array(await stored.blob.arrayBuffer()));
  }
  const { source } = spec;
  const scenes = source.type === 'scene' ? show.scenes.filter(({ id }) => id === source.scene) : show.scenes;
  return new Uint8Array(packShow({ ...show, scenes }, files));
}

async function write(folder: FileSystemDirectoryHandle, name: string, blob: Blob): Promise<void> {
  const writable = await (await folder.getFileHandle(name, { create: true })).createWritable();
  await blob.stream().pipeTo(writable);
}

/** Has pieces made by the workers of a farm, and puts them into a folder. `own`: where checkpoints lie until they are handed over. */
export async function farmPieces(
  job: StoredJob,
  plan: ExportPlan,
  pieces: readonly number[],
  folder: FileSystemDirectoryHandle,
  own: FileSystemDirectoryHandle,
  help: FarmHelp,
): Promise<void> {
  const { spec } = job;
  const farm = await FarmClient.begin(spec, plan, await packed(job));
  /** Fetches what is ready until no more than so many parts are on their way. */
  const until = async (most: number): Promise<void> => {
    for (;;) {
      const state = await farm.state();
      for (const name of state.pieces) await write(folder, name, await farm.piece(name));
      help.frames(state.frames);
      help.say(state.said || null);
      if (state.fault) throw new Error(state.fault);
      // Pieces that came while others were fetched are seen with the next look.
      if (state.waiting <= most && (most > 0 || state.pieces.length === 0)) return;
      await help.wait(lookMs);
    }
  };
  try {
    const parts = partsOf(spec, plan, pieces);
    for (let at = 0; at < parts.length; at += partsAtOnce) {
      await until(mostWaiting);
      const next = parts.slice(at, at + partsAtOnce);
      const frames = next.flatMap(({ checkpoint }) => (checkpoint === null ? [] : [checkpoint]));
      if (frames.length)
        await help.checkpoints({
          do: 'checkpoints',
          spec,
          plan,
          frames,
          sink: { type: 'folder', folder: own },
        });
      for (const part of next) {
        if (part.checkpoint === null) await farm.add(part, null);
        else {
          const name = checkpointNameOf(part.checkpoint);
          const file = await (await own.getFileHandle(name)).getFile();
          await farm.add(part, new Uint8Array(await file.arrayBuffer()));
          await own.removeEntry(name);
        }
      }
    }
    await until(0);
  } finally {
    await farm.end();
  }
}
