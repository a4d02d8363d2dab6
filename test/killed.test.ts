import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { randomAt } from '../src/core/random';
import { listen, makeApp } from '../src/server/server';
import { Desk, knowTheSteps, movingShow } from './desk';

jest.setTimeout(900000);
const isLong = process.env.PYRVEL_LONG === '1';
const rounds = isLong ? 50 : 2;
const profile = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-killed-'));
let address: string;
let close: () => Promise<void>;
beforeAll(async () => void ({ address, close } = await listen(makeApp(), 0)));
afterAll(async () => {
  await close();
  rmSync(profile, { recursive: true, force: true });
});

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const gamma = '[data-testid="inspector"] [role="spinbutton"][aria-label="Gamma value"]';
const shown = (desk: Desk): Promise<string> => desk.text(gamma);

/** Ends all processes of the browser at once, as a power cut does. */
function kill(): void {
  execFileSync('pkill', ['-9', '-f', profile]);
}

// 50 rounds in the long form (PYRVEL_LONG=1). The moments are random, by a seed.
test('a browser that is killed comes back with one of the last two states of the show', async () => {
  let desk = await Desk.at(address, { profile });
  await knowTheSteps(desk.driver, address);
  await desk.driver.get(`${address}/shows`);
  await desk.openShow(movingShow('Killed', { Amber: [1, 0.6, 0.1] }));
  await desk.choose('Levels');
  let states: string[] = [await shown(desk)];
  // What was there when it began is safe.
  await wait(1000);
  for (let round = 0; round < rounds; round++) {
    for (const step of [1, 2]) {
      const value = (0.2 + ((3 * round + step) % 30) / 10).toFixed(1);
      await desk.type('Gamma value', value);
      states = [...states.slice(-1), await shown(desk)];
      // An edit is safe within a second; the last one is not given it.
      await wait(step === 1 ? 1000 : 1000 * randomAt(round, 7));
    }
    kill();
    desk = await Desk.at(address, { profile });
    await desk.driver.get(`${address}/build`);
    await desk.choose('Levels');
    const back = await shown(desk);
    expect(states).toContain(back);
    states = [back];
  }
  await desk.moves();
  await desk.close();
});
