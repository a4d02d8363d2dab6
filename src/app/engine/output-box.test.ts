import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { FakeBox, installImageData } from '../testing/fake-box';
import {
  clearBehind,
  clearBox,
  putBehind,
  seenPart,
  settleCanvas,
  shownIn,
  stackCanvas,
  standIn,
} from './output-box';

installImageData();
let box: FakeBox;
beforeEach(() => {
  jest.useFakeTimers();
  box = new FakeBox();
});
afterEach(() => {
  expect(jest.getTimerCount()).toBe(0);
  jest.useRealTimers();
});
const stack = (): HTMLCanvasElement => stackCanvas(box.element, 'stage');

test('a new canvas fills its box behind the one that still shows the last picture, and goes before it once it has its own', () => {
  const [old, fresh] = [stack(), stack()];
  expect(fresh).toMatchObject({ width: 1, height: 1, dataset: { output: 'stage' } });
  expect(fresh.style).toMatchObject({
    position: 'absolute',
    width: '100%',
    height: '100%',
    left: '0',
    bottom: '0',
  });
  expect(shownIn(box.element)!.canvas).toBe(old);
  settleCanvas(box.element, [1, 1]);
  jest.advanceTimersByTime(500);
  expect(shownIn(box.element)!.canvas).toBe(old);
  box.canvases[0].arrive();
  jest.advanceTimersByTime(50);
  expect(box.canvases).toEqual([fresh]);
});

test('a picture that never arrives does not keep the one before for ever', () => {
  const [, fresh] = [stack(), stack()];
  settleCanvas(box.element, [1, 1]);
  jest.advanceTimersByTime(1900);
  expect(box.canvases).toHaveLength(2);
  jest.advanceTimersByTime(200);
  expect(box.canvases).toEqual([fresh]);
});

test('one that came meanwhile stays while those before it go', () => {
  const [, painted] = [stack(), stack()];
  settleCanvas(box.element, [1, 1]);
  const newest = stack();
  box.canvases[1].arrive();
  jest.advanceTimersByTime(50);
  expect(box.canvases).toEqual([newest, painted]);
});

test('of a shared bitmap a canvas is enlarged until the output’s own part fills the box, from the lower left', () => {
  const canvas = stack();
  settleCanvas(box.element, [0.25, 0.5]);
  box.canvases[0].arrive();
  expect(canvas.style).toMatchObject({ width: '400%', height: '200%', left: '0', bottom: '0' });
  expect(shownIn(box.element)).toEqual({ canvas, share: [0.25, 0.5] });
  expect(seenPart(shownIn(box.element)!)).toEqual([0, 18, 16, 18]);
});

test('a stand-in is seen before all that is there, until the next canvas has a picture', () => {
  stack();
  settleCanvas(box.element, [0.5, 0.5]);
  const rgba = Uint8Array.from({ length: 2 * 1 * 4 }, (_, k) => k);
  standIn(box.element, { width: 2, height: 1, rgba }, 'stage');
  const fresh = stack();
  const shown = shownIn(box.element)!;
  expect(shown.share).toEqual([1, 1]);
  expect(shown.canvas).toMatchObject({ width: 2, height: 1 });
  expect(Array.from(box.canvases.at(-1)!.drawn!)).toEqual(Array.from(rgba));
  box.canvases[0].arrive();
  settleCanvas(box.element, [1, 1]);
  expect(box.canvases).toEqual([fresh]);
  jest.advanceTimersByTime(100);
});

test('a stand-in is painted again and again until it goes: the browser may lose it by the same fault', () => {
  standIn(box.element, { width: 1, height: 1, rgba: new Uint8Array(4) }, 'stage');
  const [shown] = box.canvases;
  jest.advanceTimersByTime(1000);
  expect(shown.draws).toBeGreaterThan(5);
  clearBox(box.element);
  jest.advanceTimersByTime(1000);
});

test('a picture lies behind all canvases, the last one only, and none that is not wanted any more', async () => {
  const revoked: string[] = [];
  const revoke = jest.spyOn(URL, 'revokeObjectURL').mockImplementation((url) => void revoked.push(url));
  const picture = { width: 1, height: 1, rgba: new Uint8Array(4) };
  const { style } = box;
  await putBehind(box.element, picture, () => true);
  const [first] = [style.backgroundImage];
  expect(first).toMatch(/^url\(blob:/);
  await putBehind(box.element, picture, () => true);
  expect(style.backgroundImage).not.toBe(first);
  expect(`url(${revoked[0]})`).toBe(first);
  await putBehind(box.element, picture, () => false);
  expect(revoked).toHaveLength(1);
  clearBehind(box.element);
  expect([style.backgroundImage, revoked.length]).toEqual(['', 2]);
  clearBehind(box.element);
  expect(revoked).toHaveLength(2);
  revoke.mockRestore();
});

test('a box that is cleared shows nothing', () => {
  stack();
  clearBox(box.element);
  expect(shownIn(box.element)).toBeNull();
  // An engine that is late has nothing to settle.
  settleCanvas(box.element, [1, 1]);
  expect(box.canvases).toEqual([]);
});
