import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Desk, smallShow } from './desk';
import { Sketch } from '../demo/sketch';

jest.setTimeout(400000);
let desk: Desk;
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

beforeAll(async () => {
  desk = await Desk.open();
  const show = smallShow('Access');
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const noise = s.add('noise', 'Noise', [0, 0]);
  const wave = s.add('oscillator', 'Wave', [0, 300]);
  s.wire(noise, s.out, 'picture');
  s.wire(wave, noise, 'period');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

interface Violation {
  id: string;
  nodes: { target: string[]; failureSummary: string }[];
}

/** What axe finds against WCAG 2.2 AA, in short sentences. */
async function findings(): Promise<string[]> {
  // Colours on their way from one theme to the other are neither.
  await desk.until(
    'nothing to be on its way',
    () =>
      desk.driver.executeScript<number>(
        `return document.getAnimations().filter((a) => a.constructor.name === 'CSSTransition' && a.playState === 'running').length`,
      ),
    (n) => n === 0,
  );
  await desk.driver.executeScript(axe);
  const violations = await desk.driver.executeAsyncScript<Violation[]>(`
    const done = arguments[0];
    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
      .then(({ violations }) => done(violations.map(({ id, nodes }) => ({ id, nodes: nodes.map(({ target, failureSummary }) => ({ target, failureSummary })) }))));`);
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(
      ({ target, failureSummary }) => `${id} ${target.join(' ')}: ${failureSummary.split('\n')[1] ?? ''}`,
    ),
  );
}

const themes = ['pyrvel-night', 'pyrvel-day'] as const;
const places = ['build', 'play', 'wall', 'inputs', 'shows', 'record'] as const;

/** Panels that open over Build, with the keys that open and close them. */
const panels = [
  ['the variations', 'v', '[data-testid="variations"]', Key.ESCAPE],
  ['the starting points', 'n', '[data-testid="starts"]', Key.ESCAPE],
  ['the commands', '?', '[data-testid="commands"] [data-command]', Key.ESCAPE],
  ['Add', '/', '[cmdk-input]', Key.ESCAPE],
] as const;

for (const theme of themes)
  for (const place of places)
    test(`${place} in ${theme}`, async () => {
      await desk.click(`[aria-label="Views"] [href="/${place}"]`);
      await desk.find('main');
      const now = await desk.driver.executeScript<string>('return document.documentElement.dataset.theme');
      if (now !== theme) await desk.click('[aria-label="Light theme"]');
      if (place === 'build') await desk.choose('Noise');
      expect(await findings()).toEqual([]);
    });

test.each(panels)('%s', async (_, keys, opened, close) => {
  await desk.view('build');
  await desk.find('[data-testid="patch"], [data-testid="variations"]');
  if (/^\w$/.test(keys)) await desk.driver.actions().keyDown(Key.ALT).sendKeys(keys).keyUp(Key.ALT).perform();
  else await desk.press(keys);
  await desk.find(opened);
  expect(await findings()).toEqual([]);
  await desk.press(close);
  await desk.until(
    'it to close',
    async () => (await desk.driver.findElements(By.css(opened))).length,
    (n) => n === 0,
  );
});

test.each(['play', 'wall'] as const)('%s with all that the demo has there', async (place) => {
  await desk.click('[aria-label="Views"] [href="/shows"]');
  await desk.click('[data-show="Night Apiary"] button');
  await desk.find('[data-testid="patch"]');
  await desk.click(`[aria-label="Views"] [href="/${place}"]`);
  await desk.find(place === 'play' ? '[data-cue]' : '[aria-label="Plans"]');
  expect(await findings()).toEqual([]);
});
