import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { makeShow } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import type { MediaLibrary } from '../media/library';
import type { ExportEvent, ExportOrder } from '../protocol/export';
import { Exporter } from './exporter';
import type { ExportMeans } from './export-run';

const before = Object.getOwnPropertyDescriptor(globalThis, 'navigator');
beforeAll(() => {
  Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency: 2 }, configurable: true });
});
afterAll(() => {
  if (before) Object.defineProperty(globalThis, 'navigator', before);
  else Reflect.deleteProperty(globalThis, 'navigator');
});

/** What the page is told of an order that cannot be carried out. */
function told(isLost: boolean): Promise<ExportEvent> {
  return new Promise((resolve) => {
    const exporter = new Exporter((_, event) => resolve(event), {} as MediaLibrary);
    const order = { do: 'pieces', job: 'j', spec: { name: '' } } as unknown as ExportOrder;
    exporter.take(order, makeShow(catalogue, 'Night'), { gpu: { isLost } } as ExportMeans);
  });
}

test('an order that cannot be carried out says why', async () => {
  const event = await told(false);
  expect(event).toMatchObject({ what: 'failed', frame: null });
  expect(event).not.toHaveProperty('isLost');
  expect(event).toHaveProperty('message', expect.stringMatching(/[a-z]\.$/));
});

test('one that broke off with the graphics card says that another engine can go on', async () => {
  expect(await told(true)).toEqual({
    what: 'failed',
    message: 'The graphics card was lost.',
    frame: null,
    isLost: true,
  });
});
