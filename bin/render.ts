import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FrameRequest } from '../src/engine/protocol';
import type { Show } from '../src/core/show/types';
import { listen, makeApp } from '../src/server/server';
import { readFrames, readSize, UsageError } from './arguments';
import { startBrowser } from './browser';
import { findNode, findScene } from './find';

/** Writes frames from the real engine in headless Chromium as PNG files; the same frames every time. */
export async function renderFrames(
  text: string,
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: ReadonlyMap<string, string>,
  say: (line: string) => void,
): Promise<void> {
  const scene = findScene(show, options.get('scene'));
  const node = options.has('node') ? findNode(scene, options.get('node')) : null;
  const { first, last } = readFrames(options.get('frames') ?? '0');
  const { width, height } = readSize(options.get('size') ?? `${show.canvas.width}x${show.canvas.height}`);
  const folder = options.get('out');
  if (folder === undefined) throw new UsageError('--out is missing: the folder for the pictures.');
  mkdirSync(folder, { recursive: true });
  const { server, address } = await listen(makeApp(), 0);
  const driver = await startBrowser({ width: 320, height: 240 });
  try {
    await driver.manage().setTimeouts({ script: 900000 });
    await driver.get(`${address}/render.html`);
    await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelRender)'), 20000);
    await driver.executeAsyncScript(
      'const [text, files, done] = arguments; window.pyrvelRender.open(text, files).then(() => done(null), (e) => done(String(e)));',
      text,
      Object.fromEntries([...files].map(([id, bytes]) => [id, Buffer.from(bytes).toString('base64')])),
    );
    for (let frame = first; frame <= last; frame++) {
      const request: FrameRequest = { scene: scene.id, node: node?.id ?? null, frame, width, height };
      const answer = await driver.executeAsyncScript<{ png?: string; error?: string }>(
        'const [request, done] = arguments; window.pyrvelRender.frame(request).then((png) => done({ png }), (e) => done({ error: e.message }));',
        request,
      );
      if (answer.error !== undefined || answer.png === undefined)
        throw new UsageError(`Frame ${frame}: ${answer.error}`);
      const file = path.join(folder, `frame-${String(frame).padStart(5, '0')}.png`);
      writeFileSync(file, Buffer.from(answer.png, 'base64'));
      say(file);
    }
  } finally {
    await driver.quit();
    server.close();
  }
}
