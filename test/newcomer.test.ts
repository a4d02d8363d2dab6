import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
  const show = smallShow('First Evening');
  const s = new Sketch('s1', 'Scene 1', [600, 0]);
  const fill = s.add('fill', 'Ground', [0, 0]);
  s.add('ball', 'Globe', [0, 260]);
  s.add('shot', 'Shot', [300, 260]);
  s.add('levels', 'Levels', [0, 520]);
  const mist = s.add('noise', 'Mist', [300, 520]);
  s.formula(mist, 'octaves', '1225');
  s.wire(fill, s.out, 'picture');
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

/** Waits until the engine has reported a switch as on or off. */
const switched = (label: string, on: boolean): Promise<boolean> =>
  desk.until(
    `${label} ${on ? 'on' : 'off'}`,
    async () => (await (await desk.find(`[aria-label="${label}"]`)).getAttribute('aria-pressed')) === 'true',
    (now) => now === on,
  );

describe('buttons and keys', () => {
  test('Space does not press again what was clicked last', async () => {
    await desk.click('[aria-label="Blackout"]');
    await switched('Blackout', true);
    await desk.click('[aria-label="Blackout"]');
    await switched('Blackout', false);
    await desk.press(' ');
    // What Space had pressed would be reported before what is pressed after it.
    await desk.press(Key.F8);
    await switched('Freeze', true);
    await switched('Blackout', false);
    await desk.press(Key.F8);
    await switched('Freeze', false);
    expect(await desk.driver.executeScript('return document.activeElement === document.body')).toBe(true);
  });

  test('a button that has the focus by keys is pressed by keys', async () => {
    await desk.driver.executeScript(`document.querySelector('[aria-label="Freeze"]').focus()`);
    await desk.press(' ');
    await switched('Freeze', true);
    await desk.press(' ');
    await switched('Freeze', false);
  });

  test('F9 and F8 are for blackout and freeze, in every view', async () => {
    for (const view of ['build', 'play'] as const) {
      await desk.view(view);
      await desk.press(Key.F9);
      await switched('Blackout', true);
      await desk.press(Key.F9, Key.F8);
      await switched('Blackout', false);
      await switched('Freeze', true);
      await desk.press(Key.F8);
      await switched('Freeze', false);
    }
    await desk.view('build');
    await desk.patchStands();
  });
});

describe('wires', () => {
  const wireLabels = (): Promise<string[]> =>
    desk.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('.react-flow__edge')].map((e) => e.getAttribute('aria-label'))`,
    );

  test('are called by what they join', async () => {
    await desk.until(
      'the wire',
      wireLabels,
      (labels) => labels.length === 1 && labels[0] === 'Wire from Ground to Scene Out, Picture',
    );
  });

  test('one that does not fit says why, and the missing node is one click away', async () => {
    const before = await desk.wires();
    await desk.wire('Globe', 'Shot');
    await desk.notice('warning', 'Globe gives shape; Shot takes prop.');
    expect(await desk.wires()).toBe(before);
    await desk.click('[data-notice="warning"] .btn-primary');
    await desk.find('[data-node="Body"]');
    await desk.until(
      'both wires',
      () => desk.wires(),
      (n) => n === before + 2,
    );
  });

  test('a card dropped with its middle on a wire is put between', async () => {
    // Taken by its name, so that the pointer itself lies below the wire.
    await desk.patchStands();
    const rect = (selector: string): Promise<{ x: number; y: number; width: number; height: number }> =>
      desk.find(selector).then((e) => e.getRect());
    const name = await rect('[data-node="Levels"] .truncate');
    const card = await rect('[data-node="Levels"]');
    const from = await rect(desk.port('Ground', 'out'));
    const to = await rect(desk.port('Scene Out', 'picture'));
    // Cards are 154 wide, the face 86 high, whatever the patch is scaled by.
    const by = {
      x: (from.x + to.x + to.width) / 2 - (card.x + card.width / 2),
      y: (from.y + to.y + to.height) / 2 - (card.y + (43 * card.width) / 154),
    };
    const grip = { x: Math.round(name.x + name.width / 2), y: Math.round(name.y + name.height / 2) };
    await desk.driver
      .actions({ async: true })
      .move(grip)
      .press()
      .move({ x: grip.x + 10, y: grip.y - 10, duration: 60 })
      .move({ x: Math.round(grip.x + by.x), y: Math.round(grip.y + by.y), duration: 200 })
      .release()
      .perform();
    await desk.until(
      'it between',
      wireLabels,
      (labels) =>
        labels.includes('Wire from Ground to Levels, Picture') &&
        labels.includes('Wire from Levels to Scene Out, Picture'),
    );
  });
});

describe('the inspector', () => {
  test('a value beyond its limit shows what is used', async () => {
    await desk.choose('Mist');
    await desk.until(
      'the value that is used',
      () => desk.liveValue('octaves'),
      (v) => v === 8,
    );
    const value = await desk.find('[data-part="octaves"] [data-testid="live-value"]');
    expect(await value.getAttribute('title')).toBe('1225 is beyond the limit; 8 is used.');
    await desk.type('Seed value', '99999999');
    await desk.notice('warning', 'is beyond it.');
  });

  test('of several chosen nodes it says whose controls these are', async () => {
    await desk.choose('Globe');
    await desk.chord(Key.CONTROL, 'a');
    const words = await desk.text('[data-testid="several"]');
    expect(words).toMatch(
      /^7 nodes are chosen\. (These are the controls of .+ alone|What is set here is set in all \d of this kind)\.$/,
    );
    await desk.press(Key.ESCAPE);
  });

  test('copies that are pasted cover no card, however often', async () => {
    await desk.choose('Globe');
    await desk.chord(Key.CONTROL, 'c');
    for (let k = 0; k < 2; k++) await desk.chord(Key.CONTROL, 'v');
    // Copies lie over its name by now.
    await desk.driver.executeScript(`document.querySelector('[data-node="Globe"]').click()`);
    await desk.chord(Key.CONTROL, 'c');
    await desk.chord(Key.CONTROL, 'v');
    const places = await desk.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('.react-flow__node')].filter((n) => n.querySelector('[data-node^="Globe"]')).map((n) => n.style.transform)`,
    );
    expect(places).toHaveLength(4);
    expect(new Set(places).size).toBe(4);
  });
});

test('a whole need typed into Add finds what does it', async () => {
  await desk.press('/');
  await (await desk.find('[cmdk-input]')).sendKeys('make copies of a shape follow pixels');
  await desk.until(
    'the kinds',
    () =>
      desk.driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[cmdk-item] .font-semibold')].map((e) => e.textContent)`,
      ),
    (names) => names.slice(0, 4).includes('Instances'),
  );
  await desk.press(Key.ESCAPE);
});

test('Add begins with what was added last and with favourites, and forgives a typing error', async () => {
  const listed = (): Promise<string[]> =>
    desk.driver.executeScript(
      `return [...document.querySelectorAll('[cmdk-group]')].slice(0, 2).map((group) =>
         [group.querySelector('[cmdk-group-heading]')?.textContent, group.querySelector('[cmdk-item] .font-semibold').textContent].join(': '))`,
    );
  await desk.add('oscilator', 'Oscillator');
  await desk.press('/');
  await desk.until('what was added last', listed, ([first]) => first === 'Added last: Oscillator');
  await (await desk.find('[cmdk-input]')).sendKeys('lattice');
  await desk.click('[aria-label="Lattice is a favourite"]');
  await desk.press(Key.ESCAPE);
  await desk.press('/');
  const groups = await desk.until('the favourite', listed, ([first]) => first?.startsWith('Favourites'));
  expect(groups).toEqual(['Favourites: Lattice', 'Added last: Oscillator']);
  await desk.press(Key.ESCAPE);
});

test('at 1024 x 768 every button of the top bar is whole', async () => {
  await desk.driver
    .manage()
    .window()
    .setRect({ width: 1024, height: 768 + 143 });
  const cut = await desk.until(
    'the narrow window',
    () =>
      desk.driver.executeScript<{ width: number; cut: string[] }>(
        `return { width: innerWidth, cut: [...document.querySelectorAll('header button, header a')].filter((e) => {
           const box = e.getBoundingClientRect();
           return box.right > innerWidth + 0.5 || box.left < 0 || e.scrollWidth > e.clientWidth + 1;
         }).filter((e) => !e.classList.contains('truncate')).map((e) => e.textContent || e.ariaLabel) }`,
      ),
    ({ width }) => width === 1024,
  );
  expect(cut.cut).toEqual([]);
  expect((await desk.driver.findElements(By.css('header button'))).length).toBeGreaterThan(8);
});

test('a node is found by its formula, in any scene, and stands in the middle', async () => {
  const show = smallShow('Found');
  const [one, two] = ['Near', 'Far'].map((name, k) => new Sketch(`s${k}`, name, [400, 0]));
  two.formula(two.add('noise', 'Mist', [3000, 1800]), 'place.x', 'sin(time * 0.123)');
  show.scenes = [one.scene, two.scene];
  await desk.openShow(show);
  await desk.chord(Key.CONTROL, 'f');
  await (await desk.find('[cmdk-input]')).sendKeys('0.123', Key.ENTER);
  await desk.find('[data-node="Mist"]');
  const off = await desk.until(
    'the card in the middle',
    () =>
      desk.driver.executeScript<number>(`
        const card = document.querySelector('[data-node="Mist"]')?.getBoundingClientRect();
        const patch = document.querySelector('[data-testid="patch"]').getBoundingClientRect();
        return card ? Math.hypot(card.x + card.width / 2 - patch.x - patch.width / 2, card.y + card.height / 2 - patch.y - patch.height / 2) : 9999;`),
    (distance) => distance < 40,
  );
  expect(off).toBeLessThan(40);
  expect(await (await desk.find('input[aria-label="Name of the node"]')).getAttribute('value')).toBe('Mist');
});
