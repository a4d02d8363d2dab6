/** An argument as it is of use here: i and f as numbers, s as text, T and F as truth. */
export type OscArgument = number | string | boolean;

export interface OscMessage {
  address: string;
  args: OscArgument[];
}

/** A packet that cannot be read; the message says at which byte, and what is wrong. */
export class OscError extends Error {
  override name = 'OscError';
  constructor(at: number, what: string) {
    super(`At byte ${at}: ${what}`);
  }
}

/** Bundles may hold bundles, but not forever. */
const deepest = 8;
const textDecoder = (bytes: Uint8Array): string => {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return text;
};

class Reader {
  constructor(
    private readonly bytes: Uint8Array,
    public at: number,
    private readonly end: number,
  ) {}
  get left(): number {
    return this.end - this.at;
  }
  take(length: number): Uint8Array {
    if (length > this.left) throw new OscError(this.at, 'the packet ends too early.');
    const part = this.bytes.subarray(this.at, this.at + length);
    this.at += length;
    return part;
  }
  view(length: number): DataView {
    const part = this.take(length);
    return new DataView(part.buffer, part.byteOffset, length);
  }
  /** A text ends with a zero and is filled up to four bytes. */
  text(): string {
    const zero = this.bytes.subarray(0, this.end).indexOf(0, this.at);
    if (zero < 0) throw new OscError(this.at, 'a text does not end.');
    const text = textDecoder(this.bytes.subarray(this.at, zero));
    this.take((Math.floor((zero - this.at) / 4) + 1) * 4);
    return text;
  }
}

function readArgument(tag: string, reader: Reader): OscArgument | null {
  switch (tag) {
    case 'i':
      return reader.view(4).getInt32(0);
    case 'f':
      return reader.view(4).getFloat32(0);
    case 's':
    case 'S':
      return reader.text();
    case 'T':
      return true;
    case 'F':
      return false;
    case 'd':
      return reader.view(8).getFloat64(0);
    case 'h':
    case 't':
      return Number(reader.view(8).getBigInt64(0));
    case 'b': {
      const length = reader.view(4).getUint32(0);
      reader.take(Math.ceil(length / 4) * 4);
      return null;
    }
    case 'N':
    case 'I':
      return null;
    default:
      throw new OscError(reader.at, `nothing is known of arguments of the type ${tag}.`);
  }
}

function readElement(bytes: Uint8Array, start: number, end: number, depth: number, into: OscMessage[]): void {
  const reader = new Reader(bytes, start, end);
  const address = reader.text();
  if (address === '#bundle') {
    if (depth >= deepest) throw new OscError(start, 'bundles lie in bundles too deeply.');
    reader.take(8); // when it is meant for; here it is taken at once
    while (reader.left > 0) {
      const length = reader.view(4).getUint32(0);
      if (length % 4 !== 0 || length > reader.left)
        throw new OscError(reader.at, `a part of ${length} bytes does not fit.`);
      readElement(bytes, reader.at, reader.at + length, depth + 1, into);
      reader.take(length);
    }
    return;
  }
  if (!address.startsWith('/')) throw new OscError(start, 'an address begins with a slash.');
  // Very old senders leave the types out; then there is nothing to read.
  const tags = reader.left > 0 ? reader.text() : ',';
  if (!tags.startsWith(',')) throw new OscError(start, 'the types of the arguments are missing.');
  const args: OscArgument[] = [];
  for (const tag of tags.slice(1)) {
    const value = readArgument(tag, reader);
    if (value !== null) args.push(value);
  }
  into.push({ address, args });
}

/**
 * Reads a packet of Open Sound Control 1.0: a message, or a bundle of them. Throws OscError. Numbers that are none become 0.
 */
export function readPacket(bytes: Uint8Array): OscMessage[] {
  if (bytes.length === 0 || bytes.length % 4 !== 0)
    throw new OscError(0, `a packet is filled up to four bytes; this one has ${bytes.length}.`);
  const messages: OscMessage[] = [];
  readElement(bytes, 0, bytes.length, 0, messages);
  for (const message of messages)
    message.args = message.args.map((v) => (typeof v === 'number' && !Number.isFinite(v) ? 0 : v));
  return messages;
}

/** Writes one message; whole numbers that fit go as i, others as f. */
export function writePacket({ address, args }: OscMessage): Uint8Array {
  const bytes: number[] = [];
  const text = (value: string): void => {
    for (const letter of value) bytes.push(letter.charCodeAt(0) & 0xff);
    do bytes.push(0);
    while (bytes.length % 4 !== 0);
  };
  const isWhole = (v: OscArgument): boolean => Number.isInteger(v) && Math.abs(v as number) < 2 ** 31;
  const tagOf = (v: OscArgument): string =>
    typeof v === 'string' ? 's' : typeof v === 'boolean' ? (v ? 'T' : 'F') : isWhole(v) ? 'i' : 'f';
  text(address);
  text(`,${args.map(tagOf).join('')}`);
  for (const value of args) {
    if (typeof value === 'string') text(value);
    else if (typeof value === 'number') {
      const view = new DataView(new ArrayBuffer(4));
      if (isWhole(value)) view.setInt32(0, value);
      else view.setFloat32(0, value);
      for (let k = 0; k < 4; k++) bytes.push(view.getUint8(k));
    }
  }
  return Uint8Array.from(bytes);
}
