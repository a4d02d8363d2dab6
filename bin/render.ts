import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FrameRequest } from '../src/engine/protocol';
import type { Show } from '../src/core/show/types';
import { writeShow } from '../src/core/show/validate';
import { listen, makeApp } from '../src/server/server';
import { readFps, readFrames, readSize, UsageError, type Options } from './arguments';
import { startBrowser } from './browser';
import { findAll } from './find';

/** A name as a folder: what file systems can't hold is left out. */
const folderName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'unnamed';

/**
 * Writes frames from the real engine in headless Chromium as PNG files; the same frames every time. Where several scenes or
 * nodes are asked for, each has a folder of its own.
 */
export async function renderFrames(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  say: (line: string) => void,
): Promise<void> {
  const wanted = findAll(show, options.all('scene'), options.all('node'));
  const frames = readFrames(options.get('frames') ?? '0');
  const { width, height } = readSize(options.get('size') ?? `${show.canvas.width}x${show.canvas.height}`);
  const fps = readFps(options.get('fps') ?? String(show.canvas.fps));
  const folder = options.get('out');
  if (folder === undefined) throw new UsageError('--out is missing: the folder for the pictures.');
  // The engine is given only what is asked for.
  const part: Show = { ...show, canvas: { ...show.canvas, fps }, scenes: wanted.map(({ scene }) => scene) };
  const pictures = wanted.flatMap(({ scene, nodes }) =>
    (nodes.length ? nodes : [null]).map((node) => ({
      scene: scene.id,
      node: node?.id ?? null,
      folder: path.join(
        folder,
        wanted.length > 1 ? folderName(scene.name) : '',
        nodes.length > 1 ? folderName(node!.name) : '',
      ),
    })),
  );
  const { server, address } = await listen(makeApp(), 0);
  const driver = await startBrowser({ width: 320, height: 240 });
  try {
    await driver.manage().setTimeouts({ script: 900000 });
    await driver.get(`${address}/render.html`);
    await driver.wait(() => driver.executeScript('return Boolean(window.pyrvelRender)'), 20000);
    await driver.executeAsyncScript(
      'const [text, files, done] = arguments; window.pyrvelRender.open(text, files).then(() => done(null), (e) => done(String(e)));',
      writeShow(part),
      Object.fromEntries([...files].map(([id, bytes]) => [id, Buffer.from(bytes).toString('base64')])),
    );
    for (const { scene, node, folder: into } of pictures) {
      mkdirSync(into, { recursive: true });
      for (const frame of frames) {
        const request: FrameRequest = { scene, node, frame, width, height };
        const answer = await driver.executeAsyncScript<{ png?: string; error?: string }>(
          'const [request, done] = arguments; window.pyrvelRender.frame(request).then((png) => done({ png }), (e) => done({ error: e.message }));',
          request,
        );
        if (answer.error !== undefined || answer.png === undefined)
          throw new UsageError(`Frame ${frame}: ${answer.error}`);
        const file = path.join(into, `frame-${String(frame).padStart(5, '0')}.png`);
        writeFileSync(file, Buffer.from(answer.png, 'base64'));
        say(file);
      }
    }
  } finally {
    await driver.quit();
    server.close();
  }
}
