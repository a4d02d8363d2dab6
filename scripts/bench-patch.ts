import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Key } from 'selenium-webdriver';
import { makeShow } from '../src/core/show/create';
import { sceneOutOf } from '../src/core/patch/plan';
import { addNode, connect } from '../src/core/show/edit';
import type { Show } from '../src/core/document/types';
import { median } from '../src/engine/bench/measure';
import { catalogue } from '../src/nodes/catalogue';
import { listen, makeApp } from '../src/server/server';
import { displayRate, openStage, sleep, Window, type Tell } from './bench-window';

/** Figures of large patches and of variations: real pages in headless Chromium. */
type PatchFigure = 'patch200' | 'open500' | 'variations';

const rounds = 5;
const renderers = ['software', 'swiftshader'] as const;

/**
 * A scene of so many nodes, all of them live: rows of a gradient, its colours and its levels, each moved by an oscillator, laid one over the
 * other.
 */
function largeShow(name: string, count: number): Show {
  const show = makeShow(catalogue, name);
  const [scene] = show.scenes;
  const out = sceneOutOf(scene, catalogue)!;
  let below: string | null = null;
  // Five nodes a row, and Scene Out.
  for (let row = 0; row < Math.floor((count - 1) / 5); row++) {
    const at = (column: number): [number, number] => [column * 190, row * 150];
    const picture = addNode(scene, catalogue, 'gradient', at(0));
    const wave = addNode(scene, catalogue, 'oscillator', at(1));
    const colours = addNode(scene, catalogue, 'hue-saturation', at(2));
    const levels = addNode(scene, catalogue, 'levels', at(3));
    const blend = addNode(scene, catalogue, 'blend', at(4));
    connect(scene, catalogue, wave, picture, 'phase');
    connect(scene, catalogue, picture, colours, 'picture');
    connect(scene, catalogue, colours, levels, 'picture');
    if (below !== null) connect(scene, catalogue, below, blend, 'picture');
    connect(scene, catalogue, levels, blend, below === null ? 'picture' : 'over');
    below = blend;
  }
  connect(scene, catalogue, below!, out, 'picture');
  return show;
}

/** Frames of the page while a patch is dragged and zoomed, a second. */
async function patch200(window: Window): Promise<[number, string]> {
  await window.bringShow(largeShow('Two Hundred', 200));
  await window.rate();
  const { driver } = window;
  const counted = async (act: () => Promise<void>): Promise<number> => {
    await driver.executeScript(
      `window.turns = { start: performance.now(), count: 0, run: true };
       const turn = () => { if (!window.turns.run) return; window.turns.count++; requestAnimationFrame(turn); };
       requestAnimationFrame(turn);`,
    );
    await act();
    return driver.executeScript<number>(
      `window.turns.run = false; return (window.turns.count * 1000) / (performance.now() - window.turns.start)`,
    );
  };
  const zoom = (): Promise<void> =>
    driver.executeAsyncScript<void>(
      `const done = arguments[0], pane = document.querySelector('.react-flow__pane');
       const { left, top, width, height } = pane.getBoundingClientRect();
       let n = 0;
       const wheel = () => {
         pane.dispatchEvent(new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: left + width / 2, clientY: top + height / 2, deltaY: n % 40 < 20 ? -40 : 40 }));
         if (++n < 90) setTimeout(wheel, 30); else done();
       };
       wheel();`,
    );
  const rates: [number, number, number][] = [];
  for (let round = 0; round < rounds; round++)
    rates.push([
      await counted(() => window.drag('.react-flow__pane', 0, 100)),
      await counted(zoom),
      await counted(() => sleep(2000)),
    ]);
  const [pan, wheel, still] = [0, 1, 2].map((k) => median(rates.map((round) => round[k])));
  return [
    Math.min(1, Math.min(pan, wheel) / displayRate),
    `${pan.toFixed(1)} frames a second while panned, ${wheel.toFixed(1)} while zoomed, ${still.toFixed(1)} untouched`,
  ];
}

/** From the click on a show to its first picture on the monitor, on pages that were loaded afresh. */
async function timeToPicture(window: Window, address: string, name: string): Promise<number> {
  await window.driver.get(`${address}/shows`);
  await window.until(`!!document.querySelector('[data-show="${name}"] button')`);
  // What the page still loads by itself is no part of it.
  await sleep(3000);
  return window.driver.executeAsyncScript<number>(
    `const [name, done] = arguments, start = performance.now();
     document.querySelector('[data-show="' + name + '"] button').click();
     const small = document.createElement('canvas');
     small.width = small.height = 8;
     const context = small.getContext('2d', { willReadFrequently: true });
     const look = () => {
       const canvas = document.querySelector('[aria-label="Monitor"] canvas');
       if (canvas && document.querySelector('.react-flow__node')) {
         context.clearRect(0, 0, 8, 8);
         context.drawImage(canvas, 0, 0, 8, 8);
         if (context.getImageData(0, 0, 8, 8).data.some((v, k) => k % 4 < 3 && v > 8)) return done(performance.now() - start);
       }
       requestAnimationFrame(look);
     };
     look();`,
    name,
  );
}

async function open500(window: Window, address: string, demo: Show): Promise<[number, string]> {
  const large = largeShow('Five Hundred', 500);
  await window.bringShow(demo);
  await window.bringShow(large);
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++)
    for (const [side, { name }] of [large, demo].entries())
      times[side].push(await timeToPicture(window, address, name));
  return [
    median(times[0].map((ms, k) => ms / times[1][k])),
    `${median(times[0]).toFixed(0)} / ${median(times[1]).toFixed(0)} ms`,
  ];
}

/** Frames on stage while the variations are shown / while the patch is, in rounds that take turns. */
async function variations(window: Window, demo: Show): Promise<[number, string]> {
  await window.bringShow(demo);
  await openStage(window);
  await window.until(`!!document.querySelector('[data-testid="patch"]')`);
  await window.click('[title="Where the time goes"]');
  await window.until(`!!document.querySelector('[data-testid="stage-frames"]')`);
  const { driver } = window;
  const toggle = async (isOpen: boolean): Promise<void> => {
    await driver.actions().keyDown(Key.ALT).sendKeys('v').keyUp(Key.ALT).perform();
    await window.until(`!!document.querySelector('[data-testid="variations"]') === ${isOpen}`);
    await sleep(6000);
  };
  const frames = async (): Promise<number> => {
    const now = (): Promise<[number, number]> =>
      driver.executeScript<[number, number]>(
        `return [Number(document.querySelector('[data-testid="stage-frames"]').textContent), performance.now()]`,
      );
    const [first, start] = await now();
    await sleep(8000);
    const [last, end] = await now();
    return ((last - first) * 1000) / (end - start);
  };
  const rates: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds; round++) {
    rates[1].push(await frames());
    await toggle(true);
    rates[0].push(await frames());
    await toggle(false);
  }
  return [
    median(rates[0].map((rate, k) => rate / rates[1][k])),
    `${median(rates[0]).toFixed(1)} frames a second on stage with nine variations, ${median(rates[1]).toFixed(1)} with the patch`,
  ];
}

/**
 * Measures large patches and variations in headless Chromium at 1280x800: what a visitor without a card gets, where the processor puts
 * the page together, which is the figure; and with SwiftShader in the place of a card for the page as well.
 */
export async function measurePatch(isWanted: (figure: string) => boolean, tell: Tell): Promise<void> {
  const wants = (figure: PatchFigure): boolean => isWanted(figure);
  if (!wants('patch200') && !wants('open500') && !wants('variations')) return;
  const text = readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8');
  const demo = { ...(JSON.parse(text) as Show), name: 'Bench Apiary' };
  const { server, address } = await listen(makeApp({ isKept: false }), 0);
  try {
    for (const renderer of renderers) {
      const window = await Window.open(address, 1280, 943, renderer);
      const say = (figure: PatchFigure, [value, about]: [number, string]): void =>
        tell(renderer === renderers[0] ? figure : `${figure}:${renderer}`, value, about);
      try {
        if (wants('patch200')) say('patch200', await patch200(window));
        if (wants('open500')) say('open500', await open500(window, address, demo));
        if (wants('variations')) say('variations', await variations(window, demo));
      } finally {
        await window.close();
      }
    }
  } finally {
    server.closeAllConnections();
    server.close();
  }
}
