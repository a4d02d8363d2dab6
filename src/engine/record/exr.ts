import { zlibSync } from 'fflate';
import { joined } from './png';

/** Channels of an OpenEXR picture: rows from above, one number a pixel. */
export type ExrChannels = Readonly<Record<string, Float32Array>>;

interface ExrForm {
  width: number;
  height: number;
  bits: 16 | 32;
  /** Frames a second of the sequence it is one of; absent: it is none. */
  fps?: number;
}

/** A rate as a fraction: whole ones, and those of television, whose denominator is 1001. */
const fractionOf = (fps: number): [number, number] => {
  const denominator = [1, 1001].find((one) => Math.abs(Math.round(fps * one) / one - fps) < 1e-4) ?? 1000;
  return [Math.round(fps * denominator), denominator];
};

/** Rows that are compressed together: fixed for ZIP (OpenEXR file layout). */
const rowsOfBlock = 16;
const zip = 3;

const floats = new Float32Array(1);
const words = new Uint32Array(floats.buffer);

/** A number as a half float (IEEE 754 binary16), rounded to the nearest, to even where it lies between two. */
export function halfOf(value: number): number {
  floats[0] = value;
  const bits = words[0];
  const sign = (bits >>> 16) & 0x8000;
  const exponent = ((bits >>> 23) & 0xff) - 112;
  const mantissa = bits & 0x7fffff;
  if (exponent >= 31) {
    const isNaN = exponent === 143 && mantissa !== 0;
    return sign | 0x7c00 | (isNaN ? 0x200 : 0);
  }
  if (exponent <= 0) {
    if (exponent < -10) return sign;
    const whole = mantissa | 0x800000;
    const shift = 14 - exponent;
    return sign | rounded(whole, shift);
  }
  // A carry out of the mantissa goes into the exponent, as it should.
  return sign | ((exponent << 10) + rounded(mantissa, 13));
}

function rounded(value: number, shift: number): number {
  const half = 1 << (shift - 1);
  const left = value & ((1 << shift) - 1);
  const whole = value >>> shift;
  return left > half || (left === half && whole & 1) ? whole + 1 : whole;
}

class Bytes {
  private readonly parts: Uint8Array[] = [];
  length = 0;

  add(part: Uint8Array): this {
    this.parts.push(part);
    this.length += part.length;
    return this;
  }

  text(text: string): this {
    return this.add(new TextEncoder().encode(`${text}\0`));
  }

  int(...values: number[]): this {
    return this.add(new Uint8Array(Int32Array.from(values).buffer));
  }

  float(...values: number[]): this {
    return this.add(new Uint8Array(Float32Array.from(values).buffer));
  }

  attribute(name: string, type: string, value: Bytes): this {
    return this.text(name).text(type).int(value.length).add(value.all());
  }

  all(): Uint8Array<ArrayBuffer> {
    return joined(this.parts);
  }
}

function header({ width, height, bits, fps }: ExrForm, names: readonly string[]): Bytes {
  const channels = new Bytes();
  for (const name of names) channels.text(name).int(bits === 16 ? 1 : 2, 0, 1, 1);
  const box = (): Bytes => new Bytes().int(0, 0, width - 1, height - 1);
  const head = new Bytes()
    .int(20000630, 2)
    .attribute('channels', 'chlist', channels.add(Uint8Array.of(0)))
    .attribute('compression', 'compression', new Bytes().add(Uint8Array.of(zip)))
    .attribute('dataWindow', 'box2i', box())
    .attribute('displayWindow', 'box2i', box())
    .attribute('lineOrder', 'lineOrder', new Bytes().add(Uint8Array.of(0)))
    .attribute('pixelAspectRatio', 'float', new Bytes().float(1))
    .attribute('screenWindowCenter', 'v2f', new Bytes().float(0, 0))
    .attribute('screenWindowWidth', 'float', new Bytes().float(1));
  if (fps) head.attribute('framesPerSecond', 'rational', new Bytes().int(...fractionOf(fps)));
  return head.add(Uint8Array.of(0));
}

/** Bytes as ZIP blocks have them: first all even ones, then all odd ones, each as its difference to the one before. */
function prepared(raw: Uint8Array): Uint8Array {
  const out = new Uint8Array(raw.length);
  const half = (raw.length + 1) >> 1;
  for (let k = 0; k < raw.length; k++) out[(k >> 1) + (k & 1 ? half : 0)] = raw[k];
  for (let k = out.length - 1; k > 0; k--) out[k] = out[k] - out[k - 1] + 128;
  return out;
}

function blockOf(
  { width, height, bits }: ExrForm,
  channels: readonly Float32Array[],
  from: number,
): Uint8Array {
  const rows = Math.min(rowsOfBlock, height - from);
  const raw = new Uint8Array((rows * width * channels.length * bits) / 8);
  const [halves, wholes] =
    bits === 16 ? [new Uint16Array(raw.buffer), null] : [null, new Float32Array(raw.buffer)];
  let at = 0;
  for (let y = from; y < from + rows; y++)
    for (const channel of channels) {
      const row = channel.subarray(y * width, (y + 1) * width);
      if (halves) for (let x = 0; x < width; x++) halves[at + x] = halfOf(row[x]);
      else wholes!.set(row, at);
      at += width;
    }
  const packed = zlibSync(prepared(raw), { level: 4 });
  // What does not get smaller stands as it is, as readers tell it by its length.
  return packed.length < raw.length ? packed : raw;
}

/** A picture as OpenEXR, compressed by ZIP (OpenEXR file layout, openexr.com). */
export function exrOf(form: ExrForm, channels: ExrChannels): Uint8Array<ArrayBuffer> {
  const names = Object.keys(channels).sort();
  const file = header(form, names);
  const blocks: Uint8Array[] = [];
  for (let y = 0; y < form.height; y += rowsOfBlock)
    blocks.push(
      blockOf(
        form,
        names.map((name) => channels[name]),
        y,
      ),
    );
  const offsets = new BigUint64Array(blocks.length);
  let at = file.length + 8 * blocks.length;
  blocks.forEach((block, k) => {
    offsets[k] = BigInt(at);
    at += 8 + block.length;
  });
  file.add(new Uint8Array(offsets.buffer));
  blocks.forEach((block, k) => file.int(k * rowsOfBlock, block.length).add(block));
  return file.all();
}
