import * as Y from 'yjs';
import { rebased } from '../../core/show/rebase';
import { readShared, writeShared } from '../../core/machines/show-document';
import type { Show } from '../../core/document/types';

/** The open show as a document that several machines write to. */
export class SharedShow {
  private document = new Y.Doc();
  /** What was last written or read: what comes next is compared with it. */
  private show: Show | null = null;
  /** The document as the main machine has told it: without what was written here and did not come back from there. Null: it told nothing yet. */
  private told: Y.Doc | null = null;

  constructor(
    /** Hears what was written here, as updates of the document. */
    private readonly tell: (update: Uint8Array, isWhole: boolean) => void,
  ) {}

  /** Begins anew with a show. */
  begin(show: Show): void {
    const parts = this.beginByParts(show);
    while (!parts.next().done);
  }

  /** Does so in parts, each of which takes some milliseconds; until all are done, everything is as it was. */
  *beginByParts(show: Show): Generator<void> {
    const document = new Y.Doc();
    let before: Show | null = null;
    for (let count = 1; count <= show.scenes.length; count++) {
      const part: Show = { ...show, scenes: show.scenes.slice(0, count) };
      writeShared(document, before, part);
      before = part;
      yield;
    }
    this.document = document;
    this.told = null;
    this.show = show;
    this.tell(Y.encodeStateAsUpdate(document), true);
  }

  /** Writes what was done here since. */
  write(show: Show): void {
    if (show === this.show) return;
    const tell = (update: Uint8Array): void => this.tell(update, false);
    this.document.on('update', tell);
    writeShared(this.document, this.show, show);
    this.document.off('update', tell);
    this.show = show;
  }

  /** Takes what was written elsewhere. Throws where it is no update. */
  take(update: Uint8Array, isWhole: boolean): void {
    if (isWhole) this.document = new Y.Doc();
    Y.applyUpdate(this.document, update);
  }

  /**
   * Takes what the main machine told. `keepsOwn`: what was written here and did not come back from there is written once more where it told of the
   * whole show, as it may never have got that. Throws where it is no update.
   */
  hear(update: Uint8Array, isWhole: boolean, keepsOwn: boolean): void {
    const own = this.show;
    const before = isWhole && this.told ? (readShared(this.told, own) as Show | null) : null;
    this.take(update, isWhole);
    if (isWhole || !this.told) this.told = new Y.Doc();
    Y.applyUpdate(this.told, update);
    if (!isWhole) return;
    const next = this.read();
    // What belongs to another show is no part of this one.
    if (!keepsOwn || !own || !before || !next || next.name !== before.name) return;
    this.show = next;
    this.write(rebased(own, before, next));
  }

  /** What stands in the document now, unchecked: the very same as before where nothing changed. Null: nothing yet. */
  read(): Show | null {
    return readShared(this.document, this.show) as Show | null;
  }

  /** The open show is what the document holds. */
  hold(show: Show): void {
    this.show = show;
  }
}
