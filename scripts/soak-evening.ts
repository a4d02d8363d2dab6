import { devTools } from '../bin/browser';
import type { PerformanceState } from '../src/core/desk/performance-state';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Key, type WebDriver } from 'selenium-webdriver';
import { randomAt } from '../src/core/random';
import type { Show } from '../src/core/document/types';
import type { Stats } from '../src/engine/protocol/protocol';
import { Desk } from '../test/desk';
import { workerHeap } from './worker-heap';

interface Evening {
  minutes: number;
  seed: number;
  /** The only scene that is played; null: all of them. */
  scene: string | null;
  /** File of the chart. */
  chart: string;
  say(line: string): void;
}

/** The canvas of the evening: what grows does so at any size. */
const canvas = { width: 320, height: 180 };
/** Milliseconds between two acts, and two samples. */
const actMs = 1500;
const sampleMs = 5000;
/** Milliseconds between two faults; of an evening of a minute or less a part of it, so that it has several. */
const faultMs = (minutes: number): number => Math.min(30000, minutes * 15000);
/**
 * A browser that has lost its process several times within minutes draws without the graphics card from then on. In an evening of a minute or two it
 * is left out: in software all shaders are made once more, which takes a good part of that.
 */
const rare = { name: 'process that draws gone', most: 2, leastMinutes: 3 };
/** Milliseconds an hour by which the show's clock may leave the wall's. */
const driftMsAnHour = 1;
/**
 * Growth that is no leak, from the beginning to the end of the evening, both times while no scene plays: what is held then does not depend on where the
 * evening stands or on how quick the machine is.
 */
const slack = { heap: 8e6, engineHeap: 8e6, listeners: 100, targets: 4, textures: 8, shaders: 12 } as const;
/** Seconds by which the clocks part from one look to the next that are worth saying. */
const told = 5e-3;
/** Milliseconds between two looks whether all is at rest, and most looks. */
const rest = { lookMs: 2000, most: 30 };
/** Mean of 255 below which a stage is dark. */
const darkBelow = 0.5;

interface Sample {
  /** Seconds since the evening began. */
  at: number;
  heap: number;
  engineHeap: number;
  listeners: number;
  targets: number;
  textures: number;
  shaders: number;
  framesPerSecond: number;
}

const series = ['heap', 'engineHeap', 'listeners', 'targets', 'textures', 'shaders'] as const;

/** A chart of samples over time, each line by its own greatest value. */
function chart(samples: readonly Sample[], faults: readonly { at: number; name: string }[]): string {
  const [width, height, left] = [960, 60, 120];
  const end = Math.max(1, samples.at(-1)?.at ?? 1);
  const x = (at: number): string => (left + (at / end) * (width - left)).toFixed(1);
  const rows = [...series, 'framesPerSecond' as const].map((name, row) => {
    const most = Math.max(1, ...samples.map((sample) => sample[name]));
    const y = (value: number): string => (row * (height + 20) + 15 + height * (1 - value / most)).toFixed(1);
    const points = samples.map((sample) => `${x(sample.at)},${y(sample[name])}`).join(' ');
    return `<text x="0" y="${row * (height + 20) + 25}">${name}</text><text x="0" y="${row * (height + 20) + 41}" fill="#777">to ${Math.round(most).toLocaleString('en')}</text><polyline points="${points}" fill="none" stroke="#b5651d"/>`;
  });
  const marks = faults.map(
    ({ at, name }) =>
      `<line x1="${x(at)}" x2="${x(at)}" y1="0" y2="${rows.length * (height + 20)}" stroke="#bbb"><title>${name}</title></line>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${rows.length * (height + 20) + 10}" font-family="sans-serif" font-size="12">${marks.join('')}${rows.join('')}</svg>\n`;
}

/** The show of an evening: that of the demo, small, without screens of its own. */
function eveningShow(scene: string | null): Show {
  const file = path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json');
  const show = JSON.parse(readFileSync(file, 'utf8')) as Show;
  show.canvas = { ...show.canvas, ...canvas };
  show.name = 'Soak';
  show.wall.outputs = [];
  if (scene !== null) {
    show.scenes = show.scenes.filter(({ name }) => name === scene);
    if (!show.scenes.length) throw new Error(`There is no scene ${scene}.`);
    Object.assign(show, { cues: [], desk: [], snapshots: [], bindings: [], moves: [] });
    show.home = { scene: null, snapshot: null };
  }
  return show;
}

interface Report {
  stats: Stats | null;
  performance: PerformanceState | null;
}

/** What the page and its engine hold once garbage is collected; null: there is no engine at the moment. */
async function sampled(driver: WebDriver, at: number): Promise<Sample | null> {
  const { stats } = await driver.executeScript<Report>('return window.pyrvel.report()');
  if (!stats) return null;
  await devTools(driver, 'HeapProfiler.collectGarbage');
  await devTools(driver, 'Performance.enable');
  const { metrics } = await devTools<{ metrics: { name: string; value: number }[] }>(
    driver,
    'Performance.getMetrics',
  );
  const metric = (name: string): number => metrics.find((one) => one.name === name)?.value ?? 0;
  const engineHeap = await workerHeap(driver).catch(() => null);
  if (engineHeap === null) return null;
  const { targets, textures, shaders, framesPerSecond } = stats;
  return {
    at,
    heap: metric('JSHeapUsedSize'),
    engineHeap,
    listeners: metric('JSEventListeners'),
    targets,
    textures,
    shaders,
    framesPerSecond,
  };
}

/** Seconds by which the show's clock has left the wall's since an earlier report; null: it was put elsewhere meanwhile. */
function driftSince(before: PerformanceState | null, now: PerformanceState | null): number | null {
  if (!before || !now || !before.transport.playing || !now.transport.playing) return null;
  return now.transport.time - before.transport.time - (now.at - before.at) / 1000;
}

/** Plays an evening; gives whether all of it was as promised. */
export async function soakEvening({ minutes, seed, scene, chart: file, say }: Evening): Promise<boolean> {
  let asked = 0;
  const random = (): number => randomAt(asked++, seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
  const desk = await Desk.open({ plainPages: false });
  const { driver } = desk;
  const samples: Sample[] = [];
  const faults: { at: number; name: string }[] = [];
  const wrong: string[] = [];
  let start = performance.now();
  const elapsed = (): number => performance.now() - start;
  let editor = '';
  let stage = '';
  const report = (): Promise<Report> => driver.executeScript<Report>('return window.pyrvel.report()');
  const inEditor = (): Promise<void> => driver.switchTo().window(editor);
  const pressAll = (selector: string): Promise<number> =>
    driver.executeScript<number>(
      'const all = [...document.querySelectorAll(arguments[0])]; all[Math.floor(arguments[1] * all.length)]?.click(); return all.length',
      selector,
      random(),
    );
  // Elements that the driver has found stay in memory, and all they hang on: what is looked for here is looked for in the page.
  const isThere = (selector: string): Promise<unknown> =>
    driver.wait(
      () => driver.executeScript<boolean>('return document.querySelector(arguments[0]) !== null', selector),
      20000,
      `nothing found for ${selector}`,
    );
  const goTo = async (view: string, sign: string): Promise<void> => {
    await pressAll(`[aria-label="Views"] [href="/${view}"]`);
    await isThere(sign);
  };
  const toPlay = (): Promise<void> => goTo('play', '[aria-label="Program"] canvas');
  const key = (...keys: string[]): Promise<void> =>
    driver
      .actions()
      .sendKeys(...keys)
      .perform();
  /** A switch is pressed once it is seen what the press before did: an engine that is gone meanwhile may not have heard that. */
  const onAndOff = async (press: string, what: 'blackout' | 'freeze'): Promise<void> => {
    for (const isOn of [true, false]) {
      await key(press);
      await driver.wait(
        async () => (await report()).performance?.[what] === isOn,
        20000,
        `${what} did not go ${isOn ? 'on' : 'off'}`,
      );
    }
  };
  /** What hands do. */
  const acts: Record<string, () => Promise<unknown>> = {
    take: () => pressAll('[data-scene-button] button[aria-label^="Fade to"]'),
    next: () => key(Key.F7),
    // On and off again: the night is not to end in the dark. A page that goes before that is seen leaves the stage as it was.
    blackout: async () => {
      await onAndOff(Key.F9, 'blackout');
      await driver.wait(async () => !(await stageIsDark()), 20000, 'the stage stayed dark');
    },
    freeze: () => onAndOff(Key.F8, 'freeze'),
    cue: () => key(Key.F4),
    home: () => pressAll('[aria-label="Desk home"]'),
    fader: () =>
      driver.executeScript(
        `const all = [...document.querySelectorAll('main input[type="range"]')];
         const one = all[Math.floor(arguments[0] * all.length)];
         if (one) {
           Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(one, Number(one.min) + arguments[1] * (one.max - one.min));
           one.dispatchEvent(new Event('input', { bubbles: true }));
         }`,
        random(),
        0.5 + random() / 2,
      ),
    edit: async () => {
      await goTo('build', '[data-testid="patch"]');
      await key(Key.chord(Key.CONTROL, 'z'));
      await key(Key.chord(Key.CONTROL, Key.SHIFT, 'z'));
      await toPlay();
    },
  };
  const inject = (fault: string): Promise<unknown> =>
    driver.executeScript('window.pyrvel.inject(arguments[0])', fault);
  const throwIn: Record<string, () => Promise<unknown>> = {
    'graphics card lost': () => inject('context-loss'),
    'engine gone': () => inject('crash'),
    'process that draws gone': () => desk.killDrawing(),
    'page blocked': () =>
      driver.executeScript('const until = performance.now() + 1000; while (performance.now() < until);'),
    'page reloaded': async () => {
      await driver.navigate().refresh();
      await isThere('[aria-label="Program"] canvas');
    },
    'server gone': async () => {
      const again = await desk.stopServer();
      await new Promise((resolve) => setTimeout(resolve, 1500));
      await again();
    },
  };
  /** Whether what the stage window shows is dark. */
  const stageIsDark = async (): Promise<boolean> => {
    await driver.switchTo().window(stage);
    const { mean } = await desk.seen();
    await inEditor();
    return mean < darkBelow;
  };
  const openStage = async (): Promise<void> => {
    await desk.click('[data-testid="stage-button"]');
    await driver.wait(async () => (await driver.getAllWindowHandles()).length === 2, 20000);
    stage = (await driver.getAllWindowHandles()).find((one) => one !== editor)!;
    await inEditor();
    await toPlay();
  };
  /** What is held while no scene plays: the stage is closed, and the desk shows none. */
  const atRest = async (): Promise<Sample> => {
    await driver.switchTo().window(stage);
    await driver.close();
    await inEditor();
    await pressAll('[aria-label="Views"] [href="/inputs"]');
    let last: Sample | null = null;
    for (let look = 0; look < rest.most; look++) {
      await new Promise((resolve) => setTimeout(resolve, rest.lookMs));
      const sample = await sampled(driver, elapsed() / 1000);
      const stands = (['targets', 'textures', 'shaders'] as const).every(
        (name) => sample?.[name] === last?.[name],
      );
      if (sample && look > 3 && stands) return sample;
      last = sample;
    }
    throw new Error('The engine does not come to rest.');
  };
  try {
    await desk.openShow(eveningShow(scene));
    editor = await driver.getWindowHandle();
    // What is made once, is made before anything is compared.
    await openStage();
    for (const act of ['take', 'edit', 'next']) await acts[act]();
    const first = await atRest();
    await openStage();
    start = performance.now();
    let [sampledAt, faultAt] = [elapsed(), elapsed()];
    let before = (await report()).performance;
    let worst = 0;
    let lastDrift = 0;
    let compared = 0;
    while (elapsed() < minutes * 60000) {
      await new Promise((resolve) => setTimeout(resolve, actMs));
      const act = pick(Object.keys(acts));
      await acts[act]();
      if (elapsed() - sampledAt > sampleMs) {
        sampledAt = elapsed();
        const sample = await sampled(driver, sampledAt / 1000);
        if (sample) samples.push(sample);
        const { performance: now } = await report();
        const drift = driftSince(before, now);
        if (drift !== null) {
          if (Math.abs(drift - lastDrift) > told)
            say(
              `${(sampledAt / 1000).toFixed(0)} s: the clocks are apart by ${(1000 * drift).toFixed(2)} ms`,
            );
          lastDrift = drift;
          worst = Math.max(worst, Math.abs(drift));
          compared += sampleMs / 1000;
        }
        if (!now?.blackout && (await stageIsDark())) {
          // Some scenes begin dark: what still is a second later was not drawn.
          await new Promise((resolve) => setTimeout(resolve, 1500));
          if (await stageIsDark()) wrong.push(`${(sampledAt / 1000).toFixed(0)} s: the stage is dark`);
        }
      }
      if (elapsed() - faultAt > faultMs(minutes)) {
        faultAt = elapsed();
        const most = minutes < rare.leastMinutes ? 0 : rare.most;
        const often = faults.filter(({ name }) => name === rare.name).length >= most;
        const name = pick(Object.keys(throwIn).filter((one) => !often || one !== rare.name));
        faults.push({ at: faultAt / 1000, name });
        say(`${(faultAt / 1000).toFixed(0)} s: ${name}`);
        await throwIn[name]();
        if (await stageIsDark())
          wrong.push(`${(faultAt / 1000).toFixed(0)} s: the stage is dark after: ${name}`);
      }
      before ??= (await report()).performance;
    }
    const played = elapsed();
    const last = await atRest();
    for (const name of series)
      if (last[name] - first[name] > slack[name])
        wrong.push(`${name} grew from ${first[name]} to ${last[name]}`);
    // Two workers read their clocks a little apart: an engine that stands in may be off by that.
    const starts = faults.filter(({ name }) => name === 'engine gone' || name === 'page reloaded').length;
    const allowed = 1e-3 * (driftMsAnHour * Math.max(1, played / 3.6e6) + 2 * starts);
    if (worst > allowed) wrong.push(`the show's clock left the wall's by ${(1000 * worst).toFixed(2)} ms`);
    writeFileSync(file, chart(samples, faults));
    say(
      `${(played / 60000).toFixed(1)} minutes, ${samples.length} samples, ${faults.length} faults; the clocks apart by ${(1000 * worst).toFixed(3)} ms at most, compared over ${compared.toFixed(0)} s; chart in ${file}`,
    );
    say(`At rest: ${series.map((name) => `${name} ${first[name]} to ${last[name]}`).join(', ')}`);
  } finally {
    await desk.close();
  }
  for (const line of wrong) say(`WRONG: ${line}`);
  return wrong.length === 0;
}
