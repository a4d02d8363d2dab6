import { inflateSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { FloatType, HalfFloatType, DataUtils } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { animatedGif, animatedWebp, indexed } from './animation';
import { exrOf, halfOf } from './exr';
import { sixteenBits } from './images';
import { PngWriter, pngOf } from './png';

const random =
  (seed: number): (() => number) =>
  () => {
    seed = (seed * 1664525 + 1013904223) % 4294967296;
    return seed / 4294967296;
  };

interface Chunk {
  type: string;
  data: Buffer;
}

function chunksOf(png: Uint8Array): Chunk[] {
  const bytes = Buffer.from(png);
  const chunks: Chunk[] = [];
  for (let at = 8; at < bytes.length;) {
    const length = bytes.readUInt32BE(at);
    chunks.push({
      type: bytes.toString('latin1', at + 4, at + 8),
      data: bytes.subarray(at + 8, at + 8 + length),
    });
    at += 12 + length;
  }
  return chunks;
}

/** Rows of a PNG as the specification says they are read. */
function rowsOf(png: Uint8Array): { width: number; height: number; bits: number; rows: Uint8Array } {
  const chunks = chunksOf(png);
  const head = chunks[0].data;
  const [width, height, bits] = [head.readUInt32BE(0), head.readUInt32BE(4), head[8]];
  const step = ((head[9] === 6 ? 4 : 3) * bits) / 8;
  const raw = inflateSync(
    Buffer.concat(chunks.filter(({ type }) => type === 'IDAT').map(({ data }) => data)),
  );
  const length = width * step;
  const rows = new Uint8Array(height * length);
  for (let y = 0; y < height; y++) {
    const filter = raw[y * (length + 1)];
    for (let k = 0; k < length; k++) {
      const left = k < step ? 0 : rows[y * length + k - step];
      const up = y === 0 ? 0 : rows[(y - 1) * length + k];
      const corner = k < step || y === 0 ? 0 : rows[(y - 1) * length + k - step];
      const guess = left + up - corner;
      const near = [left, up, corner].reduce((a, b) => (Math.abs(guess - b) < Math.abs(guess - a) ? b : a));
      const foretold = [0, left, up, (left + up) >> 1, near][filter];
      rows[y * length + k] = raw[y * (length + 1) + 1 + k] + foretold;
    }
  }
  return { width, height, bits, rows };
}

describe('a PNG', () => {
  test.each([
    [8, 3],
    [8, 4],
    [16, 3],
    [16, 4],
  ] as const)('of %i bits and %i channels gives its pixels back', async (bits, channels) => {
    const next = random(bits + channels);
    const rows = new Uint8Array((13 * 9 * channels * bits) / 8).map((_, k) =>
      k % 50 < 25 ? 40 : next() * 256,
    );
    const png = await pngOf({ width: 13, height: 9, bits, channels }, rows);
    expect(rowsOf(png)).toEqual({ width: 13, height: 9, bits, rows });
  });

  test('is the same written in strips', async () => {
    const next = random(3);
    const rows = new Uint8Array(20 * 12 * 3).map(() => next() * 256);
    const parts: Uint8Array[] = [];
    const writer = new PngWriter(
      { width: 20, height: 12, bits: 8, channels: 3 },
      (bytes) => void parts.push(bytes),
    );
    for (let y = 0; y < 12; y += 5) await writer.add(rows.subarray(y * 60, Math.min(12, y + 5) * 60));
    await writer.close();
    expect(rowsOf(Buffer.concat(parts)).rows).toEqual(rows);
  });

  test('tells who writes it when writing fails', async () => {
    const writer = new PngWriter({ width: 1, height: 1, bits: 8, channels: 3 }, () => {
      throw new Error('full');
    });
    await expect(Promise.all([writer.add(new Uint8Array(3)), writer.close()])).rejects.toThrow('full');
  });

  test('of 16 bits rounds, and holds what is beyond its ends', () => {
    expect([...sixteenBits(Float32Array.of(0.5, 2, -1, 1), 4)]).toEqual([128, 0, 255, 255, 0, 0, 255, 255]);
  });
});

describe('an EXR', () => {
  const [width, height] = [7, 37];
  const next = random(9);
  const plane = (): Float32Array => Float32Array.from({ length: width * height }, () => next() * 8 - 2);
  const channels = { R: plane(), G: plane(), B: plane(), A: plane() };

  test.each([16, 32] as const)('of %i bits is read back by another reader', (bits) => {
    const file = exrOf({ width, height, bits }, channels);
    const read = new EXRLoader().setDataType(bits === 16 ? HalfFloatType : FloatType).parse(file.buffer);
    expect([read.width, read.height]).toEqual([width, height]);
    const at = (x: number, y: number, c: number): number => {
      // That reader gives the lowest row first.
      const value = read.data![4 * ((height - 1 - y) * width + x) + c];
      return bits === 16 ? DataUtils.fromHalfFloat(value) : value;
    };
    for (const [x, y] of [
      [0, 0],
      [6, 36],
      [3, 17],
    ])
      ['R', 'G', 'B', 'A'].forEach((name, c) => {
        const value = channels[name as 'R'][y * width + x];
        expect(Math.abs(at(x, y, c) - value)).toBeLessThan(bits === 16 ? 0.004 : 1e-7);
      });
  });

  test('keeps what is beyond all numbers', () => {
    expect([1, 0.5, -2, 65504, Infinity, -Infinity, 6.1e-5, 5.9604645e-8, 0].map(halfOf)).toEqual([
      0x3c00, 0x3800, 0xc000, 0x7bff, 0x7c00, 0xfc00, 0x03ff, 0x0001, 0,
    ]);
    expect(halfOf(Number.NaN) & 0x7fff).toBeGreaterThan(0x7c00);
    // Halfway lies 2049: the even neighbour is 2048.
    expect(halfOf(2049)).toBe(halfOf(2048));
    expect(halfOf(70000)).toBe(0x7c00);
  });
});

describe('a moving preview', () => {
  test('is a WebP whose frames last as long as they should, to the millisecond over all', () => {
    const still = Buffer.concat([Buffer.from('RIFF\x1a\0\0\0WEBPVP8 \x05\0\0\0hello\0', 'latin1')]);
    const webp = Buffer.from(
      animatedWebp(
        { width: 16, height: 9, fps: 60 },
        Array.from({ length: 6 }, () => still),
      ),
    );
    expect(webp.toString('latin1', 0, 4) + webp.toString('latin1', 8, 12)).toBe('RIFFWEBP');
    expect(webp.readUInt32LE(4)).toBe(webp.length - 8);
    const times: number[] = [];
    for (let at = webp.indexOf('ANMF'); at >= 0; at = webp.indexOf('ANMF', at + 4))
      times.push(webp.readUIntLE(at + 8 + 12, 3));
    expect(times).toHaveLength(6);
    expect(times.reduce((a, b) => a + b)).toBe(100);
  });

  test('is a GIF with a frame for each picture', () => {
    const red = indexed(new Uint8Array(4 * 6).map((_, k) => [255, 0, 0, 255][k % 4]));
    const gif = Buffer.from(animatedGif({ width: 3, height: 2, fps: 10 }, [red, red, red]));
    expect(gif.toString('latin1', 0, 6)).toBe('GIF89a');
    expect([gif.readUInt16LE(6), gif.readUInt16LE(8)]).toEqual([3, 2]);
    expect(gif.toString('latin1').split('\x21\xf9\x04').length - 1).toBe(3);
  });
});
