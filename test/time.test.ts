import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import type { Show } from '../src/core/document/types';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => void (desk = await Desk.open()));
afterAll(() => desk.close());

function showOf(name: string, fill: (s: Sketch) => void): Show {
  const show = smallShow(name);
  show.canvas.fps = 60;
  const s = new Sketch('s1', 'Scene 1', [500, 0]);
  fill(s);
  show.scenes = [s.scene];
  return show;
}

/** Goes to a share of the loop bar with the pointer. */
async function seek(share: number, modifier?: string, toShare = share): Promise<void> {
  const bar = await desk.find('[data-testid="loop-bar"] [role="slider"]');
  const { width } = await bar.getRect();
  const at = (s: number): number => Math.round((s - 0.5) * (width - 2));
  const actions = desk.driver.actions();
  if (modifier) actions.keyDown(modifier);
  actions.move({ origin: bar, x: at(share) }).press();
  if (toShare !== share) actions.move({ origin: bar, x: at(toShare) });
  actions.release();
  if (modifier) actions.keyUp(modifier);
  await actions.perform();
}
const time = async (): Promise<number> => parseFloat(await desk.text('[data-testid="time"]'));

describe('the loop bar', () => {
  test('goes to a place, and what has a memory is run up to there', async () => {
    await desk.openShow(
      showOf('Seeks', (s) => {
        const speed = s.add('values', 'Speed', [0, 200], { list: [0.5] });
        const sum = s.add('accumulate', 'Way', [150, 200], {});
        s.wire(speed, sum, 'in');
        const beats = s.add('beat-clock', 'Beats', [0, 400], { gives: 'hit' });
        const count = s.add('counter', 'Count', [150, 400], { to: 1000, ends: 'none' });
        s.wire(beats, count, 'trigger');
        const shape = s.add('flat-shape', 'Disc', [300, 0]);
        s.wire(sum, shape, 'place.x', [0, 1]);
        s.wire(count, shape, 'turn', [0, 100]);
        s.wire(shape, s.out, 'picture');
        for (const id of [sum, count]) {
          const wire = Object.values(s.scene.wires).find((w) => w.from.node === id)!;
          delete wire.fit;
        }
      }),
    );
    await desk.pause();
    await seek(0.5);
    // Half of 16 beats at 120 a minute is 4 s; a pixel of the bar is a hundredth of a second.
    const near = (of: number) => (t: number) => Math.abs(t - of) < 0.15;
    await desk.until('4 s', time, near(4));
    await desk.choose('Disc');
    const at = await desk.until('the way gone in 4 s', () => desk.liveValue('place.x'), near(2));
    // One at the start and one with each beat.
    const beats = at * 4 + 0.5;
    await desk.until(
      'the beats of 4 s',
      () => desk.liveValue('turn'),
      (n) => Math.abs(n - beats) <= 1,
    );
    await seek(0.25);
    await desk.until('the way gone in 2 s', () => desk.liveValue('place.x'), near(1));
  });

  test('a window out of sight draws nothing, and time goes on', async () => {
    await desk.openShow(showOf('Out of sight', (s) => void s.add('oscillator', 'Wave', [0, 200])));
    const setHidden = (hidden: boolean): Promise<void> =>
      desk.driver.executeScript(
        `Object.defineProperty(document, 'hidden', { value: arguments[0], configurable: true });
         document.dispatchEvent(new Event('visibilitychange'));`,
        hidden,
      );
    const frames = async (): Promise<number> =>
      Number(await (await desk.find('[data-testid="fps"]')).getAttribute('data-frames'));
    await desk.until('frames', frames, (n) => n > 3);
    await setHidden(true);
    // What was drawn before is still to be told.
    const told = await time();
    await desk.until('time to go on', time, (t) => t > told + 1 || t < told);
    const drawn = await frames();
    const later = await time();
    await desk.until('time to go on further', time, (t) => t > later + 1 || t < later);
    expect(await frames()).toBe(drawn);
    await setHidden(false);
    await desk.until('frames again', frames, (n) => n > drawn + 3);
  });

  test('a range is played round, and the keyboard goes frame by frame', async () => {
    await desk.openShow(showOf('Goes round', (s) => void s.add('oscillator', 'Wave', [0, 200])));
    await seek(0.25, Key.SHIFT, 0.375);
    await desk.find('[data-testid="range"]');
    await desk.until('the range', time, (t) => t > 2.5);
    await desk.until('its start again', time, (t) => t < 2.4);
    expect(await time()).toBeGreaterThan(1.8);
    await desk.click('[data-testid="loop-bar"] button:last-of-type');
    await desk.pause();
    const bar = await desk.find('[data-testid="loop-bar"] [role="slider"]');
    await bar.sendKeys(Key.HOME, ...Array<string>(6).fill(Key.ARROW_RIGHT));
    await desk.until('six frames', time, (t) => Math.abs(t - 0.1) < 0.01);
  });
});

describe('a loop that fits', () => {
  test('what does not fit is pointed out and mended; locked, rates are rounded', async () => {
    await desk.openShow(
      showOf('Fits', (s) => {
        s.add('oscillator', 'Slow', [0, 200], { rate: 0.25 });
        s.add('oscillator', 'Odd', [200, 200], { rate: 0.3 });
      }),
    );
    await desk.chooseNothing();
    expect(await desk.text('[data-testid="joint"]')).toContain('after 20 s');
    expect(await desk.text('[aria-label="Rates that do not fit"]')).toContain('Odd · Rate 2.4×');
    await desk.click('[aria-label="Rates that do not fit"] .tool');
    await desk.until(
      'all fits',
      () => desk.text('[aria-label="Loop"]'),
      (t) => t.includes('Every rate fits'),
    );
    await desk.choose('Odd');
    expect(await desk.text('[data-part="rate"] [role="spinbutton"]')).toBe('0.25');
    await desk.chooseNothing();
    await desk.type('Loop length', '6');
    await desk.select('Loop length in', 'seconds');
    await desk.click('[aria-label="Lock to loop"]');
    await desk.until(
      'rounding',
      () => desk.text('[aria-label="Loop"]'),
      (t) => t.includes('2 rates are rounded'),
    );
  });
});

describe('curves', () => {
  test('keys are added, moved, typed, eased and taken back', async () => {
    await desk.openShow(showOf('Draws', (s) => void s.add('keyframes', 'Path', [0, 200])));
    await desk.choose('Path');
    await desk.click('[data-testid="inspector"] [data-part="lanes"] button');
    const plot = await desk.find('[data-testid="curves"] [role="application"]');
    const keys = (): Promise<number> =>
      desk.driver.executeScript(
        `return document.querySelectorAll('[data-testid="curves"] [data-key]').length`,
      );
    expect(await keys()).toBe(3);
    const { width } = await plot.getRect();
    await desk.doubleClick(plot, { x: Math.round(width * 0.1), y: 0 });
    await desk.until('a fourth key', keys, (n) => n === 4);
    await desk.click('[data-testid="curves"] [data-key="2"]');
    await desk.type('Key at', '2.5', '[data-testid="curves"]');
    await desk.type('Key value', '3', '[data-testid="curves"]');
    const title = (): Promise<string> =>
      desk.driver.executeScript(
        `return document.querySelector('[data-testid="curves"] [data-key="2"] title').textContent`,
      );
    expect(await title()).toBe('2.5 · 3');
    const key = await desk.find('[data-testid="curves"] [data-key="2"]');
    await desk.driver.actions({ async: true }).dragAndDrop(key, { x: 60, y: 0 }).perform();
    await desk.until('a later place', title, (t) => parseFloat(t) > 2.7);
    await desk.chord(Key.CONTROL, 'z');
    await desk.until('its place before', title, (t) => t === '2.5 · 3');
    await desk.click('[data-testid="curves"] [data-key="2"]');
    await desk.press(Key.DELETE);
    await desk.until('three keys', keys, (n) => n === 3);
  });
});

describe('motions and links', () => {
  test('a Swing becomes a node that does the same, and a control follows another', async () => {
    await desk.openShow(
      showOf('Links', (s) => {
        const shape = s.add('flat-shape', 'Disc', [300, 0], { place: [0.2, 0] });
        s.swing(shape, 'place.x', { amount: 0.2, rate: 0.5 });
        s.wire(shape, s.out, 'picture');
      }),
    );
    await desk.choose('Disc');
    await desk.click('[aria-label="Source of Place x"]');
    await desk.find('[data-part="place.x"] [data-testid="band"]');
    await desk.click('[data-sources="place.x"] [aria-label="Copy as a link"]');
    await desk.click('[aria-label="Source of Place y"]');
    await desk.click('[data-sources="place.y"] [aria-label="Paste the link"]');
    await desk.until(
      'y to follow x',
      async () => [await desk.liveValue('place.x'), await desk.liveValue('place.y')],
      ([x, y]) => Math.abs(x - y) < 0.03 && y !== 0,
    );
    await desk.click('[data-sources="place.x"] [aria-label="Turn Swing into a node"]');
    await desk.find('[data-node="Oscillator"]');
    expect(await desk.text('[data-part="centre"] [role="spinbutton"]')).toBe('0.2');
    await desk.choose('Disc');
    await desk.until(
      'the node to move it',
      () => desk.liveValue('place.x'),
      (v) => v > 0.3 || v < 0.1,
    );
  });
});
