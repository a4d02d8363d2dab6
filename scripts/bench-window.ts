import { By, type WebDriver } from 'selenium-webdriver';
import { startBrowser, type Renderer } from '../bin/browser';
import { writeShow } from '../src/core/show/validate';
import type { Show } from '../src/core/document/types';
import { knowTheSteps } from '../test/desk';

/** Frames a second that a display shows here, and a show asks for. */
export const displayRate = 60;
/** Milliseconds that frames are counted for, and those before, in which shaders are compiled and panels settle. */
const countMs = 5000;
export const settleMs = 2500;
const patience = 120000;

/** A value that was measured, and what was measured on the way. */
export type Tell = (name: string, value: number, about: string) => void;

export const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

export const percentile = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
};

/** A browser window of 1280x800 with the app, worked by its real interface. */
export class Window {
  private constructor(
    readonly driver: WebDriver,
    private readonly address: string,
  ) {}

  /** `profile`: a folder in which the browser keeps what it keeps, and by which its processes are known. */
  static async open(
    address: string,
    width = 1280,
    height = 943,
    renderer?: Renderer,
    profile?: string,
  ): Promise<Window> {
    const driver = await startBrowser({ width, height, renderer, profile });
    await driver.manage().setTimeouts({ script: 600000 });
    await knowTheSteps(driver, address);
    return new Window(driver, address);
  }

  async close(): Promise<void> {
    await this.driver.quit();
  }

  async until(script: string): Promise<void> {
    await this.driver.wait(() => this.driver.executeScript<boolean>(`return ${script}`), patience, script);
  }

  async click(selector: string): Promise<void> {
    await this.driver.wait(
      () =>
        this.driver
          .findElement(By.css(selector))
          .click()
          .then(
            () => true,
            () => false,
          ),
      patience,
      `could not click ${selector}`,
    );
  }

  async bringShow(show: Show): Promise<void> {
    await this.driver.get(`${this.address}/shows`);
    await this.until('!!document.querySelector(`[data-testid="import"]`)');
    await this.driver.executeScript(
      `const input = document.querySelector('[data-testid="import"]');
       const files = new DataTransfer();
       files.items.add(new File([arguments[0]], 'bench.pyrvel.json', { type: 'application/json' }));
       input.files = files.files;
       input.dispatchEvent(new Event('change', { bubbles: true }));`,
      writeShow(show),
    );
    await this.click(`[data-show="${show.name}"] button`);
    // A quarter of the canvas, the size at which the engine alone is measured.
    await this.click('select[aria-label="Work size"] option[value="0.25"]');
  }

  async view(name: 'build' | 'play'): Promise<void> {
    await this.click(`nav a[href="/${name}"]`);
  }

  /** Says that the window is out of sight, so that it draws nothing; or back. */
  async setHidden(hidden: boolean): Promise<void> {
    await this.driver.executeScript(
      `Object.defineProperty(document, 'hidden', { value: arguments[0], configurable: true });
       document.dispatchEvent(new Event('visibilitychange'));`,
      hidden,
    );
  }

  /** Frames that the engine drew so far, as its next report says, and when the page had that. */
  private framesNow(): Promise<[number, number]> {
    return this.driver.executeAsyncScript<[number, number]>(`
      const done = arguments[0];
      const meter = document.querySelector('[data-testid="fps"]');
      const tell = () => { seen.disconnect(); done([Number(meter.dataset.frames), performance.now()]); };
      const seen = new MutationObserver(tell);
      seen.observe(meter, { attributes: true });
      setTimeout(tell, 10000);`);
  }

  /** Frames a second, counted from one report to a later one. */
  async rate(): Promise<number> {
    await this.until('Number(document.querySelector(`[data-testid="fps"]`)?.dataset.frames) > 3');
    await sleep(settleMs);
    const [first, start] = await this.framesNow();
    await sleep(countMs);
    const [last, end] = await this.framesNow();
    return ((last - first) * 1000) / (end - start);
  }

  /** Milliseconds from each pointer event to the end of the frame in which the page answered it, while `act` moves the pointer. */
  async latencies(act: () => Promise<void>): Promise<number[]> {
    await this.driver.executeScript(`
      const channel = new MessageChannel();
      let open = [];
      window.pyrvelLatencies = [];
      // The message is taken after the frame was painted.
      channel.port1.onmessage = () => {
        const now = performance.now();
        window.pyrvelLatencies.push(...open.map((at) => now - at));
        open = [];
      };
      window.pyrvelListen = (event) => {
        if (open.push(event.timeStamp) === 1) requestAnimationFrame(() => channel.port2.postMessage(null));
      };
      addEventListener('pointermove', window.pyrvelListen, { capture: true });`);
    await act();
    await sleep(1000);
    return this.driver.executeScript<number[]>(
      `removeEventListener('pointermove', window.pyrvelListen, { capture: true }); return window.pyrvelLatencies`,
    );
  }

  /** Drags an element to and fro from a place in it, given from its middle. */
  async drag(selector: string, x: number, y: number): Promise<void> {
    const origin = await this.driver.findElement(By.css(selector));
    const hand = this.driver.actions({ async: true }).move({ origin, x, y }).press();
    for (let k = 1; k <= 60; k++)
      hand.move({
        origin,
        x: x + Math.round(60 * Math.sin(k / 6)),
        y: y + Math.round(20 * Math.sin(k / 4)),
        duration: 30,
      });
    await hand.release().perform();
  }
}

export async function openStage({ driver }: Window): Promise<void> {
  const before = await driver.getWindowHandle();
  await driver.findElement(By.css('[aria-label="Stage"] .btn-primary')).click();
  await driver.wait(async () => (await driver.getAllWindowHandles()).length === 2, patience);
  const stage = (await driver.getAllWindowHandles()).find((handle) => handle !== before)!;
  await driver.switchTo().window(stage);
  await driver.manage().window().setRect({ width: 1280, height: 720 });
  await driver.switchTo().window(before);
}
