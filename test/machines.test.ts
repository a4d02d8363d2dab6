import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { NetworkState } from '../src/core/machines/link';
import type { DeskRole } from '../src/core/machines/roles';
import { addCue, addPage, cueOf, putOnDesk } from '../src/core/show/edit-desk';
import type { Show } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { Desk, movingShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
/** Windows of the one browser: the main machine, and remote desks that came over the network. */
const windows = new Map<string, string>();

function deskShow(): Show {
  const show = movingShow('Machines Test', { Red: [1, 0, 0], Green: [0, 1, 0] });
  show.transition.length = 0;
  const page = addPage(show, null, 'Evening');
  for (const [scene, part] of [
    [0, 'brightness'],
    [0, 'contrast'],
    [1, 'brightness'],
  ] as const) {
    const { id, nodes } = show.scenes[scene];
    const node = Object.values(nodes).find(({ name }) => name === 'Levels')!.id;
    putOnDesk(show, catalogue, { scene: id, node, part }, page);
  }
  show.desk.at(-1)!.controls.forEach((control, k) => (control.name = ['Bright', 'Contrast', 'Other'][k]));
  for (const scene of ['s1', 's2'])
    cueOf(show, addCue(show, null, scene)).name = `Cue ${scene === 's1' ? 'one' : 'two'}`;
  return show;
}

const go = (name: string): Promise<void> => desk.driver.switchTo().window(windows.get(name)!);
const control = (label: string): string => `[data-desk-control="${label}"] [data-desk]`;
const valueOf = async (label: string): Promise<number> =>
  Number(await (await desk.find(control(label))).getAttribute('aria-valuenow'));
/** Where a finger takes a fader from its middle, by its ends and the room that these are drawn in. */
async function moved(label: string, pixels: number): Promise<number> {
  const fader = await desk.find(control(label));
  const [low, high] = [
    Number(await fader.getAttribute('aria-valuemin')),
    Number(await fader.getAttribute('aria-valuemax')),
  ];
  const { height } = await fader.getRect();
  return low + (high - low) * (0.5 - pixels / (height - 20));
}
const standsAt = (label: string, place: number): Promise<number> =>
  desk.until(
    `${label} at ${place.toFixed(3)}`,
    () => valueOf(label),
    (value) => Math.abs(value - place) < 0.02,
  );
const network = async (): Promise<NetworkState> =>
  (await (await fetch(`${desk.address}/machines/network`)).json()) as NetworkState;

/** A machine of its own for each role: what a browser keeps for it, it keeps in its tab. */
async function comeIn(role: DeskRole): Promise<void> {
  const { addresses, codes } = await network();
  await desk.driver.switchTo().newWindow('window');
  await desk.driver.manage().window().setRect({ width: 900, height: 700 });
  windows.set(role, await desk.driver.getWindowHandle());
  await desk.driver.get(`${addresses[0]}/`);
  await desk.driver.executeScript('localStorage.clear()');
  await desk.driver.navigate().refresh();
  await (await desk.find('input[inputmode="numeric"]')).sendKeys(codes![role]);
  await desk.click('button[type="submit"]');
  await desk.find('[data-testid="remote-program"]');
}

beforeAll(async () => {
  desk = await Desk.open({ unsigned: true });
  windows.set('main', await desk.driver.getWindowHandle());
  await desk.openShow(deskShow());
});
afterAll(() => desk?.close());

describe('the network', () => {
  test('is opened in Machines, which shows the address, its QR code, and a code for each role', async () => {
    await desk.click('[aria-label="Views"] [href="/machines"]');
    await desk.find('[data-machine="Main"]');
    await desk.click('[aria-label="Network"] [role="switch"]');
    const { addresses, codes } = await desk.until('an open network', network, ({ isOpen }) => isOpen);
    expect(await desk.text('[data-testid="remote-address"]')).toBe(`${addresses[0]}/remote`);
    await desk.find(`img[alt="QR code of ${addresses[0]}/remote"]`);
    for (const role of ['look', 'desk', 'all'] as const)
      expect((await desk.text(`[data-code="${role}"]`)).replace(' ', '')).toBe(codes![role]);
  });

  test('lets nobody in by a wrong code', async () => {
    const { addresses, codes } = await network();
    await desk.driver.switchTo().newWindow('window');
    await desk.driver.get(addresses[0]);
    const wrong = Object.values(codes!).includes('123456') ? '654321' : '123456';
    await (await desk.find('input[inputmode="numeric"]')).sendKeys(wrong, Key.ENTER);
    await desk.until(
      'why not',
      () => desk.text('[role="alert"]'),
      (words) => words.includes('not one of those on the main machine'),
    );
    await desk.driver.close();
    await go('main');
  });
});

describe('a remote desk', () => {
  test('shows the program, moving, and the desk as it stands', async () => {
    await comeIn('all');
    expect(await desk.text('[data-testid="remote-program"]')).toBe('Red');
    const mean = (): Promise<[number, number]> =>
      desk.driver.executeAsyncScript(`
        const [done] = arguments;
        const image = document.querySelector('[data-testid="remote-picture"]');
        if (!image?.naturalWidth) return done([0, 0]);
        const canvas = new OffscreenCanvas(16, 9);
        const context = canvas.getContext('2d');
        context.drawImage(image, 0, 0, 16, 9);
        const { data } = context.getImageData(0, 0, 16, 9);
        let red = 0, green = 0;
        for (let k = 0; k < data.length; k += 4) { red += data[k]; green += data[k + 1]; }
        done([red / 144, green / 144]);`);
    await desk.until('a red picture', mean, ([red, green]) => red > 30 && green < 20);
    const address = async (): Promise<string | null> =>
      (await desk.find('[data-testid="remote-picture"]')).getAttribute('src');
    const first = await address();
    await desk.until('another picture', address, (now) => now !== first);
    expect(await valueOf('Contrast')).toBe(1);
  });

  test('moves two faders by two fingers at once, and the main machine has them', async () => {
    const fingers = [
      { label: 'Bright', pixels: -40 },
      { label: 'Contrast', pixels: 40 },
    ];
    const places = [await moved('Bright', -40), await moved('Contrast', 40)];
    await desk.touch(fingers.map(({ label, pixels }) => ({ on: control(label), way: [0, pixels] })));
    await go('main');
    await desk.click('[aria-label="Views"] [href="/play"]');
    for (const [k, { label }] of fingers.entries()) await standsAt(label, places[k]);
    await go('all');
    for (const [k, { label }] of fingers.entries()) await standsAt(label, places[k]);
  });

  test('of a second machine moves another fader, and each follows the other', async () => {
    await comeIn('desk');
    const place = await moved('Other', -40);
    await desk.touch([{ on: control('Other'), way: [0, -40] }]);
    await go('all');
    await standsAt('Other', place);
    // Both have a finger on the same one: who moves it last has it.
    const last = await moved('Other', 30);
    await desk.touch([{ on: control('Other'), way: [0, 30] }]);
    await go('desk');
    await standsAt('Other', last);
  });

  test('does what its role may: all takes scenes, desk plays cues, look has nothing to press', async () => {
    await go('desk');
    await desk.driver.findElement(By.xpath('//button[@role="tab"][text()="Cues"]')).click();
    await desk.click('[aria-label="Running order and stage"] .btn-primary');
    await desk.until(
      'the first cue',
      () => desk.text('[aria-label="Cues"] [aria-current="step"]'),
      (words) => words.includes('Cue one'),
    );
    expect(await desk.driver.findElements(By.css('[aria-label="Blackout"]'))).toHaveLength(0);
    await desk.driver.findElement(By.xpath('//button[@role="tab"][text()="Scenes"]')).click();
    expect(await desk.driver.findElements(By.css('[aria-label="Scenes"] button:enabled'))).toHaveLength(0);
    await go('all');
    await desk.driver.findElement(By.xpath('//button[@role="tab"][text()="Scenes"]')).click();
    await desk.driver.findElement(By.xpath('//*[@aria-label="Scenes"]//button[text()="Green"]')).click();
    await desk.until(
      'green on air',
      () => desk.text('[data-testid="remote-program"]'),
      (name) => name === 'Green',
    );
    await desk.click('[aria-label="Blackout"]');
    await desk.find('[aria-label="Blackout"][aria-pressed="true"]');
    await go('main');
    await desk.find('[data-testid="program-state"]');
    await desk.press(Key.F9);
    await comeIn('look');
    expect(await desk.driver.findElements(By.css('[aria-label="Running order and stage"]'))).toHaveLength(0);
    expect(await (await desk.find('[inert]')).findElements(By.css('[data-desk]'))).toHaveLength(3);
  });

  test('follows edits of the show, and comes back by itself when the main window was away', async () => {
    await go('main');
    await desk.driver.navigate().refresh();
    await desk.find('[data-testid="program-name"]');
    await go('all');
    await desk.until(
      'the link again',
      async () => (await desk.driver.findElements(By.css('[role="alert"]'))).length,
      (n) => n === 0,
    );
    expect(await desk.text('[data-testid="remote-program"]')).toBe('Green');
    await go('main');
    await desk.click('[aria-label="Views"] [href="/build"]');
    await desk.find('[data-scene="Red"]');
    await desk.driver.executeScript(
      `document.querySelector('[data-scene="Red"]').dispatchEvent(new MouseEvent('dblclick', { bubbles: true }))`,
    );
    const field = await desk.find('[aria-label="Name of the scene"]');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Dusk', Key.ENTER);
    await go('all');
    await desk.until(
      'the new name',
      () => desk.text('[aria-label="Scenes"]'),
      (words) => words.includes('Dusk') && !words.includes('Red'),
    );
  });

  test('is sent away in Machines, and has to be let in again; a closed network hears nobody', async () => {
    await go('main');
    await desk.click('[aria-label="Views"] [href="/machines"]');
    await desk.until(
      'all machines in the list',
      () => desk.driver.findElements(By.css('[data-machine]')),
      (rows) => rows.length >= 2,
    );
    await desk.click('[aria-label="Network"] [role="switch"]');
    await desk.until('a closed network', network, ({ isOpen }) => !isOpen);
    await go('all');
    await desk.until(
      'why it ended',
      () => desk.text('[role="alert"]'),
      (words) => words.includes('The network was closed on the main machine.'),
    );
  });
});
