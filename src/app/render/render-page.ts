import { toBase64 } from '../../core/base64';
import { readShow } from '../../core/show/validate';
import { catalogue } from '../../nodes/catalogue';
import { giveInputs } from '../inputs/give-inputs';
import { engine } from '../engine/client';
import type { DataRequest } from '../../core/export/data/data-request';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';
import type { ExportEvent, SoleOrder } from '../../engine/protocol/export';
import type { PreflightRequest } from '../../engine/protocol/preflight';
import type { EngineAnswer, FrameRequest } from '../../engine/protocol/protocol';

/** What the command line calls in this page: the real engine, asked for exact frames. */
export interface RenderPage {
  pyrvelRender: {
    /** `ids`: files of the show that can be fetched below that address. */
    open(text: string, address?: string, ids?: readonly string[]): Promise<void>;
    /** A frame as a PNG in base64. */
    frame(request: FrameRequest): Promise<string>;
    /** What Preflight asks of the engine; the answer is plain data. */
    preflight(request: PreflightRequest): Promise<EngineAnswer>;
    /** A field of a frame at places (x, y, z in turn): distance, red, green and blue of each. */
    field(request: FrameRequest, places: readonly number[]): Promise<number[]>;
    /** What a node gives as a file, in base64. */
    data(request: DataRequest): Promise<string>;
    plan(spec: ExportSpec): Promise<ExportPlan>;
    /** Begins an order of an export; how far it is stands in `orderState`. */
    order(order: SoleOrder): void;
    orderState: {
      frames: number;
      loop: ExportEvent | null;
      isDone: boolean;
      fault: { message: string; frame: number | null } | null;
    };
  };
}

const client = engine();
let orders = 0;
const nothingDone: RenderPage['pyrvelRender']['orderState'] = {
  frames: 0,
  loop: null,
  isDone: false,
  fault: null,
};

(window as unknown as RenderPage).pyrvelRender = {
  async open(text, address = '', ids = []) {
    const { show } = readShow(text, catalogue);
    const files = new Map<string, Blob>();
    for (const [id, { name, type }] of Object.entries(show.files)) {
      const found = ids.includes(id) ? await fetch(`${address}/${encodeURIComponent(id)}`) : null;
      if (found?.ok) files.set(id, new Blob([await found.arrayBuffer()], { type }));
      client.giveFile(id, name, files.get(id) ?? null);
    }
    const opened = new Promise<void>((resolve) => {
      const off = client.on('opened', () => {
        off();
        resolve();
      });
    });
    client.open(show, show.scenes[0].id);
    await opened;
    await giveInputs(client, show, files);
  },
  async field(request, places) {
    const { values } = await client.request({ type: 'field', request, places }, 600000);
    return [...values];
  },
  preflight(request) {
    return client.request(request, 600000);
  },
  async frame(request) {
    const { png } = await client.request({ type: 'frame', request }, 600000);
    return toBase64(new Uint8Array(png));
  },
  async data(request) {
    return toBase64((await client.request({ type: 'data', request }, 600000)).bytes);
  },
  async plan(spec) {
    return (await client.request({ type: 'export-plan', spec }, 600000)).plan;
  },
  order(order) {
    const job = `order-${++orders}`;
    const state = { ...nothingDone };
    this.orderState = state;
    const off = client.on('export', (message) => {
      if (message.job !== job) return;
      const { event } = message;
      if (event.what === 'progress') state.frames = event.frames;
      else if (event.what === 'loop') state.loop = event;
      else if (event.what === 'failed') state.fault = { message: event.message, frame: event.frame };
      state.isDone = event.what === 'done';
      if (state.isDone || state.fault) off();
    });
    client.send({ type: 'export', order: { ...order, job } });
  },
  orderState: nothingDone,
};
