import { expect, test } from '@jest/globals';
import { makeShow } from '../show/create';
import { addPixelString, addScreen } from '../show/edit-wall';
import { catalogue } from '../../nodes/catalogue';
import { fileOfPiece, frameName } from './names';
import { framesOf, pieceCount, pieceFrames, Timing, type ExportPlan } from './schedule';
import { checkSpec, ExportError, homeSpec, loopFrames, type ExportSpec, type ImagesFormat } from './spec';

const show = makeShow(catalogue, 'Made up');
addScreen(show);
addPixelString(show);
const [screen, string] = show.wall.outputs;
const home = homeSpec(show, show.scenes[0]);
const images: ImagesFormat = { type: 'images', image: 'png', alpha: false, linear: false, depth: false };
const video = home.format as Extract<ExportSpec['format'], { type: 'video' }>;
const oneFrame = { type: 'frames', first: 3, last: 3 } as const;

/** What is said of an export; null: nothing. */
function said(change: Partial<ExportSpec>): string | null {
  try {
    checkSpec(show, { ...home, ...change });
    return null;
  } catch (error) {
    expect(error).toBeInstanceOf(ExportError);
    return (error as Error).message;
  }
}

test('an export of a loop as a video is possible as it begins', () => {
  expect(said({})).toBeNull();
});

test.each<[string, Partial<ExportSpec>, RegExp]>([
  [
    'a scene that is gone',
    { source: { type: 'scene', scene: 'gone', node: null } },
    /scene .* not in the show/,
  ],
  ['a node that is gone', { source: { type: 'scene', scene: 's1', node: 'gone' } }, /node .* not in/],
  [
    'an empty running order',
    { source: { type: 'cues', handSeconds: 4 }, range: { type: 'whole' } },
    /running order is empty/,
  ],
  ['moves that were never recorded', { source: { type: 'moves' }, range: { type: 'whole' } }, /No moves/],
  ['an output that is gone', { output: 'gone' }, /output .* not on the wall/],
  ['pictures of a string', { output: string.id }, /single pixels/],
  ['pixels of a screen', { output: screen.id, format: { type: 'pixels', as: 'csv' } }, /of a string/],
  ['frames backwards', { range: { type: 'frames', first: 9, last: 3 } }, /first not after the last/],
  ['H.264 in WebM', { format: { ...video, codec: 'avc' } }, /webm holds no avc/],
  ['AAC in WebM', { format: { ...video, sound: 'aac' } }, /webm holds no aac/],
  ['alpha in AV1', { format: { ...video, codec: 'av1', alpha: true } }, /VP9 in WebM/],
  ['alpha of a screen', { output: screen.id, format: { ...images, alpha: true } }, /by itself/],
  ['an odd width of a video', { width: 641 }, /642 x/],
  ['depth without EXR', { format: { ...images, depth: true } }, /Only EXR/],
  ['depth without a Shot', { format: { ...images, image: 'exr16', depth: true } }, /comes from a Shot/],
  ['alpha in JPEG', { format: { ...images, image: 'jpeg', alpha: true } }, /JPEG/],
  ['no subframes', { subframes: 0 }, /1 to 64/],
  ['a closed shutter', { shutter: 0 }, /degrees/],
  ['a sequence larger than a texture', { format: images, width: 9000 }, /1 to 8192/],
  ['a large JPEG', { format: { ...images, image: 'jpeg' }, range: oneFrame, width: 9000 }, /written as PNG/],
  [
    'a large supersampled still',
    { format: images, range: oneFrame, width: 9000, supersample: 2 },
    /without supersampling/,
  ],
  ['a name of nothing', { name: '  ' }, /no name/],
])('%s is refused with a sentence', (_, change, sentence) => {
  expect(said(change)).toMatch(sentence);
});

test('a still may be larger than a texture', () => {
  expect(said({ format: images, range: oneFrame, width: 16384, height: 16384 })).toBeNull();
  expect(said({ format: images, range: oneFrame, width: 16385 })).toMatch(/16384/);
});

test('frames of a loop are counted at the rate of the export', () => {
  // Sixteen beats at 120 a minute are eight seconds.
  const at120 = { ...show, tempo: { bpm: 120, beatsPerBar: 4 } };
  expect(loopFrames(at120, show.scenes[0], 25)).toBeCloseTo(200, 9);
  const inFrames = { ...show.scenes[0], loop: { length: 90, unit: 'frames', lock: false } as const };
  // Ninety frames of the show, and not of the export.
  expect(loopFrames(at120, inFrames, 30)).toBeCloseTo((90 / show.canvas.fps) * 30, 9);
});

test('subframes lie within the time that the shutter is open', () => {
  const timing = new Timing(25, 4, 180);
  expect([0, 1, 2, 3, 4].map((step) => timing.timeOf(step))).toEqual([0, 0.005, 0.01, 0.015, 0.04]);
  expect(timing.dtOf(0)).toBe(0);
  expect(timing.dtOf(4)).toBeCloseTo(0.025, 12);
  // Without subframes a step is a frame to the last bit, as frames on stage are.
  expect(new Timing(60).dtOf(7)).toBe(1 / 60);
});

test('pieces cover all frames once, in order', () => {
  const plan: ExportPlan = { first: 10, count: 130, meets: null, remarks: [] };
  for (const format of [video, images]) {
    const spec = { ...home, format, fps: 30 };
    const all = Array.from({ length: pieceCount(spec, plan) }, (_, k) => framesOf(spec, plan, k));
    expect(all[0][0]).toBe(10);
    expect(all.at(-1)![1]).toBe(140);
    for (let k = 1; k < all.length; k++) expect(all[k][0]).toBe(all[k - 1][1]);
  }
  expect(pieceFrames({ ...home, fps: 30 })).toBe(60);
  expect(pieceFrames({ format: images, fps: 30 })).toBe(1);
});

test('an image lies under the number of its frame, and a piece under its own', () => {
  const plan: ExportPlan = { first: 10, count: 3, meets: null, remarks: [] };
  expect(fileOfPiece({ format: { ...images, image: 'exr32' }, fps: 30 }, plan, 2)).toBe('frame-000012.exr');
  expect(fileOfPiece({ format: video, fps: 30 }, plan, 2)).toBe('piece-000002');
  expect(frameName({ format: { type: 'animation', image: 'gif' } }, 5)).toBe('frame-000005.gif');
});
