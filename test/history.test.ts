import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
  const show = smallShow('Long Evening');
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const noise = s.add('noise', 'Noise', [0, 0]);
  s.wire(noise, s.out, 'picture');
  const other = new Sketch('s2', 'Scene 2', [400, 0]);
  show.scenes = [s.scene, other.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

const alt = (key: string): Promise<void> =>
  desk.driver.actions().keyDown(Key.ALT).sendKeys(key).keyUp(Key.ALT).perform();
const steps = (): Promise<string[]> =>
  desk.driver.executeScript(
    `return [...document.querySelectorAll('[data-testid="history"] li button > span:first-child')].map((e) => e.textContent)`,
  );
const period = (): Promise<string> => desk.text('[role="spinbutton"][aria-label="Period value"]');

test('undo says what it undid, and shows the scene of it', async () => {
  await desk.choose('Noise');
  await desk.type('Period value', '0.8');
  await desk.type('Seed value', '7');
  await desk.click('[data-scene="Scene 2"]');
  await desk.until(
    'the other scene',
    () => desk.driver.findElements(By.css('[data-node="Noise"]')),
    (found) => found.length === 0,
  );
  await desk.chord(Key.CONTROL, 'z');
  await desk.notice('info', 'Undone: Seed of Noise.');
  await desk.find('[data-node="Noise"]');
  await desk.chord(Key.CONTROL, 'y');
  await desk.notice('info', 'Made again: Seed of Noise.');
});

test('all steps are listed by name, and a click goes to any', async () => {
  await alt('h');
  await desk.until('the steps', steps, (list) => list.length === 3);
  expect(await steps()).toEqual(['Seed of Noise', 'Period of Noise', 'As it was opened']);
  await desk.click('[data-testid="history"] li:last-child button');
  await desk.choose('Noise');
  expect(await period()).toBe('0.35');
  await desk.click('[data-testid="history"] li:first-child button');
  await desk.until('on again', period, (now) => now === '0.8');
  await desk.click('[aria-label="Close the steps"]');
});

test('a version was kept as the show was opened: it is compared, and brought back', async () => {
  await desk.click('[aria-label="Views"] [href="/shows"]');
  await desk.click('[aria-label="Versions of Long Evening"]');
  await desk.find('[data-version]');
  await desk.driver.executeScript(
    `[...document.querySelectorAll('[data-version] button')].find((b) => b.textContent === 'Compare with now').click()`,
  );
  const lines = await desk.text('[data-testid="version-lines"]');
  expect(lines).toContain('Scene 1: Period and Seed of Noise');
  await desk.driver.executeScript(
    `[...document.querySelectorAll('[data-version] button')].find((b) => b.textContent === 'Bring back').click()`,
  );
  await desk.notice('info', 'stands as it did on');
  await desk.view('build');
  await desk.choose('Noise');
  await desk.until('as it was opened', period, (now) => now === '0.35');
  await desk.click('[aria-label="Views"] [href="/shows"]');
  await desk.click('[aria-label="Versions of Long Evening"]');
  await desk.until(
    'the version from before',
    () => desk.driver.findElements(By.css('[data-version]')),
    (found) => found.length === 2,
  );
});
