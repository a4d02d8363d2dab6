import { expect, test } from '@jest/globals';
import { catalogue } from '../src/nodes/catalogue';
import { makeShow } from '../src/core/show/create';
import { Options, readArguments } from './arguments';
import {
  exportFlags,
  exportOptions,
  fileOfFrame,
  isData,
  readDataRequest,
  readGoal,
  readSpec,
} from './export-spec';
import { partsOf } from '../src/core/export/farm';

const show = makeShow(catalogue, 'Made up');
const [scene] = show.scenes;
const spec = (to: string, more: Record<string, string> = {}) =>
  readSpec(show, Options.of({ scene: scene.name, ...more }), readGoal(to));

test('the ending says what is written', () => {
  expect(spec('a.webm').format).toMatchObject({ type: 'video', container: 'webm', codec: 'vp9' });
  expect(spec('a.mp4', { codec: 'av1', bitrate: '4e6' }).format).toMatchObject({
    codec: 'av1',
    quality: 4e6,
  });
  expect(spec('f/####.png', { bits: '16', alpha: 'yes' }).format).toMatchObject({
    image: 'png16',
    alpha: true,
  });
  expect(spec('f/####.exr', { bits: '32' }).format).toMatchObject({ image: 'exr32' });
  expect(spec('a.webp').format).toEqual({ type: 'animation', image: 'webp' });
  expect(spec('a.webp', { frames: '3' }).format).toMatchObject({ type: 'images', image: 'webp' });
  expect(spec('a.pcap').format).toEqual({ type: 'pixels', as: 'pcap' });
});

test('options are read as they stand, and the rest is that of the show', () => {
  const { fps, width, height, range, supersample, subframes, shutter } = spec('a.webm', {
    size: '640x360',
    fps: '23.976',
    frames: '10..20',
    supersample: '2',
    subframes: '8',
    shutter: '90',
  });
  expect({ fps, width, height, range, supersample, subframes, shutter }).toEqual({
    fps: 23.976,
    width: 640,
    height: 360,
    range: { type: 'frames', first: 10, last: 20 },
    supersample: 2,
    subframes: 8,
    shutter: 90,
  });
  expect(spec('a.webm')).toMatchObject({
    fps: show.canvas.fps,
    width: show.canvas.width,
    range: { type: 'whole' },
  });
  expect(spec('a.webm', { closed: 'yes' }).range).toEqual({ type: 'loop', closed: true });
  expect(spec('a.webm', { cues: 'yes', 'hand-seconds': '3' }).source).toEqual({
    type: 'cues',
    handSeconds: 3,
  });
});

test.each([
  ['a.avi', {}, /takes webm, mp4/],
  ['a.webm', { scene: 'Nowhere' }, /no scene Nowhere/],
  ['a.webm', { loop: 'yes', frames: '1..2' }, /Either --loop or --frames/],
  ['a.webm', { cues: 'yes', moves: 'yes' }, /Either --cues or --moves/],
  ['a.webm', { output: 'Wall' }, /The wall has: none/],
  ['a.webm', { quality: 'best' }, /takes low, medium/],
  ['a.webm', { subframes: 'many' }, /takes a number/],
  ['f/####.webm', {}, /one file/],
  ['f.png', {}, /need a #/],
  ['##/a.png', {}, /not in a folder/],
] as [string, Record<string, string>, RegExp][])(
  '%s with %j is refused with a sentence',
  (to, more, sentence) => {
    expect(() => spec(to, more)).toThrow(sentence);
  },
);

test('the number of a frame stands where the marks are', () => {
  expect(fileOfFrame(readGoal('out/f-####.png'), 42)).toBe('out/f-0042.png');
  expect(fileOfFrame(readGoal('out/still.png'), 42)).toBe('out/still.png');
});

test('flags stand alone, and options have values', () => {
  const { plain, options } = readArguments(
    ['a.json', '--loop', '--to', 'x.webm', '--alpha'],
    exportOptions,
    exportFlags,
  );
  expect(plain).toEqual(['a.json']);
  expect([options.get('loop'), options.get('alpha'), options.get('to')]).toEqual(['yes', 'yes', 'x.webm']);
  expect(() => readArguments(['--lop'], exportOptions, exportFlags)).toThrow(/--loop/);
});

test('what a node gives is a file of its own, and CSV may be pixels', () => {
  expect(isData(readGoal('a.glb'), Options.of({}))).toBe(true);
  expect(isData(readGoal('a.csv'), Options.of({}))).toBe(true);
  expect(isData(readGoal('a.csv'), Options.of({ output: 'String 1' }))).toBe(false);
  expect(isData(readGoal('a.webm'), Options.of({}))).toBe(false);
  const [out] = Object.values(scene.nodes);
  const asked = (more: Record<string, string>, file: string) =>
    readDataRequest(show, Options.of({ scene: scene.name, ...more }), file);
  expect(asked({ node: out.name, frames: '5..9' }, 'a.csv')).toMatchObject({
    node: out.id,
    first: 5,
    last: 9,
  });
  expect(asked({ node: out.name }, 'a.obj')).toMatchObject({ first: 0, last: 0 });
  expect(asked({}, 'a.md')).toMatchObject({ node: null, as: 'md' });
  expect(() => asked({}, 'a.glb')).toThrow(/--node/);
});

test('a worker is given a piece of video, or several images, and what it begins from where pictures remember', () => {
  const pieces = Array.from({ length: 20 }, (_, k) => k);
  const plan = { first: 0, count: 20, meets: null, remarks: [] };
  expect(partsOf(spec('a.webm'), plan, pieces)).toHaveLength(20);
  const parts = partsOf(spec('f/#.png'), plan, pieces);
  expect(parts.flatMap((part) => part.pieces)).toEqual(pieces);
  expect(parts.length).toBeLessThan(5);
  expect(parts.every(({ checkpoint }) => checkpoint === null)).toBe(true);
  const later = partsOf(spec('f/#.png'), { ...plan, checkpoints: true }, [
    0,
    1,
    ...Array.from({ length: 60 }, (_, k) => 10 + k),
  ]);
  expect(later.map(({ checkpoint }) => checkpoint)).toEqual([null, 56]);
});
