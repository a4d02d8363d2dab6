import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import axe from 'axe-core';
import { By, Key } from 'selenium-webdriver';
import { Desk, smallShow } from './desk';
import { Sketch } from '../demo/sketch';

jest.setTimeout(400000);
let desk: Desk;

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
  // Colours on their way, from one theme to the other or from resting to ready, are neither.
  await desk.driver.executeScript(`
    const still = new CSSStyleSheet();
    still.replaceSync('* { transition: none !important }');
    document.adoptedStyleSheets = [still];`);
  await desk.driver.executeScript(axe.source);
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
const places = ['build', 'play', 'wall', 'inputs', 'shows', 'record', 'preflight', 'machines'] as const;

/** Panels that open over Build, with the keys that open and close them. */
const panels = [
  ['the variations', 'v', '[data-testid="variations"]', Key.ESCAPE],
  ['the starting points', 'n', '[data-testid="starts"]', Key.ESCAPE],
  ['the commands', '?', '[data-testid="commands"] [data-command]', Key.ESCAPE],
  ['help', Key.F1, '[data-testid="help"] [data-help]', Key.ESCAPE],
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

test('the first steps', async () => {
  await desk.press('?');
  await (await desk.find('[data-testid="commands"] input')).sendKeys('first steps', Key.ENTER);
  await desk.find('[data-testid="first-steps"]');
  expect(await findings()).toEqual([]);
  await desk.click('[aria-label="Leave the first steps"]');
});

test.each(['play', 'wall'] as const)('%s with all that the demo has there', async (place) => {
  await desk.click('[aria-label="Views"] [href="/shows"]');
  await desk.click('[data-show="Night Apiary"] button');
  await desk.find('[data-testid="patch"]');
  await desk.click(`[aria-label="Views"] [href="/${place}"]`);
  await desk.find(place === 'play' ? '[data-cue]' : '[aria-label="Plans"]');
  expect(await findings()).toEqual([]);
});

test('a scene is built by keys alone', async () => {
  await desk.openShow(smallShow('By Keys'));
  await desk.find('[data-node="Scene Out"]');
  const add = async (search: string): Promise<void> => {
    await desk.press('/');
    await (await desk.find('[cmdk-input]')).sendKeys(search);
    await desk.until(
      `${search} to be first`,
      () => desk.text('[cmdk-item][aria-selected="true"]'),
      (text) => text.toLowerCase().startsWith(search),
    );
    await desk.press(Key.ENTER);
    await desk.until(
      'Add to close',
      async () => (await desk.driver.findElements(By.css('[cmdk-input]'))).length,
      (n) => n === 0,
    );
  };
  const wireInto = async (search: string): Promise<void> => {
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('w').keyUp(Key.ALT).perform();
    await (await desk.find('[cmdk-input]')).sendKeys(search, Key.ENTER);
    await desk.until(
      'the list to close',
      async () => (await desk.driver.findElements(By.css('[cmdk-input]'))).length,
      (n) => n === 0,
    );
  };
  const chosen = async (): Promise<string> =>
    (await (await desk.find('[aria-label="Name of the node"]')).getAttribute('value')) ?? '';
  await add('noise');
  await desk.until('the new node', chosen, (name) => name === 'Noise');
  await wireInto('scene out');
  await desk.until(
    'its picture',
    () => desk.picture(),
    ({ lit }) => lit > 0.5,
  );
  await desk.until('the node it went to', chosen, (name) => name === 'Scene Out');
  // Where a first node is put depends on what is in sight: one of the four ways leads to it.
  for (const key of [Key.ARROW_LEFT, Key.ARROW_RIGHT, Key.ARROW_UP, Key.ARROW_DOWN])
    if ((await chosen()) !== 'Noise') await desk.press(key);
  await desk.until('back at the noise', chosen, (name) => name === 'Noise');
  const place = (): Promise<string> =>
    desk.driver.executeScript(
      `return document.querySelector('[data-node="Noise"]').closest('.react-flow__node').style.transform`,
    );
  const before = await place();
  await desk.driver
    .actions()
    .keyDown(Key.ALT)
    .keyDown(Key.SHIFT)
    .sendKeys(Key.ARROW_DOWN)
    .keyUp(Key.SHIFT)
    .keyUp(Key.ALT)
    .perform();
  await desk.until('it moved', place, (now) => now !== before);
});
