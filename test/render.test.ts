import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { renderFrames } from '../bin/render';
import { writeShow } from '../src/core/show/validate';
import { movingShow } from './desk';

jest.setTimeout(120000);
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-render-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function frames(name: string, options: Record<string, string>): Promise<Map<string, Buffer>> {
  const show = movingShow('Rendered', { Amber: [1, 0.6, 0.1] });
  const out = path.join(folder, name);
  const all = new Map(Object.entries({ scene: 'Amber', size: '64x36', ...options, out }));
  await renderFrames(writeShow(show), show, new Map(), all, () => undefined);
  return new Map(readdirSync(out).map((file) => [file, readFileSync(path.join(out, file))]));
}

test('render writes the same frames every time, one file each', async () => {
  const once = await frames('once', { frames: '3..5' });
  const again = await frames('again', { frames: '3..5' });
  expect([...once.keys()]).toEqual(['frame-00003.png', 'frame-00004.png', 'frame-00005.png']);
  for (const [file, picture] of once) expect(picture.equals(again.get(file)!)).toBe(true);
  expect(once.get('frame-00003.png')!.equals(once.get('frame-00005.png')!)).toBe(false);
  const png = once.get('frame-00003.png')!;
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([64, 36]);
});

test('render draws a single node, and says what it does not know', async () => {
  const node = await frames('node', { frames: '0', node: 'Light' });
  expect(node.size).toBe(1);
  await expect(frames('none', { frames: '0', node: 'Nobody' })).rejects.toThrow(/Nobody/);
});
