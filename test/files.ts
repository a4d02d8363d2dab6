import { deflateSync, inflateSync } from 'node:zlib';
import { Document, WebIO } from '@gltf-transform/core';

/** The sum of ISO 3309, bit by bit. */
function crc32(bytes: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of bytes) {
    sum ^= byte;
    for (let k = 0; k < 8; k++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  }
  return (sum ^ 0xffffffff) >>> 0;
}

/** A PNG (ISO/IEC 15948) one pixel wide: red, green and blue 0..255 of each row, the uppermost first. */
export function pngOf(rows: readonly (readonly [number, number, number])[]): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.from([0, 0, 0, 1, 0, 0, 0, rows.length, 8, 2, 0, 0, 0]);
  return Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.from(rows.flatMap((row) => [0, ...row])))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A Radiance picture one pixel wide, uncompressed: mantissas and the shared exponent of each row, the uppermost first. */
export const hdrOf = (rows: readonly (readonly [number, number, number, number])[]): Buffer =>
  Buffer.concat([
    Buffer.from(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${rows.length} +X 1\n`, 'latin1'),
    Buffer.from(rows.flat()),
  ]);

/** An OpenEXR picture one pixel wide, 32-bit float, uncompressed scan lines, the uppermost first. */
export function exrOf(rows: readonly (readonly [number, number, number])[]): Buffer {
  const text = (value: string): Buffer => Buffer.from(`${value}\0`, 'latin1');
  const int = (value: number): Buffer => {
    const bytes = Buffer.alloc(4);
    bytes.writeInt32LE(value);
    return bytes;
  };
  const float = (value: number): Buffer => {
    const bytes = Buffer.alloc(4);
    bytes.writeFloatLE(value);
    return bytes;
  };
  const attribute = (name: string, type: string, data: Buffer): Buffer =>
    Buffer.concat([text(name), text(type), int(data.length), data]);
  const box = Buffer.concat([int(0), int(0), int(0), int(rows.length - 1)]);
  const channel = (name: string): Buffer => Buffer.concat([text(name), int(2), int(0), int(1), int(1)]);
  const head = Buffer.concat([
    Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]),
    attribute(
      'channels',
      'chlist',
      Buffer.concat([channel('B'), channel('G'), channel('R'), Buffer.from([0])]),
    ),
    attribute('compression', 'compression', Buffer.from([0])),
    attribute('dataWindow', 'box2i', box),
    attribute('displayWindow', 'box2i', box),
    attribute('lineOrder', 'lineOrder', Buffer.from([0])),
    attribute('pixelAspectRatio', 'float', float(1)),
    attribute('screenWindowCenter', 'v2f', Buffer.concat([float(0), float(0)])),
    attribute('screenWindowWidth', 'float', float(1)),
    Buffer.from([0]),
  ]);
  const lines = rows.map(([r, g, b], y) => Buffer.concat([int(y), int(12), float(b), float(g), float(r)]));
  const offsets = lines.map((line, y) => {
    const bytes = Buffer.alloc(8);
    bytes.writeBigUInt64LE(BigInt(head.length + 8 * rows.length + y * line.length));
    return bytes;
  });
  return Buffer.concat([head, ...offsets, ...lines]);
}

/** A face of a model: an upright sheet 0.3 wide and 0.8 high at a place across. */
export interface GlbSheet {
  x: number;
  /** A PNG that lies on it twice, one above the other; sheets may share one. */
  picture?: Buffer;
  /** Red, green, blue and alpha of its material, linear. */
  colour?: [number, number, number, number];
}

/** A GLB (glTF 2.0) of upright sheets, each a part of its own. */
export async function glbOf(sheets: readonly GlbSheet[]): Promise<Buffer> {
  const document = new Document();
  const buffer = document.createBuffer();
  const pictures = new Map(
    sheets
      .flatMap(({ picture }) => (picture ? [picture] : []))
      .map((picture, k) => {
        const texture = document.createTexture(`Picture ${k}`);
        return [picture, texture.setImage(new Uint8Array(picture)).setMimeType('image/png')];
      }),
  );
  const scene = document.createScene();
  const numbers = (type: 'VEC2' | 'VEC3' | 'SCALAR', list: number[], whole = false) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(whole ? Uint16Array.from(list) : Float32Array.from(list))
      .setBuffer(buffer);
  sheets.forEach(({ x, picture, colour }, k) => {
    const corners = [-1, 1].flatMap((up) => [-1, 1].map((aside) => [x + 0.15 * aside, 0.4 * up, 0]));
    const material = document.createMaterial().setBaseColorFactor(colour ?? [1, 1, 1, 1]);
    if (picture) material.setBaseColorTexture(pictures.get(picture)!);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', numbers('VEC3', corners.flat()))
      .setAttribute(
        'NORMAL',
        numbers(
          'VEC3',
          corners.flatMap(() => [0, 0, 1]),
        ),
      )
      .setAttribute('TEXCOORD_0', numbers('VEC2', [0, 2, 1, 2, 0, 0, 1, 0]))
      .setIndices(numbers('SCALAR', [0, 1, 3, 0, 3, 2], true))
      .setMaterial(material);
    const mesh = document.createMesh().addPrimitive(primitive);
    scene.addChild(document.createNode(`Sheet ${k}`).setMesh(mesh));
  });
  return Buffer.from(await new WebIO().writeBinary(document));
}

/** The pixels of a PNG with 8 bits a channel that is not interlaced: its rows, unfiltered (PNG specification, section 9). */
export function pixelsOf(png: Buffer): Uint8Array {
  const [width, height, colour] = [png.readUInt32BE(16), png.readUInt32BE(20), png[25]];
  const channels = { 0: 1, 2: 3, 4: 2, 6: 4 }[colour];
  if (png[24] !== 8 || channels === undefined)
    throw new TypeError('Only PNGs with 8 bits a channel can be read.');
  const parts: Buffer[] = [];
  for (let at = 8; at < png.length;) {
    const length = png.readUInt32BE(at);
    if (png.toString('latin1', at + 4, at + 8) === 'IDAT') parts.push(png.subarray(at + 8, at + 8 + length));
    at += 12 + length;
  }
  const packed = inflateSync(Buffer.concat(parts));
  const row = width * channels;
  const out = new Uint8Array(row * height);
  for (let y = 0; y < height; y++) {
    const filter = packed[y * (row + 1)];
    for (let x = 0; x < row; x++) {
      const left = x >= channels ? out[y * row + x - channels] : 0;
      const above = y ? out[(y - 1) * row + x] : 0;
      const corner = y && x >= channels ? out[(y - 1) * row + x - channels] : 0;
      const guess = left + above - corner;
      const [a, b, c] = [left, above, corner].map((v) => Math.abs(guess - v));
      const paeth = a <= b && a <= c ? left : b <= c ? above : corner;
      const by = [0, left, above, (left + above) >> 1, paeth][filter];
      out[y * row + x] = packed[y * (row + 1) + 1 + x] + by;
    }
  }
  return out;
}
