import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key, Origin } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';
import { pngOf } from './files';

jest.setTimeout(400000);
let desk: Desk;
let folder: string;

const redPixel = (): Buffer => pngOf([[255, 0, 0]]);
const tab = (place: number): string => `[data-testid="bench"] [role="tab"]:nth-child(${place})`;
const square =
  '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><rect width="10" height="10" fill="#00f"/></svg>';

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-pictures-'));
  desk = await Desk.open();
  const show = smallShow('Pictures');
  const s = new Sketch('s1', 'Only', [700, 0]);
  const picture = s.add('picture', 'Still', [0, 0], { file: '' });
  const shape = s.add('flat-shape', 'Sun', [0, 170], {
    size: [0.3, 0.3],
    place: [-0.4, 0],
    fill: [1, 1, 1, 1],
  });
  const both = s.add('blend', 'Both', [220, 60], { mode: 'add' });
  const hold = s.add('blend', 'Trail', [440, 60], { mode: 'lighten' });
  s.add('shader', 'Own', [0, 340]);
  s.add('flat-shape', 'Kite', [220, 340], { form: 'points' });
  s.wire(picture, both, 'picture');
  s.wire(shape, both, 'over');
  s.wire(both, hold, 'over');
  s.back(s.wire(hold, hold, 'picture'), { keep: 0.5 });
  s.wire(hold, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(async () => {
  await desk?.close();
  rmSync(folder, { recursive: true, force: true });
});

const give = async (name: string, content: Buffer | string): Promise<void> => {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  await (await desk.driver.findElement(By.css('[data-testid="file-input"]'))).sendKeys(file);
};
const fault = (): Promise<string> => desk.text('[data-testid="fault"]');

describe('files', () => {
  test('a picture from the disk is seen, and is there again after a reload', async () => {
    await desk.choose('Still');
    await desk.select('Fit', 'Stretch');
    await give('red.png', redPixel());
    const red = (p: readonly number[]): boolean => p[0] > 0.9 && p[1] < 0.1 && p[2] < 0.1;
    await desk.until('a red pixel everywhere', () => desk.benchPixel(), red);
    await desk.pause();
    await desk.play();
    await desk.driver.wait(async () => {
      const saved = await desk.driver.executeAsyncScript<boolean>(
        `const done = arguments[0]; const open = indexedDB.open('pyrvel'); open.onsuccess = () => {
           const all = open.result.transaction('shows').objectStore('shows').getAll();
           all.onsuccess = () => { open.result.close(); done(all.result.some((s) => Object.values(s.show.files ?? {}).some((f) => f.name === 'red.png'))); }; };`,
      );
      return saved;
    }, 20000);
    await desk.driver.navigate().refresh();
    await desk.choose('Still');
    await desk.until('the red pixel again', () => desk.benchPixel(), red);
  });

  test('a drawing is drawn', async () => {
    await give('square.svg', square);
    await desk.until(
      'blue',
      () => desk.benchPixel(),
      (p) => p[2] > 0.9 && p[0] < 0.1,
    );
  });

  test.each([
    ['broken.png', redPixel().subarray(0, 50), /damaged/],
    ['letter.png', 'only words', /no picture that can be read/],
    ['torn.svg', '<svg xmlns="http://www.w3.org/2000/svg"><rect', /SVG is damaged/],
    ['film.png', Buffer.from([0x1a, 0x45, 0xdf, 0xa3, 0, 0, 0, 0]), /WEBM file and no picture/],
  ])('%s is refused in a sentence, and the rest goes on', async (name, content, words) => {
    await give(name, content);
    await desk.until('the sentence', fault, (text) => words.test(text));
    const picture = await desk.picture();
    expect(picture.mean).toBeGreaterThan(4);
  });

  test('an empty file is not taken at all', async () => {
    const listed = (): Promise<string[]> =>
      desk.driver.executeScript(
        `return [...document.querySelectorAll('[data-testid="inspector"] option')].map((o) => o.textContent)`,
      );
    const chosen = (): Promise<string> =>
      desk.driver.executeScript(
        `return document.querySelector('[data-testid="file-input"]').parentElement.querySelector('select').value`,
      );
    const [before, was] = [await listed(), await chosen()];
    await give('empty.png', '');
    await desk.until(
      'its reason',
      () =>
        desk.driver.executeScript<string[]>(
          `return [...document.querySelectorAll('[role="alert"]')].map((e) => e.textContent)`,
        ),
      (alerts) => alerts.includes('empty.png is empty.'),
    );
    expect(await listed()).toEqual(before);
    expect(await chosen()).toBe(was);
  });
});

describe('the monitor', () => {
  const drag = async (handle: string, dx: number, dy: number): Promise<void> => {
    const origin = await desk.find(`[data-handle="${handle}"]`);
    const [x, y] = [Math.round(dx), Math.round(dy)];
    await desk.driver
      .actions({ async: true })
      .move({ origin })
      .press()
      .move({ origin: Origin.POINTER, x: Math.round(x / 2), y: Math.round(y / 2) })
      .move({ origin: Origin.POINTER, x: x - Math.round(x / 2), y: y - Math.round(y / 2) })
      .release()
      .perform();
  };
  const value = async (label: string): Promise<number> => {
    const field = await desk.find(`[aria-label="${label} value"]`);
    return parseFloat((await desk.textOf(field)) || ((await field.getAttribute('value')) ?? ''));
  };

  test('a handle moves what it stands for, and goes to the middle by itself', async () => {
    await desk.choose('Sun');
    const before = await value('Place x');
    expect(before).toBeCloseTo(-0.4);
    const [width] = await desk.driver.executeScript<[number]>(
      `const b = document.querySelector('[data-testid="monitor-overlay"]').getBoundingClientRect(); return [b.height];`,
    );
    await drag('place', 0.41 * width, 0.01 * width);
    expect(await value('Place x')).toBe(0);
    expect(await value('Place y')).toBe(0);
    const handle = await desk.find('[data-handle="place"]');
    await handle.sendKeys(Key.ARROW_LEFT);
    await desk.until(
      'a step to the left',
      () => value('Place x'),
      (v) => v === -0.01,
    );
  });

  test('corner points can be dragged, added and removed', async () => {
    await desk.choose('Kite');
    const count = async (): Promise<number> =>
      (await desk.driver.findElements(By.css('[data-handle^="points"]'))).length;
    await desk.until('three corners', count, (n) => n === 3);
    const overlay = await desk.find('[data-testid="monitor-overlay"]');
    await desk.doubleClick(overlay, { x: 60, y: 40 });
    await desk.until('four corners', count, (n) => n === 4);
    await (await desk.find('[data-handle="points 4"]')).sendKeys(Key.DELETE);
    await desk.until('three again', count, (n) => n === 3);
  });

  test('guides lie over the monitor and nowhere else', async () => {
    await desk.click('[aria-label="Centre"]');
    await desk.click('[aria-label="Safe areas"]');
    await desk.find('[aria-label="Monitor"] [data-guide="cross"]');
    await desk.find('[aria-label="Monitor"] [data-guide="title"]');
    expect(await desk.driver.findElements(By.css('[data-guide]'))).toHaveLength(3);
    await desk.click('[aria-label="Safe areas"]');
    await desk.click('[aria-label="Centre"]');
  });
});

test('the line of a gradient is drawn out by its end', async () => {
  await desk.add('gradient', 'Gradient');
  const end = await desk.find('[data-handle="turn"]');
  await end.sendKeys(Key.ARROW_UP);
  const turn = await desk.until(
    'another direction',
    async () => parseFloat(await desk.text('[aria-label="Turn value"]')),
    (v) => v > 0.5,
  );
  expect(turn).toBeCloseTo((Math.atan2(0.01, 0.5) * 180) / Math.PI, 0);
  await desk.chord(Key.CONTROL, 'z');
  await desk.chord(Key.CONTROL, 'z');
});

describe('own code', () => {
  const write = async (text: string): Promise<void> => {
    const editor = await desk.find('[data-testid="code"] .cm-content');
    await editor.click();
    await desk.driver
      .actions({ async: true })
      .keyDown(Key.CONTROL)
      .sendKeys('a')
      .keyUp(Key.CONTROL)
      .perform();
    // Typed as one paste: brackets and completions of single keys are the editor's own affair.
    await desk.driver.executeScript(
      `const data = new DataTransfer(); data.setData('text/plain', arguments[0]);
       document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
      text,
    );
  };
  const head = '/*\n{ "controls": { "red": { "type": "number", "default": 0.8 } } }\n*/\n';

  test('what is written plays, and its inputs are controls', async () => {
    await desk.choose('Own');
    await desk.click('[data-part="code"] button');
    await write(`${head}vec4 paint(vec2 place) { return vec4(red, 0.25, 0.0, 1.0); }`);
    await desk.find('[aria-label="Red value"]');
    await desk.click(tab(1));
    await desk.until(
      'its colour',
      () => desk.benchPixel(),
      (p) => Math.abs(p[0] - 0.8) < 0.01 && Math.abs(p[1] - 0.25) < 0.01,
    );
  });

  test('a fault stands at its line while the last good code plays', async () => {
    await desk.click(tab(2));
    await write(`${head}vec4 paint(vec2 place) {\n  return vec4(nothing);\n}`);
    await desk.until(
      'the line',
      () => desk.text('[data-testid="code-state"]'),
      (text) => text.includes('Line 5') && text.includes('nothing'),
    );
    await desk.find('.cm-lint-marker-error');
    await desk.click(tab(1));
    const [red] = await desk.benchPixel();
    expect(red).toBeCloseTo(0.8, 2);
    await desk.click(tab(2));
    await write('/* { "controls": } */');
    await desk.until(
      'the broken head',
      () => desk.text('[data-testid="code-state"]'),
      (text) => text.includes('breaks off'),
    );
    await desk.click(tab(1));
    await desk.find('[aria-label="Red value"]');
  });

  test('the shader that draws a step can be read, with the names of all that is joined into it', async () => {
    await desk.choose('Trail');
    await desk.click(tab(2));
    await desk.until(
      'the names',
      () => desk.text('[data-testid="bench"]'),
      (text) => /One pass draws .*Trail/.test(text),
    );
    expect(await desk.text('[data-testid="code"]')).toContain('#version 300 es');
    await desk.click(tab(1));
  });
});

describe('loops', () => {
  test('a return wire is read crisp, kept small, and brought home by a mask', async () => {
    await desk.chooseReturn();
    await desk.select('Reading', 'Crisp');
    await desk.select('Loop size', 'Its own');
    await desk.select('Loop precision', '8 bits');
    await desk.select('Keep where bright', 'Sun');
    await desk.select('Others see', 'Before this step');
    expect(await desk.driver.findElements(By.css('[data-testid="blow-out"]'))).toHaveLength(0);
    expect((await desk.picture()).mean).toBeGreaterThanOrEqual(0);
  });

  test('a loop that blows out says so', async () => {
    await desk.select('Others see', 'After this step');
    await desk.select('Keep where bright', 'Nowhere');
    await desk.select('Loop precision', 'As it comes');
    await desk.type('Keep value', '1.1');
    await desk.choose('Trail');
    await desk.select('Mode', 'Add');
    expect(await desk.text('[data-return]')).toBe('1.1');
    await desk.until(
      'the warning',
      async () => {
        await desk.chooseReturn();
        const [warning] = await desk.driver.findElements(By.css('[data-testid="blow-out"]'));
        return warning && desk.textOf(warning);
      },
      (text) => /Blows out/.test(text ?? ''),
    );
  });
});

test('help shows a kind at work, and its example can be had', async () => {
  await desk.chooseNothing();
  const cards = async (): Promise<number> => (await desk.driver.findElements(By.css('[data-node]'))).length;
  const before = await cards();
  await desk.press('/');
  await desk.driver.actions({ async: true }).sendKeys('led').perform();
  await desk.find('[aria-label="Help for LED Dots"]');
  const lit = await desk.until(
    'its picture',
    () => desk.picture('[data-testid="kind-help"] canvas'),
    (p) => p.mean > 4,
  );
  expect(lit.mean).toBeGreaterThan(4);
  await desk.click('[data-testid="kind-help"] button.btn');
  await desk.until('two cards more', cards, (n) => n === before + 2);
});
