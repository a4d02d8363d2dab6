import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

let desk: Desk;

/** One noise to two steps and to one that is apart; a wave that a formula names. */
function comfortShow() {
  const show = smallShow('Comfort');
  const s = new Sketch('s1', 'First', [900, 0]);
  const fill = s.add('fill', 'Red', [0, 0], { colour: [0.9, 0.1, 0.2, 1] });
  const left = s.add('levels', 'Left', [300, 0]);
  const right = s.add('levels', 'Right', [300, 200]);
  const blend = s.add('blend', 'Blend', [600, 0]);
  s.wire(fill, left, 'picture');
  s.wire(fill, right, 'picture');
  s.wire(left, blend, 'picture');
  s.wire(right, blend, 'over');
  s.wire(blend, s.out, 'picture');
  s.add('oscillator', 'Wave', [0, 420]);
  s.formula(right, 'amount', 'wave * 0 + 1');
  s.add('gradient', 'Ramp', [300, 420], {
    colours: [
      { at: 0, colour: [0, 0, 1, 1] },
      { at: 0.2, colour: [0, 1, 0, 1] },
      { at: 1, colour: [1, 1, 0, 1] },
    ],
  });
  s.add('box', 'Box', [600, 420], { size: [1, 2, 1] });
  const second = new Sketch('s2', 'Second', [400, 0]);
  const third = new Sketch('s3', 'Third', [400, 0]);
  show.scenes = [s.scene, second.scene, third.scene];
  return show;
}

beforeAll(async () => {
  desk = await Desk.open();
  await desk.openShow(comfortShow());
  await desk.patchStands();
});
afterAll(() => desk.close());

const ask = <T>(script: string, ...args: unknown[]): Promise<T> =>
  desk.driver.executeScript<T>(script, ...args);
const all = (selector: string, attribute: string): Promise<string[]> =>
  ask(
    `return [...document.querySelectorAll(arguments[0])].map((e) => e.getAttribute(arguments[1]))`,
    selector,
    attribute,
  );
const value = (label: string): Promise<string | null> =>
  ask(
    `return document.querySelector('[role="spinbutton"][aria-label="' + arguments[0] + '"]')?.getAttribute('aria-valuenow') ?? null`,
    label,
  );

describe('a patch that is read', () => {
  const aside = (): Promise<string[]> => all('[data-node][data-aside="true"]', 'data-node');

  test('focus leaves what the chosen node is made of and what is made of it', async () => {
    await desk.choose('Left');
    await desk.chord(Key.ALT, 'u');
    await desk.until('others to step back', aside, (names) => names.join() === 'Right,Wave,Ramp,Box');
    await desk.choose('Right');
    // The wave counts too: a formula of it names it.
    await desk.until('the wave to come back', aside, (names) => names.join() === 'Left,Ramp,Box');
    expect(await all('[data-wire][data-aside="true"]', 'data-carries')).toEqual(['image', 'image']);
    await desk.press(Key.ESCAPE);
    await desk.until('all of them', aside, (names) => names.length === 0);
    await desk.chord(Key.ALT, 'u');
  });

  test('nodes that a formula names are linked by a faint line', async () => {
    await desk.find('path[data-link="formula"]');
    expect(await all('[data-link]', 'data-link')).toEqual(['formula']);
  });

  test('wires out of one port are bundled, and are let go again', async () => {
    const bundled = (): Promise<number> =>
      ask(`return document.querySelectorAll('[data-bundled="true"]').length`);
    expect(await bundled()).toBe(0);
    await desk.chord(Key.ALT, 'y');
    await desk.until('two wires in a bundle', bundled, (n) => n === 2);
    const shapes = await ask<string[]>(
      `return [...document.querySelectorAll('[data-bundled="true"] .react-flow__edge-path')].map((p) => p.getAttribute('d').split('C')[1])`,
    );
    // Up to where they part, they are one line.
    expect(shapes[0]).toBe(shapes[1]);
    await desk.chord(Key.ALT, 'y');
    await desk.until('none', bundled, (n) => n === 0);
  });

  test('the overview map goes elsewhere', async () => {
    const view = (): Promise<string> =>
      ask(`return document.querySelector('.react-flow__viewport').style.transform`);
    await desk.chord(Key.ALT, 'm');
    const map = await desk.find('.react-flow__minimap svg');
    const before = await view();
    await desk.driver
      .actions({ async: true })
      .move({ origin: map })
      .press()
      .move({ origin: map, x: 40, y: 10, duration: 100 })
      .release()
      .perform();
    await desk.until('the patch to move', view, (now) => now !== before);
    await desk.chord(Key.ALT, 'm');
    await desk.until(
      'the map gone',
      () => ask<number>(`return document.querySelectorAll('.react-flow__minimap').length`),
      (n) => n === 0,
    );
    await desk.click('[aria-label="Whole patch"]');
    await desk.patchStands();
  });

  test('ports say their names on a card that is chosen', async () => {
    await desk.choose('Blend');
    expect(
      await ask<string[]>(
        `return [...document.querySelectorAll('[data-node="Blend"] [data-name]')].map((e) => getComputedStyle(e, '::after').display + ' ' + e.dataset.name)`,
      ),
    ).toEqual(['block Under', 'block Over']);
  });

  test('a wire that is dropped on a card finds its control by typing', async () => {
    await desk.wire('Wave', 'Left');
    const field = await desk.find('[cmdk-root] input');
    await field.sendKeys('gamma');
    await desk.until(
      'one choice',
      () => all('[data-choice]', 'data-choice'),
      (ports) => ports.join() === 'gamma',
    );
    await field.sendKeys(Key.ENTER);
    await desk.find('[data-node="Left"] [data-port="gamma"]');
    await desk.chord(Key.CONTROL, 'z');
  });

  test('scenes change their order, by dragging and by commands', async () => {
    const order = (): Promise<string[]> => all('[data-scene]', 'data-scene');
    await ask(
      `const of = (name) => document.querySelector('[data-scene="' + name + '"]');
       const data = new DataTransfer();
       const send = (target, type) => target.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: data }));
       send(of('Third'), 'dragstart'); send(of('First'), 'dragover'); send(of('First'), 'drop');`,
    );
    await desk.until('the third to be first', order, (names) => names.join() === 'Third,First,Second');
    await desk.chord(Key.CONTROL, 'k');
    await (await desk.find('[data-testid="commands"] input')).sendKeys('reorder');
    await desk.click('[data-command="scene.forward"]');
    await desk.until('the first to be first again', order, (names) => names.join() === 'First,Third,Second');
  });
});

describe('controls', () => {
  beforeEach(() => desk.press(Key.ESCAPE));

  test('sums are typed into numbers; what is none is said', async () => {
    await desk.choose('Ramp');
    await desk.type('Length value', '1/4');
    expect(await value('Length value')).toBe('0.25');
    await desk.type('Length value', 'value*2');
    expect(await value('Length value')).toBe('0.5');
    await desk.type('Length value', 'soon');
    await desk.notice('warning', 'is no number');
    expect(await value('Length value')).toBe('0.5');
  });

  test('arrow keys go through the values of a choice', async () => {
    await desk.choose('Ramp');
    const form = await desk.find('select[aria-label="Form"]');
    const before = await form.getAttribute('value');
    await form.sendKeys(Key.ARROW_DOWN);
    await desk.until(
      'the next form',
      async () => (await desk.find('select[aria-label="Form"]')).getAttribute('value'),
      (now) => now !== before,
    );
    await (await desk.find('select[aria-label="Form"]')).sendKeys(Key.ARROW_UP);
    expect(await (await desk.find('select[aria-label="Form"]')).getAttribute('value')).toBe(before);
  });

  test('parts of a size keep their proportions while they are locked', async () => {
    await desk.choose('Box');
    await desk.click('[aria-label="Keep the proportions of Size"]');
    await desk.type('Size x value', '0.5');
    expect([await value('Size x value'), await value('Size y value'), await value('Size z value')]).toEqual([
      '0.5',
      '1',
      '0.5',
    ]);
    await desk.click('[aria-label="Keep the proportions of Size"][aria-pressed="true"]');
    await desk.type('Size x value', '2');
    expect(await value('Size y value')).toBe('1');
  });

  const stops = (): Promise<string> =>
    ask(
      `return [...document.querySelectorAll('[aria-label^="Stop at"]')].map((e) => e.getAttribute('aria-label').slice(8) + ' ' + e.style.background).join(', ')`,
    );

  test('a gradient is flipped, spread, copied and pasted', async () => {
    await desk.choose('Ramp');
    await desk.click('[aria-label="Flip the gradient"]');
    await desk.until('it flipped', stops, (now) =>
      now.startsWith('1 rgb(0, 0, 255), 0.8 rgb(0, 255, 0), 0 rgb'),
    );
    await desk.click('[aria-label="Copy the gradient"]');
    await desk.click('[aria-label="Spread the stops evenly"]');
    await desk.until('even stops', stops, (now) => now.includes('0.5 rgb(0, 255, 0)'));
    await desk.click('[aria-label="Paste the gradient"]');
    await desk.until('it as it was', stops, (now) => now.includes('0.8 rgb(0, 255, 0)'));
  });

  test('a gradient is made of the colours of the scene, and of a picture file; what is no picture is said', async () => {
    await desk.choose('Ramp');
    await desk.click('[aria-label="Gradient from the scene"]');
    // The scene is one red all over.
    await desk.until('a red', stops, (now) =>
      /^0 rgb\(2[23]\d, 2\d, 5\d\), 1 rgb\(2[23]\d, 2\d, 5\d\)$/.test(now),
    );
    const drop = (name: string, how: string): Promise<void> =>
      desk.driver.executeAsyncScript(
        `const done = arguments[2], [name, how] = arguments;
         const input = document.querySelector('[data-testid="gradient-file"]');
         const canvas = new OffscreenCanvas(40, 10);
         const context = canvas.getContext('2d');
         for (const [k, colour] of ['#000', '#0f0', '#fff'].entries()) { context.fillStyle = colour; context.fillRect(k * 15, 0, 15, 10); }
         canvas.convertToBlob().then((picture) => {
           const files = new DataTransfer();
           files.items.add(new File([how === 'picture' ? picture : 'words'], name, { type: 'image/png' }));
           input.files = files.files;
           input.dispatchEvent(new Event('change', { bubbles: true }));
           done();
         });`,
        name,
        how,
      );
    await drop('flag.png', 'picture');
    await desk.until(
      'three colours',
      stops,
      (now) => now === '0 rgb(0, 0, 0), 0.5 rgb(0, 255, 0), 1 rgb(255, 255, 255)',
    );
    await drop('words.png', 'text');
    await desk.notice('error', "words.png can't be used");
  });

  test('a colour comes from the palette of the show, or from the monitor', async () => {
    const hex = async (): Promise<string | null> =>
      (await desk.find('[data-part="colour"] input[aria-label="Colour hex"]')).getAttribute('value');
    await desk.choose('Red');
    await desk.click('[aria-label="Colours for Colour"]');
    await desk.click('[data-swatch="#00ff00"]');
    await desk.until('the colour of the show', hex, (now) => now === '#00ff00');
    await desk.click('[data-swatch="#ffffff"]');
    await desk.until('another', hex, (now) => now !== '#00ff00');
    const wanted = await hex();
    await desk.until(
      'it on the monitor',
      () => desk.picture(),
      ({ lit }) => lit > 0.5,
    );
    await desk.click('[aria-label="Pick Colour from the monitor"]');
    await desk.click('[data-testid="monitor-pick"]');
    await desk.until(
      'the pick to end',
      () => ask<number>(`return document.querySelectorAll('[data-testid="monitor-pick"]').length`),
      (n) => n === 0,
    );
    await desk.until('the colour that is there', hex, (now) => now === wanted);
    await desk.click('[aria-label="Pick Colour from the monitor"]');
    await desk.find('[data-testid="monitor-pick"]');
    await desk.press(Key.ESCAPE);
    await desk.until(
      'Escape to end it',
      () => ask<number>(`return document.querySelectorAll('[data-testid="monitor-pick"]').length`),
      (n) => n === 0,
    );
  });
});

describe('large text', () => {
  test('twice as large, every view can still be worked: nothing that is pressed is out of reach', async () => {
    for (let k = 0; k < 5; k++) await desk.chord(Key.ALT, '=');
    await desk.until(
      'twice the size',
      () => ask<string>(`return getComputedStyle(document.documentElement).fontSize`),
      (size) => size === '32px',
    );
    for (const view of ['play', 'wall', 'record', 'preflight', 'machines', 'inputs', 'shows', 'build']) {
      await desk.click(`nav a[href="/${view}"]`);
      await desk.find('main');
      const lost = await ask<string[]>(`
        const reachable = (element) => {
          const box = element.getBoundingClientRect();
          if (!box.width || !box.height) return true;
          // What lies outside is reached if something around it scrolls.
          for (let up = element.parentElement; up; up = up.parentElement) {
            const { overflowX, overflowY } = getComputedStyle(up);
            if (/auto|scroll/.test(overflowX + overflowY)) return true;
          }
          return box.left >= -1 && box.right <= innerWidth + 1 && box.top >= -1 && box.bottom <= innerHeight + 1;
        };
        return [...document.querySelectorAll('header button, header a, main button, main input, main select')]
          .filter((e) => !e.closest('.react-flow') && !reachable(e))
          .map((e) => e.getAttribute('aria-label') ?? e.textContent);`);
      expect([view, ...lost]).toEqual([view]);
    }
    for (let k = 0; k < 5; k++) await desk.chord(Key.ALT, '-');
    await desk.until(
      'the size as it was',
      () => ask<string>(`return getComputedStyle(document.documentElement).fontSize`),
      (size) => size === '16px',
    );
    expect((await desk.driver.findElements(By.css('[data-large-text]'))).length).toBe(0);
  });
});
