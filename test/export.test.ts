import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { zipSync } from 'fflate';
import validator from 'gltf-validator';
import { Redis } from 'ioredis';
import { Options } from '../bin/arguments';
import { EnginePage, type OrderState } from '../bin/engine-page';
import { exportShow } from '../bin/export';
import { farmRunner, farmWorker } from '../bin/farm';
import { renderFrames } from '../bin/render';
import { Sketch } from '../demo/sketch';
import { makeLoop } from '../src/core/audio/loop';
import { checkpointNameOf, frameName } from '../src/core/export/names';
import { pieceCount, type ExportPlan } from '../src/core/export/schedule';
import { homeSpec, type ExportSpec, type ImagesFormat, type VideoFormat } from '../src/core/export/spec';
import { exrHead } from '../src/core/image/exr-header';
import { parseCube } from '../src/core/image/cube';
import { readShow } from '../src/core/show/validate';
import { addLedWall, addPixelString } from '../src/core/show/edit-wall';
import type { LedWall, PixelString, Show } from '../src/core/document/types';
import { join } from '../src/engine/record/join';
import { catalogue } from '../src/nodes/catalogue';
import { smallShow } from './desk';
import { apartOf, frameOf, probe, soundOf } from './films';
import { startRedis } from './redis';

jest.setTimeout(400000);

const size = { width: 64, height: 36 };
const images: ImagesFormat = { type: 'images', image: 'png', alpha: false, linear: false, depth: false };

/** Scenes that say what an export makes of them: one that travels, one that remembers, one see-through, one solid, colours and numbers. */
function exportedShow(): Show {
  const show = smallShow('Exported');
  show.canvas = { width: 64, height: 36, fps: 30 };
  show.inputs.sound.from = 'loop';
  const travels = new Sketch('travels', 'Travels', [400, 0]);
  const disc = travels.add('flat-shape', 'Disc', [0, 0], { form: 'disc', size: [0.3, 0.3] });
  travels.formula(disc, 'place.x', 'sin(time * pi) * 0.6');
  travels.wire(disc, travels.out, 'picture');
  travels.scene.loop = { length: 2, unit: 'seconds', lock: false };

  const remembers = new Sketch('remembers', 'Remembers', [400, 0]);
  const dot = remembers.add('flat-shape', 'Dot', [0, 0], { form: 'disc', size: [0.2, 0.2] });
  remembers.formula(dot, 'place.x', 'sin(time * 3) * 0.5');
  const over = remembers.add('blend', 'Trail', [200, 0], {});
  remembers.wire(dot, over, 'over');
  remembers.wire(over, over, 'picture');
  remembers.wire(over, remembers.out, 'picture');

  const recalls = new Sketch('recalls', 'Recalls', [800, 0]);
  const spot = recalls.add('flat-shape', 'Spot', [0, 0], { form: 'disc', size: [0.2, 0.2] });
  recalls.formula(spot, 'place.x', 'sin(time * 5) * 0.5');
  const wake = recalls.add('blend', 'Wake', [200, 0], {});
  recalls.wire(spot, wake, 'over');
  const blur = recalls.add('blur', 'Blur', [400, 0], { radius: 0.01 });
  recalls.wire(wake, blur, 'picture');
  recalls.wire(blur, wake, 'picture');
  const kept = recalls.add('frame-store', 'Kept', [600, 0], { frames: 9, kept: 'full', back: 7, depth: 0 });
  recalls.wire(wake, kept, 'picture');
  recalls.wire(kept, recalls.out, 'picture');

  const see = new Sketch('see', 'See-through', [400, 0]);
  see.wire(see.add('flat-shape', 'Box', [0, 0], { form: 'box', size: [0.5, 0.5] }), see.out, 'picture');

  const colours = new Sketch('colours', 'Colours', [400, 0]);
  const map = colours.add('coordinate-map', 'Where', [0, 0]);
  const levels = colours.add('levels', 'Graded', [200, 0], { gamma: 2 });
  colours.wire(map, levels, 'picture');
  colours.wire(levels, colours.out, 'picture');
  colours.add('ball', 'Ball', [0, 200]);
  colours.add('oscillator', 'Wave', [0, 300], { rate: 2 });
  const titled = new Sketch('titled', 'Titled', [400, 0]);
  const words = titled.add('titles', 'Words', [0, 0], { size: 0.6 });
  titled.scene.nodes[words].controls.titles =
    '00:01.000 --> 00:02.000\nHIVES\n\n00:03.000 --> 00:04.000\nIII';
  titled.wire(words, titled.out, 'picture');
  show.scenes = [titled.scene, travels.scene, remembers.scene, recalls.scene, see.scene, colours.scene];
  for (const [k, scene] of ['travels', 'see'].entries())
    show.cues.push({
      id: `q${k + 1}`,
      name: `Cue ${k + 1}`,
      note: '',
      scene,
      snapshot: null,
      seconds: 0,
      moves: [],
      transition: null,
      bpm: null,
      go: { type: 'hand' },
      back: null,
    });
  show.transition.length = 0.2;
  addLedWall(show);
  const led = show.wall.outputs.at(-1) as LedWall;
  Object.assign(led, {
    name: 'Tiles',
    place: { x: 32, y: 0 },
    tile: [16, 16],
    tiles: [{ x: 0, y: 0, turn: 0, outline: null }],
  });
  Object.assign(led.raster, { width: 16, height: 16 });
  addPixelString(show);
  const string = show.wall.outputs.at(-1) as PixelString;
  Object.assign(string, {
    name: 'String',
    layout: 'points',
    points: [
      [4, 18],
      [60, 18],
    ],
    order: 'RGB',
    area: 2,
  });
  Object.assign(string.send, { protocol: 'sacn', universe: 3, address: '' });
  return show;
}

let folder: string;
let page: EnginePage;
const show = exportedShow();

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-export-'));
  page = await EnginePage.open(show, new Map(), { pieces: path.join(folder, 'pieces') });
});
afterAll(async () => {
  await page.close();
  rmSync(folder, { recursive: true, force: true });
});

const specOf = (scene: string, change: Partial<ExportSpec>): ExportSpec => ({
  ...homeSpec(
    show,
    show.scenes.find(({ id }) => id === scene)!,
  ),
  ...size,
  fps: 30,
  format: images,
  ...change,
});

/** Draws all pieces of an export in the open browser. */
async function draw(spec: ExportSpec): Promise<{ plan: ExportPlan; state: OrderState }> {
  const plan = await page.plan(spec);
  if (spec.format.type === 'video' && spec.format.sound !== 'none')
    await page.order({ do: 'sound', spec, plan });
  const pieces = Array.from({ length: pieceCount(spec, plan) }, (_, k) => k);
  return { plan, state: await page.order({ do: 'pieces', spec, plan, pieces }) };
}

const piece = (name: string): string => path.join(folder, 'pieces', name);

/** The file of an export, from its pieces. */
async function film(name: string, spec: ExportSpec): Promise<{ file: string; plan: ExportPlan }> {
  const { plan } = await draw(spec);
  const file = path.join(folder, name);
  const handle = await open(file, 'w');
  const string = show.wall.outputs.find(
    (one): one is PixelString => one.id === spec.output && one.type === 'string',
  );
  await join(
    spec,
    plan,
    string ?? null,
    (one) => Promise.resolve(new Uint8Array(readFileSync(piece(one)))),
    new WritableStream({
      write: async ({ data, position }) => void (await handle.write(data, 0, data.length, position)),
    }),
  );
  await handle.close();
  return { file, plan };
}

const video = (change: Partial<VideoFormat> = {}): VideoFormat => ({
  ...(homeSpec(show, show.scenes[0]).format as VideoFormat),
  ...change,
});
const range = (first: number, last: number) => ({ type: 'frames', first, last }) as const;

/** Pixels of a frame of a scene as an image. */
async function still(scene: string, frame: number, change: Partial<ExportSpec> = {}): Promise<Buffer> {
  const spec = specOf(scene, { range: range(frame, frame), ...change });
  await draw(spec);
  return frameOf(piece(frameName(spec, frame)));
}

const lit = (rgb: Uint8Array): number => rgb.reduce((sum, v) => sum + v, 0) / rgb.length;

describe('frames', () => {
  test('are those of the command render, byte for byte of their pixels', async () => {
    const options = Options.of({
      scene: 'Travels',
      size: '64x36',
      fps: '30',
      frames: '7',
      out: path.join(folder, 'render'),
    });
    await renderFrames(show, new Map(), options, () => undefined);
    const rendered = frameOf(path.join(folder, 'render', 'frame-00007.png'));
    expect(lit(rendered)).toBeGreaterThan(5);
    expect(apartOf(await still('travels', 7), rendered)).toBe(0);
  });

  test('of a scene with a memory are the same alone and in a row', async () => {
    const spec = specOf('remembers', { range: range(0, 12) });
    await draw(spec);
    const inRow = frameOf(piece(frameName(spec, 12)));
    rmSync(piece(frameName(spec, 12)));
    expect(apartOf(await still('remembers', 12), inRow)).toBe(0);
    // The trail is longer than the dot.
    expect(lit(inRow)).toBeGreaterThan(1.2 * lit(await still('remembers', 0)));
  });

  test('that begin from a checkpoint are those that were run up to', async () => {
    const spec = specOf('recalls', { range: range(0, 23), subframes: 2 });
    const { plan } = await draw(spec);
    expect(plan.checkpoints).toBe(true);
    const whole = [20, 21, 22, 23].map((frame) => readFileSync(piece(frameName(spec, frame))));
    await page.order({ do: 'checkpoints', spec, plan, frames: [9, 20] });
    // Another export between, so that no run is left that has been there.
    await still('travels', 7);
    await page.order({ do: 'pieces', spec, plan, pieces: [20, 21, 22, 23] });
    whole.forEach((bytes, k) =>
      expect(readFileSync(piece(frameName(spec, 20 + k))).equals(bytes)).toBe(true),
    );
    // What lies there is what was begun from: a checkpoint with all pixels empty gives another picture.
    const name = piece(checkpointNameOf(20));
    const held = gunzipSync(readFileSync(name));
    writeFileSync(name, gzipSync(held.fill(0, 4 + held.readUInt32LE(0))));
    await still('travels', 7);
    await page.order({ do: 'pieces', spec, plan, pieces: [20] });
    expect(readFileSync(piece(frameName(spec, 20))).equals(whole[0])).toBe(false);
    for (const frame of [9, 20]) rmSync(piece(checkpointNameOf(frame)));
  });

  test('are blurred by movement over the time the shutter is open, and no darker for it', async () => {
    const sharp = await still('travels', 0);
    const blurred = await still('travels', 0, { fps: 5, subframes: 8, shutter: 360 });
    const between = (rgb: Uint8Array): number => rgb.filter((v) => v > 40 && v < 215).length;
    expect(between(blurred)).toBeGreaterThan(2 * between(sharp));
    const light = (rgb: Uint8Array): number => rgb.reduce((sum, v) => sum + (v / 255) ** 2.2, 0);
    expect(light(blurred) / light(sharp)).toBeCloseTo(1, 1);
  });

  test('are the mean of several pixels where they are supersampled', async () => {
    const plain = await still('see', 0);
    const fine = await still('see', 0, { supersample: 3 });
    expect(apartOf(plain, fine)).toBeLessThan(4);
    expect(lit(fine)).toBeCloseTo(lit(plain), -1);
  });

  test('of 16 bits and of floats are what the engine has', async () => {
    const at = async (image: ImagesFormat['image'], linear = false): Promise<string> => {
      const spec = specOf('colours', { range: range(0, 0), format: { ...images, image, linear } });
      await draw(spec);
      return piece(frameName(spec, 0));
    };
    const deep = frameOf(await at('png16'), 0, 'rgb48le');
    const floats = frameOf(await at('exr32'), 0, 'gbrpf32le');
    const plane = (bytes: Buffer, c: number, k: number): number => bytes.readFloatLE(4 * (c * 64 * 36 + k));
    for (const k of [0, 31, 1000, 2303])
      // ffmpeg gives green first, and rows of a PNG have red first.
      expect(plane(floats, 2, k)).toBeCloseTo(deep.readUInt16LE(6 * k) / 65535, 4);
    const light = frameOf(await at('exr32', true), 0, 'gbrpf32le');
    const value = plane(floats, 2, 1000);
    expect(plane(light, 2, 1000)).toBeCloseTo(((value + 0.055) / 1.055) ** 2.4, 4);
  });

  test('may be see-through, with the colours as they were', async () => {
    const spec = specOf('see', { range: range(0, 0), format: { ...images, alpha: true } });
    await draw(spec);
    const rgba = frameOf(piece(frameName(spec, 0)), 0, 'rgba');
    expect(rgba[3]).toBe(0);
    const middle = 4 * (18 * 64 + 32);
    expect(rgba[middle + 3]).toBe(255);
    expect(rgba[middle]).toBeGreaterThan(100);
  });

  test('of floats play again as they were, from a zip of them', async () => {
    const sheet = { width: 16, height: 4 };
    const numbers = smallShow('Numbers');
    numbers.canvas = { ...sheet, fps: 30 };
    const s = new Sketch('numbers', 'Numbers', [200, 0]);
    const source = s.add('noise', 'Source', [0, 0], { channels: 'colour', rate: 3 });
    s.wire(source, s.out, 'picture');
    numbers.files = { f1: { name: 'numbers.zip', type: 'application/zip', bytes: 1 } };
    const stored = s.add('clip', 'Stored', [0, 100], { file: 'f1', fit: 'stretch' });
    for (const id of [source, stored]) s.scene.nodes[id].precision = '32';
    numbers.scenes = [s.scene];
    const format: ImagesFormat = { ...images, image: 'exr32', alpha: true };
    const asked = (node: string): ExportSpec => ({
      ...homeSpec(numbers, s.scene),
      ...sheet,
      fps: 30,
      format,
      source: { type: 'scene', scene: 'numbers', node },
      range: range(0, 5),
    });
    const pieces = [0, 1, 2, 3, 4, 5];
    const names = pieces.map((frame) => frameName(asked(source), frame));
    const drawn = async (name: string, node: string, files: Map<string, Uint8Array>): Promise<Buffer[]> => {
      const own = path.join(folder, name);
      const other = await EnginePage.open(numbers, files, { pieces: own });
      try {
        await other.order({ do: 'pieces', spec: asked(node), plan: await other.plan(asked(node)), pieces });
      } finally {
        await other.close();
      }
      return names.map((file) => readFileSync(path.join(own, file)));
    };
    const first = await drawn('numbers', source, new Map());
    const zip = zipSync(Object.fromEntries(names.map((name, k) => [name, new Uint8Array(first[k])])));
    const again = await drawn('stored', stored, new Map([['f1', zip]]));
    expect(again.map((bytes, k) => bytes.equals(first[k]))).toEqual(pieces.map(() => true));
    expect(first[0].equals(first[5])).toBe(false);
    expect(exrHead(first[0])?.fps).toBe(30);
  });

  test('have the titles of their time', async () => {
    const at = async (seconds: number): Promise<number> => lit(await still('titled', seconds * 30));
    const [before, first, between, second] = [await at(0.5), await at(1.5), await at(2.5), await at(3.5)];
    expect([before, between].every((light) => light < 1)).toBe(true);
    expect(first).toBeGreaterThan(5);
    expect(second).toBeGreaterThan(1);
    expect(first).toBeGreaterThan(second);
  });

  test('larger than a texture are drawn in parts', async () => {
    const spec = specOf('colours', { range: range(0, 0), width: 9000, height: 10 });
    await draw(spec);
    const file = piece(frameName(spec, 0));
    expect(probe(file).streams[0]).toMatchObject({ width: 9000, height: 10 });
    const rgb = frameOf(file);
    // Red rises from left to right without a step where parts meet.
    for (let x = 90; x < 9000; x += 90) expect(rgb[3 * x] - rgb[3 * (x - 90)]).toBeGreaterThanOrEqual(0);
    expect(rgb[0]).toBeLessThan(12);
    expect(rgb[3 * 8990]).toBeGreaterThan(240);
  });

  test('of a loop are said to meet, or not', async () => {
    const small = { fps: 5 };
    const { state, plan } = await draw(specOf('travels', small));
    expect([plan.first, plan.count, plan.meets]).toEqual([0, 10, 10]);
    expect(state.loop!.worst).toBeLessThanOrEqual(2);
    const open = await draw(specOf('remembers', small));
    expect(open.state.loop!.worst).toBeGreaterThan(2);
    // What remembers is warm: its second round is written.
    expect(open.plan.first).toBe(open.plan.count);
  });
});

describe('a video', () => {
  test('has all its frames at one rate, in the colours of the pictures, and joins its pieces without a gap', async () => {
    const spec = specOf('travels', { range: range(0, 74), format: video() });
    const { file } = await film('a.webm', spec);
    expect(pieceCount(spec, await page.plan(spec))).toBe(2);
    const [stream] = probe(file).streams;
    expect(stream).toMatchObject({
      codec_name: 'vp9',
      nb_read_frames: '75',
      r_frame_rate: '30/1',
      color_space: 'bt709',
    });
    for (const frame of [0, 59, 60, 74])
      expect(apartOf(frameOf(file, frame), await still('travels', frame))).toBeLessThan(4);
  });

  test('may be AV1', async () => {
    const spec = specOf('travels', {
      range: range(0, 3),
      format: video({ codec: 'av1' }),
    });
    const { file } = await film('av1.webm', spec);
    expect(probe(file).streams[0]).toMatchObject({ codec_name: 'av1', nb_read_frames: '4' });
    expect(apartOf(frameOf(file, 2), await still('travels', 2))).toBeLessThan(8);
  });

  test('is H.264 in MP4, with sound in step to the sample', async () => {
    const spec = specOf('travels', {
      range: range(15, 44),
      format: video({ container: 'mp4', codec: 'avc', sound: 'pcm' }),
    });
    const { file } = await film('a.mp4', spec);
    const { streams } = probe(file);
    expect(streams.map(({ codec_name }) => codec_name)).toEqual(['h264', 'pcm_s16le']);
    expect(streams[0].nb_read_frames).toBe('30');
    const [heard, loop] = [soundOf(file), makeLoop(48000)];
    expect(heard).toHaveLength(48000);
    for (let k = 0; k < 48000; k += 997) expect(Math.abs(heard[k] - loop[24000 + k])).toBeLessThan(1e-4);
  });

  test('is as long as its Opus sound', async () => {
    const spec = specOf('travels', { range: range(0, 29), format: video({ sound: 'opus' }) });
    const { file } = await film('b.webm', spec);
    const { streams, format } = probe(file);
    expect(streams.map(({ codec_name }) => codec_name)).toEqual(['vp9', 'opus']);
    expect(Math.abs(Number(format.duration) - 1)).toBeLessThan(0.03);
  });

  test('may be see-through', async () => {
    const spec = specOf('see', { range: range(0, 3), format: video({ alpha: true, quality: 'very-high' }) });
    const { file } = await film('alpha.webm', spec);
    const rgba = frameOf(file, 2, 'rgba');
    expect(rgba[3]).toBeLessThan(6);
    expect(rgba[4 * (18 * 64 + 32) + 3]).toBeGreaterThan(250);
  });

  test('may be a small preview', async () => {
    for (const image of ['gif', 'webp'] as const) {
      const spec = specOf('travels', { range: range(0, 5), fps: 10, format: { type: 'animation', image } });
      const { file } = await film(`a.${image}`, spec);
      if (image === 'gif') expect(probe(file).streams[0].nb_read_frames).toBe('6');
      else expect(readFileSync(file, 'latin1').split('ANMF')).toHaveLength(7);
    }
  });
});

describe('the program', () => {
  const cues = (first: number, last: number): ExportSpec =>
    specOf('travels', { source: { type: 'cues', handSeconds: 0.5 }, range: range(first, last) });

  test('plays its running order by itself, and a frame is the same whether it is asked for alone', async () => {
    const spec = cues(0, 24);
    await draw(spec);
    const rows = readdirSync(path.join(folder, 'pieces')).filter((name) => name.startsWith('frame-0000'));
    expect(rows.length).toBeGreaterThanOrEqual(25);
    const [start, mixed, after] = [0, 17, 24].map((frame) => frameOf(piece(frameName(spec, frame))));
    expect(apartOf(start, await still('travels', 0))).toBe(0);
    // Half a second for the first cue, then a mix of 0.2 s into the second.
    expect(apartOf(after, await still('see', 24))).toBeLessThan(0.5);
    expect(apartOf(mixed, after)).toBeGreaterThan(1);
    await draw(cues(17, 17));
    expect(apartOf(frameOf(piece(frameName(spec, 17))), mixed)).toBe(0);
  });

  test('is as long as its cues', async () => {
    const { count } = await page.plan({ ...cues(0, 0), range: { type: 'whole' } });
    expect(count).toBe(30);
  });
});

describe('an output of the wall', () => {
  const [led, string] = show.wall.outputs;

  test('is exported at the size of its raster, with its part of the canvas', async () => {
    const rgb = await still('colours', 0, { output: led.id, width: 16, height: 16 });
    const whole = await still('colours', 0);
    // Its tile lies at 32, 0.
    expect(Math.abs(rgb[3 * (8 * 16 + 8)] - whole[3 * (8 * 64 + 40)])).toBeLessThan(6);
  });

  test('is a table of pixels, or packets as they are sent', async () => {
    const format = (as: 'csv' | 'pcap') => ({ type: 'pixels', as }) as const;
    const spec = specOf('colours', { output: string.id, range: range(0, 1), format: format('csv') });
    const { file } = await film('pixels.csv', spec);
    const [, first, second] = readFileSync(file, 'utf8').trim().split('\n');
    expect(first.split(',').slice(1)).toEqual(second.split(',').slice(1));
    const [left, right] = [Number(first.split(',')[1]), Number(first.split(',')[4])];
    expect(left).toBeLessThan(90);
    expect(right).toBeGreaterThan(200);
    const packets = await film('pixels.pcap', { ...spec, format: format('pcap') });
    const bytes = readFileSync(packets.file);
    expect(bytes.readUInt32LE(0)).toBe(0xa1b2c3d4);
    expect(bytes.toString('latin1').split('ASC-E1.17')).toHaveLength(3);
  });
});

describe('what a node gives', () => {
  const scene = show.scenes.find(({ id }) => id === 'colours')!;
  const idOf = (name: string): string => Object.values(scene.nodes).find((node) => node.name === name)!.id;
  const data = async (node: string, as: string, last = 0): Promise<Buffer> =>
    Buffer.from(
      await page.ask<string>('Data', 'data', {
        scene: scene.id,
        node: idOf(node),
        as,
        first: 0,
        last,
        fps: 30,
      }),
      'base64',
    );

  test('is a GLB that the validator of its standard takes', async () => {
    const glb = await data('Ball', 'glb', 3);
    const { issues, info } = await validator.validateBytes(new Uint8Array(glb));
    expect(issues.numErrors).toBe(0);
    expect(issues.numWarnings).toBe(0);
    expect(info.totalVertexCount).toBeGreaterThan(20);
  });

  test('is a table of colours that does what the chain does', async () => {
    const table = parseCube((await data('Graded', 'cube')).toString());
    expect([table.dimensions, table.size]).toEqual([3, 33]);
    const at = (r: number, g: number, b: number): number[] => {
      const k = 3 * (r + 33 * (g + 33 * b));
      return [...table.entries.subarray(k, k + 3)];
    };
    expect(at(0, 0, 0).every((v) => v < 0.01)).toBe(true);
    expect(at(32, 32, 32).every((v) => v > 0.99)).toBe(true);
    // A gamma of 2 bends each channel by itself.
    const [r, g, b] = at(16, 16, 0);
    expect(Math.abs(r - g)).toBeLessThan(1e-4);
    expect(b).toBeLessThan(0.01);
    expect(Math.abs(r - 0.5)).toBeGreaterThan(0.1);
  });

  test('is samples, or sound at the rate of sound', async () => {
    const rows = (await data('Wave', 'csv', 9)).toString().trim().split('\n');
    expect(rows).toHaveLength(11);
    const wav = await data('Wave', 'wav', 2);
    expect(wav.readUInt32LE(40)).toBe(4 * Math.round((3 / 30) * 48000));
    // The same wave, seen 1,600 times as often.
    expect(wav.readFloatLE(44 + 4 * 1600)).toBeCloseTo(Number(rows[2].split(',')[3]), 3);
  });

  test('is refused with a sentence where it cannot be that', async () => {
    await expect(data('Where', 'cube')).rejects.toThrow(/changes? each pixel|each pixel by itself/);
    await expect(data('Wave', 'glb')).rejects.toThrow(/cannot be saved as glb/);
  });
});

describe('the command', () => {
  const options = (name: string, more: Record<string, string> = {}) =>
    Options.of({
      scene: 'Travels',
      size: '64x36',
      fps: '30',
      frames: '0..9',
      to: path.join(folder, name, '##.png'),
      ...more,
    });
  const names = (name: string): string[] => readdirSync(path.join(folder, name)).sort();

  test('goes on with what is there, and two browsers give the same as one', async () => {
    const said: string[] = [];
    await exportShow(show, new Map(), options('one'), (line) => said.push(line));
    expect(names('one')).toEqual(Array.from({ length: 10 }, (_, k) => `0${k}.png`));
    await exportShow(show, new Map(), options('two', { jobs: '2' }), () => undefined);
    for (const file of names('one'))
      expect(
        readFileSync(path.join(folder, 'two', file)).equals(readFileSync(path.join(folder, 'one', file))),
      ).toBe(true);
    // Broken off in the middle: a runner that draws four and gives up.
    const broken = exportShow(
      show,
      new Map(),
      options('again'),
      () => undefined,
      async ({ spec, plan }, pieces, _done, own) => {
        await own.order({ do: 'pieces', spec, plan, pieces: pieces.slice(0, 4) });
        throw new Error('broken off');
      },
    );
    await expect(broken).rejects.toThrow('broken off');
    await exportShow(show, new Map(), options('again'), (line) => said.push(line));
    expect(said).toContain('4 of 10 pieces are there already.');
    expect(names('again').filter((name) => name.endsWith('.png'))).toHaveLength(10);
  });

  test('says that pieces of another export lie there', async () => {
    const broken = exportShow(
      show,
      new Map(),
      options('other'),
      () => undefined,
      () => Promise.reject(new Error('broken off')),
    );
    await expect(broken).rejects.toThrow('broken off');
    await expect(
      exportShow(show, new Map(), options('other', { size: '32x18' }), () => undefined),
    ).rejects.toThrow(/pieces of another export.*--again/);
  });
});

test('a loop and a still of the demo leave as they should', async () => {
  const { show: demo } = readShow(
    readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8'),
    catalogue,
  );
  const loop = path.join(folder, 'slats.webm');
  const said: string[] = [];
  const options = { scene: 'Shade Slats', loop: 'yes', fps: '2', size: '96x54', to: loop };
  await exportShow(demo, new Map(), Options.of(options), (line) => said.push(line));
  expect(said).toContain('The loop meets.');
  expect(lit(frameOf(loop))).toBeGreaterThan(20);
  const leaves = path.join(folder, 'leaves.png');
  const asked = { scene: 'Glass Leaves', frames: '48', size: '320x180', to: leaves };
  await exportShow(demo, new Map(), Options.of(asked), () => undefined);
  expect(probe(leaves).streams[0]).toMatchObject({ width: 320, height: 180 });
  expect(lit(frameOf(leaves))).toBeGreaterThan(2);
});

describe('a farm', () => {
  let redis: Awaited<ReturnType<typeof startRedis>>;
  let url: string;
  beforeAll(async () => {
    redis = await startRedis(folder);
    ({ url } = redis);
  });
  afterAll(() => redis?.stop());

  /** A worker in a process of its own, which can be killed. */
  const startWorker = (heard: (line: string) => void): ChildProcess => {
    const worker = spawn('npx', ['tsx', 'bin/pyrvel.ts', 'farm', 'worker', '--redis', url], {
      cwd: path.resolve(import.meta.dirname, '..'),
      detached: true,
    });
    worker.stdout!.on('data', (data: Buffer) => heard(data.toString()));
    return worker;
  };

  test('makes the same frames as one machine, though a worker is killed in the middle', async () => {
    let victim: ChildProcess | null = null;
    const killed = new Promise<void>((resolve) => {
      victim = startWorker((line) => {
        // It has just taken a job.
        if (!line.includes('pieces') || !victim) return;
        process.kill(-victim.pid!, 'SIGKILL');
        victim = null;
        resolve();
      });
    });
    let other: { close(): Promise<void> } | null = null;
    const done = exportShow(
      show,
      new Map(),
      Options.of({
        scene: 'Travels',
        size: '64x36',
        fps: '30',
        frames: '0..9',
        to: path.join(folder, 'farm', '##.png'),
      }),
      () => undefined,
      farmRunner(url, () => undefined),
    );
    await killed;
    other = await farmWorker(url, undefined, () => undefined);
    await done;
    for (const file of readdirSync(path.join(folder, 'one')))
      expect(
        readFileSync(path.join(folder, 'farm', file)).equals(readFileSync(path.join(folder, 'one', file))),
      ).toBe(true);

    // A scene that remembers, as video: the second piece begins from a checkpoint.
    const video = (name: string): Options =>
      Options.of({
        scene: 'Recalls',
        size: '64x36',
        fps: '30',
        frames: '0..69',
        to: path.join(folder, `${name}.webm`),
      });
    await exportShow(
      show,
      new Map(),
      video('farmed'),
      () => undefined,
      farmRunner(url, () => undefined),
    );
    await other.close();
    await exportShow(show, new Map(), video('alone'), () => undefined);
    const [one, two] = ['alone', 'farmed'].map((name) => readFileSync(path.join(folder, `${name}.webm`)));
    expect(two.equals(one)).toBe(true);
  });

  test('waits for a Redis that goes away, and ends with a sentence where it comes back empty', async () => {
    const said: string[] = [];
    let hear = (): void => undefined;
    const away = new Promise<void>((resolve) => (hear = resolve));
    const spec = specOf('travels', { range: range(0, 3) });
    const task = { show, files: new Map(), spec, plan: await page.plan(spec), folder };
    const run = farmRunner(url, (line) => {
      said.push(line);
      if (line.startsWith('The connection')) hear();
    })(task, [0, 1, 2, 3], () => undefined, page);
    const ended = expect(run).rejects.toThrow(/Redis came back without this export/);
    const look = new Redis(url);
    while ((await look.keys('pyrvel:show:*')).length === 0)
      await new Promise((resolve) => setTimeout(resolve, 50));
    look.disconnect();
    redis.stop();
    await away;
    redis = await startRedis(folder, redis.port);
    await ended;
    expect(said).toEqual(['The connection to Redis is gone. Waiting for it to come back.']);
  });

  test('says that nobody answers where no Redis is', async () => {
    const run = farmRunner('redis://127.0.0.1:1', () => undefined);
    const task = {
      show,
      files: new Map(),
      spec: specOf('travels', {}),
      plan: await page.plan(specOf('travels', {})),
      folder,
    };
    await expect(run(task, [0], () => undefined, page)).rejects.toThrow(
      /No Redis answers at redis:\/\/127.0.0.1:1/,
    );
  });
});

test('an export that cannot be is refused with a sentence before anything is drawn', async () => {
  await expect(page.plan(specOf('travels', { subframes: 100 }))).rejects.toThrow(/1 to 64/);
});
