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
  const [pa, pb, pc] = [Math.abs(b - c), Math.abs(a - c), Math.abs(a + b - 2 * c)];
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
}

type Filter = (row: Uint8Array, above: Uint8Array, step: number, out: Uint8Array) => void;

/** Filters by their number in the file. The first byte of `out` is that number. */
const filters: readonly (readonly [number, Filter])[] = [
  [
    1,
    (row, _above, step, out) => {
      for (let k = 0; k < row.length; k++) out[k + 1] = row[k] - (k < step ? 0 : row[k - step]);
    },
  ],
  [
    2,
    (row, above, _step, out) => {
      for (let k = 0; k < row.length; k++) out[k + 1] = row[k] - above[k];
    },
  ],
  [
    4,
    (row, above, step, out) => {
      for (let k = 0; k < row.length; k++)
        out[k + 1] =
          row[k] - (k < step ? above[k] : paeth(row[k - step], above[k], above[k - step]));
    },
  ],
];

/** How much is left after a filter: the sum of what is left, taken as signed (PNG specification, 12.8). */
function rest(filtered: Uint8Array): number {
  let sum = 0;
  for (let k = 1; k < filtered.length; k++) sum += filtered[k] < 128 ? filtered[k] : 256 - filtered[k];
  return sum;
}

/** Rows as they are compressed: each with the filter that leaves the least of it. */
class RowFilter {
  private above: Uint8Array;
  private readonly trials: Uint8Array[];
  private readonly step: number;

  constructor({ width, bits, channels }: PngForm) {
    this.step = (bits / 8) * channels;
    const length = width * this.step;
    this.above = new Uint8Array(length);
    this.trials = filters.map(() => new Uint8Array(length + 1));
  }

  /** `row` is kept until the next one. */
  filter(row: Uint8Array, into: Uint8Array, at: number): void {
    let best = this.trials[0];
    let least = Infinity;
    filters.forEach(([number, filter], k) => {
      const out = this.trials[k];
      out[0] = number;
      filter(row, this.above, this.step, out);
      const left = rest(out);
      if (left >= least) return;
      least = left;
      best = out;
    });
    into.set(best, at);
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
