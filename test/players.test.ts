import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { NetworkState } from '../src/core/machines/link';
import { devTools } from '../bin/browser';
import { Sketch } from '../demo/sketch';
import { addScreen } from '../src/core/show/edit-wall';
import type { Show } from '../src/core/document/types';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
const windows = new Map<string, string>();
const go = (name: string): Promise<void> => desk.driver.switchTo().window(windows.get(name)!);
const stage = 'canvas[data-output="stage"]:last-of-type';

/**
 * One scene whose green says the time by less than a millisecond, one that grows bluer to the right, and a red one in which the blue that its feedback
 * starts from fades within a second; a screen for each half.
 */
function wallShow(): Show {
  const show = smallShow('Players Test');
  show.transition.length = 0;
  const clock = new Sketch('s1', 'Clock', [400, 0]);
  const light = clock.add('fill', 'Light', [0, 0], { colour: [0, 0, 0, 1] });
  clock.formula(light, 'colour.g', 'fract(time * 5)');
  clock.wire(light, clock.out, 'picture');
  const halves = new Sketch('s2', 'Halves', [400, 0]);
  const blue = halves.add('gradient', 'Blue', [0, 0], {
    colours: [
      { at: 0, colour: [0, 0, 0, 1] },
      { at: 1, colour: [0, 0, 1, 1] },
    ],
  });
  halves.wire(blue, halves.out, 'picture');
  const fades = new Sketch('s3', 'Fades', [600, 0]);
  const start = fades.add('fill', 'Start', [0, 0], { colour: [0, 0, 1, 1] });
  const hold = fades.add('transform', 'Hold', [200, 0]);
  fades.back(fades.wire(hold, hold, 'picture'), { keep: 0.95, guard: 'off', startsFrom: start });
  const red = fades.add('fill', 'Red', [0, 200], { colour: [0.7, 0, 0, 1] });
  const sum = fades.add('blend', 'Sum', [400, 0], { mode: 'add' });
  fades.wire(red, sum, 'picture');
  fades.wire(hold, sum, 'over');
  fades.wire(sum, fades.out, 'picture');
  show.scenes = [clock.scene, halves.scene, fades.scene];
  for (const [k, name] of ['Left half', 'Right half'].entries()) {
    const id = addScreen(show);
    const screen = show.wall.outputs.find((output) => output.id === id)!;
    screen.name = name;
    if ('part' in screen) Object.assign(screen.part, { x: k * 160, y: 0, width: 160, height: 180 });
  }
  return show;
}

/** Has the page that is opened next keep the blue of the first picture that is red. */
const keepFirst = (): Promise<unknown> =>
  devTools(desk.driver, 'Page.addScriptToEvaluateOnNewDocument', {
    source: `
      window.firstBlue = null;
      const context = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d', { willReadFrequently: true });
      const look = () => {
        const shown = [...document.querySelectorAll('canvas[data-output="stage"]')].pop();
        if (shown?.width) context.drawImage(shown, 0, 0, 1, 1);
        const [red, , blue] = context.getImageData(0, 0, 1, 1).data;
        if (red > 100) window.firstBlue = blue;
        else requestAnimationFrame(look);
      };
      requestAnimationFrame(look);`,
  });

async function openPlayer(
  name: string,
  before: () => Promise<unknown> = () => Promise.resolve(),
): Promise<void> {
  await desk.driver.switchTo().newWindow('window');
  await before();
  await desk.driver.manage().window().setRect({ width: 500, height: 400 });
  windows.set(name, await desk.driver.getWindowHandle());
  await desk.driver.get(`${desk.address}/player?name=${name}`);
  await desk.find('canvas[data-output="stage"]');
}

/**
 * Where a player stands in the 200 ms that the green of the clock goes round in, against the clock of this machine: the mean of a second,
 * as an angle, since it goes round.
 */
const phase = (): Promise<number> =>
  desk.driver.executeAsyncScript(`
    const [done] = arguments;
    const context = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d', { willReadFrequently: true });
    const end = performance.now() + 1000;
    let x = 0, y = 0;
    const look = () => {
      const shown = [...document.querySelectorAll('canvas[data-output="stage"]')].pop();
      context.drawImage(shown, shown.width / 4, shown.height / 4, 1, 1, 0, 0, 1, 1);
      const green = context.getImageData(0, 0, 1, 1).data[1] / 255;
      const angle = 2 * Math.PI * ((performance.timeOrigin + performance.now()) / 200 - green);
      x += Math.cos(angle);
      y += Math.sin(angle);
      if (performance.now() < end) requestAnimationFrame(look);
      else done(Math.atan2(y, x));
    };
    look();`);

/** Milliseconds between two places in those 200. */
const apart = (a: number, b: number): number => {
  const turn = (a - b) / (2 * Math.PI);
  return 200 * Math.abs(turn - Math.round(turn));
};

beforeAll(async () => {
  desk = await Desk.open({ unsigned: true });
  windows.set('main', await desk.driver.getWindowHandle());
  await desk.openShow(wallShow());
  await openPlayer('Left');
  await openPlayer('Right');
});
afterAll(() => desk?.close());

describe('players', () => {
  test('show the same moment as each other, as of one clock, and as the main machine', async () => {
    // Half a frame of the show by which two that draw at different moments differ anyway, and as much for a machine that is slow.
    const limit = 34;
    const all: number[] = [];
    await desk.until(
      'two players at one moment',
      async () => {
        const phases: number[] = [];
        for (const name of ['Left', 'Right']) {
          await go(name);
          phases.push(await phase());
        }
        all.push(apart(phases[0], phases[1]));
        return all.at(-1)!;
      },
      (between) => between < limit,
    );
    console.log(`players apart: ${all.map((one) => one.toFixed(1)).join(', ')} ms`);
  });

  test('are given a screen of the wall in Machines, follow a take, and each shows its own part', async () => {
    await go('main');
    await desk.click('[aria-label="Views"] [href="/machines"]');
    for (const name of ['Left', 'Right']) {
      await desk.find(`img[alt="What ${name} shows now"]`);
      const field = await desk.find(`[aria-label="What ${name} shows"]`);
      await field.findElement(By.xpath(`.//option[text()="${name} half"]`)).click();
    }
    await desk.click('[aria-label="Views"] [href="/wall"]');
    await desk.click('[data-output-row="Right half"] button');
    const player = await desk.find('[aria-label="Player"]');
    expect(await desk.textOf(await player.findElement(By.css('option:checked')))).toBe('Right');
    await desk.click('[aria-label="Views"] [href="/play"]');
    await desk.click('[data-scene-button="Halves"] button');
    await go('Left');
    const left = await desk.until(
      'its half',
      () => desk.picture(stage),
      (p) => p.blue > 20 && p.green < 5,
    );
    await go('Right');
    const right = await desk.until(
      'the other half',
      () => desk.picture(stage),
      (p) => p.blue > left.blue + 60,
    );
    expect(right.green).toBeLessThan(5);
  });

  test('show their name when they are asked, and come back with another engine', async () => {
    await go('main');
    await desk.click('[aria-label="Views"] [href="/machines"]');
    await desk.click('[aria-label="Show the name of Left"]');
    await go('Left');
    expect(await desk.text('[data-testid="player-name"]')).toBe('Left');
    await go('main');
    await desk.click('[aria-label="Restart the engine of Left"]');
    await go('Left');
    // The canvas of the old engine makes place for that of the new one once it has a picture.
    await desk.until(
      'its half again',
      () => desk.picture(stage),
      (p) => p.blue > 20 && p.blue < 120,
    );
  });

  test('are opened on the main machine itself with a press, each by a name that is free', async () => {
    await go('main');
    const before = await desk.driver.getAllWindowHandles();
    await (await desk.driver.findElement(By.xpath('//button[contains(., "Player window")]'))).click();
    await desk.find('[data-machine="Player 1"]');
    const [opened] = (await desk.driver.getAllWindowHandles()).filter((one) => !before.includes(one));
    await desk.driver.switchTo().window(opened);
    await desk.find('canvas[data-output="stage"]');
    await desk.driver.close();
  });

  test('go on alone when the main machine is gone, and follow again when it is back', async () => {
    await go('main');
    await desk.click('[aria-label="Views"] [href="/play"]');
    await desk.click('[data-scene-button="Clock"] button');
    await go('Right');
    const green = async (): Promise<number> => (await desk.picture(stage)).green;
    const moving = async (): Promise<void> => {
      const first = await green();
      await desk.until('another picture', green, (now) => Math.abs(now - first) > 5);
    };
    await desk.until(
      'the clock',
      () => desk.picture(stage),
      (p) => p.blue < 5,
    );
    await go('main');
    await desk.driver.get(`${desk.address}/mark.svg`);
    await go('Right');
    await moving();
    await moving();
    await go('main');
    await desk.driver.get(`${desk.address}/play`);
    await desk.click('[data-scene-button="Halves"] button');
    await go('Right');
    await desk.until(
      'the other scene',
      () => desk.picture(stage),
      (p) => p.blue > 100,
    );
  });

  test('that comes late shows what the others do', async () => {
    await openPlayer('Late');
    await desk.until(
      'the whole of what is on air',
      () => desk.picture(stage),
      (p) => p.blue > 60 && p.green < 5,
    );
    await desk.driver.close();
  });

  test('that comes late has run up what feeds back: it begins as the others are', async () => {
    await go('main');
    await desk.click('[data-scene-button="Fades"] button');
    await desk.find('[data-scene-button="Fades"][data-state="on"]');
    await desk.until(
      'the blue to have faded',
      () => desk.picture('[aria-label="Program"] canvas'),
      (p) => p.red > 100 && p.blue < 3,
    );
    await openPlayer('Later', keepFirst);
    const first = await desk.until(
      'its first picture',
      () => desk.driver.executeScript<number | null>('return window.firstBlue'),
      (blue) => blue !== null,
    );
    // All of it without the second that was run up, in which it fades to a twentieth.
    expect(first).toBeLessThan(0.15 * 255);
    await desk.driver.close();
  });

  test('that come over the network are let in by a code of their own, which may come with the address', async () => {
    await go('main');
    const opened = await fetch(`${desk.address}/machines/network`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"isOpen":true}',
    });
    const { addresses, codes } = (await opened.json()) as NetworkState;
    await desk.driver.switchTo().newWindow('window');
    await desk.driver.get(`${addresses[0]}/player?name=Far#code=${codes!.desk}`);
    await desk.until(
      'why not',
      () => desk.text('[role="alert"]'),
      (words) => words.includes('Type the one for players'),
    );
    await desk.driver.get(`${addresses[0]}/player?name=Far`);
    await (await desk.find('input[inputmode="numeric"]')).sendKeys(codes!.player, Key.ENTER);
    await desk.until(
      'what is on air',
      () => desk.picture(stage),
      (p) => p.red > 100 && p.green < 5,
    );
    await go('main');
    await desk.click('[aria-label="Views"] [href="/machines"]');
    await desk.find('[data-machine="Far"]');
  });
});
