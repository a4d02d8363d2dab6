import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { pieceNameOf } from '../../core/export/names';
import type { ExportPlan } from '../../core/export/schedule';
import { homeSpec, type ExportSpec } from '../../core/export/spec';
import { makeShow } from '../../core/show/create';
import type { ExportEvent, ExportOrder } from '../../engine/protocol/export';
import { catalogue } from '../../nodes/catalogue';
import { FakeTarget, installFakeBrowser } from '../testing/fake-browser';
import { FakeFolder, FakeLocks } from '../testing/fake-storage';

installFakeBrowser();
const locks = new FakeLocks();
const root = new FakeFolder();
Object.assign(navigator, { locks, storage: { getDirectory: () => Promise.resolve(root) } });

/** An engine that carries out orders as the test says. */
class FakeClient {
  static all: FakeClient[] = [];
  isClosed = false;
  private readonly said = new FakeTarget();

  constructor() {
    FakeClient.all.push(this);
  }
  on(type: string, listener: (message: never) => void): () => void {
    this.said.addEventListener(type, listener);
    return () => this.said.removeEventListener(type, listener);
  }
  set = (): void => undefined;
  giveFile = (): void => undefined;
  open(): void {
    queueMicrotask(() => this.said.fire('opened'));
  }
  request = (): Promise<{ plan: ExportPlan }> => Promise.resolve({ plan });
  send({ order }: { order: ExportOrder }): void {
    ordered.push(order);
    queueMicrotask(() => void carryOut(order, this));
  }
  tell(order: ExportOrder, event: ExportEvent): void {
    this.said.fire('export', { job: order.job, event });
  }
  close(): void {
    this.isClosed = true;
  }
}

const ordered: ExportOrder[] = [];
let carryOut: (order: ExportOrder, client: FakeClient) => unknown;
let inputs: () => Promise<void>;
jest.unstable_mockModule('../engine/client', () => ({ EngineClient: FakeClient, engine: () => null }));
jest.unstable_mockModule('../inputs/give-inputs', () => ({ giveInputs: () => inputs() }));
jest.unstable_mockModule('../parts/notices', () => ({ say: () => undefined }));
const queue = await import('./job-queue');
const { holdFolder } = await import('./job-files');
const { database } = await import('../data/db');

const show = makeShow(catalogue, 'Night');
const home = homeSpec(show, show.scenes[0]);
/** Three pieces of forty frames, but for the last. */
const plan: ExportPlan = { first: 0, count: 90, meets: null, remarks: [] };
const specOf = (name: string): ExportSpec => ({
  ...home,
  name,
  fps: 20,
  format: { ...home.format, sound: 'none' } as ExportSpec['format'],
});

/** What an engine does that nothing befalls. */
async function make(order: ExportOrder, client: FakeClient): Promise<void> {
  if (order.do === 'cancel') return;
  if (order.do === 'pieces' && order.sink.type === 'folder')
    for (const piece of order.pieces)
      await order.sink.folder.getFileHandle(pieceNameOf(piece), { create: true });
  if (order.do === 'recover') client.tell(order, { what: 'recorded', plan, dropped: 0 });
  client.tell(order, { what: 'done' });
}

async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 2));
}
const jobOf = (name: string) => database.jobs.filter(({ spec }) => spec.name === name).first();
const reached = (name: string, state: string): Promise<void> =>
  until(async () => (await jobOf(name))?.state === state);
const add = (name: string): Promise<void> => queue.addJob({ spec: specOf(name), show, goal: null });
const done = (): [string, string][] =>
  ordered.map((order) => [order.do, 'spec' in order ? order.spec.name : '']);
const folders = async (): Promise<string[]> =>
  [...(await root.getDirectoryHandle('exports', { create: true })).entries.keys()].sort();

beforeEach(async () => {
  await until(() => queue.runningStore.getState().running === null);
  await database.jobs.clear();
  root.entries.clear();
  ordered.length = FakeClient.all.length = 0;
  carryOut = make;
  inputs = () => Promise.resolve();
});

describe('exports in a queue', () => {
  test('are made one after the other, in the order in which they were asked for', async () => {
    await add('First');
    await add('Second');
    await reached('Second', 'done');
    expect(done()).toEqual([
      ['pieces', 'First'],
      ['join', 'First'],
      ['pieces', 'Second'],
      ['join', 'Second'],
    ]);
    expect((await jobOf('First'))!).toMatchObject({ state: 'done', frames: 90, plan });
    await until(() => FakeClient.all.every(({ isClosed }) => isClosed));
  });

  test('draw only the pieces that are not there', async () => {
    const exports = await root.getDirectoryHandle('exports', { create: true });
    const own = await exports.getDirectoryHandle('half', { create: true });
    await own.getFileHandle(pieceNameOf(1), { create: true });
    await queue.addJob({ id: 'half', spec: specOf('Half'), show, goal: null });
    await reached('Half', 'done');
    expect(ordered[0]).toMatchObject({ do: 'pieces', pieces: [0, 2] });
  });

  test('stop where they are paused, also by another window, and go on', async () => {
    carryOut = (order, client) => client.tell(order, { what: 'progress', frames: 47 });
    await add('Paused');
    await until(() => queue.runningStore.getState().running?.frames === 47);
    await queue.pauseJob((await jobOf('Paused'))!.id);
    await reached('Paused', 'paused');
    // As many as it was told of, however short a time ago.
    expect((await jobOf('Paused'))!.frames).toBe(47);
    expect(ordered.at(-1)!.do).toBe('cancel');
    await queue.resumeJob((await jobOf('Paused'))!);
    await until(() => ordered.length === 3);
    await database.jobs.toCollection().modify({ state: 'paused' });
    await until(() => ordered.at(-1)!.do === 'cancel');
    carryOut = make;
    await until(() => queue.runningStore.getState().running === null);
    await queue.resumeJob((await jobOf('Paused'))!);
    await reached('Paused', 'done');
  });

  test('go on with another engine where one was lost, but not for ever', async () => {
    let losses = 2;
    carryOut = (order, client) =>
      losses-- > 0
        ? client.tell(order, { what: 'failed', message: 'lost', frame: 3, isLost: true })
        : make(order, client);
    await add('Lost');
    await reached('Lost', 'done');
    expect(FakeClient.all).toHaveLength(3);
    losses = Infinity;
    await add('Lost again');
    await reached('Lost again', 'failed');
    expect((await jobOf('Lost again'))!.message).toMatch(/lost again and again/);
  });

  test('say which frame failed, and why', async () => {
    carryOut = (order, client) => client.tell(order, { what: 'failed', message: 'No disk.', frame: 7 });
    await add('Failed');
    await reached('Failed', 'failed');
    expect((await jobOf('Failed'))!.message).toBe('Frame 7: No disk.');
  });

  test('fail where an input cannot be read, and leave no engine behind', async () => {
    inputs = () => Promise.reject(new Error('This is no sound.'));
    await add('Deaf');
    await reached('Deaf', 'failed');
    expect((await jobOf('Deaf'))!.message).toBe('This is no sound.');
    expect(FakeClient.all.map(({ isClosed }) => isClosed)).toEqual([true]);
  });

  test('are forgotten with their pieces', async () => {
    await add('Gone');
    await reached('Gone', 'done');
    const { id } = (await jobOf('Gone'))!;
    expect(await folders()).toContain(id);
    await queue.removeJob(id);
    expect([await jobOf('Gone'), await folders()]).toEqual([undefined, []]);
  });
});

describe('when the app is opened', () => {
  test('what was under way goes on, and a recording is finished that no window holds', async () => {
    const keep = (id: string, state: 'running' | 'recording'): Promise<void> =>
      queue.keepJob({ id, spec: specOf(id), show, goal: null, state, isLive: state === 'recording' });
    await keep('drawn', 'running');
    await keep('cut-off', 'recording');
    await keep('held', 'recording');
    const letGo = await holdFolder('held');
    await queue.goOn();
    expect((await jobOf('drawn'))!.state).toBe('done');
    expect((await jobOf('cut-off'))!).toMatchObject({ state: 'done', message: queue.cutOff, frames: 90 });
    expect((await jobOf('held'))!.state).toBe('recording');
    letGo();
    await queue.goOn();
    expect((await jobOf('held'))!.state).toBe('done');
  });

  test('folders are removed that nothing belongs to, but for those that a window writes into', async () => {
    const exports = await root.getDirectoryHandle('exports', { create: true });
    for (const name of ['left', 'frozen', 'kept']) await exports.getDirectoryHandle(name, { create: true });
    await queue.keepJob({ id: 'kept', spec: specOf('Kept'), show, goal: null, state: 'done' });
    const letGo = await holdFolder('frozen');
    await queue.goOn();
    expect(await folders()).toEqual(['frozen', 'kept']);
    letGo();
    await queue.goOn();
    expect(await folders()).toEqual(['kept']);
  });
});
