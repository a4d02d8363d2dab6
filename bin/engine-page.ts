import { randomBytes } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import express from 'express';
import type { WebDriver } from 'selenium-webdriver';
import type { ExportPlan } from '../src/core/export/schedule';
import type { ExportSpec } from '../src/core/export/spec';
import type { Show } from '../src/core/document/types';
import { writeShow } from '../src/core/show/validate';
import type { ExportEvent, SoleOrder } from '../src/engine/protocol/export';
import { listen, makeApp } from '../src/server/server';
import { UsageError } from './arguments';
import { startBrowser, type Renderer } from './browser';

/** Milliseconds between two looks at how far an order is. */
const lookMs = 200;

/** What became of an order so far. */
export interface OrderState {
  frames: number;
  loop: Extract<ExportEvent, { what: 'loop' }> | null;
  isDone: boolean;
  fault: { message: string; frame: number | null } | null;
}

type WithoutSink<T> = T extends unknown ? Omit<T, 'sink' | 'checkpoints'> : never;
/** An order whose pieces go where those of the page go. */
type PageOrder = WithoutSink<SoleOrder>;

/** What the engine could not do in its browser: said as it is, with the frame it was at. */
export class EngineFault extends Error {
  override name = 'EngineFault';
}

interface PageOptions {
  renderer?: Renderer;
  /** Folder for pieces of exports; a piece appears there when it is whole. */
  pieces?: string;
}

/** The real engine in headless Chromium, with a show open in it. */
export class EnginePage {
  private constructor(
    private readonly driver: WebDriver,
    private readonly stop: () => Promise<void>,
    private readonly address: string,
  ) {}

  /** Starts a browser and opens a show in it; `files`: bytes of those of the show, by id. */
  static async open(
    show: Show,
    files: ReadonlyMap<string, Uint8Array>,
    { renderer, pieces }: PageOptions = {},
  ): Promise<EnginePage> {
    const app = express();
    // Nobody else on this machine can guess where files lie and pieces are taken.
    const secret = `/${randomBytes(16).toString('hex')}`;
    app.get(`${secret}/files/:id`, (request, response) => {
      const bytes = files.get(request.params.id);
      if (bytes) response.type('application/octet-stream').send(Buffer.from(bytes));
      else response.sendStatus(404);
    });
    app.get(`${secret}/pieces/:name`, (request, response) => {
      const { name } = request.params;
      if (!pieces || !/^[\w-]+$/.test(name)) return void response.sendStatus(400);
      response.sendFile(path.join(path.resolve(pieces), name), (error) => {
        if (error && !response.headersSent) response.sendStatus(404);
      });
    });
    app.put(
      `${secret}/pieces/:name`,
      express.raw({ type: () => true, limit: '2gb' }),
      (request, response) => {
        const { name } = request.params;
        if (!pieces || !/^[\w.-]+$/.test(name)) return void response.sendStatus(400);
        const body = request.body as Buffer;
        takePiece(pieces, name, body).then(
          () => void response.sendStatus(204),
          (error: NodeJS.ErrnoException) =>
            void response
              .status(error.code === 'ENOSPC' ? 507 : 500)
              .type('text/plain')
              .send(error.code === 'ENOSPC' ? 'There is no space left on the disk.' : error.message),
        );
      },
    );
    app.use(makeApp());
    const { close, address } = await listen(app, 0);
    const driver = await startBrowser({ width: 320, height: 240, renderer });
    const page = new EnginePage(driver, close, address + secret);
    try {
      await driver.manage().setTimeouts({ script: 900000 });
      await driver.get(`${address}/render.html`);
      await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelRender)'), 20000);
      await page.ask('The show', 'open', writeShow(show), `${secret}/files`, [...files.keys()]);
    } catch (error) {
      await page.close();
      throw error;
    }
    return page;
  }

  /** Asks the page of the engine to do something; `what` begins the sentence if it can't. */
  async ask<T>(what: string, method: string, ...args: unknown[]): Promise<T> {
    const answer = await this.driver.executeAsyncScript<{ value?: T; error?: string }>(
      'const [method, args, done] = arguments; window.pyrvelRender[method](...args).then((value) => done({ value }), (e) => done({ error: e.message }));',
      method,
      args,
    );
    if (answer.error !== undefined) throw new UsageError(`${what}: ${answer.error}`);
    return answer.value as T;
  }

  /** Frames of an export; throws UsageError if it cannot be made. */
  plan = (spec: ExportSpec): Promise<ExportPlan> => this.ask('This export', 'plan', spec);

  /** Has an order carried out; `seen` is told how far it is. Throws EngineFault. */
  async order(order: PageOrder, seen: (state: OrderState) => void = () => undefined): Promise<OrderState> {
    const sink = { type: 'address', address: `${this.address}/pieces` } as const;
    const whole: SoleOrder =
      order.do === 'pieces' ? { ...order, sink, checkpoints: sink } : { ...order, sink };
    await this.driver.executeScript('window.pyrvelRender.order(arguments[0])', whole);
    for (;;) {
      const state = await this.driver.executeScript<OrderState>('return window.pyrvelRender.orderState');
      seen(state);
      if (state.fault) {
        const { message, frame } = state.fault;
        throw new EngineFault(frame === null ? message : `Frame ${frame}: ${message}`);
      }
      if (state.isDone) return state;
      await new Promise((resolve) => setTimeout(resolve, lookMs));
    }
  }

  async close(): Promise<void> {
    await this.driver.quit().catch(() => undefined);
    await this.stop();
  }
}

/** Puts a piece into a folder; it appears there when it is whole. */
export async function takePiece(folder: string, name: string, bytes: Buffer): Promise<void> {
  await mkdir(folder, { recursive: true });
  const file = path.join(folder, name);
  await writeFile(`${file}.part`, bytes);
  await rename(`${file}.part`, file);
}
