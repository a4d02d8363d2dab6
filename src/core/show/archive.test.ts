import { expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { catalogue } from '../../nodes/catalogue';
import { packShow, unpackShow, usedFiles } from './archive';
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
