import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Desk, movingShow } from './desk';

jest.setTimeout(120000);
let desk: Desk;
let editor: string;
let stage: string;

beforeAll(async () => {
  desk = await Desk.open();
  await desk.openShow(movingShow('Stage Test', { Amber: [1, 0.6, 0.1] }));
  editor = await desk.driver.getWindowHandle();
  await desk.click('[aria-label="Stage"] .btn-primary');
  const handles = await desk.until(
    'the stage window',
    () => desk.driver.getAllWindowHandles(),
    (all) => all.length === 2,
  );
  stage = handles.find((handle) => handle !== editor)!;
});
afterAll(() => desk?.close());

const look = async <T>(window: string, what: () => Promise<T>): Promise<T> => {
  await desk.driver.switchTo().window(window);
  return what();
};

describe('the stage window', () => {
  test('shows the moving picture and nothing else', async () => {
    await look(stage, () => desk.moves('canvas'));
    const text = await desk.driver.executeScript<string>('return document.body.innerText.trim()');
    expect(text).toBe('');
    const kinds = await desk.driver.executeScript<string[]>(
      'return [...document.body.children].map((e) => e.tagName)',
    );
    expect([...new Set(kinds)]).toEqual(['CANVAS']);
  });

  test('fills the screen with one key', async () => {
    await look(stage, () => desk.press('f'));
    await desk.until(
      'full screen',
      () => desk.driver.executeScript<boolean>('return document.fullscreenElement !== null'),
      Boolean,
    );
    await desk.press('f');
    await desk.until(
      'a window again',
      () => desk.driver.executeScript<boolean>('return document.fullscreenElement === null'),
      Boolean,
    );
  });

  test('goes on while the main thread of the editor is blocked for a second', async () => {
    await look(editor, () => desk.click('[title="Where the time goes"]'));
    const frames = (): Promise<number> => desk.text('[data-testid="stage-frames"]').then(Number);
    await desk.until('frames on stage', frames, (n) => n > 0);
    // What the engine said while nobody could listen is read first thing afterwards.
    const [before, after] = await desk.driver.executeAsyncScript<[number, number]>(`
      const done = arguments[0];
      const read = () => Number(document.querySelector('[data-testid="stage-frames"]').textContent);
      const before = read();
      const end = performance.now() + 1200;
      while (performance.now() < end);
      setTimeout(() => requestAnimationFrame(() => done([before, read()])), 0);`);
    expect(after - before).toBeGreaterThanOrEqual(2);
  });

  test('goes on while the editor is hidden behind another tab', async () => {
    await desk.driver.switchTo().newWindow('tab');
    const tab = await desk.driver.getWindowHandle();
    await look(stage, () => desk.moves('canvas'));
    await look(tab, () => desk.driver.close());
    await desk.driver.switchTo().window(editor);
  });

  test('blackout darkens it and leaves the monitor, freeze holds it', async () => {
    await look(editor, () => desk.click('[title="Black on all stage windows"]'));
    await look(stage, () =>
      desk.until(
        'black',
        () => desk.picture('canvas'),
        (p) => p.mean < 1,
      ),
    );
    await look(editor, () => desk.moves());
    await desk.click('[title="Black on all stage windows"]');
    await look(stage, () => desk.moves('canvas'));
    await look(editor, () => desk.click('[title="Hold the picture on all stage windows"]'));
    let last = '';
    const held = await look(stage, () =>
      desk.until(
        'a held picture',
        () => desk.picture('canvas'),
        (p) => {
          const same = p.png === last;
          last = p.png;
          return same;
        },
      ),
    );
    await look(editor, () => desk.moves());
    expect((await look(stage, () => desk.picture('canvas'))).png).toBe(held.png);
    await look(editor, () => desk.click('[title="Hold the picture on all stage windows"]'));
    await look(stage, () => desk.moves('canvas'));
  });

  test('outlives a reload of the editor, which finds it again', async () => {
    await look(editor, () => desk.driver.navigate().refresh());
    await desk.find('[data-testid="patch"]');
    await look(stage, () => desk.moves('canvas'));
    const count = await desk.driver.executeScript<number>(
      'return document.querySelectorAll("canvas").length',
    );
    expect(count).toBe(1);
    await desk.driver.switchTo().window(editor);
  });
});
