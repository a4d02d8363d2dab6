import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, jest, test } from '@jest/globals';
import { soakEvening } from '../scripts/soak-evening';

jest.setTimeout(900000);

// Five minutes in the long form (PYRVEL_LONG=1); else half a minute, with a fault every eight seconds.
test('an evening in the real pages, with faults: nothing grows, clocks stay together, the stage is lit', async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-soak-'));
  const chart = path.join(folder, 'soak.svg');
  const said: string[] = [];
  const minutes = process.env.PYRVEL_LONG === '1' ? 5 : 0.5;
  const isFine = await soakEvening({ minutes, seed: 5, scene: null, chart, say: (line) => said.push(line) });
  expect(said.filter((line) => line.startsWith('WRONG'))).toEqual([]);
  expect(isFine).toBe(true);
  expect(said.join('\n')).toMatch(/[1-9]\d* faults/);
  expect(readFileSync(chart, 'utf8')).toContain('framesPerSecond');
  rmSync(folder, { recursive: true });
});
