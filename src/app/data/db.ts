import Dexie, { type EntityTable } from 'dexie';
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

/** Where the performer was. */
interface Session {
  id: 'here';
  showId: string;
  sceneId: string;
  selection: string[];
  program: string;
}

class Database extends Dexie {
  shows!: EntityTable<StoredShow, 'id'>;
  files!: EntityTable<StoredFile, 'id'>;
  scenePictures!: EntityTable<StoredScenePicture, 'id'>;
  session!: EntityTable<Session, 'id'>;

  constructor() {
    super('pyrvel');
    this.version(1).stores({ shows: 'id, updated', session: 'id' });
    this.version(2).stores({ files: 'id' });
    this.version(3).stores({ tiles: 'id, show' });
    // Pictures are drawn again where there are none: the table of before is not worth moving.
    this.version(4).stores({ tiles: null, scenePictures: 'id, show' });
  }
}

export const database = new Database();
