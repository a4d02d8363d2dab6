import { chmodSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { listen, makeApp } from '../src/server/server';
import { Desk, knowTheSteps, movingShow } from './desk';

jest.setTimeout(400000);
const folder = path.join(os.tmpdir(), `pyrvel-clock-${process.pid}`);
/** What the clock that pages are given differs by from that of this machine. */
const setting = path.join(folder, 'clock');
const set = (by: string): void => writeFileSync(setting, `${by}\n`);

/** A Chromium whose pages have a clock of their own: that of this machine must stay as it is. */
function withOwnClock(): string {
  const library = readdirSync('/usr/lib')
    .map((name) => `/usr/lib/${name}/faketime/libfaketime.so.1`)
    .find((file) => existsSync(file))!;
  const script = (name: string, text: string): string => {
    const file = path.join(folder, name);
    writeFileSync(file, `#!/bin/sh\n${text}\n`);
    chmodSync(file, 0o755);
    return file;
  };
  const page = script(
    'page',
    `export LD_PRELOAD=${library} FAKETIME_TIMESTAMP_FILE=${setting} FAKETIME_CACHE_DURATION=1 DONT_FAKE_MONOTONIC=1
exec "$@"`,
  );
  const chromium = process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium';
  return script('chromium', `exec ${chromium} --no-zygote --renderer-cmd-prefix=${page} "$@"`);
}

// In the long form (PYRVEL_LONG=1): what stands between pages and the clock makes them slow.
const inLongForm = process.env.PYRVEL_LONG === '1' ? describe : describe.skip;

inLongForm('the clock of the machine', () => {
  let desk: Desk;
  let close: () => Promise<void>;
  beforeAll(async () => {
    mkdirSync(folder);
    set('+0');
    const server = await listen(makeApp({ isKept: false }), 0);
    close = server.close;
    desk = await Desk.at(server.address, { binary: withOwnClock() });
    await knowTheSteps(desk.driver, server.address);
    await desk.driver.get(`${server.address}/shows`);
    await desk.openShow(movingShow('Clock', { Amber: [1, 0.6, 0.1] }));
    await desk.moves();
  });
  afterAll(async () => {
    await desk?.close();
    await close();
    rmSync(folder, { recursive: true, force: true });
  });

  /** The time of the show, by its last report and the clock of the page. */
  const seconds = (): Promise<number | null> =>
    desk.driver.executeScript(`
      const state = window.pyrvel?.report().performance;
      return state && state.transport.time + (performance.timeOrigin + performance.now() - state.at) / 1000;`);
  /** Seconds that run forward whatever the clock says. */
  const real = (): number => performance.now() / 1000;
  const hour = (): Promise<number> => desk.driver.executeScript('return new Date().getTime() / 3600000');

  /** The time of the show, as a second of the clock that only runs forward at which it would have begun. */
  async function beginning(): Promise<number> {
    const time = await desk.until('a report', seconds, (now) => now !== null);
    return real() - time!;
  }

  /** Waits until the show is where it has to be: an answer may take long where a machine is busy. */
  async function keepsTo(begun: number): Promise<void> {
    const late = await desk.until(
      'the time of the show',
      async () => (await beginning()) - begun,
      (by) => Math.abs(by) < 0.5,
    );
    console.log(`the show is ${Math.abs(late).toFixed(1)} s from where it was`);
    await desk.moves();
  }

  /** Sets the clock and waits until pages have it. */
  async function setClock(by: string, hours: number): Promise<void> {
    const now = await hour();
    set(by);
    await desk.until('the clock', hour, (then) => Math.abs(then - now - hours) < 0.5);
  }

  test('a clock that is set back changes nothing: the show goes on, and so do the next engine and the next page', async () => {
    const begun = await beginning();
    await setClock('-2h', -2);
    await keepsTo(begun);
    await desk.chooseNothing();
    await desk.click('[title^="Stops the engine"]');
    await desk.notice('info', 'engine is back');
    await keepsTo(begun);
    await desk.choose('Levels');
    await desk.type('Gamma value', '1.7');
    await desk.driver.navigate().refresh();
    await keepsTo(begun);
    await desk.choose('Levels');
    expect(await desk.text('[role="spinbutton"][aria-label="Gamma value"]')).toBe('1.7');
  });

  test('one that is set forward changes nothing either', async () => {
    const begun = await beginning();
    await setClock('+1h', 3);
    await keepsTo(begun);
    await desk.driver.navigate().refresh();
    await keepsTo(begun);
  });
});
