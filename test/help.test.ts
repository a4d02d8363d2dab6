import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Desk, movingShow } from './desk';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
  await desk.openShow(movingShow('Helped', { Amber: [1, 0.7, 0.2] }));
});
afterAll(() => desk.close());

const count = (selector: string): Promise<number> =>
  desk.driver.executeScript<number>(`return document.querySelectorAll(arguments[0]).length`, selector);
const gone = (selector: string): Promise<number> =>
  desk.until(
    `${selector} gone`,
    () => count(selector),
    (n) => n === 0,
  );
const press = (label: string, within: string): Promise<void> =>
  desk.driver.executeScript(
    `[...document.querySelectorAll(arguments[1] + ' button')].find((b) => b.textContent.trim().startsWith(arguments[0])).click()`,
    label,
    within,
  );

describe('help', () => {
  const search = async (text: string): Promise<void> => {
    const input = await desk.find('[data-testid="help"] input');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), text);
  };
  const leave = async (): Promise<void> => {
    await desk.press(Key.ESCAPE);
    await gone('[data-testid="help"]');
  };

  test('finds nodes with an example that runs, pages of the guide and commands, errors forgiven', async () => {
    await desk.press(Key.F1);
    await search('glwo');
    expect(await desk.text('[data-testid="help"] [cmdk-item][data-selected="true"]')).toMatch(/^Glow/);
    await desk.find('[data-testid="help-page"] [data-testid="kind-help"] canvas');
    await search('crossfader');
    await desk.click('[data-testid="help"] [data-help^="playing"]');
    expect(await desk.text('[data-testid="help-page"]')).toMatch(/crossfader/i);
    await search('blackuot');
    await desk.click('[data-testid="help"] [data-help="command stage.blackout"]');
    expect(await desk.text('[data-testid="help-page"]')).toContain('F9');
    await leave();
  });

  test('opens while a field has the keyboard: its key writes nothing', async () => {
    await desk.choose('Light');
    await (await desk.find('[aria-label="Name of the node"]')).sendKeys(Key.F1);
    await desk.find('[data-testid="help"] [data-help]');
    await leave();
    expect(await (await desk.find('[aria-label="Name of the node"]')).getAttribute('value')).toBe('Light');
    await desk.chooseNothing();
  });

  test('links between pages stay in it, and tables are tables', async () => {
    await desk.press(Key.F1);
    await desk.click('[data-help="playing#the-desk"]');
    await desk.find('[data-section="playing#the-desk"]');
    await search('add a node');
    await desk.click('[data-help="guide#find-and-add-nodes"]');
    await desk.find('[data-testid="help-page"] table td');
    await search('use a part again');
    await desk.click('[data-help="guide#use-a-part-again"]');
    await press('module', '[data-testid="help-page"]');
    await desk.find('[data-section="modules"]');
    await leave();
  });

  test('an example from it is put into the patch', async () => {
    const before = await count('.react-flow__node');
    await desk.press(Key.F1);
    await search('stripes');
    await desk.find('[data-testid="help-page"] [data-testid="kind-help"]');
    await press('Put this example', '[data-testid="help-page"]');
    await gone('[data-testid="help"]');
    await desk.until(
      'its nodes',
      () => count('.react-flow__node'),
      (n) => n > before,
    );
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'one step back',
      () => count('.react-flow__node'),
      (n) => n === before,
    );
  });

  test('what changed is told by the changelog', async () => {
    await desk.press(Key.F1);
    await press('What', '[data-testid="help"]');
    await desk.find('[data-section="news"]');
    await leave();
  });
});

describe('the list of commands', () => {
  const first = (label: RegExp): Promise<string> =>
    desk.until(
      `${label} to stand first`,
      () => desk.text('[data-testid="commands"] [cmdk-item]'),
      (text) => label.test(text),
    );
  test('forgives errors, finds what performers would say, and remembers what was run', async () => {
    await desk.chord(Key.CONTROL, 'k');
    const input = await desk.find('[data-testid="commands"] input');
    // What belongs to the view stands first.
    await first(/^Add a node/);
    await input.sendKeys('shortcuts');
    expect(await desk.text('[data-testid="commands"] [data-selected="true"]')).toMatch(/^All commands/);
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), 'bnech');
    expect(await desk.text('[data-testid="commands"] [data-selected="true"]')).toMatch(/^Bench/);
    const open = await count('[aria-label="Fold the bench"]');
    await input.sendKeys(Key.ENTER);
    await desk.until(
      'the bench to fold or open',
      () => count('[aria-label="Fold the bench"]'),
      (n) => n === 1 - open,
    );
    await desk.press('?');
    await first(/^Bench/);
    await desk.press(Key.ESCAPE);
    await gone('[data-testid="commands"] [data-command]');
  });
});

describe('the first steps', () => {
  const step = (n: number, isDone = false): Promise<string> =>
    desk.until(
      `step ${n}${isDone ? ' done' : ''}`,
      () => desk.text('[data-testid="first-steps"]'),
      (text) => text.includes(`${n} of 6`) && (!isDone || /Next|Done/.test(text)),
    );
  const next = (): Promise<void> => press('Next', '[data-testid="first-steps"]');

  test('are offered once, ticked by doing them, and lead to a picture on stage', async () => {
    await desk.driver.executeScript(`localStorage.removeItem('pyrvel-first-steps')`);
    await desk.driver.navigate().refresh();
    await desk.find('[data-testid="first-steps"]');
    await press('Begin', '[data-testid="first-steps"]');
    await step(1);
    await desk.choose('Light');
    await step(1, true);
    await next();
    await step(2);
    await desk.type('Length value', '0.3');
    await step(2, true);
    await next();
    await step(3);
    await desk.add('glow', 'Glow');
    await step(3, true);
    await next();
    await step(4);
    await desk.press(Key.ESCAPE);
    await desk.wire('Glow', 'Scene Out', 'picture');
    await step(4, true);
    await next();
    await step(5);
    await desk.choose('Light');
    await desk.click('[aria-label="Source of Turn"]');
    await desk.click('[aria-label="Add Swing"]');
    await step(5, true);
    await next();
    await step(6);
  });

  test('are left at any time, do not come again by themselves, and are found in the list of commands', async () => {
    await desk.click('[aria-label="Leave the first steps"]');
    await gone('[data-testid="first-steps"]');
    await desk.driver.navigate().refresh();
    await desk.find('.react-flow__node');
    expect(await count('[data-testid="first-steps"]')).toBe(0);
    await desk.press('?');
    await (await desk.find('[data-testid="commands"] input')).sendKeys('tutorial');
    await desk.click('[data-command="view.steps"]');
    await step(1);
    await desk.click('[aria-label="Leave the first steps"]');
  });
});
