import { randomBytes } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import express, { Router, type Response } from 'express';
import type { FarmOrderState, FarmPart, FarmState } from '../../core/export/farm';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';
import type { FarmOrder } from './farm-order';

/** Bytes of a show with its files, and of a checkpoint. */
const largest = '2gb';
/** Milliseconds after which an export that no page asks for is given up: the page is gone, and makes it again when it comes back. */
const longestSilenceMs = 60000;

interface Order {
  spec: ExportSpec;
  plan: ExportPlan;
  farm: FarmOrder | null;
  folder: string;
  checkpoints: Map<number, Buffer>;
  state: Pick<FarmOrderState, 'frames' | 'said' | 'fault'>;
  pieces: Set<string>;
  heard: number;
}

const refuse = (response: Response, status: number, sentence: string): void =>
  void response.status(status).type('text/plain').send(sentence);

/** Lets pages of the app export on a farm. `url`: its Redis; null: there is none. */
export function farmRouter(url: string | null): Router {
  const router = Router();
  const orders = new Map<string, Order>();
  const bytes = express.raw({ type: () => true, limit: largest });

  const drop = async (id: string): Promise<void> => {
    const order = orders.get(id);
    orders.delete(id);
    await order?.farm?.close();
    if (order) await rm(order.folder, { recursive: true, force: true });
  };
  setInterval(() => {
    for (const [id, { heard }] of orders) if (Date.now() - heard > longestSilenceMs) void drop(id);
  }, 5000).unref();

  /** The order of a request; answers it where there is none. */
  const orderOf = (id: string, response: Response): Order | null => {
    const order = orders.get(id) ?? null;
    if (order) order.heard = Date.now();
    else refuse(response, 404, 'This export is not on the farm any more.');
    return order;
  };

  router.get('/', async (_request, response) => {
    const state: FarmState = { workers: null, fault: null };
    if (url) {
      const { FarmError, queueName, connect } = await import('./redis');
      const { Queue } = await import('bullmq');
      try {
        const redis = await connect(url);
        const queue = new Queue(await queueName(), { connection: redis });
        state.workers = (await queue.getWorkers()).length;
        await queue.close();
        redis.disconnect();
      } catch (error) {
        if (!(error instanceof FarmError)) throw error;
        state.fault = error.message;
      }
    }
    response.json(state);
  });

  router.post('/orders', express.json(), async (request, response) => {
    if (!url) return refuse(response, 409, 'No farm is set up here. Start Pyrvel with PYRVEL_REDIS.');
    const { spec, plan } = request.body as { spec: ExportSpec; plan: ExportPlan };
    const id = randomBytes(12).toString('hex');
    const folder = await mkdtemp(path.join(os.tmpdir(), 'pyrvel-order-'));
    const state = { frames: 0, said: '', fault: null };
    const pieces = new Set<string>();
    orders.set(id, {
      spec,
      plan,
      farm: null,
      folder,
      checkpoints: new Map(),
      state,
      pieces,
      heard: Date.now(),
    });
    response.json({ order: id });
  });

  router.put('/orders/:id/show', bytes, async (request, response) => {
    const order = orderOf(String(request.params.id), response);
    if (!order || !url) return;
    const { FarmOrder } = await import('./farm-order');
    const { FarmError } = await import('./redis');
    const { state, pieces, folder, spec, plan } = order;
    try {
      order.farm = await FarmOrder.begin(url, request.body as Buffer, spec, plan, {
        frames: (count) => {
          state.frames += count;
          state.said = '';
        },
        piece: async (name, piece) => {
          await writeFile(path.join(folder, name), piece);
          pieces.add(name);
        },
        fault: ({ message }) => void (state.fault = message),
        say: (line) => void (state.said = line),
      });
      response.sendStatus(204);
    } catch (error) {
      if (!(error instanceof FarmError)) throw error;
      refuse(response, 502, error.message);
    }
  });

  router.put('/orders/:id/checkpoints/:frame', bytes, (request, response) => {
    const order = orderOf(String(request.params.id), response);
    if (!order) return;
    order.checkpoints.set(Number(request.params.frame), request.body as Buffer);
    response.sendStatus(204);
  });

  router.post('/orders/:id/parts', express.json(), async (request, response) => {
    const order = orderOf(String(request.params.id), response);
    if (!order) return;
    if (!order.farm) return refuse(response, 409, 'The show comes first.');
    const part = request.body as FarmPart;
    const checkpoint = part.checkpoint === null ? undefined : order.checkpoints.get(part.checkpoint);
    if (part.checkpoint !== null) order.checkpoints.delete(part.checkpoint);
    await order.farm.add(part, checkpoint ?? null);
    response.sendStatus(204);
  });

  router.get('/orders/:id', (request, response) => {
    const order = orderOf(String(request.params.id), response);
    if (!order) return;
    const state: FarmOrderState = {
      ...order.state,
      pieces: [...order.pieces],
      waiting: order.farm?.waiting ?? 0,
    };
    response.json(state);
  });

  router.get('/orders/:id/pieces/:name', async (request, response) => {
    const order = orderOf(String(request.params.id), response);
    if (!order) return;
    const { name } = request.params;
    if (!order.pieces.has(name)) return refuse(response, 404, 'This piece is not there.');
    const file = path.join(order.folder, name);
    response.type('application/octet-stream').send(await readFile(file));
    order.pieces.delete(name);
    await rm(file);
  });

  router.delete('/orders/:id', async (request, response) => {
    await drop(request.params.id);
    response.sendStatus(204);
  });
  return router;
}
