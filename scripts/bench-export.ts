import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Options } from '../bin/arguments';
import { startBrowser } from '../bin/browser';
import { exportShow } from '../bin/export';
import { homeSpec, type ExportFormat } from '../src/core/export/spec';
import { readShow } from '../src/core/show/validate';
import type { Show } from '../src/core/document/types';
import { median, type Ratio } from '../src/engine/bench/measure';
import { catalogue } from '../src/nodes/catalogue';
import { listen, makeApp } from '../src/server/server';

type Tell = (name: string, value: number, about: string) => void;

const scene = 'Pollen Drift';
/** Frames that two processes share, and rounds. */
const farmFrames = 96;
const farmRounds = 3;

const demo = (): Show =>
  readShow(
    readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8'),
    catalogue,
  ).show;

const png: ExportFormat = { type: 'images', image: 'png', alpha: false, linear: false, depth: false };

const call = `const [method, args, done] = arguments;
  window.pyrvelBench[method](...args).then((ratio) => done({ ratio }), (e) => done({ error: e.message }));`;

/** Milliseconds of an export of the same frames by so many processes, starting and all. */
async function farmTime(show: Show, jobs: number): Promise<number> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-bench-'));
  const options = Options.of({
    scene,
    size: '640x360',
    frames: `0..${farmFrames - 1}`,
    to: path.join(folder, '####.png'),
    jobs: String(jobs),
    renderer: process.env.PYRVEL_RENDERER!,
  });
  const start = performance.now();
  await exportShow(show, new Map(), options, () => undefined);
  rmSync(folder, { recursive: true, force: true });
  return performance.now() - start;
}

/** Measures exports: what they cost over drawing alone, what two processes gain, and whether the heap grows. */
export async function measureExports(isWanted: (figure: string) => boolean, tell: Tell): Promise<void> {
  const show = demo();
  const { format } = homeSpec(show, show.scenes[0]);
  if (['exportOverhead', 'exportOverheadPng', 'exportHeap'].some(isWanted)) {
    const { close, address } = await listen(makeApp(), 0);
    const driver = await startBrowser({ width: 400, height: 300, precise: true });
    const ask = async (method: string, ...args: unknown[]): Promise<Ratio> => {
      const answer = await driver.executeAsyncScript<{ ratio: Ratio; error?: string }>(call, method, args);
      if (answer.error) throw new Error(answer.error);
      return answer.ratio;
    };
    try {
      await driver.manage().setTimeouts({ script: 1800000 });
      await driver.get(`${address}/bench.html`);
      await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelBench)'), 20000);
      const part = { ...show, scenes: show.scenes.filter(({ name }) => name === scene) };
      for (const [name, how] of [
        ['exportOverhead', format],
        ['exportOverheadPng', png],
      ] as const) {
        if (!isWanted(name)) continue;
        const { median: value, ms } = await ask('exporting', part, scene, how);
        tell(name, value, `${ms[0].toFixed(0)} ms a frame exported, ${ms[1].toFixed(0)} drawn alone`);
      }
      if (isWanted('exportHeap')) {
        const { median: value, ms } = await ask('exportHeap', part, scene, format, [200, 2000]);
        tell('exportHeap', value, `${ms[0].toFixed(1)} MB after 2,000 frames, ${ms[1].toFixed(1)} after 200`);
      }
    } finally {
      await driver.quit();
      await close();
    }
  }
  if (isWanted('farm2')) {
    const ratios: number[] = [];
    for (let round = 0; round < farmRounds; round++) {
      const alone = await farmTime(show, 1);
      ratios.push(alone / (await farmTime(show, 2)));
    }
    tell('farm2', median(ratios), `${farmFrames} frames of 640x360, ${farmRounds} rounds, starting and all`);
  }
}
