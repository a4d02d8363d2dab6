/**
 * Makes the picture and the video that ship with the app, with the engine itself. Needs a built app and Chromium:
 * npm run build && npx tsx scripts/make-media.ts
 */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import express from 'express';
import { makeShow } from '../src/core/show/create';
import { writeShow } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { listen, makeApp } from '../src/server/server';
import { startBrowser } from '../bin/browser';
import { Sketch } from '../demo/sketch';

const root = path.resolve(import.meta.dirname, '..');
const loopSeconds = 4;
const fps = 24;

/** Sparks that swirl and come back to where they were after four seconds. */
function swarm(): Sketch {
  const s = new Sketch('s1', 'Swarm', [900, 0]);
  const dots = s.add('lattice', 'Sparks', [0, 0], {
    form: 'dots',
    cells: [16, 16],
    part: 0.34,
    softness: 0.3,
    ink: [1, 0.72, 0.3, 1],
    ground: [0, 0, 0, 1],
  });
  const gusts = s.add('noise', 'Gusts', [0, 200], {
    channels: 'three',
    period: 0.5,
    octaves: 2,
    rate: 0.5,
    loop: loopSeconds,
    amplitude: 0.9,
  });
  const swirl = s.add('displace', 'Swirl', [200, 0], { push: 0.16 });
  const embers = s.add('noise', 'Embers', [200, 200], {
    period: 0.24,
    octaves: 1,
    rate: 0.5,
    loop: loopSeconds,
    contrast: 3,
    offset: 0.42,
    seed: 4,
  });
  const flicker = s.add('blend', 'Flicker', [400, 0], { mode: 'multiply' });
  const glow = s.add('glow', 'Glow', [600, 0], { threshold: 0.25, strength: 1.6, reach: 0.12 });
  s.wire(dots, swirl, 'picture');
  s.wire(gusts, swirl, 'map');
  s.wire(swirl, flicker, 'picture');
  s.wire(embers, flicker, 'over');
  s.wire(flicker, glow, 'picture');
  s.wire(glow, s.out, 'picture');
  return s;
}

/** Wax, in cells that are not quite straight. */
function wax(): Sketch {
  const s = new Sketch('s2', 'Wax', [1100, 0]);
  const cells = s.add('noise', 'Cells', [0, 0], {
    form: 'cellular',
    period: 0.16,
    octaves: 2,
    roughness: 0.35,
    rate: 0,
    amplitude: 0.6,
  });
  const grit = s.add('noise', 'Grit', [0, 200], { period: 0.4, octaves: 5, rate: 0, channels: 'three' });
  const warp = s.add('displace', 'Warp', [200, 0], { push: 0.03 });
  const tint = s.add('gradient-map', 'Tint', [400, 0], {
    colours: [
      { at: 0, colour: [0.09, 0.04, 0.02, 1] },
      { at: 0.45, colour: [0.55, 0.27, 0.07, 1] },
      { at: 0.8, colour: [0.93, 0.66, 0.25, 1] },
      { at: 1, colour: [1, 0.92, 0.7, 1] },
    ],
  });
  s.wire(cells, warp, 'picture');
  s.wire(grit, warp, 'map');
  s.wire(warp, tint, 'picture');
  s.wire(tint, s.out, 'picture');
  return s;
}

const show = makeShow(catalogue, 'Media');
show.canvas = { width: 480, height: 270, fps };
show.scenes = [swarm().scene, wax().scene];

const app = express();
app.use('/mediabunny', express.static(path.join(root, 'node_modules/mediabunny/dist/bundles')));
app.get('/', (_request, response) => void response.type('html').send('<!doctype html><title>media</title>'));
const maker = await listen(app, 0);
const pyrvel = await listen(makeApp(), 0);
const driver = await startBrowser();
const run = async <T>(script: string, ...values: unknown[]): Promise<T> => {
  const answer = await driver.executeAsyncScript<{ value?: T; error?: string }>(
    `const done = arguments[arguments.length - 1]; (async (...values) => {${script}})(...[...arguments].slice(0, -1)).then((value) => done({ value }), (error) => done({ error: String(error) }));`,
    ...values,
  );
  if (answer.error !== undefined) throw new Error(answer.error);
  return answer.value as T;
};
try {
  await driver.manage().setTimeouts({ script: 900000 });
  await driver.get(`${pyrvel.address}/render.html`);
  await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelRender)'), 20000);
  await run('await window.pyrvelRender.open(values[0])', writeShow(show));
  const frame = (scene: string, k: number, width: number, height: number): Promise<string> =>
    run('return window.pyrvelRender.frame(values[0])', { scene, node: null, frame: k, width, height });
  const frames: string[] = [];
  for (let k = 0; k < loopSeconds * fps; k++) frames.push(await frame('s1', k, 480, 270));
  const pane = await frame('s2', 0, 1280, 720);
  await driver.get(maker.address);
  const webp = await run<string>(
    `const bitmap = await createImageBitmap(await (await fetch('data:image/png;base64,' + values[0])).blob());
     const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
     canvas.getContext('2d').drawImage(bitmap, 0, 0);
     const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/webp', quality: 0.8 })).arrayBuffer());
     let text = ''; for (const byte of bytes) text += String.fromCharCode(byte);
     return btoa(text);`,
    pane,
  );
  writeFileSync(path.join(root, 'public/media/wax-pane.webp'), Buffer.from(webp, 'base64'));
  const webm = await run<string>(
    `const { Output, WebMOutputFormat, BufferTarget, CanvasSource } = await import('/mediabunny/mediabunny.mjs');
     const [frames, fps] = values;
     const canvas = new OffscreenCanvas(480, 270);
     const context = canvas.getContext('2d');
     const output = new Output({ format: new WebMOutputFormat(), target: new BufferTarget() });
     const source = new CanvasSource(canvas, { codec: 'vp9', bitrate: 600000, keyFrameInterval: 1 });
     output.addVideoTrack(source, { frameRate: fps });
     await output.start();
     for (let k = 0; k < frames.length; k++) {
       context.drawImage(await createImageBitmap(await (await fetch('data:image/png;base64,' + frames[k])).blob()), 0, 0);
       await source.add(k / fps, 1 / fps);
     }
     await output.finalize();
     const bytes = new Uint8Array(output.target.buffer);
     let text = ''; for (const byte of bytes) text += String.fromCharCode(byte);
     return btoa(text);`,
    frames,
    fps,
  );
  writeFileSync(path.join(root, 'public/media/ember-swarm.webm'), Buffer.from(webm, 'base64'));
  console.log('wrote public/media/wax-pane.webp and public/media/ember-swarm.webm');
} finally {
  await driver.quit();
  maker.server.close();
  pyrvel.server.close();
}
