import { execFileSync } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { By, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { devTools, startBrowser, type Renderer } from '../bin/browser';
import { makeShow } from '../src/core/show/create';
import { writeShow } from '../src/core/show/validate';
import type { Show } from '../src/core/document/types';
import { Sketch } from '../demo/sketch';
import { catalogue } from '../src/nodes/catalogue';
import { listen, makeApp } from '../src/server/server';
import { figuresOf, type PictureFigures } from './figures';

/** Milliseconds that a state is waited for: a machine that is busy with something else may take long. */
const patience = Number(process.env.PYRVEL_TEST_PATIENCE ?? 100000);
/** Milliseconds between two looks: most states are there at once, and what takes longer should not be slowed down by being asked for. */
const looks = { first: 15, most: 200, growth: 1.4 };

/** Looks again and again until there is something; gives it. Throws with `message` once the patience is over. */
async function waitFor<T>(look: () => Promise<T | null | false>, message: () => string): Promise<T> {
  const latest = performance.now() + patience;
  for (let ms = looks.first; ; ms = Math.min(looks.most, ms * looks.growth)) {
    const found = await look();
    if (found !== null && found !== false) return found;
    if (performance.now() > latest) throw new Error(`${message()} (for ${patience / 1000} s)`);
    await pause(ms);
  }
}

/** An empty show at the size that tests are drawn at. */
export function smallShow(name = 'Small'): Show {
  const show = makeShow(catalogue, name);
  // Half of what a display shows is enough to see what moves, and leaves the processors half of the time.
  show.canvas = { width: 320, height: 180, fps: 30 };
  show.transition.length = 0.5;
  return show;
}

/** A show of small scenes whose pictures move: stripes of light of one colour each that travel. */
export function movingShow(name: string, colours: Record<string, [number, number, number]>): Show {
  const show = smallShow(name);
  show.scenes = Object.entries(colours).map(([scene, [r, g, b]], k) => {
    const s = new Sketch(`s${k + 1}`, scene, [400, 0]);
    const light = s.add('gradient', 'Light', [0, 0], {
      ends: 'repeat',
      length: 0.5,
      colours: [
        { at: 0, colour: [r * 0.3, g * 0.3, b * 0.3, 1] },
        { at: 1, colour: [r, g, b, 1] },
      ],
    });
    s.formula(light, 'phase', 'time * 0.7');
    const levels = s.add('levels', 'Levels', [200, 0]);
    s.wire(light, levels, 'picture');
    s.wire(levels, s.out, 'picture');
    return s.scene;
  });
  return show;
}

/** Has the app take a browser for one that knows the first steps: tests are no newcomers, but those that say so. */
export async function knowTheSteps(driver: WebDriver, address: string): Promise<void> {
  await driver.get(`${address}/mark.svg`);
  await driver.executeScript(
    `localStorage.setItem('pyrvel-first-steps', JSON.stringify({ state: { at: null, isKnown: true }, version: 0 }))`,
  );
}

/**
 * Keeps what the page says at its edge, since hands last did something: a notice goes after five seconds, and a browser that is asked what it shows may
 * take longer to answer.
 */
const keepSaid = `
  window.said = [];
  for (const type of ['pointerdown', 'keydown']) addEventListener(type, () => (window.said = []), { capture: true });
  new MutationObserver((changes) => {
    for (const { addedNodes } of changes)
      for (const node of addedNodes)
        if (node.dataset?.notice) window.said.push({ tone: node.dataset.notice, text: node.innerText.trim() });
  }).observe(document, { childList: true, subtree: true });`;

/**
 * The place of a pointer in the middle of what is seen of an element, which is scrolled to; or why there is none. What has just opened may still move
 * aside: a click that comes to something else is kept from it.
 */
const middleOf = `
  const element = document.querySelector(arguments[0]);
  if (!element) return 'it is not there';
  const seen = () => {
    const box = [...element.getClientRects()].find(({ width, height }) => width > 0 && height > 0);
    if (!box) return null;
    const [left, right] = [Math.max(0, box.left), Math.min(innerWidth, box.right)];
    const [top, bottom] = [Math.max(0, box.top), Math.min(innerHeight, box.bottom)];
    return left < right && top < bottom ? [Math.floor((left + right) / 2), Math.floor((top + bottom) / 2)] : null;
  };
  const hit = (place) => place && document.elementFromPoint(...place);
  if (!element.contains(hit(seen()))) element.scrollIntoView({ block: 'center', inline: 'nearest', behavior: 'instant' });
  const there = hit(seen());
  if (!element.contains(there))
    return there ? 'it is covered by ' + there.outerHTML.slice(0, 120) : 'nothing of it is seen';
  let isHit = null;
  const types = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'];
  const end = () => types.forEach((type) => removeEventListener(type, guard, true));
  const guard = (event) => {
    if (event.type === 'pointerdown') isHit = element.contains(event.target);
    if (isHit) return end();
    event.stopImmediatePropagation();
    event.preventDefault();
  };
  types.forEach((type) => addEventListener(type, guard, true));
  window.wasMissed = () => (end(), isHit === false);
  return seen();`;

/** A browser whose pages keep what they say. */
async function start(options: Parameters<typeof startBrowser>[0]): Promise<WebDriver> {
  const driver = await startBrowser({ plainPages: true, ...options });
  await driver.manage().setTimeouts({ script: 60000 });
  await devTools(driver, 'Page.addScriptToEvaluateOnNewDocument', { source: keepSaid });
  return driver;
}

/** The real interface in a real browser, worked as a performer would: with pointer and keys. */
export class Desk {
  private constructor(
    readonly driver: WebDriver,
    readonly address: string,
    private closeServer: () => Promise<void>,
    private readonly dist: string | undefined,
  ) {}

  static async open(
    options: {
      devices?: boolean;
      unsigned?: boolean;
      internals?: boolean;
      renderer?: Renderer;
      /** False: pages lie with what draws, and are lost with it. */
      plainPages?: boolean;
      redis?: string;
      /** The built app, if it is not that of this tree. */
      dist?: string;
      /** The browser keeps the app, as it would: work that other tests need not wait for. */
      isKept?: boolean;
    } = {},
  ): Promise<Desk> {
    const { redis, dist, isKept = false } = options;
    const machines = { folder: null, host: '127.0.0.1', port: 0 };
    const { close, address } = await listen(makeApp({ redis, dist, machines, isKept }), 0);
    const driver = await start(options);
    const desk = new Desk(driver, address, close, dist);
    await knowTheSteps(driver, address);
    // Shows are brought in as files, so that the demo show need not be drawn in software first.
    await driver.get(`${address}/shows`);
    await desk.find('[data-show="Night Apiary"]');
    return desk;
  }

  /** Another browser at a server that is there already. */
  static async at(
    address: string,
    options: { profile?: string; binary?: string; unsigned?: boolean } = {},
  ): Promise<Desk> {
    return new Desk(await start(options), address, () => Promise.resolve(), undefined);
  }

  /** Puts fingers on the page that is open, moves them by a way in pixels of the page, and lifts them. */
  async touch(
    fingers: readonly { on: string; way: readonly [number, number] }[],
    beforeLift: () => Promise<void> = () => Promise.resolve(),
  ): Promise<void> {
    const places = await Promise.all(
      fingers.map(async ({ on }) => {
        const { x, y, width, height } = await (await this.find(on)).getRect();
        return [x + width / 2, y + height / 2] as const;
      }),
    );
    const send = (type: string, share: number | null): Promise<unknown> =>
      devTools(this.driver, 'Input.dispatchTouchEvent', {
        type,
        touchPoints:
          share === null
            ? []
            : fingers.map(({ way }, id) => ({
                id,
                x: places[id][0] + share * way[0],
                y: places[id][1] + share * way[1],
              })),
      });
    await send('touchStart', 0);
    for (let k = 1; k <= 5; k++) await send('touchMove', k / 5);
    await beforeLift();
    await send('touchEnd', null);
  }

  async close(): Promise<void> {
    await this.driver.quit();
    await this.closeServer();
  }

  /** Ends the server; gives what starts it again at the same address. */
  async stopServer(): Promise<() => Promise<void>> {
    await this.closeServer();
    return async () => {
      ({ close: this.closeServer } = await listen(
        makeApp({ dist: this.dist }),
        Number(new URL(this.address).port),
      ));
    };
  }

  /** Kills the process that draws for the browser, which starts another one. */
  async killDrawing(): Promise<void> {
    const { userDataDir } = (await this.driver.getCapabilities()).get('chrome') as { userDataDir: string };
    const all = execFileSync('ps', ['-eo', 'pid,ppid,args'], { encoding: 'utf8' })
      .split('\n')
      .map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line)?.slice(1) ?? ['', '', '']);
    const own = new Set(all.filter(([, , args]) => args.includes(userDataDir)).map(([pid]) => pid));
    const [pid] = all.find(([, parent, args]) => own.has(parent) && args.includes('--type=gpu-process'))!;
    process.kill(Number(pid), 'SIGKILL');
  }

  async find(selector: string): Promise<WebElement> {
    return waitFor(
      async () => (await this.driver.findElements(By.css(selector)))[0] ?? null,
      () => `nothing found for ${selector}`,
    );
  }

  /** Clicks the middle of an element, once a pointer there hits it: a driver's own click takes a quarter of a second. */
  async click(selector: string): Promise<void> {
    let why = '';
    await waitFor(
      async () => {
        const found = await this.driver.executeScript<[number, number] | string>(middleOf, selector);
        if (typeof found === 'string') {
          why = found;
          return false;
        }
        const [x, y] = found;
        await this.driver.actions({ async: true }).move({ x, y, duration: 0 }).click().perform();
        why = 'it moved away';
        // A page that was left meanwhile knows nothing of it, and a window that was closed says nothing.
        return !(await this.driver
          .executeScript<boolean>('return window.wasMissed?.() ?? false')
          .catch(() => false));
      },
      () => `could not click ${selector}: ${why}`,
    );
  }

  /**
   * Two clicks in the middle of an element, or so far from it, as one double-click however long the machine takes for each: a driver's own count by
   * the time between them.
   */
  async doubleClick(element: WebElement, by: { x: number; y: number } = { x: 0, y: 0 }): Promise<void> {
    const { x, y, width, height } = await element.getRect();
    const [left, top] = await this.driver.executeScript<[number, number]>('return [scrollX, scrollY]');
    const at = { x: x - left + width / 2 + by.x, y: y - top + height / 2 + by.y };
    const send = (type: string, more: object = {}): Promise<unknown> =>
      devTools(this.driver, 'Input.dispatchMouseEvent', { type, ...at, ...more });
    await send('mouseMoved');
    for (const clickCount of [1, 2]) {
      await send('mousePressed', { button: 'left', buttons: 1, clickCount });
      await send('mouseReleased', { button: 'left', clickCount });
    }
  }

  async text(selector: string): Promise<string> {
    return this.textOf(await this.find(selector));
  }

  /** What an element shows as text, asked of the page in one short script. */
  async textOf(element: WebElement): Promise<string> {
    return this.driver.executeScript<string>('return arguments[0].innerText.trim()', element);
  }

  /** Waits until what `look` gives satisfies `good`; gives it. */
  async until<T>(what: string, look: () => Promise<T>, good: (value: T) => boolean): Promise<T> {
    let last: T | undefined;
    await waitFor(
      async () => {
        try {
          last = await look();
        } catch (error) {
          if (/stale|no such element/i.test(String(error))) return false;
          throw error;
        }
        return good(last);
      },
      () => `waited for ${what}; last: ${(JSON.stringify(last) ?? '').slice(0, 200)}`,
    );
    return last as T;
  }

  /** Imports a show file through the Shows view. */
  async importText(text: string, file = 'test.pyrvel.json'): Promise<void> {
    await this.find('[data-testid="import"]');
    await this.driver.executeScript(
      `const [text, name] = arguments;
       const input = document.querySelector('[data-testid="import"]');
       const files = new DataTransfer();
       files.items.add(new File([text], name, { type: 'application/json' }));
       input.files = files.files;
       input.dispatchEvent(new Event('change', { bubbles: true }));`,
      text,
      file,
    );
  }

  async openShow(show: Show): Promise<void> {
    // The page is loaded again only where it is not the app, or something lies over it: that takes a second.
    const isApp = await this.driver.executeScript<boolean>(
      `return location.origin === arguments[0] && document.querySelector('[role="dialog"], dialog[open]') === null &&
         document.querySelector('nav a[href="/shows"]') !== null`,
      this.address,
    );
    if (isApp) await this.view('shows');
    else await this.driver.get(`${this.address}/shows`);
    await this.importText(writeShow(show));
    await this.click(`[data-show="${show.name}"] button`);
    await this.find('[data-testid="patch"]');
    await this.find('.react-flow__node');
  }

  async press(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  /** Puts the focus on an element, which is scrolled to, once it is there. */
  private async focus(selector: string): Promise<void> {
    await waitFor(
      () =>
        this.driver.executeScript<boolean>(
          `const element = document.querySelector(arguments[0]);
           element?.scrollIntoView({ block: 'center' });
           element?.focus();
           return element !== null && document.activeElement === element;`,
          selector,
        ),
      () => `could not focus ${selector}`,
    );
  }

  /** Writes over what the field with the focus holds, and hands it in. */
  private async writeOver(text: string): Promise<void> {
    await this.chord(Key.CONTROL, 'a');
    await this.press(text, Key.ENTER);
  }

  async chord(modifier: string, key: string): Promise<void> {
    await this.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
  }

  /** Goes to another view by the top bar. */
  async view(name: 'build' | 'play' | 'inputs' | 'shows'): Promise<void> {
    await this.click(`nav a[href="/${name}"]`);
  }

  /** Samples of the first lane on the bench, as its table shows them. */
  async benchLane(): Promise<number[]> {
    return this.driver.executeScript<number[]>(
      `return [...document.querySelectorAll('[data-testid="bench"] tbody tr')].map((row) => Number(row.cells[1].textContent))`,
    );
  }

  /** The numbers on the card of a node, as they are said to those who do not see it. */
  async caption(node: string): Promise<string> {
    return (
      (await (await this.find(`[data-node="${node}"] [data-testid="numbers"]`)).getAttribute('aria-label')) ??
      ''
    );
  }

  /** The live value of a control in the inspector. */
  async liveValue(part: string): Promise<number> {
    return parseFloat(await this.text(`[data-part="${part}"] [data-testid="live-value"]`));
  }

  /** Adds a node through the palette, found by what is typed. */
  async add(search: string, name: string): Promise<void> {
    await this.press('/');
    const input = await this.find('[cmdk-input]');
    await this.focus('[cmdk-input]');
    await this.press(search);
    const label = name.replace(/ \d+$/, '');
    await this.until(
      `${label} to be offered first`,
      () => this.text('[cmdk-item][data-selected="true"] .font-semibold'),
      (first) => first === label,
    );
    await this.press(Key.ENTER);
    await this.find(`[data-node="${name}"]`);
    await this.driver.wait(until.stalenessOf(input), patience);
  }

  async tidy(): Promise<void> {
    await this.click('[aria-label="Tidy"]');
    await this.find('[aria-label="Tidy"][aria-busy="false"]');
  }

  port(node: string, port: string): string {
    return `[data-node="${node}"] [data-port="${port}"]`;
  }

  /** Waits until the patch stands: it moves once more when its cards have been measured. */
  async patchStands(): Promise<void> {
    let before = '';
    await this.until(
      'the patch to stand',
      () =>
        this.driver.executeAsyncScript<string>(`
          const done = arguments[0];
          const now = () => [...document.querySelectorAll('.react-flow__viewport, .react-flow__node')].map((e) => e.style.transform).join();
          requestAnimationFrame(() => setTimeout(() => done(now()), 80));`),
      (now) => {
        const same = now === before && now.length > 0;
        before = now;
        return same;
      },
    );
  }

  /** Draws a wire from the output of a node to a port of another, or onto its card. */
  async wire(from: string, to: string, port?: string): Promise<void> {
    const start = await this.find(this.port(from, 'out'));
    const end = await this.find(port ? this.port(to, port) : `[data-node="${to}"]`);
    await this.driver
      .actions({ async: true })
      .move({ origin: start })
      .press()
      .move({ origin: end, x: 0, y: 0, duration: 120 })
      .move({ origin: end, x: 1, y: 1, duration: 60 })
      .release()
      .perform();
  }

  async wires(): Promise<number> {
    return (await this.driver.findElements(By.css('[data-wire]'))).length;
  }

  /** Draws a wire onto a card and chooses the control it is for. */
  async wireControl(from: string, to: string, control: string): Promise<void> {
    await this.wire(from, to);
    await this.click(`[data-choice="${control}"]`);
  }

  /** Clicks the ground of the patch, so that nothing is chosen. */
  async chooseNothing(): Promise<void> {
    const ground = await this.find('.react-flow__pane');
    const { width, height } = await ground.getRect();
    await this.driver
      .actions({ async: true })
      .move({ origin: ground, x: Math.round(40 - width / 2), y: Math.round(height / 2 - 40) })
      .click()
      .perform();
  }

  /** Clicks a card until it is chosen: a card that was just made again may miss a click. */
  async choose(node: string): Promise<void> {
    await this.until(
      `${node} in the inspector`,
      async () => {
        await this.click(`[data-node="${node}"] .truncate`);
        const [field] = await this.driver.findElements(By.css('[aria-label="Name of the node"]'));
        return field?.getAttribute('value');
      },
      (name) => name === node,
    );
  }

  /** Clicks the return wire until it is chosen. */
  async chooseReturn(): Promise<void> {
    await this.until(
      'the return wire in the inspector',
      async () => {
        await this.click('[data-return]');
        return (await this.driver.findElements(By.css('[data-testid="return-panel"]'))).length;
      },
      (panels) => panels === 1,
    );
  }

  /** Types a value into a number of the inspector. */
  async type(label: string, value: string, inside = '[data-testid="inspector"]'): Promise<void> {
    const field = `${inside} [role="spinbutton"][aria-label="${label}"]`;
    await this.focus(field);
    await this.press(Key.ENTER);
    await this.focus(`${inside} input[aria-label="${label}"]`);
    await this.writeOver(value);
    await this.find(field);
  }

  /** Types a text into a field of the inspector. */
  async fill(label: string, text: string, inside = '[data-testid="inspector"]'): Promise<void> {
    await this.focus(`${inside} input[aria-label="${label}"]`);
    await this.writeOver(text);
  }

  async select(label: string, option: string, inside = '[data-testid="inspector"]'): Promise<void> {
    const list = await this.find(`${inside} select[aria-label="${label}"]`);
    await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', list);
    // A list that was put up anew between the press and the choice has not heard it.
    for (let k = 0; k < 3; k++) {
      const again = await this.find(`${inside} select[aria-label="${label}"]`);
      await again.findElement(By.xpath(`./option[normalize-space(.)="${option}"]`)).click();
      const chosen = await this.driver
        .executeScript<string>('return arguments[0].selectedOptions[0]?.textContent.trim()', again)
        .catch(() => option);
      if (chosen === option) return;
    }
  }

  /** Figures of what is seen in this window, or in a part of it: x, y, width and height in pixels of the page. */
  async seen(box: readonly number[] | null = null): Promise<PictureFigures & { png: string }> {
    const [x, y, width, height] = box?.map(Math.round) ?? [];
    const { data: png } = await devTools<{ data: string }>(this.driver, 'Page.captureScreenshot', {
      format: 'png',
      optimizeForSpeed: true,
      ...(box && { clip: { x, y, width, height, scale: 1 } }),
    });
    return { ...figuresOf(png), png };
  }

  /** The place of what is seen of something that a script looks for, which gives an element or null. */
  private boxOf(find: string, ...args: readonly unknown[]): Promise<number[]> {
    return waitFor(
      () =>
        this.driver.executeScript<number[] | null>(
          `const element = (function () { ${find} }).apply(null, arguments);
           const { left, right, top, bottom } = element?.getBoundingClientRect() ?? {};
           const [x, y] = [Math.max(0, left), Math.max(0, top)];
           const [width, height] = [Math.min(innerWidth, right) - x, Math.min(innerHeight, bottom) - y];
           return width > 0 && height > 0 ? [x + scrollX, y + scrollY, width, height] : null;`,
          ...args,
        ),
      () => `nothing seen of ${args.join()}`,
    );
  }

  /** Figures of what a canvas shows on the screen. */
  async picture(selector = '[aria-label="Monitor"] canvas'): Promise<PictureFigures & { png: string }> {
    // The question over a dark monitor is no part of the picture. Of the canvas of an output only the part that its box shows is; and it may be
    // replaced at any time.
    const box = await this.boxOf(
      `for (const one of document.querySelectorAll('[data-testid="why-dark"]')) one.style.opacity = 0;
       const canvas = document.querySelector(arguments[0]);
       canvas?.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'instant' });
       return canvas?.dataset.output ? canvas.parentElement : canvas;`,
      selector,
    );
    const seen = await this.seen(box);
    await this.driver.executeScript(
      `for (const one of document.querySelectorAll('[data-testid="why-dark"]')) one.style.opacity = '';`,
    );
    return seen;
  }

  /** Figures of what is seen where an element lies, whatever that is made of. */
  async seenAt(selector: string): Promise<PictureFigures> {
    return this.seen(await this.boxOf('return document.querySelector(arguments[0])', selector));
  }

  /** Figures of a few pixels of this window around a place, given as shares from the top left. */
  async seenAround(x: number, y: number): Promise<PictureFigures> {
    const [width, height] = await this.driver.executeScript<[number, number]>(
      'return [innerWidth, innerHeight]',
    );
    return this.seen([x * width - 1, y * height - 1, 3, 3]);
  }

  /** Reads a pixel of the chosen node on the bench, in the middle of its picture. */
  async benchPixel(): Promise<number[]> {
    // The bench is made again for each node, and the pointer may have rested on the one before.
    return this.until(
      'a pixel',
      async () => {
        const picture = await this.find('[data-testid="bench-picture"]');
        await this.driver
          .actions({ async: true })
          .move({ origin: picture, x: -3, y: -3 })
          .move({ origin: picture })
          .perform();
        return this.driver.executeScript<number[]>(
          `return [...document.querySelectorAll('[data-channel]')].map((e) => Number(e.textContent))`,
        );
      },
      (values) => values.length === 4,
    );
  }

  /** Waits until the picture differs from what it is now, and is lit. */
  async moves(selector?: string): Promise<void> {
    const first = await this.until(
      'a picture',
      () => this.picture(selector),
      (p) => p.lit > 0.01,
    );
    await this.until(
      'movement',
      () => this.picture(selector),
      (p) => p.png !== first.png && p.lit > 0.01,
    );
  }

  /** Waits for a notice of that tone whose text contains `words`, or takes one that was there since hands last did something. */
  async notice(tone: 'info' | 'warning' | 'error', words: string): Promise<void> {
    await this.until(
      `a notice “${words}”`,
      () =>
        this.driver.executeScript<string[]>(
          `const [tone, words] = arguments;
           const said = window.said ?? [];
           const isMeant = (one) => one.tone === tone && one.text.includes(words);
           if (said.some(isMeant)) window.said = said.filter((one) => !isMeant(one));
           const shown = [...document.querySelectorAll('[data-notice]')];
           return [...said, ...shown.map((e) => ({ tone: e.dataset.notice, text: e.innerText.trim() }))]
             .filter((one) => one.tone === tone)
             .map(({ text }) => text);`,
          tone,
          words,
        ),
      (texts) => texts.some((text) => text.includes(words)),
    );
  }

  async play(): Promise<void> {
    await this.click('[aria-label="Play"]');
    await this.find('[aria-label="Pause"]');
  }

  async pause(): Promise<void> {
    await this.click('[aria-label="Pause"]');
    await this.find('[aria-label="Play"]');
  }
}
