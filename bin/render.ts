import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FrameRequest } from '../src/engine/protocol/protocol';
import type { Show } from '../src/core/document/types';
import { readFps, readFrames, readSize, UsageError, type Options } from './arguments';
import { readRenderer, type Renderer } from './browser';
import { EnginePage } from './engine-page';
import { findAll } from './find';

/** A name as a folder: what file systems can't hold is left out. */
const folderName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'unnamed';

/** Opens a show in the real engine in headless Chromium, for as long as `use` takes. */
export async function withEngine(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  use: (ask: EnginePage['ask']) => Promise<void>,
  renderer?: Renderer,
): Promise<void> {
  const page = await EnginePage.open(show, files, { renderer });
  try {
    await use((...args) => page.ask(...args));
  } finally {
    await page.close();
  }
}

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
  await withEngine(
    part,
    files,
    async (ask) => {
      for (const { scene, node, folder: into } of pictures) {
        mkdirSync(into, { recursive: true });
        for (const frame of frames) {
          const request: FrameRequest = { scene, node, frame, width, height };
          const png = await ask<string>(`Frame ${frame}`, 'frame', request);
          const file = path.join(into, `frame-${String(frame).padStart(5, '0')}.png`);
          writeFileSync(file, Buffer.from(png, 'base64'));
          say(file);
        }
      }
    },
    readRenderer(options.get('renderer')),
  );
}
