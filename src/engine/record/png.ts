import crc32 from 'crc-32';

/** Pixels of a PNG: bytes, or whole numbers of 16 bits. */
export interface PngForm {
  width: number;
  height: number;
  /** Bits of a channel. */
  bits: 8 | 16;
  channels: 3 | 4;
}

const signature = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a);

function chunk(type: string, data: Uint8Array): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let k = 0; k < 4; k++) out[4 + k] = type.charCodeAt(k);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32.buf(out.subarray(4, 8 + data.length)) >>> 0);
  return out;
}

function head({ width, height, bits, channels }: PngForm): Uint8Array {
  const data = new Uint8Array(13);
  const view = new DataView(data.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  data.set([bits, channels === 4 ? 6 : 2], 8);
  return chunk('IHDR', data);
}

/** Paeth's predictor (PNG specification, 9.4). */
function paeth(a: number, b: number, c: number): number {
  const pa = Math.abs(b - c);
  const pb = Math.abs(a - c);
  const pc = Math.abs(a + b - 2 * c);
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
}

/** Numbers of filters in the file: each byte less the one before it, above it, or what both and the one between them foretell. */
const [sub, up, foretold] = [1, 2, 4];
/** Bytes of a row from one that tells which filter suits it to the next: odd, so that all channels are among them. */
const tellingStride = 13;

const signedRest = (value: number): number => {
  const byte = value & 255;
  return byte < 128 ? byte : 256 - byte;
};

/** The filter that leaves the least of a row: the sum of what is left, taken as signed (PNG specification, 12.8), of some of its bytes. */
function suitingFilter(row: Uint8Array, above: Uint8Array, step: number): number {
  let [bySub, byUp, byForetold] = [0, 0, 0];
  for (let k = step; k < row.length; k += tellingStride) {
    const left = row[k - step];
    const high = above[k];
    const corner = above[k - step];
    bySub += signedRest(row[k] - left);
    byUp += signedRest(row[k] - high);
    byForetold += signedRest(row[k] - paeth(left, high, corner));
  }
  if (byForetold < bySub && byForetold < byUp) return foretold;
  return byUp < bySub ? up : sub;
}

/** Rows as they are compressed: each with the filter that suits it. */

class RowFilter {
  private above: Uint8Array;
  private readonly step: number;

  constructor({ width, bits, channels }: PngForm) {
    this.step = (bits / 8) * channels;
    this.above = new Uint8Array(width * this.step);
  }

  /** `row` is kept until the next one. */
  filter(row: Uint8Array, into: Uint8Array, at: number): void {
    const { above, step } = this;
    const filter = suitingFilter(row, above, step);
    into[at++] = filter;
    // Nothing lies before the first pixel.
    for (let k = 0; k < step; k++) into[at + k] = filter === sub ? row[k] : row[k] - above[k];
    if (filter === sub) for (let k = step; k < row.length; k++) into[at + k] = row[k] - row[k - step];
    else if (filter === up) for (let k = step; k < row.length; k++) into[at + k] = row[k] - above[k];
    else
      for (let k = step; k < row.length; k++)
        into[at + k] = row[k] - paeth(row[k - step], above[k], above[k - step]);
    this.above = row;
  }
}

/** Writes a PNG from strips of rows, from above, so that a picture larger than memory can be written. */
export class PngWriter {
  private readonly rows: RowFilter;
  private readonly deflate = new CompressionStream('deflate');
  private readonly input = this.deflate.writable.getWriter();
  private readonly output: Promise<void>;
  private readonly rowBytes: number;

  /** `write` is given the file in its order. */
  constructor(
    form: PngForm,
    private readonly write: (bytes: Uint8Array<ArrayBuffer>) => Promise<void> | void,
  ) {
    this.rows = new RowFilter(form);
    this.rowBytes = (form.width * form.channels * form.bits) / 8;
    this.output = this.run(head(form));
    // Who writes is told: nothing else waits for it until the end.
    this.output.catch(() => undefined);
  }

  private async run(first: Uint8Array): Promise<void> {
    await this.write(signature);
    await this.write(first as Uint8Array<ArrayBuffer>);
    const reader = this.deflate.readable.getReader();
    for (;;) {
      const { value, done } = await reader.read();
      if (done) break;
      await this.write(chunk('IDAT', value));
    }
    await this.write(chunk('IEND', new Uint8Array(0)));
  }

  /** Adds rows; numbers of 16 bits have their high byte first. */
  async add(rows: Uint8Array): Promise<void> {
    const count = rows.length / this.rowBytes;
    const filtered = new Uint8Array(rows.length + count);
    for (let k = 0; k < count; k++)
      this.rows.filter(
        rows.subarray(k * this.rowBytes, (k + 1) * this.rowBytes),
        filtered,
        k * (this.rowBytes + 1),
      );
    await this.input.write(filtered);
  }

  /** Resolves when all is written. */
  async close(): Promise<void> {
    await Promise.all([this.input.close(), this.output]);
  }
}

/** A whole picture as a PNG. */
export async function pngOf(form: PngForm, rows: Uint8Array): Promise<Uint8Array<ArrayBuffer>> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const writer = new PngWriter(form, (bytes) => void parts.push(bytes));
  await writer.add(rows);
  await writer.close();
  return joined(parts);
}

/** Parts one after the other. */
export function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
