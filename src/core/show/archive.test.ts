import { isDeepStrictEqual } from 'node:util';
import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { catalogue } from '../../nodes/catalogue';
import { archiveLimits, packShow, unpackShow } from './archive';
import { renameFiles, usedFiles } from './used-files';
import { makeShow } from './create';
import { addNode } from './edit';
import { readShow, ShowFileError, writeShow } from './validate';

function showWithPicture() {
  const show = makeShow(catalogue, 'With media');
  const id = addNode(show.scenes[0], catalogue, 'picture', [0, 0]);
  show.scenes[0].nodes[id].controls.file = 'f1';
  show.files = {
    f1: { name: 'pane.png', type: 'image/png', bytes: 3 },
    f2: { name: 'unused.webm', type: 'video/webm', bytes: 9 },
  };
  return show;
}

test('a show comes back from its file with the bytes it uses', () => {
  const show = showWithPicture();
  expect(usedFiles(show, catalogue)).toEqual(['f1']);
  const bytes = packShow(show, new Map([['f1', new Uint8Array([1, 2, 3])]]));
  const { text, files } = unpackShow(bytes);
  expect(readShow(text, catalogue).show).toEqual(show);
  expect([...files]).toEqual([['f1', new Uint8Array([1, 2, 3])]]);
  expect(packShow(show, files)).toEqual(bytes);
});

test('a document alone is read as it is', () => {
  const text = writeShow(showWithPicture());
  expect(unpackShow(new TextEncoder().encode(text))).toEqual({ text, files: new Map() });
});

test('a damaged or foreign archive is refused with what to do', () => {
  const packed = packShow(showWithPicture(), new Map());
  expect(() => unpackShow(packed.slice(0, packed.length - 30))).toThrow(ShowFileError);
  expect(() => unpackShow(packed.slice(0, packed.length - 30))).toThrow(/Export it again/);
  expect(() => unpackShow(zipSync({ 'letter.txt': new Uint8Array([1]) }))).toThrow(
    /holds no show.pyrvel.json/,
  );
});

test('shows without files, and return wires of older shows, are completed', () => {
  const show = makeShow(catalogue, 'Old');
  const [scene] = show.scenes;
  const blend = addNode(scene, catalogue, 'blend', [0, 0]);
  const old = JSON.parse(writeShow(show)) as {
    version: number;
    files?: unknown;
    scenes: { wires: Record<string, unknown> }[];
  };
  delete old.files;
  old.version = 1;
  old.scenes[0].wires.w1 = {
    id: 'w1',
    from: { node: blend },
    to: { node: blend, port: 'over' },
    back: { keep: 0.5, startsFrom: null, clearWhen: null, guard: 'off', limit: 2 },
  };
  const read = readShow(JSON.stringify(old), catalogue).show;
  expect(read.files).toEqual({});
  expect(read.scenes[0].wires.w1.back).toMatchObject({
    keep: 0.5,
    reading: 'smooth',
    tap: 'after',
    clearWhere: null,
  });
});

describe('an archive is not trusted', () => {
  const document = new TextEncoder().encode(writeShow(showWithPicture()));
  const zip = (entries: Record<string, Uint8Array>) => zipSync({ 'show.pyrvel.json': document, ...entries });
  const pane = new Uint8Array([1, 2, 3]);

  test('one flipped byte anywhere is noticed, or changes nothing that is read', () => {
    const bytes = packShow(showWithPicture(), new Map([['f1', new Uint8Array(64).fill(7)]]));
    const home = unpackShow(bytes);
    for (let at = 0; at < bytes.length; at += 3) {
      const damaged = bytes.slice();
      damaged[at] ^= 0x10;
      let same: boolean;
      try {
        const read = unpackShow(damaged);
        same = damaged[0] !== 0x50 || damaged[1] !== 0x4b || isDeepStrictEqual(read, home);
      } catch (error) {
        same = error instanceof ShowFileError;
      }
      expect({ at, same }).toEqual({ at, same: true });
    }
  });

  test('what would fill the memory is refused before it is unpacked', () => {
    const bomb = zip({ 'files/f1.png': new Uint8Array(40 * 1024 * 1024) });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => unpackShow(bomb)).toThrow(/files\/f1.png.*times its size/);
    const limits = { ...archiveLimits, fileBytes: 2 };
    expect(() => unpackShow(zip({ 'files/f1.png': pane }), limits)).toThrow(/unpacks to/);
    expect(() => unpackShow(zip({ 'files/f1.png': pane }), { ...archiveLimits, allBytes: 2 })).toThrow(
      /up to/,
    );
    expect(() => unpackShow(zip({ 'files/f1.png': pane }), { ...archiveLimits, entries: 1 })).toThrow(
      /2 entries/,
    );
  });

  test('a size that lies is caught by the checksum', () => {
    const bytes = zip({ 'files/f1.png': new Uint8Array(4000).fill(9) });
    const view = new DataView(bytes.buffer);
    const at = bytes.findLastIndex((_, k) => k + 4 <= bytes.length && view.getUint32(k, true) === 0x02014b50);
    view.setUint32(at + 24, 3, true);
    expect(() => unpackShow(bytes)).toThrow(/checksum/);
  });

  test.each(['files/a/b.png', 'files/../x.png', 'files/__proto__ x.png', 'files/.png'])(
    '%s is no id',
    (name) => {
      expect(() => unpackShow(zip({ [name]: pane }))).toThrow(/no id of a file/);
    },
  );

  test('two files of one id are refused; entries that are none of ours are passed over', () => {
    expect(() => unpackShow(zip({ 'files/f1.png': pane, 'files/f1.webp': pane }))).toThrow(/twice/);
    expect([...unpackShow(zip({ 'files/f1.png': pane, 'notes/a/b.txt': pane })).files.keys()]).toEqual([
      'f1',
    ]);
  });

  test('a file is renamed wherever it is used', () => {
    const show = showWithPicture();
    show.inputs.sound.file = 'f2';
    renameFiles(
      show,
      catalogue,
      new Map([
        ['f1', 'fa'],
        ['f2', 'fb'],
      ]),
    );
    expect(Object.keys(show.files)).toEqual(['fa', 'fb']);
    expect(show.scenes[0].nodes.n2.controls.file).toBe('fa');
    expect(show.inputs.sound.file).toBe('fb');
    expect(usedFiles(show, catalogue)).toEqual(['fa', 'fb']);
  });
});
