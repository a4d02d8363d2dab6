import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { Options } from '../bin/arguments';
import { renderFrames } from '../bin/render';
import { movingShow } from './desk';

jest.setTimeout(400000);
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-render-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function frames(
  name: string,
  options: Record<string, string | string[]>,
): Promise<Map<string, Buffer>> {
  const show = movingShow('Rendered', { Amber: [1, 0.6, 0.1], Blue: [0.1, 0.3, 1] });
  const out = path.join(folder, name);
  const all = Options.of({ scene: 'Amber', size: '64x36', ...options, out });
  await renderFrames(show, new Map(), all, () => undefined);
  const files = readdirSync(out, { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith('.png'),
  );
  return new Map(files.map((file) => [file, readFileSync(path.join(out, file))]));
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

test('several scenes, nodes and frames come from one call, at any frame rate', async () => {
  const all = await frames('all', {
    scene: ['Amber', 'Blue'],
    node: ['Light', 'Levels'],
    frames: '0,4',
    fps: '30',
  });
  const names = ['Amber', 'Blue'].flatMap((scene) =>
    ['Levels', 'Light'].flatMap((node) =>
      ['00000', '00004'].map((frame) => `${scene}/${node}/frame-${frame}.png`),
    ),
  );
  expect([...all.keys()].sort()).toEqual(names);
  const [twice] = (await frames('twice', { frames: '8', node: 'Light', fps: '60' })).values();
  expect(all.get('Amber/Light/frame-00004.png')!.equals(twice)).toBe(true);
  expect(all.get('Blue/Light/frame-00004.png')!.equals(twice)).toBe(false);
});
