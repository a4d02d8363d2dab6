import type { Server } from 'node:http';
import type { WebDriver } from 'selenium-webdriver';
import { startBrowser } from '../bin/browser';
import { Sketch } from '../demo/sketch';
import type { FlashProbeAnswer, FlashProbeRequest } from '../src/engine/probe/flash-probe';
import type { ProbeAnswer, ProbePage, ProbeRequest } from '../src/engine/probe/probe-page';
import type { ControlValue, Scene } from '../src/core/document/types';
import { listen, makeApp } from '../src/server/server';

export type Pixel = readonly [number, number, number, number];

/** What came of a probe, with its pixels by place. */
export class Seen {
  readonly answer: Omit<ProbeAnswer, 'pixels'> & { pixels: Float32Array };

  constructor(answer: ProbeAnswer) {
    const bytes = Buffer.from(answer.pixels, 'base64');
    this.answer = {
      ...answer,
      pixels: new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength)),
    };
  }

  /** The pixel at a place 0..1 from the lower left. */
  at(x: number, y: number): Pixel {
    const { width, height, pixels } = this.answer;
    const px = Math.min(width - 1, Math.floor(x * width));
    const py = Math.min(height - 1, Math.floor(y * height));
    const from = 4 * (py * width + px);
    return [...pixels.subarray(from, from + 4)] as unknown as Pixel;
  }

  /** Mean of a channel over the whole picture. */
  mean(channel: number): number {
    const { pixels } = this.answer;
    let sum = 0;
    for (let k = channel; k < pixels.length; k += 4) sum += pixels[k];
    return sum / (pixels.length / 4);
  }

  /** Share of pixels whose channel is above a level. */
  share(channel: number, level: number): number {
    const { pixels } = this.answer;
    let found = 0;
    for (let k = channel; k < pixels.length; k += 4) if (pixels[k] > level) found++;
    return found / (pixels.length / 4);
  }

  /** Largest difference from another picture of the same size. */
  apartFrom(other: Seen): number {
    let most = 0;
    this.answer.pixels.forEach((v, k) => (most = Math.max(most, Math.abs(v - other.answer.pixels[k]))));
    return most;
  }
}

/** The engine in a page of its own, asked in numbers. */
export class Probe {
  private constructor(
    private readonly driver: WebDriver,
    private readonly server: Server,
  ) {}

  static async open(): Promise<Probe> {
    const { server, address } = await listen(makeApp({ isKept: false }), 0);
    const driver = await startBrowser({ width: 400, height: 300 });
    await driver.manage().setTimeouts({ script: 300000 });
    await driver.get(`${address}/probe.html`);
    await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelProbe)'), 20000);
    return new Probe(driver, server);
  }

  async close(): Promise<void> {
    await this.driver.quit();
    this.server.closeAllConnections();
    await new Promise((resolve) => this.server.close(resolve));
  }

  async ask(request: Partial<ProbeRequest> & { scene: Scene; node: string }): Promise<Seen> {
    const whole: ProbeRequest = { width: 160, height: 90, frames: 1, fps: 60, ...request };
    return new Seen(await this.call<ProbeAnswer>('pyrvelProbe', whole));
  }

  /** Plays a made clip past the flash meter and the limiter. */
  flashes(request: FlashProbeRequest): Promise<FlashProbeAnswer> {
    return this.call('pyrvelFlashes', request);
  }

  private async call<T>(name: keyof ProbePage, request: object): Promise<T> {
    const { answer, error } = await this.driver.executeAsyncScript<{ answer?: T; error?: string }>(
      'const [name, request, done] = arguments; window[name](request).then((answer) => done({ answer }), (e) => done({ error: e.message }));',
      name,
      request,
    );
    if (!answer) throw new Error(error);
    return answer;
  }
}

/** One node of a kind, with something wired into its inputs, read at 32 bits. */
export class Case {
  readonly sketch = new Sketch('s1', 'Case', [800, 0]);
  readonly node: string;

  constructor(
    kind: string,
    controls: Record<string, ControlValue> = {},
    more: { size?: [number, number] } = {},
  ) {
    this.node = this.sketch.add(kind, 'Case', [400, 0], controls, { precision: '32', ...more });
    this.sketch.wire(this.node, this.sketch.out, 'picture');
  }

  /** Wires another node into an input. */
  with(port: string, kind: string, controls: Record<string, ControlValue> = {}): this {
    const from = this.sketch.add(kind, `${port} ${kind}`, [0, 0], controls, { precision: '32' });
    this.sketch.wire(from, this.node, port);
    return this;
  }

  get scene(): Scene {
    return this.sketch.scene;
  }
}
