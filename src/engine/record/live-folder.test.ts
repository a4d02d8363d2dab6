import { beforeEach, describe, expect, test } from '@jest/globals';
import { pieceNameOf } from '../../core/export/names';
import { pieceFrames } from '../../core/export/schedule';
import { homeSpec, type VideoFormat, type VideoSpec } from '../../core/export/spec';
import { makeShow } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { finishLive, LiveFolder } from './live-folder';

/** A folder in memory, whose disk may be full. */
class FakeFolder {
  readonly files = new Map<string, Uint8Array>();
  isFull = false;

  getFileHandle(name: string, { create = false } = {}): Promise<object> {
    const missing = Object.assign(new Error('none'), { name: 'NotFoundError' });
    if (!create && !this.files.has(name)) return Promise.reject(missing);
    let bytes = new Uint8Array(0);
    return Promise.resolve({
      getFile: () => Promise.resolve(new Blob([this.files.get(name)! as Uint8Array<ArrayBuffer>])),
      createWritable: () =>
        Promise.resolve({
          write: (data: Uint8Array<ArrayBuffer>) => {
            if (this.isFull)
              return Promise.reject(Object.assign(new Error('full'), { name: 'QuotaExceededError' }));
            bytes = data.slice();
            return Promise.resolve();
          },
          close: () => Promise.resolve(void this.files.set(name, bytes)),
          abort: () => Promise.resolve(),
        }),
    });
  }
}

const show = makeShow(catalogue, 'Night');
const home = homeSpec(show, show.scenes[0]);
const spec: VideoSpec = {
  ...home,
  fps: 20,
  format: { ...(home.format as VideoFormat), sound: 'none' },
};
const size = pieceFrames(spec);
const places = Array.from({ length: 10 * size }, (_, k) => (k < 5 ? Number.NaN : k / 20));

describe('a live recording', () => {
  let folder: FakeFolder;
  let live: LiveFolder;
  const sink = () => ({ type: 'folder', folder: folder as unknown as FileSystemDirectoryHandle }) as const;
  const add = (piece: number, frames: number, dropped = 0): Promise<void> =>
    live.add(piece, new Uint8Array([piece + 1]), null, { frames, dropped, places });
  const bytesOf = (piece: number): number[] => [...folder.files.get(pieceNameOf(piece))!];

  beforeEach(() => {
    folder = new FakeFolder();
    live = new LiveFolder(sink());
  });

  test('is all that was written with its notes, however it ended', async () => {
    await add(0, size);
    await add(1, 2 * size, 3);
    expect(await finishLive(spec, sink(), null)).toEqual({
      plan: { first: 0, count: 2 * size, meets: null, remarks: [] },
      dropped: 3,
    });
    // A piece without its notes was being written when it was cut off.
    folder.isFull = true;
    await expect(add(2, 3 * size)).rejects.toThrow(/no space left/);
    folder.isFull = false;
    folder.files.set(pieceNameOf(2), new Uint8Array([3]));
    expect((await finishLive(spec, sink(), null)).plan.count).toBe(2 * size);
  });

  test('has empty pieces where there was no time, and where a picture stood to the end', async () => {
    await add(0, size);
    await add(3, 3 * size + 5);
    expect([1, 2].map(bytesOf)).toEqual([[], []]);
    expect(bytesOf(3)).toEqual([4]);
    // Frozen for two more pieces.
    await live.add(4, new Uint8Array([5]), null, { frames: 6 * size + 1, dropped: 0, places });
    const { plan } = await finishLive(spec, sink(), null);
    expect(plan.count).toBe(6 * size + 1);
    expect([5, 6].map(bytesOf)).toEqual([[], []]);
    expect(bytesOf(4)).toEqual([5]);
  });

  test('notes where the show was at each frame once, and where it stood', async () => {
    await add(0, size);
    await add(1, size + 4);
    const notes = ['notes-000000', 'notes-000001'].map(
      (name) => JSON.parse(new TextDecoder().decode(folder.files.get(name))) as { places: (number | null)[] },
    );
    expect(notes.map((one) => one.places.length)).toEqual([size, 4]);
    expect(notes[0].places.slice(0, 6)).toEqual([null, null, null, null, null, 0.25]);
    expect(notes[1].places[0]).toBe(size / 20);
  });

  test('of which nothing was written says so', async () => {
    await expect(finishLive(spec, sink(), null)).rejects.toThrow(/Nothing was recorded/);
  });
});
