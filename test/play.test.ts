import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
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
  show.fadeSeconds = 3;
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
});
