/**
 * Plays scenes of the demo for a long time and looks whether anything grows: targets, textures, shaders and the heap. The minutes are shared among the
 * scenes; with `frames`, each scene runs so many frames instead.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Options } from '../bin/arguments';
import { startBrowser } from '../bin/browser';
import type { Show } from '../src/core/document/types';
import type { GpuState } from '../src/engine/bench/scenes';
import { listen, makeApp } from '../src/server/server';

/** Frames at a stretch, between which time is looked at. */
const stretch = 25;
/** Frames after which all that a scene needs is there. */
const settled = 150;
/** Growth of the heap that is no leak: garbage that was not collected yet. */
const heapSlack = 8e6;

/** Gives whether nothing grew. `wanted`: names of scenes; none: all. */
export async function soakScenes(wanted: readonly string[], options: Pick<Options, 'get'>): Promise<boolean> {
  const show = JSON.parse(
    readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8'),
  ) as Show;
  const scenes = show.scenes.filter(({ name }) => wanted.length === 0 || wanted.includes(name));
  const frames = options.get('frames');
  const msEach = (Number(options.get('minutes') ?? 5) * 60000) / Math.max(1, scenes.length);

  const { server, address } = await listen(makeApp({ isKept: false }), 0);
  const driver = await startBrowser({ width: 400, height: 300, precise: true });
  let grown = 0;
  try {
    await driver.manage().setTimeouts({ script: 600000 });
    await driver.get(`${address}/bench.html`);
    await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelBench)'), 20000);
    const run = (count: number): Promise<unknown> =>
      driver.executeScript('return window.pyrvelBench.time(arguments[0])', count);
    const state = (): Promise<GpuState> =>
      driver.executeScript<GpuState>('return window.pyrvelBench.state()');
    for (const scene of scenes) {
      await driver.executeScript('window.pyrvelBench.open(arguments[0], arguments[1])', scene.name, {
        ...show,
        scenes: [scene],
      });
      for (let k = 0; k < settled; k += stretch) await run(stretch);
      const before = await state();
      const start = performance.now();
      let count = 0;
      while (frames === undefined ? performance.now() - start < msEach : count < Number(frames)) {
        await run(stretch);
        count += stretch;
      }
      const after = await state();
      const more = (['targets', 'textures', 'shaders'] as const).filter((what) => after[what] > before[what]);
      const heap = after.heap - before.heap;
      const isFine = more.length === 0 && heap < heapSlack;
      if (!isFine) grown++;
      console.log(
        `${scene.name.padEnd(16)} ${String(count).padStart(6)} frames  ${after.targets} targets, ${after.textures} textures, ${after.shaders} shaders, heap ${(heap / 1e6).toFixed(1)} MB more  ${isFine ? 'constant' : `GROWS: ${[...more, ...(heap < heapSlack ? [] : ['heap'])].join(', ')}`}`,
      );
    }
  } finally {
    await driver.quit();
    server.closeAllConnections();
    server.close();
  }
  return grown === 0;
}
