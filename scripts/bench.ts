/**
 * npm run bench: measures the engine against the same pictures written by hand, in one run, in headless Chromium with the
 * software renderer. `--json` prints one flat object of the medians as the last line; `--write` keeps all of it in
 * docs/benchmarks.md; words that are left name the figures wanted, all if there is none. `--against REV` measures all
 * scenes of the demo in this tree and in that revision, in turn, and prints what became faster. `playersApart --minutes 60` looks at two
 * players for an hour as well.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readArguments } from '../bin/arguments';
import { readRenderer, startBrowser } from '../bin/browser';
import type { Ratio } from '../src/engine/bench/measure';
import { compareWith } from './bench-against';
import { measureNetwork } from './bench-network';
import { measureDesk } from './bench-desk';
import { measureMachines } from './bench-machines';
import { measurePatch } from './bench-patch';
import { measureExports } from './bench-export';
import { listen, makeApp } from '../src/server/server';

/** What each figure says, and the most (or least) it should be. */
interface Figure {
  about: string;
  target: string;
  /** No ratio: it can be compared on one machine only. */
  plain?: true;
}

const figures: Record<string, Figure> = {
  chain8: {
    about: 'noise and seven steps, to the surface / one shader by hand, literals and all',
    target: '≤ 1.10',
  },
  chain8Speedup: {
    about: 'eight steps on a gradient, one pass a node / joined, 16-bit float',
    target: '≥ 3',
  },
  chain8SpeedupNoise: { about: 'the same on a noise of four octaves', target: '≥ 1.5' },
  chain8Speedup8: { about: 'eight steps on a gradient, one pass a node / joined, 8 bits', target: '≥ 1.8' },
  chain8Speedup32: {
    about: 'eight steps on a gradient, one pass a node / joined, 32-bit float',
    target: '≥ 1.8',
  },
  feedback: {
    about: 'zoom, displace, keep, noise, two-way blur, to the surface / by hand',
    target: '≤ 1.15',
  },
  blur64: { about: 'a blur of radius 64 / of radius 8', target: '≤ 2' },
  glow: { about: 'a glow / a blur of radius 8', target: '≤ 3' },
  previews: { about: 'a frame with 24 cards in sight, previews counted / without', target: '≤ 1.05' },
  copies10k: { about: '10,000 quads from an image / plain instancing by hand', target: '≤ 0.2' },
  copies100k: { about: '100,000 quads from an image / plain instancing by hand', target: '≤ 0.2' },
  cubes10k: { about: '10,000 cubes from an image / plain instancing by hand', target: '≤ 0.5' },
  copies10kHome: {
    about: '10,000 quads, smooth and soft as a Shot is by default / the same plain program',
    target: '≤ 0.5',
  },
  copies100kHome: { about: '100,000 quads, smooth and soft / the same plain program', target: '≤ 0.5' },
  cubes10kHome: { about: '10,000 cubes, smooth and soft / the same plain program', target: '≤ 1' },
  copiesMerged10k: { about: '10,000 quads from an image / merged copies by hand', target: '≤ 1.10' },
  copiesMerged100k: { about: '100,000 quads from an image / merged copies by hand', target: '≤ 1.10' },
  copiesMerged1m: { about: '1,000,000 quads from an image / merged copies by hand', target: '≤ 1.10' },
  cpuCopies: { about: 'CPU of a frame: 1,000,000 copies / 10,000, from an image', target: '≤ 1.1' },
  lanes100k: {
    about: 'copies from 100,000 samples that change every frame / a loop and an upload by hand',
    target: '≤ 1.2',
  },
  sheet1024: { about: 'a sheet of 1,024 x 1,024 lifted by an image, as lines / by hand', target: '≤ 1.15' },
  fields4: { about: 'four fields melting, lit, at 320x180 / one shader by hand', target: '≤ 1.10' },
  outputPass: {
    about: 'a screen of 1280x720: warp, mask, blend, colour / one pass by hand, literals and all',
    target: '≤ 1.10',
  },
  secondOutput: {
    about: 'a second screen of 1280x720 / the scene Pollen Drift at that size',
    target: '≤ 0.15',
  },
  strings100k: {
    about: '100,000 pixels of strings: sampled, read, packed / by hand',
    target: '≤ 1.2',
  },
  strings100kMs: {
    about: 'milliseconds of the worker for those: calls, bytes, packets, the message',
    target: '< 4',
    plain: true,
  },
  universes600: {
    about: 'share of a core that the server needs for 600 universes 44 times a second',
    target: '< 0.5',
    plain: true,
  },
  universesLost: {
    about: 'packets of those that were lost on this machine in 60 s',
    target: '< 1',
    plain: true,
  },
  pixelJitter: {
    about:
      'milliseconds by which packets of pixels leave unevenly at the 95th percentile, while the patch is dragged',
    target: '< 2',
    plain: true,
  },
  moduleCost: { about: 'a patch in three nested modules / the same flat', target: '≤ 1.03' },
  deskControls: {
    about: 'milliseconds of the worker a frame for 200 desk controls, 64 of them moving',
    target: '≤ 0.3',
    plain: true,
  },
  morph: {
    about: 'milliseconds of a morph of 500 values among four snapshots',
    target: '≤ 0.2',
    plain: true,
  },
  take: {
    about: 'the worst frame around 40 takes among all scenes / the own frame of the slower scene',
    target: '≤ 1.5',
  },
  latency: {
    about:
      'milliseconds from a key that is bound to the first changed frame / a frame of the scene and one of the display',
    target: '≤ 1',
  },
  exportOverhead: {
    about: 'a video of Pollen Drift exported, VP9 with little effort / the same frames drawn alone',
    target: '≤ 1.5',
  },
  exportOverheadPng: { about: 'a PNG sequence of it / the same frames drawn alone', target: '≤ 1.5' },
  exportHeap: { about: 'heap after 2,000 exported frames / after 200', target: '≤ 1.1' },
  farm2: { about: 'speed of an export by two processes / by one', target: '≥ 1.6' },
  recordCost: { about: 'frames on stage while the program is recorded / while it is not', target: '≥ 0.9' },
  flashMeter: {
    about: 'the live flash meter, each look waited for / a frame of Pollen Drift',
    target: '≤ 0.02',
  },
  flashMeterSize: { about: 'the meter at 1920x1080 / at 640x360', target: '≤ 1.1' },
  flashLimiter: { about: 'the limiter of flashes / a frame of Pollen Drift', target: '≤ 0.25' },
  preflightRate: {
    about:
      'Preflight of all scenes of the demo, loops cut to 40 frames, shaders and files new to it / drawing those frames alone, which come after it',
    target: '≤ 1.3',
  },
  preflightRateWarm: { about: 'the same, neither of them first', target: '≤ 1.3' },
  formula100k: { about: 'a formula over 100,000 samples / a loop by hand', target: '≤ 2.0' },
  oscillator100k: { about: 'an oscillator of 100,000 samples / a loop by hand', target: '≤ 2.0' },
  signals300: { about: 'CPU of a frame of 300 signal nodes of 64 samples / one loop by hand', target: '≤ 3' },
  timeSpread240: {
    about: '240 moments of a chain of five nodes / the chain once with 240 samples',
    target: '≤ 1.5',
  },
  audioCore: { about: 'share of a core: 100 bands, 60 a second', target: '< 0.05', plain: true },
  static200Ms: {
    about: 'CPU milliseconds a frame, 200 nodes that stand still',
    target: '≤ 0.2',
    plain: true,
  },
  exactFrame: {
    about: 'frame 600 of a scene without memory, asked for alone / frame 0',
    target: '≤ 1.5',
  },
  deskShare: {
    about:
      'frames a second in Build, all cards in sight, bench open / engine alone; geometric mean of all scenes',
    target: '≥ 0.75',
  },
  playShare: { about: 'the same in Play', target: '≥ 0.85' },
  stageShare: { about: 'the same in Build with a stage window of 1280x720 open, drawn whole', target: '≥ 0' },
  emptyDesk: { about: 'frames a second of an empty scene in Build / of the display', target: '≥ 0.95' },
  inputLatency: {
    about:
      'milliseconds from a pointer event on a number to its paint, 95th percentile, Hedge Flight playing',
    target: '< 50',
    plain: true,
  },
  panLatency: { about: 'the same while the patch is dragged', target: '< 50', plain: true },
  patch200: {
    about: 'frames of the page while a patch of 200 nodes is panned and zoomed / of the display',
    target: '≥ 0.95',
  },
  open500: {
    about: 'milliseconds from the click on a show of 500 nodes to its first picture / on the demo show',
    target: '≤ 1.5',
  },
  variations: {
    about: 'frames on stage while nine variations are shown / while the patch is',
    target: '≥ 0.95',
  },
  deskLatency: {
    about:
      "milliseconds from the fader of a remote desk to the state of the main machine's engine, 95th percentile, 20 desks moving 60 times a second",
    target: '≤ 30',
    plain: true,
  },
  playersApart: {
    about: 'milliseconds between the pictures of two players in two browsers on this machine, median of 60 s',
    target: '≤ 4',
    plain: true,
  },
  playersFar: {
    about: 'looks of those in which they are more than a frame apart',
    target: '< 1',
    plain: true,
  },
  playersHour: {
    about: 'the largest of those medians of 20 s each minute of an hour (`--minutes 60`)',
    target: '≤ 4',
    plain: true,
  },
  lateJoin: {
    about: 'seconds from the address typed in a new browser to the picture of a player, the demo playing',
    target: '≤ 5',
    plain: true,
  },
  takeOver: {
    about:
      'seconds for which the picture on the stage of the spare stood still at most, while the browser of the main machine was killed',
    target: '≤ 1',
    plain: true,
  },
  stageKept: {
    about: 'frames on stage while the main thread of the editor is blocked / while it is not',
    target: '≥ 0.95',
  },
  stageKeptSmall: {
    about: 'the same with a canvas of 320x180, so that a second holds more than one or two frames',
    target: '≥ 0.95',
  },
};

const { plain: wanted, options } = readArguments(
  process.argv.slice(2).filter((word) => word !== '--json' && word !== '--write'),
  ['against', 'rounds', 'renderer', 'minutes'],
);
// What is measured is SwiftShader, as visitors without a graphics card get it, unless another is asked for.
const asked = readRenderer(options.get('renderer'));
process.env.PYRVEL_RENDERER = asked ?? 'swiftshader';
const against = options.get('against');
if (against !== undefined) {
  await compareWith(against, wanted, Number(options.get('rounds') ?? 5));
  process.exit(0);
}
const isWanted = (name: string): boolean => wanted.length === 0 || wanted.includes(name);
const results = new Map<string, Ratio>();
const refused = new Map<string, string>();
const { server, address } = await listen(makeApp({ isKept: false }), 0);
const driver = await startBrowser({ width: 400, height: 300 });
try {
  await driver.manage().setTimeouts({ script: 600000 });
  await driver.get(`${address}/bench.html`);
  await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelBench)'), 20000);
  const names = await driver.executeScript<string[]>('return window.pyrvelBench.names');
  for (const name of names.filter(isWanted)) {
    const answer = await driver.executeAsyncScript<{
      ratio?: Ratio & { pictures: string[] };
      error?: string;
    }>(
      'const [name, done] = arguments; window.pyrvelBench.run(name).then((ratio) => done({ ratio }), (e) => done({ error: e.message }));',
      name,
    );
    if (answer.ratio) {
      results.set(name, answer.ratio);
      console.log(line(name));
      for (const picture of answer.ratio.pictures) console.log(`${' '.repeat(22)} ${picture}`);
    } else {
      // A comparison of two pictures that differ is no figure.
      refused.set(name, answer.error!);
      console.log(`${name.padEnd(22)} refused: ${answer.error}`);
    }
  }
  const show = readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8');
  const keep = (measured: Record<string, Ratio>): void => {
    for (const [name, ratio] of Object.entries(measured)) {
      results.set(name, ratio);
      console.log(line(name));
    }
  };
  if (['flashMeter', 'flashMeterSize', 'flashLimiter'].some(isWanted)) {
    const measured = await driver.executeScript<Record<string, Ratio>>(
      'return window.pyrvelBench.flashes(JSON.parse(arguments[0]))',
      show,
    );
    keep(measured);
  }
  if (['preflightRate', 'preflightRateWarm'].some(isWanted)) {
    const measured = await driver.executeAsyncScript<Record<string, Ratio>>(
      'const [show, done] = arguments; window.pyrvelBench.preflight(JSON.parse(show)).then(done);',
      show,
    );
    keep(measured);
  }
  if (isWanted('take')) {
    const take = await driver.executeScript<Ratio & { compiled: number }>(
      'return window.pyrvelBench.take(JSON.parse(arguments[0]))',
      show,
    );
    keep({ take });
    console.log(`${' '.repeat(22)} ${take.compiled} shaders were handed to the compiler during takes`);
  }
} finally {
  await driver.quit();
  server.close();
}
const tell = (name: string, value: number, about: string): void => {
  if (Object.hasOwn(figures, name)) {
    results.set(name, { median: value, low: value, high: value, ms: [value, 1] });
    console.log(line(name));
    console.log(`${' '.repeat(22)} ${about}`);
  } else console.log(`${name.padEnd(28)} ${value.toFixed(2)}  ${about}`);
};
if (isWanted('universes600') || isWanted('universesLost')) await measureNetwork(tell);
// Their browsers put the whole desk together by the processor.
await measureDesk(isWanted, asked ?? 'software', tell);
await measurePatch(isWanted, tell);
await measureExports(isWanted, tell);
await measureMachines(isWanted, Number(options.get('minutes') ?? 0), tell);

function line(name: string): string {
  const { median, low, high, ms } = results.get(name)!;
  const times = ms[1] === 1 ? '' : `  ${ms[0].toFixed(2)} / ${ms[1].toFixed(2)} ms`;
  return `${name.padEnd(22)} ${median.toFixed(3)}  (${low.toFixed(3)}–${high.toFixed(3)})  ${figures[name].target}${times}  ${figures[name].about}`;
}

/** Whether a figure is what it should be. */
function verdict(median: number, target: string): string {
  const [, sign, number] = /^(≤|<|≥) ([\d.]+)$/.exec(target)!;
  const isReached =
    sign === '≥'
      ? median >= Number(number)
      : sign === '<'
        ? median < Number(number)
        : median <= Number(number);
  return isReached ? 'yes' : '**no**';
}

const page = path.resolve(import.meta.dirname, '../docs/benchmarks.md');

/** Columns of the tables. */
const columns = 7;

/** Rows of the page as they stand, by figure: what is not measured now is kept. */
function rowsBefore(): Map<string, string> {
  const rows = new Map<string, string>();
  for (const row of readFileSync(page, 'utf8').split('\n')) {
    const name = /^\| `(\w+)`/.exec(row)?.[1];
    // A row of an older form of the page is measured again before it is shown again.
    if (name && row.split('|').length === columns + 2) rows.set(name, row);
  }
  return rows;
}

if (process.argv.includes('--write')) {
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  const day = new Date().toISOString().slice(0, 10);
  const kept = rowsBefore();
  const rowOf = (name: string): string[] => {
    const { about, target } = figures[name];
    const r = results.get(name);
    const measured = `${target} | ${day}, ${commit} |`;
    if (r)
      return [
        `| \`${name}\` | ${about} | ${r.median.toFixed(3)} | ${r.low.toFixed(3)}–${r.high.toFixed(3)} | ${verdict(r.median, target)} | ${measured}`,
      ];
    const why = refused.get(name);
    if (why !== undefined) return [`| \`${name}\` | ${about} | refused | ${why} | – | ${measured}`];
    return [kept.get(name) ?? `| \`${name}\` | ${about} | not measured yet | – | – | ${target} | – |`];
  };
  const table = (of: (name: string) => boolean): string =>
    [
      '| figure | what | median | spread | reached | target | measured |',
      '|---|---|---|---|---|---|---|',
      ...Object.keys(figures).filter(of).flatMap(rowOf),
    ].join('\n');
  const notes = readFileSync(page, 'utf8').split('\n## Notes\n')[1] ?? '';
  writeFileSync(
    page,
    `# Benchmarks

Made by \`npm run bench -- --write\`; with the names of figures after it, only those are measured again. Machine of the last run:
${os.cpus().length} cores (${os.cpus()[0].model.trim()}), no graphics card: headless Chromium draws in software, at 640x360 unless said
otherwise. Each figure is the median of paired rounds in one run, each round ended by a read of one pixel; the spread is from
the first to the third quartile.

The engine's side is whole: from the numbers of a scene through Scene Out to a surface as a stage window has it. The side by
hand is the best program for that one picture that we could write: the same algorithms, straight onto the surface, constants
as literals, loops written out, matrices from the processor. Both pictures are compared at two frames before anything is timed: where they
are more than 2 of 255 apart, edges aside, there is no figure.

## Ratios

${table((name) => !figures[name].plain)}

## Times of this machine

${table((name) => figures[name].plain === true)}

## Notes
${notes}`,
  );
}
if (process.argv.includes('--json')) {
  console.log(
    JSON.stringify(Object.fromEntries([...results].map(([name, r]) => [name, Number(r.median.toFixed(4))]))),
  );
}
