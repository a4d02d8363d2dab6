import { readFileSync } from 'node:fs';
import path from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import * as Y from 'yjs';
import type { Show } from '../document/types';
import { readShared, writeShared } from './show-document';

const demo = JSON.parse(
  readFileSync(path.resolve(import.meta.dirname, '../../../demo/night-apiary.pyrvel.json'), 'utf8'),
) as Show;
const sizeOf = (scene: Show['scenes'][number]): number => Object.keys(scene.nodes).length;
/** A few small scenes and a little of all else: enough to have every form of a list and record in it. */
const small: Show = {
  ...demo,
  scenes: [...demo.scenes].sort((a, b) => sizeOf(a) - sizeOf(b)).slice(0, 3),
  desk: demo.desk.slice(0, 2),
  snapshots: demo.snapshots.slice(0, 3),
  cues: demo.cues.slice(0, 5),
  moves: demo.moves.slice(0, 5),
};

type Edit = (show: Show) => void;

/** Edits as people make them, in one of the scenes or of the show as a whole. */
const editIn = (scene: number): fc.Arbitrary<Edit> =>
  fc.oneof(
    fc.tuple(fc.nat(), fc.double({ noNaN: true, min: -9, max: 9 })).map(([k, value]): Edit => (show) => {
      const nodes = Object.values(show.scenes[scene]?.nodes ?? {});
      if (nodes.length) nodes[k % nodes.length].place = [value, value];
    }),
    fc.nat().map((k): Edit => (show) => {
      const wires = show.scenes[scene]?.wires ?? {};
      const ids = Object.keys(wires);
      if (ids.length) delete wires[ids[k % ids.length]];
    }),
    fc.tuple(fc.nat(), fc.integer({ min: 0, max: 1e6 })).map(([k, number]): Edit => (show) => {
      const nodes = show.scenes[scene]?.nodes ?? {};
      const from = Object.values(nodes)[k % Math.max(1, Object.keys(nodes).length)];
      if (from) nodes[`x${number}`] = { ...from };
    }),
    fc.string({ minLength: 1, maxLength: 20 }).map((name): Edit => (show) => {
      if (show.scenes[scene]) show.scenes[scene].name = name;
    }),
  );
const editOfShow: fc.Arbitrary<Edit> = fc.oneof(
  fc.integer({ min: 10, max: 400 }).map(
    (bpm): Edit =>
      (show) =>
        void (show.tempo.bpm = bpm),
  ),
  fc.nat().map(
    (k): Edit =>
      (show) =>
        void show.cues.splice(k % (show.cues.length + 1), 1),
  ),
  fc.nat().map((k): Edit => (show) => {
    const at = k % Math.max(1, show.scenes.length);
    show.scenes.unshift(...show.scenes.splice(at, 1));
  }),
  fc.constant<Edit>((show) => void (show.cues = [])),
  fc.nat().map((k): Edit => (show) => {
    const [page] = show.desk;
    if (page) show.desk.push({ ...page, id: `page${k}`, controls: [] });
  }),
);

const edited = (show: Show, edit: Edit): Show => produce(show, (draft) => void edit(draft as Show));
/** A document that holds what another one holds. */
function copyOf(document: Y.Doc): Y.Doc {
  const copy = new Y.Doc();
  Y.applyUpdate(copy, Y.encodeStateAsUpdate(document));
  return copy;
}
const shared = (show: Show): Y.Doc => {
  const document = new Y.Doc();
  writeShared(document, null, show);
  return document;
};

describe('a shared show', () => {
  it('reads as it was written, on every machine', () => {
    const document = shared(demo);
    expect(readShared(document)).toEqual(demo);
    expect(readShared(copyOf(document))).toEqual(demo);
    expect(readShared(new Y.Doc())).toBeNull();
  });

  it('follows all edits, each told as the little that it is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(editIn(0), editIn(1), editOfShow), { minLength: 1, maxLength: 12 }),
        (edits) => {
          const document = shared(small);
          const other = copyOf(document);
          document.on('update', (update: Uint8Array) => Y.applyUpdate(other, update));
          let show = small;
          for (const edit of edits) {
            const next = edited(show, edit);
            writeShared(document, show, next);
            show = next;
            expect(isDeepStrictEqual(readShared(other), show)).toBe(true);
          }
        },
      ),
      { seed: 7, numRuns: 30 },
    );
  });

  it('takes over what is as it was, so that only what changed is drawn anew', () => {
    const document = shared(small);
    const before = readShared(document, small) as Show;
    expect(before).toBe(small);
    const next = edited(small, (show) => void (show.scenes[1].name = 'Other'));
    writeShared(document, small, next);
    const after = readShared(document, before) as Show;
    expect(after.scenes[1].name).toBe('Other');
    expect(after.scenes[1].nodes).toBe(before.scenes[1].nodes);
    expect(after.scenes[0]).toBe(before.scenes[0]);
    expect(after.desk).toBe(before.desk);
  });

  it('has the edits of all who made them at once, and is the same on all sides whatever came first', () => {
    fc.assert(
      fc.property(
        fc.array(editIn(0), { minLength: 1, maxLength: 6 }),
        fc.array(editIn(1), { minLength: 1, maxLength: 6 }),
        fc.boolean(),
        (here, there, isFirst) => {
          const a = shared(small);
          const b = copyOf(a);
          const work = (document: Y.Doc, edits: readonly Edit[]): Show =>
            edits.reduce((show, edit) => {
              const next = edited(show, edit);
              writeShared(document, show, next);
              return next;
            }, small);
          const mine = work(a, here);
          const theirs = work(b, there);
          const [fromA, fromB] = [Y.encodeStateAsUpdate(a), Y.encodeStateAsUpdate(b)];
          Y.applyUpdate(isFirst ? a : b, isFirst ? fromB : fromA);
          Y.applyUpdate(isFirst ? b : a, isFirst ? fromA : fromB);
          const merged = readShared(a) as Show;
          expect(isDeepStrictEqual(readShared(b), merged)).toBe(true);
          expect(merged.scenes[0]).toEqual(mine.scenes[0]);
          expect(merged.scenes[1]).toEqual(theirs.scenes[1]);
        },
      ),
      { seed: 11, numRuns: 30 },
    );
  });

  it('puts two things that were added at one place in one order', () => {
    const a = shared(small);
    const b = copyOf(a);
    const added = (id: string): Show => edited(small, (show) => void show.cues.push({ ...show.cues[0], id }));
    writeShared(a, small, added('cueb'));
    writeShared(b, small, added('cuea'));
    const [fromA, fromB] = [Y.encodeStateAsUpdate(a), Y.encodeStateAsUpdate(b)];
    Y.applyUpdate(a, fromB);
    Y.applyUpdate(b, fromA);
    const ids = (document: Y.Doc): string[] => (readShared(document) as Show).cues.map(({ id }) => id);
    expect(ids(a)).toEqual(ids(b));
    expect(ids(a).slice(-2)).toEqual(['cuea', 'cueb']);
  });

  it('tells the move of a node in less than a hundredth of the show', () => {
    const document = shared(demo);
    const whole = Y.encodeStateAsUpdate(document).length;
    let told = 0;
    document.on('update', (update: Uint8Array) => (told += update.length));
    const node = Object.keys(demo.scenes[0].nodes)[0];
    writeShared(
      document,
      demo,
      edited(demo, (show) => void (show.scenes[0].nodes[node].place = [1, 2])),
    );
    expect(told).toBeGreaterThan(0);
    expect(told).toBeLessThan(whole / 100);
  });
});
