import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Options } from '../bin/arguments';
import { openGateway, playerAddress } from '../bin/player';
import type { NetworkState } from '../src/core/machines/link';
import { listen, makeApp } from '../src/server/server';
import { Desk, knowTheSteps, movingShow } from './desk';

jest.setTimeout(400000);
const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-spare-'));
/** The machines, each with a server of its own and a browser that can be killed. */
const profiles = ['first', 'second'].map((name) => path.join(folder, name, 'browser'));
const servers: Awaited<ReturnType<typeof listen>>[] = [];
let first: Desk;
let second: Desk;
/** The way of a player on a third machine. */
let gateway: Awaited<ReturnType<typeof openGateway>> | null = null;

async function open(k: number): Promise<Desk> {
  const desk = await Desk.at(servers[k].address, { profile: profiles[k], unsigned: true });
  await knowTheSteps(desk.driver, servers[k].address);
  await desk.driver.get(`${servers[k].address}/shows`);
  await desk.find('[data-show]');
  return desk;
}

beforeAll(async () => {
  for (const name of ['first', 'second']) {
    const machines = { folder: path.join(folder, name), host: '127.0.0.1', port: 0 };
    servers.push(await listen(makeApp({ machines, isKept: false }), 0));
  }
  first = await open(0);
  second = await open(1);
  await first.openShow(movingShow('Relay', { Amber: [1, 0.6, 0.1], Blue: [0.1, 0.3, 1] }));
});
afterAll(async () => {
  for (const desk of [first, second]) await desk?.driver.quit().catch(() => undefined);
  await gateway?.close();
  for (const { close } of servers) await close().catch(() => undefined);
  rmSync(folder, { recursive: true, force: true });
});

const view = (desk: Desk, name: string): Promise<void> =>
  desk.click(`[aria-label="Views"] [href="/${name}"]`);
const gamma = (desk: Desk): Promise<string> =>
  desk.text('[data-testid="inspector"] [role="spinbutton"][aria-label="Gamma value"]');
/** Mean red, green and blue of what a player shows. */
const shown = (): Promise<number[]> =>
  second.driver.executeScript(`
    const canvas = [...document.querySelectorAll('canvas[data-output="stage"]')].pop();
    if (!canvas?.width) return [0, 0, 0];
    const context = Object.assign(document.createElement('canvas'), { width: 16, height: 9 }).getContext('2d');
    context.drawImage(canvas, 0, 0, 16, 9);
    const { data } = context.getImageData(0, 0, 16, 9);
    return [0, 1, 2].map((c) => data.filter((_, k) => k % 4 === c).reduce((sum, v) => sum + v, 0) / 144);`);
const onAir = (desk: Desk): Promise<string | null> =>
  desk.driver.executeScript('return window.pyrvel.report().performance?.program.program ?? null');
const lamps = async (desk: Desk): Promise<number> =>
  (await desk.driver.findElements(By.css('[data-testid="spare"]'))).length;

describe('a spare', () => {
  test('follows the main machine once its code is typed: it has its show, and shows its program', async () => {
    await view(first, 'machines');
    await first.click('[aria-label="Network"] [role="switch"]');
    const address = (await first.text('[data-testid="remote-address"]')).replace('/remote', '');
    const code = await first.text('[data-code="spare"]');
    await view(second, 'machines');
    const form = '[aria-label="Spare"]';
    await (await second.find(`${form} [name="address"]`)).sendKeys(address);
    await (await second.find(`${form} [name="code"]`)).sendKeys(code, Key.ENTER);
    await second.find('[data-testid="following"][data-phase="following"]');
    await second.find('[data-testid="spare"]');
    await first.find('[data-machine] [data-kind="Spare"]');
    await first.find('[data-machine] img[alt$="shows now"]');
    await view(second, 'build');
    await second.find('[data-node="Levels"]');
    await second.moves();
    await first.until(
      'where the other one is',
      () => first.text('section[aria-label="Machines"] table'),
      (list) => list.includes('Build · Amber'),
    );
  });

  test('has what is edited on the other machine, and undo of one leaves what the other did', async () => {
    await view(first, 'build');
    await first.click('[data-scene="Amber"]');
    await first.choose('Levels');
    await second.click('[data-scene="Blue"]');
    await second.choose('Levels');
    const start = await gamma(second);
    await first.type('Gamma value', '2');
    await second.type('Gamma value', '3');
    for (const [desk, scene, value] of [
      [first, 'Blue', '3'],
      [second, 'Amber', '2'],
    ] as const) {
      await desk.click(`[data-scene="${scene}"]`);
      await desk.choose('Levels');
      await desk.until(
        'the edit of the other',
        () => gamma(desk),
        (shown) => Number(shown) === Number(value),
      );
    }
    await second.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
    await first.until(
      'the undo of the other',
      () => gamma(first),
      (shown) => shown === start,
    );
    await second.click('[data-scene="Amber"]');
    await second.choose('Levels');
    expect(Number(await gamma(second))).toBe(2);
  });

  test('has what is played on it done on the main machine', async () => {
    await view(second, 'machines');
    // The list of the main machine's server is told here too.
    await second.find('[data-machine="Main"] [data-kind="Main"]');
    await view(second, 'play');
    await second.click('[data-scene-button="Blue"] button');
    for (const desk of [first, second])
      await desk.until(
        'Blue to be on air',
        () => onAir(desk),
        (scene) => scene === 's2',
      );
  });

  test('follows when another show is opened on the main machine, and back', async () => {
    for (const [show, scene] of [
      [movingShow('Dance', { Green: [0.1, 1, 0.3] }), 'Green'],
      [movingShow('Relay', { Amber: [1, 0.6, 0.1], Blue: [0.1, 0.3, 1] }), 'Blue'],
    ] as const) {
      // Without a reload, in which the other one would take over.
      await view(first, 'shows');
      await first.openShow(show);
      await view(second, 'build');
      await second.find(`[role="tab"][data-scene="${scene}"]`);
      await second.moves();
    }
    await second.click('[role="tab"][data-scene="Blue"]');
    await view(second, 'play');
    await second.click('[data-scene-button="Blue"] button');
    await first.until(
      'Blue to be on air',
      () => onAir(first),
      (scene) => scene === 's2',
    );
  });

  test('takes over when the browser of the main machine is killed, and what is played goes on', async () => {
    execFileSync('pkill', ['-9', '-f', profiles[0]]);
    await second.until(
      'it to perform',
      () => lamps(second),
      (count) => count === 0,
    );
    await second.notice('warning', 'This machine performs now');
    expect(await onAir(second)).toBe('s2');
    await second.click('[data-scene-button="Amber"] button');
    await second.until(
      'Amber to be on air',
      () => onAir(second),
      (scene) => scene === 's1',
    );
    await view(second, 'build');
    await second.moves();
  });

  test('is followed by the first once that is back', async () => {
    first = await open(0);
    await view(first, 'machines');
    await first.find('[data-testid="spare"]');
    await first.find('[data-testid="following"][data-phase="following"]');
    await first.until(
      'what is on air there',
      () => onAir(first),
      (scene) => scene === 's1',
    );
    // And the other way round, by a key.
    await first.click('[aria-label="Spare"] button');
    await first.until(
      'it to perform',
      () => lamps(first),
      (count) => count === 0,
    );
    await second.find('[data-testid="spare"]');
  });

  test('has the players and remote desks of the main machine when that is gone with its server', async () => {
    const { addresses, codes } = (await (
      await fetch(`${servers[0].address}/machines/network`)
    ).json()) as NetworkState;
    const there = { host: addresses[0], name: 'Gable', code: codes!.player };
    const said: string[] = [];
    gateway = await openGateway(playerAddress(Options.of(there)), path.join(folder, 'third'), (line) =>
      said.push(line),
    );
    const desk = await second.driver.getWindowHandle();
    await second.driver.switchTo().newWindow('window');
    await second.driver.get(gateway.page.href);
    await second.until('Amber at the player', shown, ([red, , blue]) => red > blue + 20);
    await second.until(
      'the spare to be known',
      () => Promise.resolve(said),
      (lines) => lines.some((line) => line.startsWith('The spare is found at')),
    );
    const player = await second.driver.getWindowHandle();
    await second.driver.switchTo().newWindow('window');
    await second.driver.get(`${addresses[0]}/remote`);
    await (await second.find('input[inputmode="numeric"]')).sendKeys(codes!.all, Key.ENTER);
    await second.find('[data-testid="remote-program"]');
    const remote = await second.driver.getWindowHandle();
    execFileSync('pkill', ['-9', '-f', profiles[0]]);
    await servers[0].close();
    await second.driver.switchTo().window(desk);
    await second.until(
      'it to perform',
      () => lamps(second),
      (count) => count === 0,
    );
    // A browser can't know a certificate before it was there: a remote desk goes by a press, and is let in by its pass.
    await second.driver.switchTo().window(remote);
    await second.click('[data-testid="to-spare"]');
    await second.find('[data-testid="remote-program"]');
    expect(new URL(await second.driver.getCurrentUrl()).hash).toBe('');
    await second.driver.findElement(By.xpath('//button[@role="tab"][text()="Scenes"]')).click();
    await second.driver.findElement(By.xpath('//*[@aria-label="Scenes"]//button[text()="Blue"]')).click();
    await second.driver.switchTo().window(player);
    await second.until('Blue at the player', shown, ([red, , blue]) => blue > red + 20);
  });
});
