import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Desk, movingShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
let editor: string;
let stage: string;

beforeAll(async () => {
  desk = await Desk.open({ plainPages: false });
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

  test('goes on while the main thread of the editor is blocked', async () => {
    await look(editor, () => desk.click('[title="Where the time goes"]'));
    const frames = (): Promise<number> => desk.text('[data-testid="stage-frames"]').then(Number);
    await desk.until('frames on stage', frames, (n) => n > 0);
    // The stage draws with the main thread of the editor, so a count kept by the engine is asked: it is read before and
    // after a block, which grows until the machine, however busy, had the time for two frames.
    const during = (blockMs: number): Promise<number> =>
      desk.driver.executeAsyncScript<number>(
        `
      const [blockMs, done] = arguments;
      const read = () => Number(document.querySelector('[data-testid="stage-frames"]').textContent);
      const before = read();
      const end = performance.now() + blockMs;
      while (performance.now() < end);
      setTimeout(() => requestAnimationFrame(() => done(read() - before)), 0);`,
        blockMs,
      );
    let drawn = 0;
    for (let blockMs = 1000; drawn < 2 && blockMs <= 16000; blockMs *= 2) drawn = await during(blockMs);
    expect(drawn).toBeGreaterThanOrEqual(2);
  });

  test('goes on while the editor is hidden', async () => {
    const hidden = (): Promise<boolean> => desk.driver.executeScript<boolean>('return document.hidden');
    await look(editor, () => desk.driver.manage().window().minimize());
    await desk.until('the editor hidden', hidden, Boolean);
    await look(stage, () => desk.moves('canvas'));
    await look(editor, async () => expect(await hidden()).toBe(true));
    await desk.driver.manage().window().setRect({ width: 1280, height: 800 });
    await desk.until('the editor in sight', hidden, (is) => !is);
  });

  test('blackout darkens it and leaves the monitor, freeze holds it', async () => {
    await look(editor, () => desk.click('[aria-label="Blackout"]'));
    await look(stage, () =>
      desk.until(
        'black',
        () => desk.picture('canvas'),
        (p) => p.mean < 1,
      ),
    );
    await look(editor, () => desk.moves());
    await desk.click('[aria-label="Blackout"]');
    await look(stage, () => desk.moves('canvas'));
    await look(editor, () => desk.click('[aria-label="Freeze"]'));
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
    await look(editor, () => desk.click('[aria-label="Freeze"]'));
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

  test('comes back when it is reloaded itself', async () => {
    await look(stage, () => desk.driver.navigate().refresh());
    await look(stage, () => desk.moves('canvas'));
    await desk.driver.switchTo().window(editor);
  });

  test('of two, the second goes on when the first is closed and another is opened', async () => {
    const open = async (count: number): Promise<string> => {
      const before = await desk.driver.getAllWindowHandles();
      await look(editor, () => desk.click('[aria-label="Stage"] .btn-primary'));
      const now = await desk.until(
        'another stage window',
        () => desk.driver.getAllWindowHandles(),
        (all) => all.length === count,
      );
      return now.find((handle) => !before.includes(handle))!;
    };
    const second = await open(3);
    await look(second, () => desk.moves('canvas'));
    const page = (): Promise<string> => desk.driver.executeScript('return pyrvelStage.page');
    const before = await look(second, page);
    await look(stage, () => desk.driver.close());
    stage = await open(3);
    await look(stage, () => desk.moves('canvas'));
    await look(second, () => desk.moves('canvas'));
    expect(await page()).toBe(before);
    await desk.driver.close();
    await desk.driver.switchTo().window(editor);
  });

  test('is not dark for a moment when the process that draws dies', async () => {
    await look(stage, () => desk.moves('canvas'));
    await desk.until(
      'what would stand in for it',
      () => desk.driver.executeScript<string>('return document.body.style.backgroundImage'),
      (image) => image.startsWith('url('),
    );
    await desk.killDrawing();
    // The browser gives a picture once it can draw again, which the page has not heard by then.
    const { mean } = await desk.seen();
    expect(mean).toBeGreaterThan(20);
    await look(stage, () => desk.moves('canvas'));
  });

  test('comes back when the engine died', async () => {
    await look(editor, () => desk.chooseNothing());
    await desk.click('[title^="Stops the engine"]');
    await desk.notice('info', 'engine is back');
    await look(stage, () => desk.moves('canvas'));
    expect(await desk.driver.executeScript<number>('return document.querySelectorAll("canvas").length')).toBe(
      1,
    );
    await desk.driver.switchTo().window(editor);
  });
});
