import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { devTools } from '../bin/browser';
import { Sketch } from '../demo/sketch';
import type { Show } from '../src/core/document/types';
import { Desk, movingShow, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => void (desk = await Desk.open({ internals: true })));
afterAll(() => desk?.close());

const elsewhere = async (): Promise<number> =>
  (await desk.driver.findElements(By.css('[data-testid="elsewhere"]'))).length;
const shown = (label: string): Promise<string> => desk.text(`[role="spinbutton"][aria-label="${label}"]`);

function discShow(name: string): Show {
  const show = smallShow(name);
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const disc = s.add('flat-shape', 'Disc', [100, 0], { size: [0.5, 0.5] });
  const fader = s.add('midi', 'Fader', [100, 200], { number: 41 });
  s.wire(fader, disc, 'size.x', [0, 1]);
  s.wire(disc, s.out, 'picture');
  show.scenes = [s.scene];
  return show;
}

describe('edits', () => {
  test('one that is reloaded at once is there, again and again', async () => {
    await desk.openShow(movingShow('Reloaded', { Amber: [1, 0.6, 0.1] }));
    for (const value of ['1.3', '1.7', '2.1']) {
      await desk.choose('Levels');
      await desk.type('Gamma value', value);
      await desk.driver.navigate().refresh();
      await desk.choose('Levels');
      expect(await shown('Gamma value')).toBe(value);
    }
  });

  /** Has the database of this page take nothing for some of its tables any more. */
  const refuse = (...tables: string[]): Promise<unknown> =>
    desk.driver.executeScript(
      `const [tables] = arguments;
       const put = IDBObjectStore.prototype.put;
       IDBObjectStore.prototype.put = function (value, ...rest) {
         if (tables.includes(this.name)) throw new DOMException('killed', 'AbortError');
         return put.call(this, value, ...rest);
       };`,
      tables,
    );

  test('what the database never got is taken from what was noted at once', async () => {
    await desk.choose('Levels');
    // A page that is killed writes nothing any more.
    await refuse('shows', 'edits');
    await desk.type('Gamma value', '0.9');
    await desk.driver.navigate().refresh();
    await desk.choose('Levels');
    expect(await shown('Gamma value')).toBe('0.9');
  });

  test('what was noted at once, and is not on the disk yet as the browser is killed, is taken from the note in the database', async () => {
    await desk.choose('Levels');
    await refuse('shows');
    await desk.type('Gamma value', '1.1');
    await desk.until(
      'a note in the database',
      () =>
        desk.driver.executeAsyncScript<number>(`
          const [done] = arguments;
          const opening = indexedDB.open('pyrvel');
          opening.onsuccess = () => {
            const count = opening.result.transaction('edits').objectStore('edits').count();
            count.onsuccess = () => (opening.result.close(), done(count.result));
          };`),
      (notes) => notes === 1,
    );
    await desk.driver.executeScript(
      `for (const key of Object.keys(localStorage)) if (key.startsWith('pyrvel.unsaved')) localStorage.removeItem(key);`,
    );
    await desk.driver.navigate().refresh();
    await desk.choose('Levels');
    expect(await shown('Gamma value')).toBe('1.1');
  });
});

describe('a show in two tabs', () => {
  let first: string;
  let second: string;
  const inTab = async <T>(tab: string, what: () => Promise<T>): Promise<T> => {
    await desk.driver.switchTo().window(tab);
    return what();
  };

  test('is edited in the first; the second says so', async () => {
    first = await desk.driver.getWindowHandle();
    await desk.driver.switchTo().newWindow('tab');
    second = await desk.driver.getWindowHandle();
    await desk.driver.get(`${desk.address}/build`);
    const words = await desk.text('[data-testid="elsewhere"]');
    expect(words).toContain('“Reloaded” is open in another tab');
    expect(await inTab(first, elsewhere)).toBe(0);
  });

  test('can be taken over, with all that was done in the first', async () => {
    await inTab(first, () => desk.choose('Levels'));
    await desk.type('Gamma value', '3.3');
    await inTab(second, () => desk.click('[data-testid="elsewhere"] .btn-primary'));
    await desk.until('the second free', elsewhere, (n) => n === 0);
    await desk.choose('Levels');
    expect(await shown('Gamma value')).toBe('3.3');
    await desk.type('Gamma value', '2.7');
    await inTab(first, () => desk.until('the first closed off', elsewhere, (n) => n === 1));
    await desk.chord(Key.CONTROL, 'z');
    expect(await inTab(second, () => shown('Gamma value'))).toBe('2.7');
  });

  test('comes back to the first when the second is closed', async () => {
    await inTab(second, () => desk.driver.close());
    await inTab(first, () => desk.until('the first free', elsewhere, (n) => n === 0));
    await desk.choose('Levels');
    expect(await shown('Gamma value')).toBe('2.7');
  });
});

describe('a page that is opening its show', () => {
  const source = `
    let letOpen;
    const opens = new Promise((resolve) => (letOpen = resolve));
    window.letOpen = letOpen;
    const { get, set } = Object.getOwnPropertyDescriptor(IDBRequest.prototype, 'onsuccess');
    Object.defineProperty(IDBOpenDBRequest.prototype, 'onsuccess', {
      get,
      set(heard) {
        set.call(this, heard && ((event) => void opens.then(() => heard.call(this, event))));
      },
    });`;
  const views = '[data-testid="patch"], main, aside';

  /** Comes again to a page that does something before all else. */
  async function comeAgain(first: string): Promise<() => Promise<unknown>> {
    const { identifier } = await devTools<{ identifier: string }>(
      desk.driver,
      'Page.addScriptToEvaluateOnNewDocument',
      { source: first },
    );
    await desk.driver.navigate().refresh();
    return () => devTools(desk.driver, 'Page.removeScriptToEvaluateOnNewDocument', { identifier });
  }

  test('has nothing to press yet, and does what cannot wait once the show is there', async () => {
    await desk.openShow(movingShow('Slow', { Amber: [1, 0.6, 0.1] }));
    const remove = await comeAgain(source);
    await desk.until(
      'what is going on',
      () => desk.text('[role="status"]'),
      (text) => text === 'Opening the show…',
    );
    expect(await desk.driver.findElements(By.css(views))).toEqual([]);
    expect(await desk.text('[href="/shows"]')).toBe('');
    await desk.find('[aria-label="Transport"][inert]');
    await desk.press(Key.F9);
    await desk.driver.executeScript('letOpen()');
    await remove();
    await desk.find('[data-testid="patch"]');
    expect(await desk.text('[href="/shows"]')).toBe('Slow');
    await desk.find('[aria-label="Transport"]:not([inert])');
    await desk.find('[aria-label="Blackout"][aria-pressed="true"]');
    await desk.press(Key.F9);
    await desk.find('[aria-label="Blackout"][aria-pressed="false"]');
  });

  test('says why no show can be opened, and opens them when it can again', async () => {
    const remove = await comeAgain(`
      IDBFactory.prototype.open = () => { throw new DOMException('no storage here', 'SecurityError'); };`);
    expect(await desk.text('[role="alert"]')).toMatch(/No show could be opened[^]*no storage here/);
    await remove();
    await desk.click('[role="alert"] button');
    await desk.find('[data-testid="patch"]');
    expect(await desk.text('[href="/shows"]')).toBe('Slow');
  });
});

test('a storage that is full is said before and when it is, and no edit is lost', async () => {
  // Browsers of today tell pages of more space than there is: this one tells the truth, and takes no show any more.
  const { identifier } = await devTools<{ identifier: string }>(
    desk.driver,
    'Page.addScriptToEvaluateOnNewDocument',
    {
      source: `
      StorageManager.prototype.estimate = () => Promise.resolve({ usage: 95, quota: 100 });
      const put = IDBObjectStore.prototype.put;
      IDBObjectStore.prototype.put = function (value, ...rest) {
        if (this.name === 'shows') throw new DOMException('no space', 'QuotaExceededError');
        return put.call(this, value, ...rest);
      };`,
    },
  );
  await desk.driver.navigate().refresh();
  await desk.notice('warning', 'nearly full');
  await desk.choose('Levels');
  await desk.type('Gamma value', '1.9');
  await desk.notice('error', 'could not be saved');
  await devTools(desk.driver, 'Page.removeScriptToEvaluateOnNewDocument', { identifier });
  await desk.driver.navigate().refresh();
  await desk.choose('Levels');
  expect(await shown('Gamma value')).toBe('1.9');
  await desk.type('Gamma value', '2.7');
});

test('a deleted show can be brought back, also after a reload', async () => {
  await desk.view('shows');
  await desk.click('[aria-label="Delete Reloaded"]');
  await desk.find('[data-binned="Reloaded"]');
  await desk.driver.navigate().refresh();
  expect(await desk.text('[data-binned="Reloaded"]')).toContain('gone for good in 30 days');
  await desk.click('[data-binned="Reloaded"] .tool:nth-of-type(1)');
  await desk.click('[data-show="Reloaded"] button');
  await desk.choose('Levels');
  expect(await shown('Gamma value')).toBe('2.7');
});

test('a fader that was left up is up after a reload', async () => {
  await desk.openShow(discShow('Left Up'));
  await desk.view('inputs');
  const fader = await desk.find('[data-fader="41"]');
  await fader.sendKeys(Key.PAGE_UP, Key.PAGE_UP, Key.PAGE_UP);
  await desk.view('build');
  await desk.choose('Disc');
  const up = await desk.until(
    'the value',
    () => desk.liveValue('size.x'),
    (v) => v > 0.1,
  );
  await desk.driver.navigate().refresh();
  await desk.choose('Disc');
  await desk.until(
    'the same value',
    () => desk.liveValue('size.x'),
    (v) => Math.abs(v - up) < 1e-3,
  );
});

/** Discards the tab at `address` as a browser does that needs its memory, and then loads it again. */
async function discard(address: string): Promise<void> {
  await desk.driver.get('chrome://discards/');
  // The tab that is in front is never discarded; nor is one that a driver looks into.
  await devTools(desk.driver, 'Page.bringToFront');
  const row = `
    const inside = (root) => [...root.querySelectorAll('*')].flatMap((e) => [e, ...(e.shadowRoot ? inside(e.shadowRoot) : [])]);
    const row = inside(document).find((e) => e.tagName === 'TR' && e.textContent.includes('${address}'));`;
  const state = (): Promise<string> => desk.driver.executeScript(`${row} return row?.innerText ?? ''`);
  const press = (words: string): Promise<void> =>
    desk.driver.executeScript(
      `${row} [...row.querySelectorAll('*')].find((e) => !e.children.length && e.textContent.includes('${words}')).click()`,
    );
  await desk.until('the tab loaded', state, (text) => text.includes('hidden') && /\bloaded/.test(text));
  await press('Urgent Discard');
  await desk.until('the tab discarded', state, (text) => text.includes('discarded'));
  await press('[Load]');
  await desk.until('the tab back', state, (text) => /\bloaded/.test(text));
}

test('a tab that the browser discarded goes on where it was', async () => {
  const { driver } = desk;
  await desk.openShow(movingShow('Discarded', { Amber: [1, 0.6, 0.1] }));
  await desk.choose('Levels');
  await desk.type('Gamma value', '1.3');
  await desk.click('[aria-label="Freeze"]');
  const before = await desk.text('[data-testid="time"]').then(parseFloat);
  const start = await driver.getWindowHandle();
  // From a page that performs nothing: the new tab has what this one has kept of the performance.
  await driver.get(`${desk.address}/mark.svg`);
  await driver.executeScript(`window.open('/build')`);
  await discard(`${desk.address}/build`);
  const came = performance.now();
  const tabs = await driver.getAllWindowHandles();
  await driver.switchTo().window(tabs.find((tab) => tab !== start)!);
  expect(await driver.executeScript('return document.wasDiscarded')).toBe(true);
  await desk.moves();
  console.log(`looked at again and moving after ${((performance.now() - came) / 1000).toFixed(1)} s`);
  expect(await desk.text('[data-testid="time"]').then(parseFloat)).toBeGreaterThanOrEqual(before);
  await desk.find('[aria-label="Freeze"][aria-pressed="true"]');
  await desk.choose('Levels');
  expect(await shown('Gamma value')).toBe('1.3');
  await driver.close();
  await driver.switchTo().window(start);
});
