import { appendFileSync, cpSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Desk, movingShow } from './desk';

let desk: Desk;
let dist: string;
let startAgain: () => Promise<void>;

beforeAll(async () => {
  // A copy, which a newer version takes the place of.
  dist = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-dist-'));
  cpSync(path.resolve('dist'), dist, { recursive: true, filter: (name) => !/assets\/.*\.png$/.test(name) });
  desk = await Desk.open({ dist, isKept: true });
  await desk.openShow(movingShow('Away', { Amber: [1, 0.7, 0.2] }));
});
afterAll(async () => {
  await desk.close();
  rmSync(dist, { recursive: true });
});

const count = (selector: string): Promise<number> =>
  desk.driver.executeScript<number>(`return document.querySelectorAll(arguments[0]).length`, selector);
const worker = (state: 'active' | 'waiting'): Promise<string> =>
  desk.until(
    `the worker that is ${state}`,
    () =>
      desk.driver.executeAsyncScript<string>(
        `const [state, done] = arguments; navigator.serviceWorker.getRegistration().then((r) => done(r?.[state]?.state ?? ''))`,
        state,
      ),
    (now) => now === 'activated' || now === 'installed',
  );

describe('without its server', () => {
  test('the app starts, with the show and its picture, and says what waits', async () => {
    await worker('active');
    startAgain = await desk.stopServer();
    await desk.driver.navigate().refresh();
    await desk.find('[data-testid="patch"] [data-node="Light"]');
    await desk.moves();
    const lamp = await desk.find('[data-testid="offline"]');
    expect(await lamp.getAttribute('title')).toMatch(/OSC, pixel strings .* farm/);
  });

  test('every view and every node is there, and what is edited is kept', async () => {
    for (const view of ['play', 'wall', 'inputs', 'shows', 'record', 'build']) {
      await desk.click(`nav a[href="/${view}"]`);
      await desk.find('main');
    }
    await desk.find('.react-flow__node');
    await desk.add('glow', 'Glow');
    await desk.tidy();
    await desk.driver.navigate().refresh();
    await desk.find('[data-node="Glow"]');
  });

  test('the lamp goes once the server is back', async () => {
    await startAgain();
    await desk.until(
      'the lamp to go',
      () => count('[data-testid="offline"]'),
      (n) => n === 0,
    );
  });
});

describe('a newer version', () => {
  const offer = '[data-notice="info"] .btn-primary';

  test('is not offered in Play, and is taken in Build on demand', async () => {
    await worker('active');
    await desk.click('nav a[href="/play"]');
    await desk.find('[aria-label="Scenes"]');
    appendFileSync(path.join(dist, 'sw.js'), '\n// a newer version\n');
    await desk.driver.executeAsyncScript(
      `const done = arguments[0]; navigator.serviceWorker.getRegistration().then((r) => r.update()).then(() => done())`,
    );
    await worker('waiting');
    expect(await count(offer)).toBe(0);
    await desk.click('nav a[href="/build"]');
    await desk.notice('info', 'A newer version of Pyrvel is ready');
    await desk.driver.executeScript(`window.isOld = true`);
    await desk.click(offer);
    await desk.until(
      'the page with the newer version',
      () =>
        desk.driver.executeScript<boolean>(
          `return !window.isOld && document.querySelector('.react-flow__node') !== null`,
        ),
      (isThere) => isThere,
    );
    await desk.find('[data-node="Glow"]');
    await desk.notice('info', 'This is the newer version');
    await desk.click(offer);
    await desk.find('[data-section="news"]');
  });
});
