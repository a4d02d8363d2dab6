import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key, Origin, type WebElement } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { addCue, addPage, cueOf, putOnDesk } from '../src/core/show/edit-desk';
import { catalogue } from '../src/nodes/catalogue';
import type { Show } from '../src/core/document/types';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
const program = '[aria-label="Program"] canvas';
const name = (): Promise<string> => desk.text('[data-testid="program-name"]');
const seen = () => desk.picture(program);

/** A scene of one colour, with a box on it that can be moved and a title. */
function sketch(id: string, scene: string, colour: [number, number, number]): Sketch {
  const s = new Sketch(id, scene, [600, 0]);
  const ground = s.add('fill', 'Ground', [0, 0], { colour: [...colour, 1] });
  const level = s.add('levels', 'Level', [200, 0], { brightness: 0 });
  const box = s.add('flat-shape', 'Box', [200, 200], { form: 'box', size: [0.2, 0.2], fill: [1, 1, 1, 1] });
  const over = s.add('blend', 'Over', [400, 0]);
  s.wire(ground, level, 'picture');
  s.wire(level, over, 'picture');
  s.wire(box, over, 'over');
  s.wire(over, s.out, 'picture');
  return s;
}

function deskShow(): Show {
  const show = smallShow('Playing Test');
  show.tempo.bpm = 240;
  show.scenes = [
    sketch('s1', 'Red', [0.3, 0, 0]).scene,
    sketch('s2', 'Green', [0, 0.6, 0]).scene,
    sketch('s3', 'Blue', [0, 0, 0.6]).scene,
  ];
  const title = new Sketch('s4', 'Title', [400, 0]);
  const words = title.add('text', 'Words', [0, 0], { text: 'I', size: 0.5 });
  title.wire(words, title.out, 'picture');
  show.scenes.push(title.scene);
  putOnDesk(show, catalogue, { scene: 's4', node: words, part: 'text' });
  const node = (scene: number, wanted: string): string =>
    Object.values(show.scenes[scene].nodes).find((one) => one.name === wanted)!.id;
  const page = addPage(show, 's2', 'Green');
  putOnDesk(show, catalogue, { scene: 's2', node: node(1, 'Box'), part: 'place' }, page);
  putOnDesk(show, catalogue, { scene: 's2', node: node(1, 'Level'), part: 'brightness' }, page);
  putOnDesk(show, catalogue, { scene: 's2', node: node(1, 'Box'), part: 'turn' }, page);
  for (const [scene, more] of [
    ['s1', {}],
    ['s2', { go: { type: 'after', length: 4, unit: 'beats' } }],
    ['s3', { go: { type: 'after', length: 4, unit: 'beats' }, note: 'Wait for the light.' }],
    ['s1', {}],
    ['s2', {}],
  ] as const) {
    const cue = cueOf(show, addCue(show, null, scene));
    Object.assign(cue, more, { name: `Cue ${show.cues.length}` });
  }
  return show;
}

beforeAll(async () => {
  desk = await Desk.open();
  await desk.driver.manage().window().setRect({ width: 1280, height: 940 });
  await desk.openShow(deskShow());
});
afterAll(() => desk?.close());

const control = (label: string): string => `[data-desk-control="${label}"] [data-desk]`;

/** Drags from one share of an element to another, from its upper left. */
async function drag(
  element: WebElement,
  from: readonly [number, number],
  to: readonly [number, number],
): Promise<void> {
  const { width, height } = await element.getRect();
  const at = ([x, y]: readonly [number, number]) => ({
    origin: element,
    x: Math.round((x - 0.5) * width),
    y: Math.round((y - 0.5) * height),
  });
  await desk.driver
    .actions({ async: true })
    .move(at(from))
    .press()
    .move({ ...at(to), duration: 80 })
    .release()
    .perform();
}

const valueOf = async (label: string): Promise<number> =>
  Number(await (await desk.find(control(label))).getAttribute('aria-valuenow'));

describe('the desk', () => {
  test('gets a control of a node by one action from its row, and the fader moves the picture', async () => {
    await desk.choose('Level');
    await desk.click('[data-testid="inspector"] [aria-label="Brightness to the desk"]');
    await desk.notice('info', 'Brightness is on the desk');
    await desk.view('play');
    await desk.until('red on stage', seen, (p) => p.red > 40 && p.green < 30);
    const before = await seen();
    await drag(await desk.find(control('Brightness')), [0.5, 0.5], [0.5, 0.1]);
    await desk.until('a brighter picture', seen, (p) => p.green > before.green + 60);
    expect(await valueOf('Brightness')).toBeGreaterThan(0.5);
  });

  test('undoes the last action, and goes home by a double-click', async () => {
    await desk.until(
      'the desk before',
      async () => {
        // On a slow machine, a press and the way after it are two actions.
        await desk.chord(Key.CONTROL, Key.BACK_SPACE);
        return valueOf('Brightness');
      },
      (v) => v === 0,
    );
    const fader = await desk.find(control('Brightness'));
    await fader.sendKeys(...Array<string>(20).fill(Key.ARROW_UP));
    await desk.until(
      'a step',
      () => valueOf('Brightness'),
      (v) => v > 0.3,
    );
    await desk.doubleClick(fader);
    await desk.until(
      'home',
      () => valueOf('Brightness'),
      (v) => v === 0,
    );
  });

  test('two snapshots are stored, recalled and mixed: half-way the picture lies between', async () => {
    const fader = await desk.find(control('Brightness'));
    await desk.click('[title^="Stores how this page stands"]');
    await desk.find('[data-snapshot="Red 1"]');
    await drag(fader, [0.5, 0.5], [0.5, 0.06]);
    await desk.until('bright', seen, (p) => p.green > 180);
    await desk.click('[title^="Stores how this page stands"]');
    await desk.find('[data-snapshot="Red 2"]');
    await desk.type('Length of a recall', '0', '[aria-label="Snapshots"]');
    await desk.click('[aria-label="Recall Red 1"]');
    const dark = await desk.until('dark', seen, (p) => p.green < 40);
    await desk.click('[title^="Lay out the desk"]');
    await desk.select('Snapshot at the lower left', 'Red 1', '[aria-label="Snapshots"]');
    await desk.select('Snapshot at the lower right', 'Red 2', '[aria-label="Snapshots"]');
    await desk.click('[title^="Lay out the desk"]');
    const morph = await desk.find('[aria-label="Morph"][tabindex="0"]');
    await drag(morph, [0.1, 0.5], [0.5, 0.5]);
    const middle = await desk.until('the middle', seen, (p) => p.green > dark.green + 60 && p.green < 200);
    await morph.sendKeys(...Array<string>(10).fill(Key.ARROW_RIGHT));
    await desk.until('the other end', seen, (p) => p.green > middle.green + 40);
  });

  test('a control learns a dial of the surface, which takes over without a jump and is turned back by the desk', async () => {
    await desk.click('[aria-label="Recall Red 1"]');
    await desk.until('dark', seen, (p) => p.green < 40);
    await desk.click('[aria-label="Bind by moving"]');
    await desk.click('[aria-label="Bind Brightness"]');
    await desk.view('inputs');
    const fader = await desk.find('[data-fader="41"]');
    await drag(fader, [0.5, 0.9], [0.5, 0.85]);
    await desk.notice('info', 'Control 41, channel 1 moves Brightness');
    // The desk stands at the middle of its range, and the fader was told so.
    await desk.until(
      'the motor fader',
      async () => Number(await fader.getAttribute('aria-valuenow')),
      (v) => v > 55 && v < 75,
    );
    await drag(fader, [0.5, 0.5], [0.5, 0.08]);
    await desk.view('play');
    await desk.until(
      'the desk',
      () => valueOf('Brightness'),
      (v) => v > 0.7,
    );
    await desk.until('the picture', seen, (p) => p.green > 150);
  });

  test('controls are laid out and fitted: the range is narrower, and the name is its own', async () => {
    await desk.click('[title^="Lay out the desk"]');
    await desk.click('[aria-label="Lay out Brightness"]');
    const settings = '[aria-label="Settings of Brightness"]';
    await desk.type('High end of the range', '0.25', settings);
    await desk.fill('Name of the control', 'Glow', settings);
    await (await desk.find('[aria-label="Lay out Glow"]')).sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await desk.click('[title^="Lay out the desk"]');
    await drag(await desk.find(control('Glow')), [0.5, 0.5], [0.5, 0.02]);
    await desk.until(
      'the end of the range',
      () => valueOf('Glow'),
      (v) => v === 0.25,
    );
    expect(await (await desk.find('[data-desk-control="Glow"]')).getAttribute('style')).toContain('3 / span');
  });
});

describe('the running order', () => {
  test('goes by key and by the beat, and says what is now and next', async () => {
    expect(await desk.text('[data-testid="cue-next"]')).toContain('Cue 1');
    await desk.press(Key.F4);
    await desk.until(
      'the third cue',
      () => desk.text('[data-testid="cue-now"]'),
      (t) => t === 'Cue 3',
    );
    expect(await desk.text('[data-testid="cues-now"]')).toContain('Wait for the light.');
    await desk.until('its scene', name, (t) => t === 'Blue');
    await desk.press(Key.F4);
    await desk.press(Key.F4);
    await desk.until(
      'the last cue',
      () => desk.text('[data-testid="cue-now"]'),
      (t) => t === 'Cue 5',
    );
    await desk.chord(Key.SHIFT, Key.F4);
    await desk.until(
      'back',
      () => desk.text('[data-testid="cue-now"]'),
      (t) => t === 'Cue 4',
    );
  });

  test('is held by a hand that takes a scene, and goes on from there', async () => {
    await desk.click('[data-cue="Cue 2"]');
    await desk.click('[aria-label="Fade to Title"]');
    await desk.until(
      'held',
      () => desk.text('[data-testid="cue-left"]'),
      (t) => t === 'held',
    );
    await desk.press(Key.F2);
    await desk.until('the scene of a later cue', name, (t) => t === 'Blue');
  });

  test('of cues is edited in place', async () => {
    await desk.click('[title^="Lay out the desk"]');
    await desk.click('[data-cue="Cue 5"]');
    await desk.select('What starts the cue', 'At time code', '[data-testid="cue-settings"]');
    await desk.fill('Time code', '00:00:05:00', '[data-testid="cue-settings"]');
    await desk.fill('Name of the cue', 'By the clock', '[data-testid="cue-settings"]');
    await desk.click('[data-testid="cue-settings"] [aria-label="Done"]');
    expect(await desk.text('[data-cue="By the clock"]')).toContain('00:00:05:00');
    await desk.click('[title^="Lay out the desk"]');
  });

  test('follows MIDI time code, here of the stand-in', async () => {
    await desk.click('[data-cue="Cue 4"]');
    await desk.view('inputs');
    await desk.select('Time code of cues', 'MIDI time code', '[data-source="Time code"]');
    await desk.fill('Time code to start from', '00:00:04:00', '[data-source="Time code"]');
    await desk.click('[data-source="Time code"] .btn');
    await desk.view('play');
    await desk.until(
      'the cue',
      () => desk.text('[data-testid="cue-now"]'),
      (t) => t === 'By the clock',
    );
  });
});

describe('hands on the picture', () => {
  test('a place is grabbed on the program and moved', async () => {
    await desk.click('[aria-label="Fade to Green"]');
    await desk.until('green', name, (t) => t === 'Green');
    const grip = await desk.find('[data-grip="Place"]');
    const { width } = await (await desk.find(program)).getRect();
    await desk.driver
      .actions({ async: true })
      .move({ origin: grip })
      .press()
      .move({ origin: Origin.POINTER, x: Math.round(width / 4), y: 0, duration: 80 })
      .release()
      .perform();
    const boxAt = async (share: number): Promise<number> => {
      const {
        x,
        y,
        width: w,
        height: h,
      } = await desk.driver.executeScript<DOMRect>(
        `return document.querySelector('[aria-label="Program"] canvas').parentElement.getBoundingClientRect()`,
      );
      const [ww, wh] = await desk.driver.executeScript<[number, number]>('return [innerWidth, innerHeight]');
      // Beside the ring that the hand holds.
      return (await desk.seenAround((x + share * w) / ww, (y + 0.58 * h) / wh)).blue;
    };
    await desk.until(
      'the box at the right',
      () => boxAt(0.75),
      (blue) => blue > 150,
    );
    expect(await boxAt(0.5)).toBeLessThan(60);
  });

  test('two fingers move two controls at once', async () => {
    const [place, turn] = [await desk.find(control('Place')), await desk.find(control('Turn'))];
    const rects = await Promise.all([place.getRect(), turn.getRect()]);
    const finger = (
      id: string,
      { x, y, width, height }: { x: number; y: number; width: number; height: number },
      by: [number, number],
    ) => ({
      type: 'pointer',
      id,
      parameters: { pointerType: 'touch' },
      actions: [
        { type: 'pointerMove', duration: 0, x: Math.round(x + width / 2), y: Math.round(y + height / 2) },
        { type: 'pointerDown', button: 0 },
        { type: 'pause', duration: 30 },
        {
          type: 'pointerMove',
          duration: 60,
          x: Math.round(x + width / 2 + by[0]),
          y: Math.round(y + height / 2 + by[1]),
        },
        { type: 'pointerUp', button: 0 },
      ],
    });
    // The driver's own touch actions, since its builder has one finger only.
    const { Command, Name } = await import('selenium-webdriver/lib/command.js');
    await desk.driver.execute(
      new Command(Name.ACTIONS).setParameter('actions', [
        finger('one', rects[0], [-rects[0].width / 4, 0]),
        finger('two', rects[1], [0, -40]),
      ]),
    );
    await desk.until(
      'both',
      async () => [await valueOf('Place'), await valueOf('Turn')],
      ([x, angle]) => x < 0 && angle > 20,
    );
  });

  test('words of a title go on air with one key', async () => {
    await desk.click('[aria-label="Fade to Title"]');
    await desk.until('its name', name, (t) => t === 'Title');
    const first = await desk.until('the title', seen, (p) => p.lit > 0.005);
    const field = await desk.find('textarea[data-desk]');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'WWW');
    expect(await (await desk.find('[aria-label^="Put "]')).isEnabled()).toBe(true);
    await field.sendKeys(Key.ENTER);
    await desk.until('other words', seen, (p) => p.lit > first.lit * 1.5);
  });

  test('a layer lies over the program, and hits change all of it while they are held', async () => {
    await desk.click('[aria-label="Fade to Blue"]');
    await desk.until('blue', name, (t) => t === 'Blue');
    const plain = await desk.until('blue alone', seen, (p) => p.blue > 100 && p.red < 40);
    await desk.select('Scene of the layer', 'Title', '[aria-label="Layer over the program"]');
    await desk.until('white words over it', seen, (p) => p.red > plain.red + 5 && p.blue > 100);
    await desk.select('Scene of the layer', 'No layer', '[aria-label="Layer over the program"]');
    await desk.until('blue alone again', seen, (p) => p.red < plain.red + 2);
    const invert = await desk.find('[data-hit="invert"]');
    await desk.driver.actions({ async: true }).move({ origin: invert }).press().perform();
    await desk.until('inverted', seen, (p) => p.red > 180 && p.blue < 140);
    await desk.driver.actions({ async: true }).release().perform();
    await desk.until('as it was', seen, (p) => p.red < plain.red + 2);
  });

  test('a scene is the mask of a transition, and a blur and a bend go through both', async () => {
    await desk.select('Look of the transition', 'Mask', '[aria-label="Transition"]');
    await desk.select('Mask of the transition', 'Title', '[aria-label="Transition"]');
    await desk.click('[data-scene-button="Red"] .tool');
    const lever = await desk.find('[aria-label="Crossfader"]');
    await desk.until(
      'the lever to be free',
      () => lever.isEnabled(),
      (free) => free,
    );
    await lever.sendKeys(...Array<string>(8).fill(Key.ARROW_RIGHT));
    // Where the title is dark red has come already, and its letters are still blue.
    await desk.until('red with blue letters', seen, (p) => p.red > 40 && p.blue > 20 && p.blue < 120);
    for (const look of ['Blur', 'Displace']) {
      await desk.select('Look of the transition', look, '[aria-label="Transition"]');
      await desk.until(`${look} of both`, seen, (p) => p.red > 15 && p.blue > 15);
    }
    await lever.sendKeys(...Array<string>(14).fill(Key.ARROW_RIGHT));
    await desk.until('red', name, (t) => t === 'Red');
    await desk.select('Look of the transition', 'Mix', '[aria-label="Transition"]');
  });
});

describe('the night', () => {
  test('moves are recorded, kept with the show and played again', async () => {
    await desk.click('[aria-label="Record moves"]');
    await drag(await desk.find(control('Glow')), [0.5, 0.98], [0.5, 0.4]);
    await desk.click('[aria-label="Fade to Green"]');
    await desk.until('green', name, (t) => t === 'Green');
    await desk.click('[aria-label="Record moves"]');
    await desk.notice('info', 'moves were recorded');
    await desk.until(
      'them',
      () => desk.text('[data-testid="moves"]'),
      (t) => /^\d+ moves, /.test(t),
    );
    await desk.click('[aria-label="Fade to Title"]');
    await desk.until('the title', name, (t) => t === 'Title');
    await desk.click('[aria-label="Play moves"]');
    await desk.click('[aria-label="Back to start"]');
    await desk.until('green by itself', name, (t) => t === 'Green');
    await desk.click('[aria-label="Play moves"]');
  });

  test('a lock refuses edits and lets the show be played', async () => {
    await desk.click('[aria-label="Lock the show"]');
    const scenes = (): Promise<number> =>
      desk.driver.findElements(By.css('[data-scene-button]')).then((all) => all.length);
    const before = await scenes();
    await desk.select('Look of the transition', 'Iris', '[aria-label="Transition"]');
    await desk.notice('info', 'The show is locked');
    expect(await (await desk.find('[aria-label="Look of the transition"]')).getAttribute('value')).toBe(
      'mix',
    );
    await desk.click('[aria-label="Fade to Red"]');
    await desk.until('red', name, (t) => t === 'Red');
    await desk.click('[aria-label="Lock the show"]');
    expect(await scenes()).toBe(before);
  });

  test('a reload and another engine in the middle of a fade go on where it was, with the desk as it stood', async () => {
    await desk.type('Transition length', '60', '[aria-label="Transition"]');
    await drag(await desk.find(control('Glow')), [0.5, 0.5], [0.5, 0.3]);
    const stood = await desk.until(
      'the fader',
      () => valueOf('Glow'),
      (v) => v > -0.8 && v < 0.24,
    );
    await desk.press('3');
    await desk.until('the fade', name, (t) => t === 'Red → Blue');
    await desk.until(
      'more of it than its start',
      async () => Number(await (await desk.find('[aria-label="Crossfader"]')).getAttribute('value')),
      (v) => v > 0,
    );
    await desk.driver.navigate().refresh();
    await desk.until('the fade again', name, (t) => t === 'Red → Blue');
    await desk.view('build');
    await desk.chooseNothing();
    await desk.click('[title^="Stops the engine"]');
    await desk.notice('info', 'engine is back');
    await desk.view('play');
    await desk.until('the fade with another engine', name, (t) => t === 'Red → Blue');
    await desk.until(
      'the desk',
      async () => {
        await desk.click('[aria-label="Fade to Red"]');
        return valueOf('Glow');
      },
      (v) => v === stood,
    );
    await desk.type('Transition length', '0.3', '[aria-label="Transition"]');
  });

  test('panic is the home picture, whatever was on', async () => {
    await desk.click('[aria-label="Fade to Blue"]');
    await desk.press(Key.F9);
    expect(await desk.text('[data-testid="program-state"]')).toBe('BLACKOUT');
    await desk.press(Key.F10);
    await desk.until('home', name, (t) => t === 'Red');
    await desk.until('light', seen, (p) => p.red > 40);
    expect(await desk.driver.findElements(By.css('[data-testid="program-state"]'))).toEqual([]);
  });
});
