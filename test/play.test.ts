import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Desk, movingShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
const program = '[aria-label="Program"] canvas';
const name = (): Promise<string> => desk.text('[data-testid="program-name"]');
const state = async (scene: string): Promise<string | null> =>
  (await desk.find(`[data-scene-button="${scene}"]`)).getAttribute('data-state');

beforeAll(async () => {
  desk = await Desk.open();
  const show = movingShow('Play Test', { Red: [1, 0, 0], Green: [0, 1, 0], Blue: [0, 0, 1] });
  show.transition.length = 3;
  await desk.openShow(show);
  await desk.click('[aria-label="Views"] [href="/play"]');
  await desk.until(
    'the first scene on stage',
    () => desk.picture(program),
    (p) => p.red > 20 && p.green < 5,
  );
});
afterAll(() => desk?.close());

describe('Play', () => {
  test('each scene has a button with its picture', async () => {
    for (const scene of ['Red', 'Green', 'Blue']) await desk.find(`[data-scene-button="${scene}"] img`);
    expect(await state('Red')).toBe('on');
    expect(await state('Green')).toBe('idle');
  });

  test('their pictures are kept with the show, by what each scene held', async () => {
    const kept = (): Promise<{ id: string; of: string; bytes: number }[]> =>
      desk.driver.executeAsyncScript(`
        const [done] = arguments;
        const opened = indexedDB.open('pyrvel');
        opened.onsuccess = () => {
          const all = opened.result.transaction('scenePictures').objectStore('scenePictures').getAll();
          all.onsuccess = () => {
            opened.result.close();
            done(all.result.map(({ id, of, picture }) => ({ id, of, bytes: picture.size })));
          };
        };`);
    const pictures = await desk.until('three pictures', kept, (list) => list.length === 3);
    expect(new Set(pictures.map(({ of }) => of)).size).toBe(3);
    for (const { bytes } of pictures) expect(bytes).toBeGreaterThan(100);
    await desk.click('[aria-label="Views"] [href="/build"]');
    await desk.click('[aria-label="Views"] [href="/play"]');
    for (const scene of ['Red', 'Green', 'Blue']) await desk.find(`[data-scene-button="${scene}"] img`);
    expect(await kept()).toEqual(pictures);
  });

  test('a click fades to a scene while both run', async () => {
    await desk.click('[aria-label="Fade to Green"]');
    await desk.until('the fade', name, (text) => text === 'Red → Green');
    expect(await state('Red')).toBe('leaving');
    expect(await state('Green')).toBe('coming');
    await desk.until(
      'both in the picture',
      () => desk.picture(program),
      (p) => p.red > 3 && p.green > 3,
    );
    await desk.until('the end of the fade', name, (text) => text === 'Green');
    await desk.until(
      'only the new one',
      () => desk.picture(program),
      (p) => p.green > 20 && p.red < 3,
    );
    expect(await state('Green')).toBe('on');
  });

  test('the next scene runs in its own monitor and goes on stage by the button', async () => {
    await desk.click('[data-scene-button="Blue"] .tool');
    await desk.until(
      'the scene',
      () => state('Blue'),
      (s) => s === 'next',
    );
    await desk.moves('[aria-label="Next"] canvas');
    const next = await desk.picture('[aria-label="Next"] canvas');
    expect(next.blue).toBeGreaterThan(next.green + 10);
    expect((await desk.picture(program)).blue).toBeLessThan(5);
    await desk.click('.btn-primary.h-14');
    await desk.until('the fade to its end', name, (text) => text === 'Blue');
    await desk.until(
      'the picture',
      () => desk.picture(program),
      (p) => p.blue > 20 && p.green < 3,
    );
    expect(await desk.text('[aria-label="Next"]')).toContain('Set a scene as next');
  });

  /** Red, green and blue of the left and of the right quarter of what is on stage. */
  const halves = async () => {
    const { x, y, width, height } = await desk.driver.executeScript<DOMRect>(
      `return document.querySelector('[aria-label="Program"] canvas').parentElement.getBoundingClientRect()`,
    );
    const [w, h] = await desk.driver.executeScript<[number, number]>('return [innerWidth, innerHeight]');
    const at = (share: number) => desk.seenAround((x + share * width) / w, (y + 0.5 * height) / h);
    return { left: await at(0.1), right: await at(0.9) };
  };

  test('the crossfader brings the next scene by hand: an edge that travels stands where the hand leaves it', async () => {
    await desk.select('Look of the transition', 'Wipe', '[aria-label="Transition"]');
    await desk.click('[data-scene-button="Red"] .tool');
    const lever = await desk.find('[aria-label="Crossfader"]');
    await desk.until(
      'the lever to be free',
      () => lever.isEnabled(),
      (free) => free,
    );
    const { width } = await lever.getRect();
    await desk.driver
      .actions({ async: true })
      .move({ origin: lever, x: Math.round(-width / 2 + 6) })
      .press()
      .move({ origin: lever, x: 0, duration: 120 })
      .release()
      .perform();
    await desk.until('both', name, (text) => text === 'Blue → Red');
    // Whatever time passes, the left is red and the right is blue.
    const seen = await desk.until(
      'the edge in the middle',
      halves,
      ({ left, right }) => left.red > 15 && left.blue < 5 && right.blue > 15 && right.red < 5,
    );
    expect(seen.left.red).toBeGreaterThan(seen.left.blue);
    expect(await name()).toBe('Blue → Red');
  });

  test('what a hand holds goes on by itself, and a reload in the middle goes on where it was', async () => {
    await desk.type('Transition length', '30', '[aria-label="Transition"]');
    await desk.press(Key.F7);
    await desk.driver.navigate().refresh();
    await desk.find('[data-testid="program-name"]');
    await desk.until('the transition', name, (text) => text === 'Blue → Red');
    await desk.until(
      'its edge, past the middle',
      halves,
      ({ left, right }) => left.red > 15 && left.blue < 5 && right.blue > 15 && right.red < 5,
    );
    const lever = await desk.find('[aria-label="Crossfader"]');
    expect(Number(await lever.getAttribute('value'))).toBeGreaterThan(0.4);
    await lever.sendKeys(...Array.from({ length: 14 }, () => Key.ARROW_RIGHT));
    await desk.until('the end', name, (text) => text === 'Red');
  });

  test('a dip goes through its colour, and a take can wait for the bar', async () => {
    await desk.select('Look of the transition', 'Dip', '[aria-label="Transition"]');
    await desk.type('Transition length', '0.5', '[aria-label="Transition"]');
    await desk.select('Start of a take', 'On the bar', '[aria-label="Transition"]');
    await desk.click('[data-scene-button="Green"] .tool');
    await desk.until(
      'the next',
      () => state('Green'),
      (s) => s === 'next',
    );
    await desk.press(Key.F7);
    await desk.until('green on stage', name, (text) => text === 'Green');
    await desk.select('Start of a take', 'At once', '[aria-label="Transition"]');
    await desk.click('[data-scene-button="Blue"] .tool');
    const lever = await desk.find('[aria-label="Crossfader"]');
    await desk.until(
      'the lever to be free',
      () => lever.isEnabled(),
      (free) => free,
    );
    await lever.sendKeys(...Array.from({ length: 10 }, () => Key.ARROW_RIGHT));
    await desk.until(
      'black in the middle of a dip',
      () => desk.picture(program),
      (p) => p.mean < 2,
    );
  });
});
