import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { io, type Socket } from 'socket.io-client';
import type { WebDriver } from 'selenium-webdriver';
import { devTools, startBrowser } from '../bin/browser';
import { ownClock } from '../src/core/own-clock';
import {
  linkPath,
  linkVersion,
  type FromServer,
  type NetworkState,
  type ToServer,
} from '../src/core/machines/link';
import { addPage, putOnDesk } from '../src/core/show/edit-desk';
import { makeShow } from '../src/core/show/create';
import { catalogue } from '../src/nodes/catalogue';
import type { Show } from '../src/core/document/types';
import { listen, makeApp } from '../src/server/server';
import { Sketch } from '../demo/sketch';
import { percentile, sleep, Window, type Tell } from './bench-window';

/** Remote desks that move a fader each, how often a second, and for how long. */
const desks = { count: 20, perSecond: 60, seconds: 10 };
/** Seconds for which two players are compared. */
const comparedSeconds = 60;
/** Milliseconds in which the green of the clock scene goes round. */
const roundMs = 200;

/** A scene whose green says the time, and a desk of twenty faders. */
function clockShow(): Show {
  const show = makeShow(catalogue, 'Machines Bench');
  show.canvas = { width: 320, height: 180, fps: 30 };
  const s = new Sketch('s1', 'Clock', [400, 0]);
  const light = s.add('fill', 'Light', [0, 0], { colour: [0, 0, 0, 1] });
  s.formula(light, 'colour.g', `fract(time * ${1000 / roundMs})`);
  s.wire(light, s.out, 'picture');
  show.scenes = [s.scene];
  const page = addPage(show, null, 'All');
  for (let k = 0; k < desks.count; k++) {
    const level = s.add('levels', `Level ${k}`, [0, 200 + 100 * k]);
    putOnDesk(show, catalogue, { scene: 's1', node: level, part: 'brightness' }, page);
  }
  return show;
}

/** Has a page note what its engine reports of the desk, and when. */
const spy = `
  window.pyrvelHeard = [];
  const { set, ...rest } = Object.getOwnPropertyDescriptor(Worker.prototype, 'onmessage');
  Object.defineProperty(Worker.prototype, 'onmessage', {
    ...rest,
    set(listener) {
      set.call(this, (event) => {
        if (event.data.type === 'performance')
          window.pyrvelHeard.push([performance.timeOrigin + performance.now(), event.data.state.desk.values]);
        listener.call(this, event);
      });
    },
  });`;

async function openNetwork(address: string): Promise<NetworkState> {
  const opened = await fetch(`${address}/machines/network`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: '{"isOpen":true}',
  });
  return (await opened.json()) as NetworkState;
}

async function measureLatency(address: string, main: Window, show: Show, tell: Tell): Promise<void> {
  const { codes } = await openNetwork(address);
  const controls = show.desk[0].controls;
  const links: Socket<FromServer, ToServer>[] = [];
  for (const [k] of controls.entries()) {
    const machine = `bench-desk-${k}`;
    const entered = await fetch(`${address}/machines/enter`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ code: codes!.desk, machine }),
    });
    const { token } = (await entered.json()) as { token: string };
    const link: Socket<FromServer, ToServer> = io(address, {
      path: linkPath,
      transports: ['websocket'],
      extraHeaders: { origin: address },
      auth: { version: linkVersion, role: 'remote', machine, name: machine, token },
    });
    await new Promise((resolve) => link.once('welcome', resolve));
    links.push(link);
  }
  await sleep(1000);
  await main.driver.executeScript('window.pyrvelHeard.length = 0');
  const sent: { control: string; low: number; high: number; times: number[] }[] = controls.map(
    ({ id, range: [low, high] }) => ({ control: id, low, high, times: [] }),
  );
  const all = desks.perSecond * desks.seconds;
  const start = performance.now();
  for (let n = 1; n <= all; n++) {
    const wait = start + (n * 1000) / desks.perSecond - performance.now();
    if (wait > 0) await sleep(wait);
    for (const [k, link] of links.entries()) {
      const { control, low, high, times } = sent[k];
      times.push(ownClock());
      link.emit(
        'perform',
        { type: 'desk', control, value: [low + ((high - low) * n) / all] },
        () => undefined,
      );
    }
  }
  await sleep(1500);
  const heard =
    await main.driver.executeScript<[number, Record<string, number[]>][]>('return window.pyrvelHeard');
  const latencies: number[] = [];
  for (const { control, low, high, times } of sent) {
    let report = 0;
    for (const [n, at] of times.entries()) {
      const value = low + ((high - low) * (n + 1)) / all;
      // Values only rise: one that was overtaken has arrived when a higher one has.
      while (report < heard.length && !((heard[report][1][control]?.[0] ?? low) >= value - 1e-9)) report++;
      if (report < heard.length) latencies.push(heard[report][0] - at);
    }
  }
  for (const link of links) link.disconnect();
  tell(
    'deskLatency',
    percentile(latencies, 0.95),
    `median ${percentile(latencies, 0.5).toFixed(1)} ms; ${latencies.length} of ${all * links.length} moves arrived`,
  );
}

/** What a player shows of the time against its clock, sampled with each frame of its display: [when, place in the round]. */
const sample = (driver: WebDriver, seconds: number): Promise<[number, number][]> =>
  driver.executeAsyncScript(
    `const [seconds, done] = arguments;
     const context = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d', { willReadFrequently: true });
     const end = performance.now() + seconds * 1000;
     const samples = [];
     const look = () => {
       const shown = [...document.querySelectorAll('canvas[data-output="stage"]')].pop();
       context.drawImage(shown, shown.width / 4, shown.height / 4, 1, 1, 0, 0, 1, 1);
       samples.push([performance.timeOrigin + performance.now(), context.getImageData(0, 0, 1, 1).data[1] / 255]);
       if (performance.now() < end) requestAnimationFrame(look);
       else done(samples);
     };
     look();`,
    seconds,
  );

/** Players that are compared for long: seconds of each look, and milliseconds between two. */
const hour = { seconds: 20, betweenMs: 40000 };

/** Milliseconds from -100 to 100 by which one place in the round is after another. */
const after = (a: number, b: number): number => roundMs * (a - b - Math.round(a - b));

/** How far two players are apart in looks of so many seconds: milliseconds of each pair of looks that fall within a refresh of each other. */
async function looksApart(players: readonly WebDriver[], seconds: number): Promise<number[]> {
  const [a, b] = await Promise.all(players.map((player) => sample(player, seconds)));
  const apart: number[] = [];
  let k = 0;
  for (const [at, place] of a) {
    while (k + 1 < b.length && b[k + 1][0] <= at) k++;
    if (Math.abs(b[k][0] - at) < 17) apart.push(after(place - at / roundMs, b[k][1] - b[k][0] / roundMs));
  }
  return apart;
}

/** `minutes`: for how long they are looked at now and then, beside the minute that is looked at in any case. */
async function measureApart(address: string, minutes: number, tell: Tell): Promise<void> {
  const players = await Promise.all([0, 1].map(() => startBrowser({ width: 360, height: 340 })));
  try {
    for (const [k, player] of players.entries()) {
      await player.manage().setTimeouts({ script: 600000 });
      await player.get(`${address}/player?name=Player%20${k + 1}`);
    }
    await sleep(8000);
    const apart = await looksApart(players, comparedSeconds);
    const frameMs = 1000 / clockShow().canvas.fps;
    const far = apart.filter((one) => Math.abs(one) > frameMs).length;
    tell(
      'playersApart',
      Math.abs(percentile(apart, 0.5)),
      `${far} of ${apart.length} looks more than a frame apart, 95 % within ${percentile(apart.map(Math.abs), 0.95).toFixed(1)} ms`,
    );
    tell('playersFar', far, `of ${apart.length} looks; a look falls anywhere in a frame of each`);
    if (minutes === 0) return;
    const medians: number[] = [];
    const start = performance.now();
    while (performance.now() - start < minutes * 60000) {
      await sleep(hour.betweenMs);
      medians.push(percentile(await looksApart(players, hour.seconds), 0.5));
      console.log(
        `# ${((performance.now() - start) / 60000).toFixed(0)} min: ${medians.at(-1)!.toFixed(2)} ms`,
      );
    }
    tell(
      'playersHour',
      Math.max(...medians.map(Math.abs)),
      `${minutes} minutes, medians of ${medians.length} times ${hour.seconds} s: first ${medians[0].toFixed(1)}, last ${medians.at(-1)!.toFixed(1)} ms`,
    );
  } finally {
    await Promise.all(players.map((player) => player.quit()));
  }
}

async function measureJoin(address: string, tell: Tell): Promise<void> {
  const player = await startBrowser({ width: 400, height: 360 });
  try {
    await player.manage().setTimeouts({ script: 600000 });
    const start = performance.now();
    await player.get(`${address}/player?name=Late`);
    await player.wait(
      () =>
        player.executeScript<boolean>(
          `const shown = [...document.querySelectorAll('canvas[data-output="stage"]')].pop();
           if (!shown) return false;
           const context = Object.assign(document.createElement('canvas'), { width: 32, height: 18 }).getContext('2d');
           context.drawImage(shown, 0, 0, 32, 18);
           return context.getImageData(0, 0, 32, 18).data.some((v, k) => k % 4 < 3 && v > 24);`,
        ),
      120000,
    );
    tell(
      'lateJoin',
      (performance.now() - start) / 1000,
      'from the address typed in a new browser to its first picture',
    );
  } finally {
    await player.quit();
  }
}

/** Seconds of the stage of a spare that are looked at, and after how many of them the main machine is killed. */
const takeOverSeconds = { all: 8, killed: 3 };

/**
 * The browser of a main machine is killed while its spare, on a server of its own, has a stage window open. What counts is the stage: the longest
 * time for which its picture stood still. Beside it, when the spare was told to perform.
 */
async function measureTakeOver(tell: Tell): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-takeover-'));
  const open = async (name: string) => {
    const machines = { folder: path.join(folder, name), host: '127.0.0.1', port: 0 };
    const { address, close } = await listen(makeApp({ machines, isKept: false }), 0);
    const profile = path.join(folder, name, 'browser');
    const window = await Window.open(address, 1280, 943, undefined, profile);
    return { address, close, profile, window };
  };
  const main = await open('main');
  const spare = await open('spare');
  try {
    await main.window.bringShow(clockShow());
    await spare.window.driver.get(`${spare.address}/play`);
    const codes = await openNetwork(main.address);
    const body = JSON.stringify({ address: codes.addresses[0], code: codes.codes!.spare });
    const headers = { 'Content-Type': 'application/json' };
    await sleep(4000);
    await fetch(`${spare.address}/machines/follow`, { method: 'POST', headers, body });
    const { driver } = spare.window;
    await driver.wait(
      () => driver.executeScript<boolean>(`return document.querySelector('[data-testid="spare"]') !== null`),
      30000,
    );
    await spare.window.click('[aria-label="Stage"] .btn-primary');
    await driver.wait(async () => (await driver.getAllWindowHandles()).length === 2, 30000);
    const editor = await driver.getWindowHandle();
    const stage = (await driver.getAllWindowHandles()).find((handle) => handle !== editor)!;
    await driver.switchTo().window(stage);
    await sleep(4000);
    const looking = sample(driver, takeOverSeconds.all);
    await sleep(takeOverSeconds.killed * 1000);
    const killed = ownClock();
    execFileSync('pkill', ['-9', '-f', main.profile]);
    let led = 0;
    while (!led) {
      const answer = await fetch(`${spare.address}/machines/network`);
      const { following } = (await answer.json()) as NetworkState;
      // It ends once the server of the main machine, which lives, follows.
      if (following?.phase !== 'following') led = ownClock();
      else await sleep(10);
    }
    const looks = await looking;
    let longest = 0;
    let changed = looks[0][0];
    for (const [k, [at, place]] of looks.entries()) {
      if (k > 0 && place !== looks[k - 1][1]) changed = at;
      if (at > killed) longest = Math.max(longest, at - changed);
    }
    tell(
      'takeOver',
      longest / 1000,
      `the spare performs ${((led - killed) / 1000).toFixed(2)} s after the browser of the main machine was killed`,
    );
  } finally {
    await main.window.close().catch(() => undefined);
    await spare.window.close();
    await main.close();
    await spare.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * How quickly remote desks are heard, how far two players are apart, and how soon a late one has its picture. `minutes`: for how long players are
 * looked at for `playersHour`; 0: not at all.
 */
export async function measureMachines(
  isWanted: (name: string) => boolean,
  minutes: number,
  tell: Tell,
): Promise<void> {
  if (isWanted('takeOver')) await measureTakeOver(tell);
  if (!['deskLatency', 'playersApart', 'playersFar', 'lateJoin'].some(isWanted)) return;
  const machines = { folder: null, host: '127.0.0.1', port: 0 };
  const { address, close } = await listen(makeApp({ machines, isKept: false }), 0);
  const main = await Window.open(address);
  const show = clockShow();
  try {
    await devTools(main.driver, 'Page.addScriptToEvaluateOnNewDocument', { source: spy });
    await main.bringShow(show);
    await main.view('play');
    await sleep(4000);
    if (isWanted('deskLatency')) await measureLatency(address, main, show, tell);
    if (isWanted('playersApart') || isWanted('playersFar')) await measureApart(address, minutes, tell);
    if (isWanted('lateJoin')) {
      const demo = readFileSync(
        path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'),
        'utf8',
      );
      await main.bringShow({ ...(JSON.parse(demo) as Show), name: 'Late Bench' });
      await main.view('play');
      await sleep(15000);
      await measureJoin(address, tell);
    }
  } finally {
    await main.close();
    await close();
  }
}
