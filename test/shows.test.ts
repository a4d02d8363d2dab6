import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { Show } from '../src/core/document/types';
import { writeShow } from '../src/core/show/validate';
import { Desk, movingShow, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk?.close());

const names = async (): Promise<string[]> => {
  const cards = await desk.driver.findElements(By.css('[data-show]'));
  return Promise.all(cards.map(async (card) => (await card.getAttribute('data-show')) ?? ''));
};
const goTo = async (view: string): Promise<void> => {
  await desk.click(`[aria-label="Views"] [href="/${view}"]`);
};

/** Exports a show through its button and gives the text that would be saved. */
async function exported(name: string): Promise<string> {
  await desk.driver.executeScript(`
    window.savedFile = null;
    
    const make = window.realObjectUrl ??= URL.createObjectURL;
    URL.createObjectURL = (blob) => {
      if (blob.type === 'application/json') blob.text().then((text) => (window.savedFile = text));
      return make.call(URL, blob);
    };`);
  await desk.click(`[aria-label="Export ${name}"]`);
  return desk.until('the file', () => desk.driver.executeScript<string>('return window.savedFile'), Boolean);
}

describe('shows in this browser', () => {
  const show = movingShow('Kept', { Amber: [1, 0.6, 0.1], Teal: [0.1, 0.7, 0.6] });

  test('after a reload the same show, scene, selection and edits are there', async () => {
    await desk.openShow(show);
    await desk.click('[role="tab"]:nth-of-type(2)');
    await desk.choose('Levels');
    await desk.type('Gamma value', '1.7');
    const saved = async (): Promise<string> =>
      desk.driver.executeAsyncScript<string>(`
        const done = arguments[0];
        const open = indexedDB.open('pyrvel');
        open.onsuccess = () => {
          const all = open.result.transaction('shows').objectStore('shows').getAll();
          all.onsuccess = () => { open.result.close(); done(JSON.stringify(all.result.map((s) => s.show))); };
        };`);
    await desk.until('the edit to be written', saved, (text) => text.includes('"gamma":1.7'));
    await desk.driver.navigate().refresh();
    await desk.until(
      'the selection',
      async () => (await desk.find('[aria-label="Name of the node"]')).getAttribute('value'),
      (v) => v === 'Levels',
    );
    expect(await desk.text('[role="tab"][aria-selected="true"]')).toContain('Teal');
    expect(await desk.text('[role="spinbutton"][aria-label="Gamma value"]')).toBe('1.7');
    await desk.until(
      'the scene',
      () => desk.picture(),
      (p) => p.green > p.red + 5,
    );
  });

  test('an exported file comes back as it was', async () => {
    await goTo('shows');
    const text = await exported('Kept');
    const file = JSON.parse(text) as Show;
    expect(file.scenes.map((s) => s.name)).toEqual(['Amber', 'Teal']);
    await desk.importText(text.replace('"name": "Kept"', '"name": "Kept Again"'), 'again.pyrvel.json');
    await desk.find('[data-show="Kept Again"]');
    const again = JSON.parse(await exported('Kept Again')) as Show;
    expect({ ...again, name: 'Kept' }).toEqual(file);
  });

  test('a damaged file says where it is wrong and changes nothing', async () => {
    const before = await names();
    const text = writeShow(smallShow('Damaged'));
    await desk.importText(text.slice(0, text.length / 2), 'torn.pyrvel.json');
    const torn = await desk.until('the fault', () => desk.text('[data-testid="import-fault"]'), Boolean);
    expect(torn).toContain('torn.pyrvel.json was not opened');
    expect(torn).toMatch(/line \d+/);
    const wrong = JSON.parse(text) as Show;
    (wrong.scenes[0] as unknown as { name: number }).name = 7;
    await desk.importText(JSON.stringify(wrong), 'wrong.pyrvel.json');
    await desk.until(
      'the place',
      () => desk.text('[data-testid="import-fault"]'),
      (t) => t.includes('scenes[0].name'),
    );
    expect(await names()).toEqual(before);
    await desk.click('[data-testid="import-fault"] button');
  });

  test('a kind that is not known stays as a placeholder with its data', async () => {
    const later = smallShow('From Later');
    later.scenes[0].nodes.n9 = {
      ...structuredClone(Object.values(later.scenes[0].nodes)[0]),
      id: 'n9',
      name: 'Tide',
      kind: 'tide-pool',
      controls: { depth: 0.25, bed: 'sand' },
    };
    await desk.importText(writeShow(later));
    await desk.notice('warning', 'Imported “From Later”');
    await desk.click('[data-show="From Later"] button');
    await desk.until(
      'the placeholder',
      () => desk.text('[data-placeholder]'),
      (t) => t.includes('tide-pool'),
    );
    await goTo('shows');
    const kept = JSON.parse(await exported('From Later')) as Show;
    expect(kept.scenes[0].nodes.n9).toEqual(later.scenes[0].nodes.n9);
  });

  test('duplicate, rename, delete with undo, new, and the demo restored', async () => {
    await desk.click('[aria-label="Duplicate Kept"]');
    await desk.find('[data-show="Kept copy"]');
    await desk.click('[data-show="Kept copy"] .tool:nth-of-type(2)');
    const field = await desk.find('[aria-label="Name of the show"]');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Second Night', Key.ENTER);
    await desk.find('[data-show="Second Night"]');
    await desk.click('[aria-label="Delete Second Night"]');
    await desk.until('it gone', names, (all) => !all.includes('Second Night'));
    await desk.click('[data-notice="info"] .btn-primary');
    await desk.find('[data-show="Second Night"]');
    // The open one can go as well: another takes its place.
    await desk.click('[aria-label="Delete From Later"]');
    await desk.until('it gone', names, (all) => !all.includes('From Later'));
    await desk.find('.border-primary[data-show]');
    await desk.click('[aria-label="Delete Night Apiary"]');
    await desk.until('the demo gone', names, (all) => !all.includes('Night Apiary'));
    await desk.click('main .btn:nth-of-type(3)');
    await desk.find('[data-show="Night Apiary"]');
    await desk.click('main .btn-primary');
    await desk.find('[data-testid="patch"]');
    await desk.find('[data-node="Scene Out"]');
    expect(await desk.text('header a[href="/shows"]')).toBe('Untitled show');
  });
});
