import { execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startBrowser } from '../bin/browser';
import type { Show } from '../src/core/document/types';
import { median, ratioOf } from '../src/engine/bench/measure';
import { listen, makeApp } from '../src/server/server';

const root = path.resolve(import.meta.dirname, '..');

/**
 * Revisions from here on can measure scenes by themselves: their bench page has `open` and `time`. Older ones are given the
 * scenes of this one, which was written for the engine as it lay then.
 */
const firstWithScenes = '1a2942d';
const overlaid: Readonly<Record<string, string>> = {
  'against-page.ts': 'bench-page.ts',
  'measure.ts': 'measure.ts',
  'scenes.ts': 'scenes.ts',
};

/** Builds another revision in a worktree of its own. */
function build(revision: string, folder: string): string {
  const tree = path.join(folder, 'tree');
  execFileSync('git', ['worktree', 'add', '--detach', tree, revision], { cwd: root, stdio: 'inherit' });
  symlinkSync(path.join(root, 'node_modules'), path.join(tree, 'node_modules'));
  const bench = path.join(tree, 'src/engine/bench');
  if (!existsSync(path.join(bench, 'scenes.ts'))) {
    rmSync(bench, { recursive: true, force: true });
    mkdirSync(bench);
    for (const [from, to] of Object.entries(overlaid)) {
      const text = execFileSync('git', ['show', `${firstWithScenes}:src/engine/bench/${from}`], {
        cwd: root,
      });
      writeFileSync(path.join(bench, to), text);
    }
  }
  execFileSync(path.join(root, 'node_modules/.bin/vite'), ['build', '--logLevel', 'error'], {
    cwd: tree,
    stdio: 'inherit',
  });
  return path.join(tree, 'dist');
}

const framesFor = (ms: number): number => Math.max(1, Math.min(30, Math.round(700 / ms)));

/**
 * Measures every scene of the demo (`scene:<name>`, at 480x270, engine alone) in this tree and in another
 * revision, A B A B, in one browser. Prints the milliseconds a frame of both, new / old with its spread, and the geometric mean.
 */
export async function compareWith(
  revision: string,
  wanted: readonly string[],
  rounds: number,
): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-against-'));
  const show = JSON.parse(readFileSync(path.join(root, 'demo/night-apiary.pyrvel.json'), 'utf8')) as Show;
  try {
    const old = await listen(makeApp({ dist: build(revision, folder) }), 0);
    const now = await listen(makeApp(), 0);
    const driver = await startBrowser({ width: 400, height: 300 });
    try {
      await driver.manage().setTimeouts({ script: 600000 });
      const pages: string[] = [];
      for (const { address } of [old, now]) {
        if (pages.length) await driver.switchTo().newWindow('tab');
        await driver.get(`${address}/bench.html`);
        await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelBench)'), 20000);
        pages.push(await driver.getWindowHandle());
      }
      const on = async <T>(page: number, script: string, ...args: unknown[]): Promise<T> => {
        await driver.switchTo().window(pages[page]);
        return driver.executeScript<T>(script, ...args);
      };
      const works = show.scenes.map(({ name }) => ({ name, label: `scene:${name}` }));
      const ratios: number[] = [];
      console.log(`${'workload'.padEnd(24)} ${'old ms'.padStart(9)} ${'new ms'.padStart(9)}  new / old`);
      for (const { name, label } of works.filter(
        (w) => !wanted.length || wanted.includes(w.label) || wanted.includes(w.name),
      )) {
        const times: [number[], number[]] = [[], []];
        const part = { ...show, scenes: show.scenes.filter((scene) => scene.name === name) };
        for (const page of [0, 1])
          await on(page, 'window.pyrvelBench.open(arguments[0], arguments[1])', name, part);
        const frames = framesFor(await on<number>(0, 'return window.pyrvelBench.time(1)'));
        await on(1, 'return window.pyrvelBench.time(1)');
        for (let round = 0; round < rounds; round++)
          for (const page of round % 2 ? [1, 0] : [0, 1])
            times[page].push(await on<number>(page, 'return window.pyrvelBench.time(arguments[0])', frames));
        const ratio = ratioOf(times[1], times[0]);
        ratios.push(ratio.median);
        console.log(
          `${label.padEnd(24)} ${median(times[0]).toFixed(1).padStart(9)} ${median(times[1]).toFixed(1).padStart(9)}  ${ratio.median.toFixed(3)}  (${ratio.low.toFixed(3)}–${ratio.high.toFixed(3)})`,
        );
      }
      if (ratios.length) {
        const mean = Math.exp(ratios.reduce((sum, r) => sum + Math.log(r), 0) / ratios.length);
        console.log(`\nGeometric mean of ${ratios.length} scenes, new / old: ${mean.toFixed(3)}`);
      }
    } finally {
      await driver.quit();
      for (const { server } of [old, now]) {
        server.closeAllConnections();
        server.close();
      }
    }
  } finally {
    execFileSync('git', ['worktree', 'remove', '--force', path.join(folder, 'tree')], { cwd: root });
    rmSync(folder, { recursive: true, force: true });
  }
}
