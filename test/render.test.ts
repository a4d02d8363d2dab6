import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { Options } from '../bin/arguments';
import { printFields } from '../bin/fields';
import type { Renderer } from '../bin/browser';
import { renderFrames, withEngine } from '../bin/render';
import { readShow } from '../src/core/show/validate';
import type { FrameRequest } from '../src/engine/protocol/protocol';
import { catalogue } from '../src/nodes/catalogue';
import { Sketch } from '../demo/sketch';
import { movingShow } from './desk';
import { pixelsOf } from './files';

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

const demo = readShow(
  readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8'),
  catalogue,
).show;

/** Scenes that are compared with themselves: a third of them, all with PYRVEL_LONG. */
const compared = demo.scenes.filter((_, k) => process.env.PYRVEL_LONG === '1' || k % 3 === 0);

/** Pictures of scenes of the demo at those frames, asked for in that order; each is what `PNG` gives as pixels. */
async function demoFrames(
  asked: readonly number[],
  size: { width: number; height: number },
  renderer?: Renderer,
): Promise<Map<string, Buffer[]>> {
  const pictures = new Map<string, Buffer[]>();
  await withEngine(
    demo,
    new Map(),
    async (ask) => {
      for (const { id, name } of compared) {
        const list: Buffer[] = [];
        for (const frame of asked)
          list.push(
            Buffer.from(
              await ask<string>(name, 'frame', {
                scene: id,
                node: null,
                frame,
                ...size,
              } satisfies FrameRequest),
              'base64',
            ),
          );
        pictures.set(name, list);
      }
    },
    renderer,
  );
  return pictures;
}

test('a frame that is asked for alone is the same as after all frames before it, in scenes of all sorts', async () => {
  const all = await demoFrames([0, 1, 2, 3, 4], { width: 64, height: 36 });
  const alone = await demoFrames([4], { width: 64, height: 36 });
  const apart = [...all].filter(([name, list]) => !list[4].equals(alone.get(name)![0])).map(([name]) => name);
  expect(apart).toEqual([]);
});

test('both software renderers draw the same pictures, but for rounding', async () => {
  const size = { width: 64, height: 36 };
  const [ours, theirs] = [await demoFrames([2], size), await demoFrames([2], size, 'swiftshader')];
  for (const [name, [picture]] of ours) {
    const [a, b] = [pixelsOf(picture), pixelsOf(theirs.get(name)![0])];
    let sum = 0;
    for (let k = 0; k < a.length; k++) sum += Math.abs(a[k] - b[k]);
    // Edges of thin things fall on one pixel or its neighbour, and pictures have 16 bits here and 32 there.
    expect([name, sum / a.length < 6]).toEqual([name, true]);
  }
});

test('render draws a single node, and says what it does not know', async () => {
  const node = await frames('node', { frames: '0', node: 'Light' });
  expect(node.size).toBe(1);
  await expect(frames('none', { frames: '0', node: 'Nobody' })).rejects.toThrow(/Nobody/);
});

test('the distance of a field is read as numbers, at any place', async () => {
  const show = movingShow('Fields', { Amber: [1, 0.6, 0.1] });
  const s = new Sketch('s1', 'Sculpture', [400, 0]);
  const ball = s.add('field-ball', 'Ball', [0, 0], { radius: 0.3, colour: [0.2, 0.4, 0.6, 1] });
  const moved = s.add('field-place', 'Moved', [200, 0]);
  s.formula(moved, 'move.x', 'time');
  s.wire(ball, moved, 'field');
  show.scenes = [s.scene];
  const lines: string[] = [];
  const options = Options.of({
    scene: 'Sculpture',
    node: ['Ball', 'Moved'],
    frames: '0,30',
    at: ['0,0,0', '0.5,0,0', '0,0.3,0.4'],
  });
  await printFields(show, new Map(), options, (line) => lines.push(line));
  const [head, ...rows] = lines.map((line) => line.split(','));
  expect(head.slice(0, 7)).toEqual(['scene', 'node', 'frame', 'x', 'y', 'z', 'distance']);
  expect(rows).toHaveLength(12);
  for (const [, node, frame, x, y, z, distance, red, green, blue] of rows) {
    const shift = node === 'Moved' ? Number(frame) / show.canvas.fps : 0;
    const wanted = Math.hypot(Number(x) - shift, Number(y), Number(z)) - 0.3;
    expect(Number(distance)).toBeCloseTo(wanted, 4);
    expect([red, green, blue].map((v) => Number(Number(v).toFixed(3)))).toEqual([0.2, 0.4, 0.6]);
  }
  await expect(
    printFields(show, new Map(), Options.of({ scene: 'Sculpture', node: 'Ball' }), () => undefined),
  ).rejects.toThrow(/--at is missing/);
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
