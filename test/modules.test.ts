import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { valuesOf, variablesOf, vary } from '../src/core/show/variations';
import { catalogue } from '../src/nodes/catalogue';
import { Desk, smallShow } from './desk';
import type { PictureFigures } from './figures';

jest.setTimeout(400000);
let desk: Desk;

beforeAll(async () => {
  desk = await Desk.open();
  const show = smallShow('Modules');
  const s = new Sketch('s1', 'Scene 1', [600, 0]);
  const fill = s.add('fill', 'Ground', [0, 0], { colour: [1, 0.2, 0, 1] });
  const levels = s.add('levels', 'Bright', [200, 0]);
  const blur = s.add('blur', 'Soft', [400, 0], { radius: 0 });
  s.wire(fill, levels, 'picture');
  s.wire(levels, blur, 'picture');
  s.wire(blur, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

const names = (): Promise<string[]> =>
  desk.driver.executeScript(
    `return [...document.querySelectorAll('[data-testid="patch"] [data-node]')].map((e) => e.dataset.node).sort()`,
  );
/** Waits for a patch with just these cards, and until it stands. */
const cards = async (wanted: readonly string[]): Promise<void> => {
  await desk.until(
    `the cards ${wanted.join(', ')}`,
    names,
    (now) => now.join() === [...wanted].sort().join(),
  );
  await desk.patchStands();
};
const alt = (key: string): Promise<void> =>
  desk.driver.actions().keyDown(Key.ALT).sendKeys(key).keyUp(Key.ALT).perform();
const addToChoice = async (node: string): Promise<void> => {
  const card = await desk.find(`[data-node="${node}"] .truncate`);
  await desk.driver.actions().keyDown(Key.SHIFT).click(card).keyUp(Key.SHIFT).perform();
};
const red = (): Promise<number> => desk.picture().then(({ red: value }) => value / 255);

describe('a module by hand', () => {
  test('is made of what is chosen; the picture stays', async () => {
    const before = await desk.until('the picture', red, (value) => value > 0.5);
    await desk.choose('Bright');
    await addToChoice('Soft');
    await desk.chord(Key.CONTROL, 'g');
    await cards(['Ground', 'Module', 'Scene Out']);
    await desk.until('the same picture', red, (value) => Math.abs(value - before) < 0.02);
    await desk.fill('Name of the module', 'Dimmer');
    await desk.until(
      'its name as a kind',
      () => desk.text('[data-testid="inspector"] p.quiet'),
      (text) => text.startsWith('Dimmer.'),
    );
  });

  test('opens with a path back, and a control is brought out of it', async () => {
    await alt(Key.ARROW_DOWN);
    await cards(['Bright', 'Picture', 'Soft', 'Soft out']);
    expect(await desk.text('[data-testid="module-path"]')).toMatch(/Scene 1.*Dimmer/s);
    await desk.choose('Bright');
    await desk.click('[aria-label="Bring Brightness out"]');
    await desk.chooseNothing();
    await desk.fill('Name of the control Brightness', 'Dim');
    await desk.click('[aria-label="More of Dim"]');
    await desk.find('[data-control="brightness"] [aria-label="Range low"]');
    await alt(Key.ARROW_UP);
    await cards(['Ground', 'Dimmer', 'Scene Out']);
    await desk.type('Dim value', '-0.5');
    await desk.until('a darker picture', red, (value) => value < 0.6 && value > 0.3);
  });

  test('is used twice: each has its value, and what is changed inside changes both', async () => {
    await desk.chord(Key.CONTROL, 'd');
    await cards(['Ground', 'Dimmer', 'Dimmer 2', 'Scene Out']);
    await desk.until(
      'two uses',
      () => desk.text('[data-testid="module-uses"]'),
      (text) => text.startsWith('2 nodes'),
    );
    await desk.tidy();
    await desk.type('Dim value', '0');
    await desk.wire('Dimmer 2', 'Scene Out');
    await desk.until('as bright as at first', red, (value) => value > 0.9);
    await desk.choose('Dimmer 2');
    await alt(Key.ARROW_DOWN);
    await desk.choose('Bright');
    await desk.click('[aria-label="Invert"]');
    await desk.until('the other way round', red, (value) => value < 0.1);
    await alt(Key.ARROW_UP);
    await cards(['Ground', 'Dimmer', 'Dimmer 2', 'Scene Out']);
    await desk.wire('Dimmer', 'Scene Out');
    await desk.until(
      'the first as well',
      () => desk.picture(),
      ({ red: r, blue: b }) => r > 115 && r < 140 && b > 240,
    );
  });

  test('is undone step by step, and dissolved', async () => {
    await desk.choose('Dimmer');
    await desk.driver
      .actions()
      .keyDown(Key.CONTROL)
      .keyDown(Key.SHIFT)
      .sendKeys('g')
      .keyUp(Key.SHIFT)
      .keyUp(Key.CONTROL)
      .perform();
    await cards(['Bright', 'Ground', 'Dimmer 2', 'Scene Out', 'Soft']);
    await desk.until('the same still', red, (value) => value > 0.45 && value < 0.55);
    await desk.chord(Key.CONTROL, 'z');
    await cards(['Ground', 'Dimmer', 'Dimmer 2', 'Scene Out']);
  });
});

describe('the library', () => {
  let saved = '';

  test('keeps a module, and another show adds it from there', async () => {
    await desk.choose('Dimmer');
    await desk.click('[title^="Keeps the module"]');
    await desk.notice('info', 'is in the library');
    await desk.driver.executeScript(
      `window.realObjectUrl ??= URL.createObjectURL;
       URL.createObjectURL = (blob) => (blob.text().then((text) => (window.savedText = text)), 'blob:none');`,
    );
    await desk.click('[title^="Saves the module as a file"]');
    saved = await desk.until(
      'the file',
      () => desk.driver.executeScript<string>('return window.savedText ?? ""'),
      (text) => text.length > 0,
    );
    await desk.driver.executeScript('URL.createObjectURL = window.realObjectUrl');
    expect(JSON.parse(saved)).toMatchObject({ format: 'pyrvel.module', main: 'module' });
    await desk.openShow(smallShow('Elsewhere'));
    await desk.add('dimmer', 'Dimmer');
    await desk.find('[data-kind="module-module"]');
    await desk.find('[data-testid="module-uses"]');
    expect(await desk.driver.findElements(By.css('[data-placeholder]'))).toHaveLength(0);
  });

  test('ships modules that are found by what they do', async () => {
    await desk.add('mirror room', 'Mirror Room');
    await desk.find('[data-kind="module-mirror-room"]');
    await desk.patchStands();
    await desk.wire('Mirror Room', 'Scene Out');
    await desk.until(
      'its stand-in in the mirrors',
      () => desk.picture(),
      (p) => p.lit > 0.3,
    );
  });

  test('a module file that is dropped on the patch comes in, beside one that differs', async () => {
    const changed = saved
      .replace('"version": 1,', '"version": 4,')
      .replace('"invert": true', '"invert": false');
    expect(changed).not.toBe(saved);
    await desk.driver.executeScript(
      `const data = new DataTransfer();
       data.items.add(new File([arguments[0]], 'Other.pyrvel-module.json'));
       const patch = document.querySelector('[data-testid="patch"]');
       const { x, y, width, height } = patch.getBoundingClientRect();
       const where = { clientX: x + width / 2, clientY: y + height / 2, bubbles: true, cancelable: true };
       patch.dispatchEvent(new DragEvent('drop', { ...where, dataTransfer: data }));`,
      changed,
    );
    await desk.notice('warning', 'It came in beside it');
    await desk.find('[data-kind="module-dimmer-2"]');
  });
});

describe('variations', () => {
  test('nine are shown; one is taken by a click, and left again', async () => {
    const show = smallShow('Varied');
    const s = new Sketch('s1', 'Scene 1', [400, 0]);
    const fill = s.add('fill', 'Ground', [0, 0], { colour: [0.5, 0.5, 0.5, 1] });
    s.wire(fill, s.out, 'picture');
    show.scenes = [s.scene];
    await desk.openShow(show);
    await desk.until('the picture', red, (value) => value > 0.45 && value < 0.55);
    await alt('v');
    await desk.find('[data-testid="variations"]');
    for (const k of [1, 9])
      await desk.until(
        `variation ${k}`,
        () => desk.picture(`[aria-label="Variation ${k}"] canvas`),
        ({ lit }) => lit > 0.5,
      );
    await desk.click('[aria-label="Scene Out stays as it is"]');
    await (await desk.find('[aria-label="Strength"]')).sendKeys(Key.END);
    const free = variablesOf(s.scene, catalogue).filter(({ node }) => node === fill);
    // The third of the first nine.
    const [wanted] = Object.values(vary(valuesOf(s.scene, free), free, 1, 9 + 2)) as [number[]];
    // A box may be larger than its picture.
    const isThird = ({ red: r, green: g, blue: b, lit }: PictureFigures): boolean =>
      [r, g, b].every((v, k) => Math.abs(v - 255 * wanted[k] * wanted[3] * lit) < 4);
    await desk.until('the third', () => desk.picture('[aria-label="Variation 3"] canvas'), isThird);
    await desk.click('[aria-label="Take variation 3"]');
    await desk.until('the scene as it was shown', () => desk.picture(), isThird);
    await desk.click('[aria-label="Back to state 1"], [title="Back to state 1"]');
    await desk.until('grey again', red, (value) => value > 0.45 && value < 0.55);
    await desk.press(Key.ESCAPE);
    await cards(['Ground', 'Scene Out']);
  });

  test('A is kept beside what changes, and taken back', async () => {
    await desk.click('[aria-label="Compare"]');
    await desk.find('[data-testid="compare"]');
    await desk.choose('Scene Out');
    await desk.type('Brightness value', '0.2');
    await desk.until(
      'both halves',
      () => desk.seenAt('[data-testid="compare"]'),
      ({ mean }) => mean > 55 && mean < 95,
    );
    await desk.click('[title="The scene stands as A again"]');
    await desk.until('grey again', red, (value) => value > 0.45 && value < 0.55);
    await desk.click('[aria-label="End the comparison"]');
  });
});

describe('starting points', () => {
  test('a scene begins with one that moves, its modules come along, and it is one step of undo', async () => {
    await desk.openShow(smallShow('Begun'));
    await cards(['Scene Out']);
    await alt('n');
    await desk.find('[data-testid="starts"] canvas');
    await desk.click('[data-start="landscape"]');
    await cards(['Ridges', 'Scene Out']);
    await desk.until(
      'the landscape',
      () => desk.picture(),
      ({ lit }) => lit > 0.02,
    );
    await desk.moves();
    expect(await desk.driver.findElements(By.css('[data-scene]'))).toHaveLength(2);
    await desk.chord(Key.CONTROL, 'z');
    await cards(['Scene Out']);
  });

  test('an empty show is offered them', async () => {
    await desk.openShow(smallShow('Empty'));
    await desk.driver.executeScript(
      `[...document.querySelectorAll('button')].find((b) => b.textContent.includes('begin with a scene')).click()`,
    );
    await desk.click('[data-start="one-noise"]');
    await cards(['Colours', 'Noise', 'Scene Out']);
    expect(await desk.driver.findElements(By.css('[data-scene="One Noise"]'))).toHaveLength(1);
  });
});

describe('frames and notes', () => {
  test('a frame moves the cards that it holds, by keys and by its title', async () => {
    const show = smallShow('Framed');
    const s = new Sketch('s1', 'Scene 1', [500, 0]);
    s.add('noise', 'Inside', [0, 200]);
    s.add('noise', 'Outside', [0, 500]);
    show.scenes = [s.scene];
    await desk.openShow(show);
    await cards(['Inside', 'Outside', 'Scene Out']);
    await desk.choose('Inside');
    await alt('f');
    const title = await desk.find('[data-frame] header');
    await desk.patchStands();
    const x = async (name: string): Promise<number> =>
      (await (await desk.find(`[data-node="${name}"]`)).getRect()).x;
    const before = [await x('Inside'), await x('Outside')];
    await desk.driver.actions({ async: true }).move({ origin: title }).press().perform();
    await desk.driver
      .actions({ async: true })
      .move({ origin: title, x: 60, y: 10, duration: 100 })
      .release()
      .perform();
    const moved = await desk.until(
      'the card with its frame',
      () => x('Inside'),
      (now) => now > before[0] + 30,
    );
    expect(await x('Outside')).toBe(before[1]);
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'back in one step',
      () => x('Inside'),
      (now) => Math.abs(now - before[0]) < 2,
    );
    expect(moved).toBeGreaterThan(before[0]);
  });

  test('a note shows Markdown, and is written where it lies', async () => {
    await alt('t');
    const note = await desk.find('[data-frame] .note strong');
    expect(await desk.textOf(note)).toBe('Note');
    await desk.doubleClick(note);
    const field = await desk.find('[aria-label="Words of the note"]');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '# Bees', Key.ENTER, Key.ENTER, '- fly', Key.ESCAPE);
    await desk.until(
      'its words',
      () => desk.text('[data-frame] .note'),
      (text) => text.replace(/\s+/g, ' ') === 'Bees fly',
    );
    await desk.find('[data-frame] .note h1');
  });
});

test('Choose shows one of its pictures, and another by its number', async () => {
  const show = smallShow('Chosen');
  const s = new Sketch('s1', 'Scene 1', [600, 0]);
  const pictures = [
    [1, 0, 0, 1],
    [0, 0, 1, 1],
  ].map((colour, k) => s.add('fill', `Fill ${k + 1}`, [0, 200 * k], { colour }));
  const choose = s.add('choose', 'Choose', [300, 0]);
  s.wire(pictures[0], choose, 'first');
  s.wire(pictures[1], choose, 'second');
  s.wire(choose, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
  await desk.until('the first', red, (value) => value > 0.9);
  await desk.choose('Choose');
  await desk.type('Number value', '2');
  await desk.until(
    'the second',
    () => desk.picture(),
    ({ red: r, blue: b }) => r < 20 && b > 240,
  );
  await desk.select('By', 'Beat, in turn');
  await desk.type('Every value', '0.5');
  await desk.until('the first again, by the beat', red, (value) => value > 0.9);
});

describe('the inspector', () => {
  test('marks what is changed, sets several nodes at once, and gives a preset back', async () => {
    const show = smallShow('Inspected');
    const s = new Sketch('s1', 'Scene 1', [600, 0]);
    s.add('noise', 'One', [0, 0]);
    s.add('noise', 'Two', [0, 200]);
    show.scenes = [s.scene];
    await desk.openShow(show);
    await cards(['One', 'Scene Out', 'Two']);
    const period = (): Promise<string> => desk.text('[role="spinbutton"][aria-label="Period value"]');
    await desk.choose('Two');
    await addToChoice('One');
    await desk.until(
      'both of a kind',
      () => desk.text('[data-testid="several"]'),
      (text) => text.includes('all 2 of this kind'),
    );
    await desk.type('Period value', '0.8');
    await desk.choose('One');
    expect(await period()).toBe('0.8');
    await desk.select('Which controls are shown', 'Changed');
    await desk.until(
      'the one that is changed',
      () => desk.driver.findElements(By.css('[data-testid="inspector"] [data-part]')),
      (rows) => rows.length === 1,
    );
    await desk.find('[data-part="period"] [data-changed]');
    await desk.click('[data-testid="presets"] summary');
    const name = await desk.find('[aria-label="Name of a new preset"]');
    await name.sendKeys('Wide', Key.ENTER);
    await desk.find('[aria-label="Drop the preset Wide"]');
    await desk.select('Which controls are shown', 'All');
    await desk.type('Period value', '0.1');
    await desk.driver.executeScript(
      `[...document.querySelectorAll('[data-testid="presets"] button')].find((b) => b.textContent === 'Wide').click()`,
    );
    await desk.until('the preset', period, (now) => now === '0.8');
  });
});

test('a value for work is used in Build, the full one at the switch of a button', async () => {
  const show = smallShow('For Work');
  const s = new Sketch('s1', 'Scene 1', [400, 0]);
  const fill = s.add('fill', 'Ground', [0, 0], { colour: [1, 1, 1, 1] });
  s.wire(fill, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
  await desk.until('white', red, (value) => value > 0.95);
  await desk.choose('Scene Out');
  await desk.click('[aria-label="Source of Brightness"]');
  await desk.click('[aria-label="Brightness has a value for work"]');
  await desk.type('Brightness for work', '0.3');
  await desk.until('dim while one works', red, (value) => value > 0.2 && value < 0.4);
  await desk.click('[aria-label="Monitor"] [title^="Shows the values of the stage"]');
  await desk.until('as on stage', red, (value) => value > 0.95);
  await desk.click('[aria-label="Monitor"] [title^="Shows the values of the stage"]');
  await desk.until('dim again', red, (value) => value < 0.4);
});
