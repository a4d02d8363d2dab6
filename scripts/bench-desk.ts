import { createSocket } from 'node:dgram';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Key } from 'selenium-webdriver';
import { rendererName, type Renderer } from '../bin/browser';
import { withEngine } from '../bin/render';
import { makeShow } from '../src/core/show/create';
import { sceneOutOf } from '../src/core/patch/plan';
import { addNode, connect } from '../src/core/show/edit';
import { bind, controlOf, putOnDesk } from '../src/core/show/edit-desk';
import { addPixelString } from '../src/core/show/edit-wall';
import type { PixelString, Scene, Show } from '../src/core/document/types';
import { median } from '../src/engine/bench/measure';
import { catalogue } from '../src/nodes/catalogue';
import { listen, makeApp } from '../src/server/server';
import { displayRate, openStage, percentile, settleMs, sleep, Window, type Tell } from './bench-window';

const root = path.resolve(import.meta.dirname, '..');
/** A scene that depends on nothing but its moment. */
const plain = 'Reed Fan';
/** The scene that plays while pointer events are timed: the heaviest. */
const heavy = 'Hedge Flight';

/** The scene whose outputs are counted. */
const shared = 'Pollen Drift';

/** Figures of the desk: real pages in headless Chromium. */
type DeskFigure =
  | 'exactFrame'
  | 'deskShare'
  | 'playShare'
  | 'stageShare'
  | 'emptyDesk'
  | 'inputLatency'
  | 'panLatency'
  | 'stageKept'
  | 'stageKeptSmall'
  | 'pixelJitter'
  | 'latency'
  | 'secondOutput'
  | 'recordCost';

const geometricMean = (values: readonly number[]): number =>
  Math.exp(values.reduce((sum, v) => sum + Math.log(v), 0) / values.length);

/** The engine without a desk, at 480x270, or at the size of the canvas. */
class Alone {
  private constructor(
    private readonly window: Window,
    private readonly show: Show,
  ) {}

  static async open(address: string, show: Show, renderer: Renderer): Promise<Alone> {
    const window = await Window.open(address, 400, 300, renderer);
    await window.driver.get(`${address}/bench.html`);
    await window.until('Boolean(window.pyrvelBench)');
    console.log(`# ${await rendererName(window.driver)}`);
    return new Alone(window, show);
  }

  close(): Promise<void> {
    return this.window.close();
  }

  /** Frames a second of a scene, no more than a display shows. `played`: those that it is played at, as `SceneOptions` says. */
  async rate(scene: Scene, isWhole: boolean, played?: number): Promise<number> {
    const { driver } = this.window;
    await driver.executeScript(
      'window.pyrvelBench.open(arguments[0], arguments[1], arguments[2])',
      scene.name,
      { ...this.show, scenes: [scene] },
      { ...(isWhole && { canvas: this.show.canvas }), ...(played && { rate: played }) },
    );
    const time = (frames: number): Promise<number> =>
      driver.executeScript('return window.pyrvelBench.time(arguments[0])', frames);
    await time(1);
    const frames = Math.max(2, Math.min(40, Math.round(900 / (await time(1)))));
    const times: number[] = [];
    for (let round = 0; round < 3; round++) times.push(await time(frames));
    return Math.min(displayRate, 1000 / median(times));
  }

  /** What a second screen of 1280x720 costs, as a share of the scene at that size. */
  async secondOutput(name: string): Promise<[number, string]> {
    const { driver } = this.window;
    const scene = this.show.scenes.find((one) => one.name === name)!;
    const times: [number[], number[], number[]] = [[], [], []];
    for (let round = 0; round < 5; round++)
      for (const screens of [0, 1, 2] as const) {
        await driver.executeScript(
          'window.pyrvelBench.open(arguments[0], arguments[1], arguments[2])',
          name,
          { ...this.show, scenes: [scene] },
          { canvas: { width: 1280, height: 720 }, screens },
        );
        times[screens].push(await driver.executeScript<number>('return window.pyrvelBench.time(6)'));
      }
    const [none, one, two] = times.map(median);
    return [
      median(times[0].map((ms, k) => (times[2][k] - times[1][k]) / ms)),
      `${none.toFixed(0)} ms without a screen, ${one.toFixed(0)} with one, ${two.toFixed(0)} with two`,
    ];
  }
}

/** Milliseconds, at the 95th percentile, by which pixels of a string leave earlier or later than evenly, while the patch is dragged. */
async function pixelJitter(window: Window): Promise<[number, string]> {
  const show = makeShow(catalogue, 'Even Pixels');
  show.canvas = { width: 320, height: 180, fps: 60 };
  addPixelString(show);
  const string = show.wall.outputs[0] as PixelString;
  Object.assign(string.send, { protocol: 'artnet', address: '127.0.0.88', rate: 60 });
  const node = createSocket('udp4');
  const times: number[] = [];
  node.on('message', () => times.push(performance.now()));
  node.bind(6454, '127.0.0.88');
  await window.bringShow(show);
  await window.rate();
  times.length = 0;
  await window.drag('.react-flow__pane', 0, 100);
  node.close();
  const gaps = times.slice(1).map((time, k) => time - times[k]);
  const usual = median(gaps);
  return [
    percentile(
      gaps.map((gap) => Math.abs(gap - usual)),
      0.95,
    ),
    `a packet each ${usual.toFixed(1)} ms, ${gaps.length} of them`,
  ];
}

/**
 * Frames a second of each scene in a view as a share of what the engine alone draws. The two are measured one right after the
 * other, since the machine may be twice as quick a minute later; the desk draws nothing while the engine is measured alone.
 */
async function share(
  window: Window,
  figure: DeskFigure,
  alone: Alone,
  { scenes }: Show,
  go: (scene: string) => Promise<void>,
  tell: Tell,
): Promise<void> {
  const shares: number[] = [];
  const evenShares: number[] = [];
  const rates: number[] = [];
  for (const scene of scenes) {
    await window.setHidden(true);
    const before = await alone.rate(scene, figure === 'stageShare');
    await window.setHidden(false);
    await go(scene.name);
    const rate = await window.rate();
    await window.setHidden(true);
    const most = (before + (await alone.rate(scene, figure === 'stageShare'))) / 2;
    const even = await alone.rate(scene, figure === 'stageShare', Math.max(1, rate));
    await window.setHidden(false);
    evenShares.push(rate / even);
    rates.push(rate);
    shares.push(rate / most);
    tell(`${figure}:${scene.name}`, rate / most, `${rate.toFixed(1)} of ${most.toFixed(1)} frames a second`);
  }
  const about = `least ${Math.min(...shares).toFixed(2)}; ${geometricMean(rates).toFixed(1)} frames a second (geometric means)`;
  tell(figure, geometricMean(shares), about);
  tell(`${figure}Even`, geometricMean(evenShares), `least ${Math.min(...evenShares).toFixed(2)}`);
}

const openScene = (window: Window, scene: string): Promise<void> =>
  window.click(`[role="tab"][data-scene="${scene}"]`);

/** Share of the frames on stage that go on while the editor's main thread is blocked for a second, over one in which it is not. */
async function stageKept(window: Window): Promise<[number, string]> {
  const { driver } = window;
  await window.click('[title="Where the time goes"]');
  const frames = (block: boolean): Promise<number> =>
    driver.executeAsyncScript<number>(
      `const [block, done] = arguments;
       const count = () => Number(document.querySelector('[data-testid="stage-frames"]').textContent);
       const onNext = (then) => { const seen = new MutationObserver(() => { seen.disconnect(); then(); });
         seen.observe(document.querySelector('[data-testid="stage-frames"]'), { characterData: true, subtree: true, childList: true }); };
       onNext(() => {
         const [first, start] = [count(), performance.now()];
         if (block) while (performance.now() - start < 1000);
         setTimeout(() => onNext(() => done(((count() - first) * 1000) / (performance.now() - start))), block ? 0 : 1000);
       });`,
      block,
    );
  const rounds: [number, number][] = [];
  for (let k = 0; k < 7; k++) rounds.push([await frames(true), await frames(false)]);
  const [blocked, free] = [0, 1].map((side) => median(rounds.map((pair) => pair[side])));
  return [
    median(rounds.map(([a, b]) => a / b)),
    `${blocked.toFixed(1)} frames a second on stage while blocked, ${free.toFixed(1)} while not`,
  ];
}

/** Frames a second with a stage open while the program is recorded / while it is not, in rounds that take turns. */
async function recordCost(window: Window): Promise<[number, string]> {
  const { driver } = window;
  const toggle = (isOn: boolean): Promise<void> =>
    driver
      .actions()
      .keyDown(Key.ALT)
      .sendKeys('r')
      .keyUp(Key.ALT)
      .perform()
      .then(() => window.until(`!!document.querySelector('nav [aria-label="Recording"]') === ${isOn}`));
  const rates: [number[], number[]] = [[], []];
  for (let round = 0; round < 4; round++) {
    rates[1].push(await window.rate());
    await toggle(true);
    rates[0].push(await window.rate());
    await toggle(false);
  }
  return [
    median(rates[0].map((rate, k) => rate / rates[1][k])),
    `${median(rates[0]).toFixed(1)} frames a second while recorded, ${median(rates[1]).toFixed(1)} while not`,
  ];
}

/** Time of frame 600 over that of frame 0 of a scene without a memory, each asked for afresh, in rounds that take turns. */
async function exactFrame(show: Show): Promise<[number, string]> {
  const scene = show.scenes.find(({ name }) => name === plain)!;
  const times: [number[], number[]] = [[], []];
  await withEngine({ ...show, scenes: [scene] }, new Map(), async (ask) => {
    const timed = async (frame: number, width: number): Promise<number> => {
      const start = performance.now();
      // Another size is another run: nothing is left over from the one before.
      await ask<string>(plain, 'frame', { scene: scene.id, node: null, frame, width, height: 360 });
      return performance.now() - start;
    };
    await timed(0, 640);
    for (let round = 0; round < 7; round++)
      for (const [side, frame] of [600, 0].entries())
        times[side].push(await timed(frame, 641 + 2 * round + side));
  });
  return [
    median(times[0].map((ms, k) => ms / times[1][k])),
    `${median(times[0]).toFixed(0)} / ${median(times[1]).toFixed(0)} ms at 640x360 (${plain})`,
  ];
}

/** A scene of one colour that a pad of the desk makes bright, and the key that is bound to the pad. */
function flashShow(): Show {
  const show = makeShow(catalogue, 'Flash');
  show.canvas = { width: 480, height: 270, fps: displayRate };
  const [scene] = show.scenes;
  const ground = addNode(scene, catalogue, 'fill', [0, 0]);
  scene.nodes[ground].controls.colour = [0, 0, 0.2, 1];
  const light = addNode(scene, catalogue, 'levels', [200, 0]);
  connect(scene, catalogue, ground, light, 'picture');
  connect(scene, catalogue, light, sceneOutOf(scene, catalogue)!, 'picture');
  const pad = putOnDesk(show, catalogue, { scene: scene.id, node: light, part: 'brightness' });
  Object.assign(controlOf(show, pad), { type: 'pad', range: [0, 0.7] });
  controlOf(show, pad).targets[0].to = [0, 0.7];
  bind(show, { type: 'key', code: 'KeyG' }, { type: 'desk', control: pad, from: 0 });
  return show;
}

/** From a key that is bound to the first changed frame of the program, over a frame of the scene and one of the display. */
async function latency(window: Window): Promise<[number, string]> {
  await window.bringShow(flashShow());
  await window.view('play');
  await window.until(`!!document.querySelector('[aria-label="Program"] canvas')`);
  await sleep(settleMs);
  const { times, frameMs } = await window.driver.executeAsyncScript<{ times: number[]; frameMs: number }>(`
    const done = arguments[0];
    const canvas = document.querySelector('[aria-label="Program"] canvas');
    const small = document.createElement('canvas');
    small.width = small.height = 1;
    const context = small.getContext('2d', { willReadFrequently: true });
    const light = () => {
      context.drawImage(canvas, 0, 0, canvas.width, canvas.height, 0, 0, 1, 1);
      return context.getImageData(0, 0, 1, 1).data[1];
    };
    const press = (down) =>
      window.dispatchEvent(new KeyboardEvent(down ? 'keydown' : 'keyup', { code: 'KeyG', key: 'g', bubbles: true }));
    const frames = [];
    let last = 0;
    (async () => {
      const times = [];
      const turn = () => new Promise((go) => requestAnimationFrame(go));
      for (let k = 0; k < 40; k++) {
        const down = k % 2 === 0;
        for (let n = 0; n < 20 + (k % 7); n++) {
          const now = await turn();
          if (last) frames.push(now - last);
          last = now;
        }
        const start = performance.now();
        press(down);
        while (down ? light() < 100 : light() > 100) await turn();
        times.push(performance.now() - start);
        last = 0;
      }
      frames.sort((a, b) => a - b);
      done({ times, frameMs: frames[frames.length >> 1] });
    })();`);
  const title = await window.driver.executeScript<string>(
    `return document.querySelector('[data-testid="fps"]').parentElement.title`,
  );
  const own = Number(/([\d.]+) ms a frame/.exec(title)?.[1] ?? 0);
  const most = own + Math.max(frameMs, 1000 / displayRate);
  return [
    median(times) / most,
    `median ${median(times).toFixed(1)} ms, 95th percentile ${percentile(times, 0.95).toFixed(1)} ms; a frame of the scene ${own.toFixed(1)} ms, of the display ${frameMs.toFixed(1)} ms`,
  ];
}

/** Measures the whole desk in headless Chromium at 1280x800. */
export async function measureDesk(
  isWanted: (figure: string) => boolean,
  renderer: Renderer,
  tell: Tell,
): Promise<void> {
  const whole = JSON.parse(readFileSync(path.join(root, 'demo/night-apiary.pyrvel.json'), 'utf8')) as Show;
  const wants = (figure: DeskFigure): boolean => isWanted(figure);
  if (wants('exactFrame')) tell('exactFrame', ...(await exactFrame(whole)));
  const onDesk = (
    [
      'deskShare',
      'playShare',
      'stageShare',
      'emptyDesk',
      'inputLatency',
      'panLatency',
      'stageKept',
      'stageKeptSmall',
      'pixelJitter',
      'latency',
      'secondOutput',
      'recordCost',
    ] as const
  ).some(wants);
  if (!onDesk) return;
  const { server, address } = await listen(makeApp({ isKept: false }), 0);
  if (wants('stageKeptSmall')) {
    const window = await Window.open(address, 1280, 943, renderer);
    await window.bringShow({ ...whole, name: 'Small Bench', canvas: { width: 320, height: 180, fps: 60 } });
    await openStage(window);
    tell('stageKeptSmall', ...(await stageKept(window)));
    await window.close();
  }
  const shares = (['deskShare', 'playShare', 'stageShare'] as const).filter(wants);
  const needsAlone = shares.length > 0 || wants('secondOutput');
  const show = { ...whole, name: 'Bench Apiary', transition: { ...whole.transition, length: 0 } };
  try {
    const alone = needsAlone ? await Alone.open(address, show, renderer) : null;
    if (alone && wants('secondOutput')) tell('secondOutput', ...(await alone.secondOutput(shared)));
    const window = await Window.open(address, 1280, 943, renderer);
    try {
      if (wants('emptyDesk')) {
        await window.bringShow(makeShow(catalogue, 'Empty'));
        const rate = await window.rate();
        tell('emptyDesk', rate / displayRate, `${rate.toFixed(1)} frames a second`);
      }
      if (wants('latency')) tell('latency', ...(await latency(window)));
      if (wants('pixelJitter')) tell('pixelJitter', ...(await pixelJitter(window)));
      await window.bringShow(show);
      if (alone && wants('deskShare'))
        await share(window, 'deskShare', alone, show, (scene) => openScene(window, scene), tell);
      if (wants('inputLatency') || wants('panLatency')) {
        await openScene(window, heavy);
        await window.rate();
        const timed = async (figure: DeskFigure, act: () => Promise<void>): Promise<void> => {
          if (!wants(figure)) return;
          const times = await window.latencies(act);
          tell(
            figure,
            percentile(times, 0.95),
            `median ${median(times).toFixed(1)} ms of ${times.length} events`,
          );
        };
        await timed('panLatency', () => window.drag('.react-flow__pane', 0, 100));
        await window.click('[data-kind="camera"] .truncate');
        await window.until('!!document.querySelector(`[data-testid="inspector"] [role="spinbutton"]`)');
        await timed('inputLatency', () => window.drag('[data-testid="inspector"] [role="spinbutton"]', 0, 0));
      }
      if (alone && wants('playShare')) {
        await window.view('play');
        await share(
          window,
          'playShare',
          alone,
          show,
          (scene) => window.click(`[data-scene-button="${scene}"] button`),
          tell,
        );
      }
      if (wants('recordCost')) {
        await openScene(window, shared);
        await openStage(window);
        await window.view('play');
        tell('recordCost', ...(await recordCost(window)));
        await window.bringShow(show);
      }
      if (wants('stageShare') || wants('stageKept')) {
        await window.view('build');
        await openScene(window, show.scenes[0].name);
        await openStage(window);
        if (wants('stageKept')) tell('stageKept', ...(await stageKept(window)));
        if (alone && wants('stageShare'))
          await share(window, 'stageShare', alone, show, (scene) => openScene(window, scene), tell);
      }
    } finally {
      await window.close();
      await alone?.close();
    }
  } finally {
    server.closeAllConnections();
    server.close();
  }
}
