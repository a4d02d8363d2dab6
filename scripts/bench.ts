/**
 * npm run bench: measures the engine against the same pictures written by hand, in one run, in headless Chromium with the
 * software renderer. `--json` prints one flat object of the medians as the last line; `--write` keeps all of it in
 * docs/benchmarks.md; words that are left name the figures wanted, all if there is none.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startBrowser } from '../bin/browser';
import type { Ratio } from '../src/engine/bench/measure';
import { listen, makeApp } from '../src/server/server';

/** What each figure says, and the most (or least) it should be. */
const figures: Record<string, { about: string; target: string }> = {
  chain8: {
    about: 'noise and seven steps / one shader with the same controls, written by hand',
    target: '≤ 1.15',
  },
  chain8Speedup: {
    about: 'eight steps on a gradient, one pass a node / joined, 16-bit float',
    target: '≥ 3',
  },
  chain8Speedup8: { about: 'eight steps on a gradient, one pass a node / joined, 8 bits', target: '≥ 1.8' },
  chain8Speedup32: {
    about: 'eight steps on a gradient, one pass a node / joined, 32-bit float',
    target: '≥ 1.8',
  },
  feedback: { about: 'zoom, displace, keep, noise, two-way blur / by hand', target: '≤ 1.25' },
  blur64: { about: 'a blur of radius 64 / of radius 8', target: '≤ 2' },
  glow: { about: 'a glow / a blur of radius 8', target: '≤ 3' },
  previews: { about: 'a frame with 24 previews / without', target: '≤ 1.05' },
  copies10k: { about: '10,000 quads from an image / plain instancing by hand', target: '≤ 0.2' },
  copies100k: { about: '100,000 quads from an image / plain instancing by hand', target: '≤ 0.2' },
  cubes10k: { about: '10,000 cubes from an image / plain instancing by hand', target: '≤ 0.5' },
  copiesMerged10k: { about: '10,000 quads from an image / merged copies by hand', target: '≤ 1.15' },
  copiesMerged100k: { about: '100,000 quads from an image / merged copies by hand', target: '≤ 1.15' },
  copiesMerged1m: { about: '1,000,000 quads from an image / merged copies by hand', target: '≤ 1.15' },
  cpuCopies: { about: 'CPU of a frame: 1,000,000 copies / 10,000, from an image', target: '≤ 1.1' },
  lanes100k: {
    about: 'copies from 100,000 samples that change every frame / a loop and an upload by hand',
    target: '≤ 1.3',
  },
  sheet1024: {
    about: 'a sheet of 1,024 x 1,024 lifted by an image, as lines / by hand',
    target: '≤ 1.25',
  },
  fields4: { about: 'four fields melting, lit, at 320x180 / one shader by hand', target: '≤ 1.15' },
  formula100k: { about: 'a formula over 100,000 samples / a loop by hand', target: '≤ 2.0' },
  oscillator100k: { about: 'an oscillator of 100,000 samples / a loop by hand', target: '≤ 2.0' },
  signals300Ms: {
    about: 'CPU milliseconds a frame, 300 signal nodes of 64 samples; beside it one loop by hand',
    target: '< 1',
  },
  timeSpread240: {
    about: '240 moments of a chain of five nodes / the chain once with 240 samples',
    target: '≤ 1.5',
  },
  audioCore: { about: 'share of a core: 100 bands, 60 a second', target: '< 0.05' },
  static200Ms: { about: 'CPU milliseconds a frame, 200 nodes that stand still', target: '≤ 0.2' },
};

const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'));
const isWanted = (name: string): boolean => wanted.length === 0 || wanted.includes(name);
const results = new Map<string, Ratio>();
const { server, address } = await listen(makeApp(), 0);
const driver = await startBrowser({ width: 400, height: 300 });
try {
  await driver.manage().setTimeouts({ script: 600000 });
  await driver.get(`${address}/bench.html`);
  await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelBench)'), 20000);
  const names = await driver.executeScript<string[]>('return window.pyrvelBench.names');
  for (const name of names.filter(isWanted)) {
    results.set(name, await driver.executeScript<Ratio>('return window.pyrvelBench.run(arguments[0])', name));
    console.log(line(name));
  }
} finally {
  await driver.quit();
  server.close();
}
function line(name: string): string {
  const { median, low, high, ms } = results.get(name)!;
  const times = ms[1] === 1 ? '' : `  ${ms[0].toFixed(2)} / ${ms[1].toFixed(2)} ms`;
  return `${name.padEnd(16)} ${median.toFixed(3)}  (${low.toFixed(3)}–${high.toFixed(3)})  ${figures[name].target}${times}  ${figures[name].about}`;
}

const page = path.resolve(import.meta.dirname, '../docs/benchmarks.md');

/** Rows of the page as they stand, by figure: what is not measured now is kept. */
function rowsBefore(): Map<string, string> {
  const rows = new Map<string, string>();
  for (const row of readFileSync(page, 'utf8').split('\n')) {
    const name = /^\| `(\w+)`/.exec(row)?.[1];
    if (name) rows.set(name, row);
  }
  return rows;
}

if (process.argv.includes('--write')) {
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  const day = new Date().toISOString().slice(0, 10);
  const kept = rowsBefore();
  const rows = Object.keys(figures).flatMap((name) => {
    const r = results.get(name);
    if (!r) return kept.get(name) ?? [];
    return `| \`${name}\` | ${figures[name].about} | ${r.median.toFixed(3)} | ${r.low.toFixed(3)}–${r.high.toFixed(3)} | ${figures[name].target} | ${day}, ${commit} |`;
  });
  writeFileSync(
    page,
    `# Benchmarks

Made by \`npm run bench -- --write\`; with the names of figures after it, only those are measured anew. Machine of the last run:
${os.cpus().length} cores (${os.cpus()[0].model.trim()}), no graphics card: headless Chromium draws in software, at 640x360 unless said
otherwise. Each figure is the median of paired rounds in one run, each round ended by a read of one pixel; the spread is from
the first to the third quartile. Ratios can be compared between machines, times cannot.

| figure | what | median | spread | target | measured |
|---|---|---|---|---|---|
${rows.join('\n')}
`,
  );
}
if (process.argv.includes('--json')) {
  console.log(
    JSON.stringify(Object.fromEntries([...results].map(([name, r]) => [name, Number(r.median.toFixed(4))]))),
  );
}
