import Dexie, { type EntityTable } from 'dexie';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';
import type { ShowChange } from '../../core/show/changes';
import type { ModulePack } from '../../core/show/module-pack';
import type { Show } from '../../core/document/types';

/** A show as it is kept in this browser. */
export interface StoredShow {
  id: string;
  name: string;
  /** Milliseconds since 1970, of the last edit. */
  updated: number;
  show: Show;
  /** Small PNG of its first scene. */
  picture?: Blob;
  /** Milliseconds since 1970 at which it was deleted; absent: it was not. */
  deleted?: number;
}

/** Bytes of a file that shows use, by what it holds. */
interface StoredFile {
  id: string;
  blob: Blob;
}

/** A small picture of a scene for its button in Play. */
interface StoredScenePicture {
  /** Show and scene. */
  id: string;
  show: string;
  /** What of the scene it was taken of, by what it held. */
  of: string;
  picture: Blob;
}

/** A module in the library of this browser, with all that it needs but the bytes of files, which are kept by what they hold. */
export interface StoredModule {
  id: string;
  name: string;
  pack: ModulePack;
  /** Milliseconds since 1970 at which it was last kept. */
  updated: number;
}

/** Edits of a show since it was last written as a whole. */
export interface StoredEdits {
  /** Show by its id. */
  id: string;
  /** `updated` of the stored show that the changes belong to: they count only on top of that very state. */
  base: number;
  /** Edits up to here since then: of two notes the one with more is the newer. */
  edits: number;
  changes: ShowChange[];
}

/** How a show stood at some time. */
export interface StoredVersion {
  id?: number;
  /** Show by its id. */
  show: string;
  /** Milliseconds since 1970. */
  at: number;
  data: Show;
  picture?: Blob;
}

/** Where the performer was. */
interface Session {
  id: 'here';
  showId: string;
  sceneId: string;
  selection: string[];
  program: string;
}

/**
 * How an export stands. recording: what is on air is written by the window that holds its lock; waiting: in the queue; running: under way in some
 * window of this browser.
 */
export type JobState = 'recording' | 'waiting' | 'running' | 'paused' | 'failed' | 'done';

/** An export as it is kept in this browser: with the show as it was when it was ordered, so that later edits change nothing of it. */
export interface StoredJob {
  id: string;
  /** Milliseconds since 1970. */
  created: number;
  spec: ExportSpec;
  show: Show;
  showName: string;
  /** Null until the engine has worked it out. */
  plan: ExportPlan | null;
  state: JobState;
  /** Frames that are finished. */
  frames: number;
  /** Seconds that were spent on it. */
  seconds: number;
  /** What is worth knowing of it: why it failed, whether its loop meets. */
  message: string | null;
  /** File or folder of the disk that it is written to; null: it is kept here until it is saved. */
  goal: FileSystemFileHandle | FileSystemDirectoryHandle | null;
  /** The last frame that was seen of it, small: rows from above. */
  picture?: { width: number; height: number; rgba: Uint8ClampedArray<ArrayBuffer> };
  /** It is a live recording, whose pieces are all there. */
  isLive: boolean;
  /** Its pieces are made by the workers of a farm. */
  isFarmed?: boolean;
}

class Database extends Dexie {
  shows!: EntityTable<StoredShow, 'id'>;
  files!: EntityTable<StoredFile, 'id'>;
  scenePictures!: EntityTable<StoredScenePicture, 'id'>;
  jobs!: EntityTable<StoredJob, 'id'>;
  modules!: EntityTable<StoredModule, 'id'>;
  versions!: EntityTable<StoredVersion, 'id'>;
  edits!: EntityTable<StoredEdits, 'id'>;
  session!: EntityTable<Session, 'id'>;

  constructor() {
    super('pyrvel');
    this.version(1).stores({ shows: 'id, updated', session: 'id' });
    this.version(2).stores({ files: 'id' });
    this.version(3).stores({ tiles: 'id, show' });
    // Pictures are drawn again where there are none: the table of before is not worth moving.
    this.version(4).stores({ tiles: null, scenePictures: 'id, show' });
    this.version(5).stores({ jobs: 'id, created' });
    this.version(6).stores({ modules: 'id' });
    this.version(7).stores({ versions: '++id, show' });
    this.version(8).stores({ edits: 'id' });
  }
}

export const database = new Database();
