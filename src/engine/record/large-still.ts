import { ExportError, type ExportSpec } from '../../core/export/spec';
import type { Show } from '../../core/document/types';
import type { Rest } from '../exact/exact-run';
import type { ExportSink } from '../protocol/export';
import { ExportRun, type ExportMeans } from './export-run';
import { Grabber } from './grabber';
import { sixteenBits } from './images';
import { joined, PngWriter } from './png';
import { put, streamTo } from './sink';

/** Longest side of the pictures that a large still is made of. */
const longestPicture = 4096;
/** Rows that are drawn at once. */
const stripRows = 256;

/**
 * Draws a still that is larger than a texture, in strips, and writes it as it is drawn. The last shader of the scene is computed at the full
 * size; stored pictures that it reads are as large as they can be.
 */
export async function largeStill(
  means: ExportMeans,
  show: Show,
  spec: ExportSpec,
  frame: number,
  sink: ExportSink,
  name: string,
  rest: Rest,
): Promise<void> {
  const { width, height, format, source, output } = spec;
  if (format.type !== 'images' || source.type !== 'scene' || source.node || output)
    throw new ExportError('Only the picture of a scene can be larger than 8,192 pixels.');
  const { gpu } = means;
  const texture = Math.min(longestPicture, gpu.renderer.capabilities.maxTextureSize);
  const scale = texture / Math.max(width, height);
  const size = {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  };
  const run = new ExportRun(means, show, { ...spec, ...size });
  const channels = format.alpha ? 4 : 3;
  const bits = format.image === 'png16' ? 16 : 8;
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const stream =
    sink.type === 'folder'
      ? (await streamTo(await sink.folder.getFileHandle(name, { create: true }))).getWriter()
      : null;
  let position = 0;
  const png = new PngWriter({ width, height, bits, channels }, async (data) => {
    if (!stream) parts.push(data);
    else await stream.write({ type: 'write', data, position });
    position += data.length;
  });
  try {
    await run.frame(frame, () => undefined, rest);
    // The widest that can be drawn at once may be less than a row.
    const columns = Math.min(width, gpu.renderer.capabilities.maxTextureSize);
    for (let top = 0; top < height; top += stripRows) {
      const rows = Math.min(stripRows, height - top);
      const strip = new Uint8Array((width * rows * channels * bits) / 8);
      const rowBytes = strip.length / rows;
      for (let left = 0; left < width; left += columns) {
        const part = { width: Math.min(columns, width - left), height: rows };
        const grabber = new Grabber(gpu, { ...spec, ...part });
        const target = grabber.target();
        const region = [left / width, 1 - (top + rows) / height, part.width / width, rows / height];
        run.drawPart(target, region);
        grabber.add(target);
        const pixels = await grabber.take();
        grabber.dispose();
        const bytes =
          bits === 16
            ? sixteenBits(pixels as Float32Array, channels)
            : packed(pixels as Uint8Array, channels);
        const partBytes = bytes.length / rows;
        for (let row = 0; row < rows; row++)
          strip.set(
            bytes.subarray(row * partBytes, (row + 1) * partBytes),
            row * rowBytes + (left * channels * bits) / 8,
          );
      }
      await png.add(strip);
      await rest();
    }
    await png.close();
    await stream?.close();
    if (!stream) await put(sink, name, joined(parts));
  } catch (error) {
    await stream?.abort().catch(() => undefined);
    throw error;
  } finally {
    run.dispose();
  }
}

function packed(rgba: Uint8Array, channels: 3 | 4): Uint8Array {
  if (channels === 4) return rgba;
  const rgb = new Uint8Array((rgba.length / 4) * 3);
  for (let from = 0, to = 0; from < rgba.length; from += 4, to += 3)
    rgb.set(rgba.subarray(from, from + 3), to);
  return rgb;
}
