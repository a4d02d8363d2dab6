import type { PixelString } from '../../document/types';
import { patchOf, pixelCount, universeChannels, bytesOfPixel } from './pixels';

/** One packet as a node reads it. */
export type HeardPacket =
  | {
      type: 'dmx';
      protocol: 'artnet' | 'sacn';
      universe: number;
      sequence: number;
      sync: number;
      data: Uint8Array;
    }
  | { type: 'sync'; protocol: 'artnet' | 'sacn'; universe: number }
  | { type: 'ddp'; offset: number; sequence: number; isLast: boolean; data: Uint8Array };

const startsWith = (bytes: Uint8Array, at: number, letters: string): boolean =>
  bytes.length >= at + letters.length && [...letters].every((c, k) => bytes[at + k] === c.charCodeAt(0));

function readArtNet(bytes: Uint8Array, view: DataView): HeardPacket | null {
  const opCode = view.getUint16(8, true);
  if (opCode === 0x5200) return { type: 'sync', protocol: 'artnet', universe: 0 };
  if (opCode !== 0x5000 || bytes.length < 20) return null;
  const length = view.getUint16(16);
  if (length > universeChannels || bytes.length < 18 + length) return null;
  return {
    type: 'dmx',
    protocol: 'artnet',
    universe: view.getUint16(14, true),
    sequence: bytes[12],
    sync: 0,
    data: bytes.subarray(18, 18 + length),
  };
}

function readSacn(bytes: Uint8Array, view: DataView): HeardPacket | null {
  const vector = view.getUint32(18);
  if (vector === 0x00000008 && bytes.length >= 49 && view.getUint32(40) === 1)
    return { type: 'sync', protocol: 'sacn', universe: view.getUint16(45) };
  if (vector !== 0x00000004 || bytes.length < 126 || bytes[125] !== 0) return null;
  const count = view.getUint16(123) - 1;
  if (count > universeChannels || bytes.length < 126 + count) return null;
  return {
    type: 'dmx',
    protocol: 'sacn',
    universe: view.getUint16(113),
    sequence: bytes[111],
    sync: view.getUint16(109),
    data: bytes.subarray(126, 126 + count),
  };
}

/** Reads a packet of Art-Net 4 (ArtDmx, ArtSync), sACN (data with start code 0, synchronization) or DDP; null: it is none of them, or it is torn. */
export function readPixelPacket(bytes: Uint8Array): HeardPacket | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length >= 14 && startsWith(bytes, 0, 'Art-Net\0')) return readArtNet(bytes, view);
  if (bytes.length >= 47 && startsWith(bytes, 4, 'ASC-E1.17')) return readSacn(bytes, view);
  if (bytes.length >= 10 && (bytes[0] & 0xc0) === 0x40) {
    const length = view.getUint16(8);
    if (bytes.length < 10 + length) return null;
    return {
      type: 'ddp',
      offset: view.getUint32(4),
      sequence: bytes[1] & 0x0f,
      isLast: (bytes[0] & 1) === 1,
      data: bytes.subarray(10, 10 + length),
    };
  }
  return null;
}

/** What is known of a stream of numbered packets. */
export interface StreamCount {
  packets: number;
  /** Numbers that never came. */
  lost: number;
  /** Packets that came after one with a later number; a node leaves them out. */
  late: number;
  /** Packets in the last second. */
  rate: number;
}

/** How far back a number may lie and still be late rather than the start of another count (E1.31, 6.7.2). */
const farthestBack = 20;

interface Stream extends StreamCount {
  sequence: number;
  second: number;
  inSecond: number;
}

/** Counts a packet; false: it came late and is left out. `first`, `most`: the numbers that sequences run between. */
function count(stream: Stream, sequence: number, first: number, most: number, now: number): boolean {
  stream.packets++;
  const second = Math.floor(now / 1000);
  if (second !== stream.second) {
    stream.rate = second === stream.second + 1 ? stream.inSecond : 0;
    stream.second = second;
    stream.inSecond = 0;
  }
  stream.inSecond++;
  const before = stream.sequence;
  stream.sequence = sequence;
  // 0 says that packets are not numbered (Art-Net, DDP).
  if (before < 0 || (sequence === 0 && first === 1)) return true;
  const round = most - first + 1;
  const step = (sequence - before + round) % round;
  if (step === 0 || step > round - Math.min(farthestBack, round / 2)) {
    stream.late++;
    stream.lost = Math.max(0, stream.lost - 1);
    stream.sequence = before;
    return false;
  }
  stream.lost += step - 1;
  return true;
}

interface Universe {
  shown: Uint8Array;
  /** What waits for a synchronization packet. */
  pending: Uint8Array | null;
  sync: number;
  stream: Stream;
}

/** Bytes of a DDP display that are kept. */
const mostDisplayBytes = 2 ** 20;
/** Milliseconds without a synchronization packet after which a node shows what comes at once (Art-Net 4: four seconds). */
const syncTimeoutMs = 4000;

const newStream = (): Stream => ({
  packets: 0,
  lost: 0,
  late: 0,
  rate: 0,
  sequence: -1,
  second: 0,
  inSecond: 0,
});

const none: StreamCount = { packets: 0, lost: 0, late: 0, rate: 0 };

/** Reads what was sent to nodes, as they do: the stand-in for everything that hangs on the network. */
export class PixelReceiver {
  private readonly universes = new Map<string, Universe>();
  private readonly displays = new Map<string, { shown: Uint8Array; pending: Uint8Array; stream: Stream }>();
  private readonly synced = new Map<string, number>();
  /** Packets that are none of the three protocols. */
  unread = 0;
  /** Rises with each packet that changes what is shown. */
  version = 0;

  /** Takes a packet that was sent to `node`. `now`: milliseconds. */
  take(node: string, bytes: Uint8Array, now: number): void {
    const packet = readPixelPacket(bytes);
    if (!packet) this.unread++;
    else if (packet.type === 'dmx') this.takeUniverse(node, packet, now);
    else if (packet.type === 'sync') this.show(node, packet, now);
    else this.takeDisplay(node, packet, now);
  }

  private takeUniverse(
    node: string,
    { protocol, universe, sequence, sync, data }: Extract<HeardPacket, { type: 'dmx' }>,
    now: number,
  ): void {
    const key = `${node} ${protocol} ${universe}`;
    const held: Universe = this.universes.get(key) ?? {
      shown: new Uint8Array(universeChannels),
      pending: null,
      sync,
      stream: newStream(),
    };
    this.universes.set(key, held);
    const [first, most] = protocol === 'artnet' ? [1, 255] : [0, 255];
    if (!count(held.stream, sequence, first, most, now)) return;
    held.sync = sync;
    const lastSync = this.synced.get(`${node} ${protocol} ${sync}`) ?? -Infinity;
    if (now - lastSync < syncTimeoutMs && (protocol === 'artnet' || sync > 0)) {
      held.pending ??= new Uint8Array(universeChannels);
      held.pending.set(data);
      return;
    }
    held.shown.set(data);
    this.version++;
  }

  private show(
    node: string,
    { protocol, universe }: Extract<HeardPacket, { type: 'sync' }>,
    now: number,
  ): void {
    this.synced.set(`${node} ${protocol} ${universe}`, now);
    const start = `${node} ${protocol} `;
    for (const [key, held] of this.universes) {
      if (!held.pending || !key.startsWith(start) || (protocol === 'sacn' && held.sync !== universe))
        continue;
      held.shown.set(held.pending);
      held.pending = null;
    }
    this.version++;
  }

  private takeDisplay(
    node: string,
    { offset, sequence, isLast, data }: Extract<HeardPacket, { type: 'ddp' }>,
    now: number,
  ): void {
    const end = offset + data.length;
    if (end > mostDisplayBytes) return;
    const display = this.displays.get(node) ?? {
      shown: new Uint8Array(0),
      pending: new Uint8Array(0),
      stream: newStream(),
    };
    this.displays.set(node, display);
    if (!count(display.stream, sequence, 1, 15, now)) return;
    if (display.pending.length < end) {
      const larger = new Uint8Array(end);
      larger.set(display.pending);
      display.pending = larger;
    }
    display.pending.set(data, offset);
    if (!isLast) return;
    display.shown = display.pending.slice();
    this.version++;
  }

  /** What the node of a string shows: red, green and blue of each pixel in linear light, 0..1. */
  light(node: string, string: PixelString, into: Float32Array): void {
    const { order, bits, send } = string;
    const each = bytesOfPixel(string);
    const data = new Uint8Array(pixelCount(string) * each);
    if (send.protocol === 'ddp') data.set(this.displays.get(node)?.shown.subarray(0, data.length) ?? []);
    else
      for (const { universe, channel, from, bytes } of patchOf(string)) {
        const held = this.universes.get(`${node} ${send.protocol} ${universe}`);
        if (held) data.set(held.shown.subarray(channel - 1, channel - 1 + bytes), from);
      }
    const value = (at: number): number =>
      bits === 8 ? data[at] / 255 : (data[at] * 256 + data[at + 1]) / 65535;
    for (let k = 0; k < pixelCount(string); k++) {
      into.fill(0, 3 * k, 3 * k + 3);
      [...order].forEach((letter, c) => {
        const light = value(k * each + c * (bits / 8));
        if (letter === 'W') for (let p = 0; p < 3; p++) into[3 * k + p] += light;
        else into[3 * k + 'RGB'.indexOf(letter)] += light;
      });
    }
  }

  /** How the packets of a string arrive: those of all its universes together. */
  countOf(node: string, string: PixelString, now: number): StreamCount {
    const { protocol } = string.send;
    const streams =
      protocol === 'ddp'
        ? [this.displays.get(node)?.stream]
        : patchOf(string).map(
            ({ universe }) => this.universes.get(`${node} ${protocol} ${universe}`)?.stream,
          );
    return streams.reduce<StreamCount>((sum, stream) => {
      if (!stream) return sum;
      const isAlive = Math.floor(now / 1000) - stream.second <= 1;
      return {
        packets: sum.packets + stream.packets,
        lost: sum.lost + stream.lost,
        late: sum.late + stream.late,
        rate: sum.rate + (isAlive ? stream.rate : 0),
      };
    }, none);
  }
}
