import type { PixelString } from '../../document/types';
import { artDmx, artNetPort, artSync } from './art-net';
import { ddpData, ddpPort, ddpTypes, mostDdpBytes } from './ddp';
import { bytesOfPixel, patchOf, pixelCount, universeChannels, type Patch } from './pixels';
import { sacnAddress, sacnData, sacnPort, sacnSync, type SacnSource } from './sacn';

/** One UDP packet and where it goes. */
export interface Datagram {
  address: string;
  port: number;
  bytes: Uint8Array;
}

/** A packet of a string: whom it is for, and whether it goes to the built-in receiver alone. */
export interface PixelDatagram extends Datagram {
  node: string;
  isSimulated: boolean;
}

/** What the strings that hang on one node have in common: its address, or a name for those that have none. */
export const nodeOf = ({ send: { address, protocol } }: PixelString): string =>
  address || (protocol === 'sacn' ? 'multicast' : 'built-in');

/** How far ahead the numbers of packets are that are kept for the end, so that nodes take none of them for a late one. */
const aheadAtEnd = 100;

interface Universe {
  string: PixelString;
  universe: number;
}

/** Universes as they are put together from all strings that lie in them, and the numbers of packets that were sent. */
export class PixelPackets {
  private readonly sequences = new Map<string, number>();
  /** Channels as they were last sent: a string that is not due keeps what it shows. */
  private readonly channels = new Map<string, { values: Uint8Array; used: number }>();

  /** Documents are never changed in place. */
  private readonly patches = new WeakMap<PixelString, readonly (Patch & { key: string })[]>();

  constructor(private readonly source: SacnSource) {}

  /** The universes of a string, with the name of the stream that each belongs to. */
  private keyed(string: PixelString): readonly (Patch & { key: string })[] {
    let patches = this.patches.get(string);
    if (!patches) {
      const stream = `${string.send.protocol} ${nodeOf(string)} ${string.send.simulated}`;
      patches = patchOf(string).map((patch) => ({ ...patch, key: `${stream} ${patch.universe}` }));
      this.patches.set(string, patches);
    }
    return patches;
  }

  /** The next number of a stream, 1..`most`. */
  private next(stream: string, most: number): number {
    const number = ((this.sequences.get(stream) ?? 0) % most) + 1;
    this.sequences.set(stream, number);
    return number;
  }

  /** Packets of a frame. `data`: the bytes of each string. Strings that share a universe at an address share its packets. */
  of(strings: readonly (readonly [PixelString, Uint8Array])[]): PixelDatagram[] {
    const datagrams: PixelDatagram[] = [];
    const universes = new Map<string, Universe>();
    for (const [string, data] of strings) {
      const { protocol } = string.send;
      if (protocol === 'none') continue;
      if (protocol === 'ddp') {
        datagrams.push(...this.ddp(string, data, () => this.next(`ddp ${nodeOf(string)}`, 15)));
        continue;
      }
      for (const { universe, channel, from, bytes, key } of this.keyed(string)) {
        if (!universes.has(key)) universes.set(key, { string, universe });
        let held = this.channels.get(key);
        if (!held) this.channels.set(key, (held = { values: new Uint8Array(universeChannels), used: 0 }));
        held.values.set(data.subarray(from, from + bytes), channel - 1);
        held.used = Math.max(held.used, channel - 1 + bytes);
      }
    }
    const synced = new Map<string, PixelDatagram>();
    for (const [key, universe] of universes) {
      const { values, used } = this.channels.get(key)!;
      datagrams.push(this.dmx(universe, values.subarray(0, used), this.next(key, 255)));
      const sync = this.sync(universe.string, synced);
      if (sync) synced.set(sync.stream, sync.datagram);
    }
    return [...datagrams, ...synced.values()];
  }

  /** Packets that leave the nodes of strings black, to be sent when nothing else is any more. */
  black(strings: readonly PixelString[]): PixelDatagram[] {
    return strings.flatMap((string) => {
      const { protocol } = string.send;
      if (protocol === 'none') return [];
      if (protocol === 'ddp')
        return this.ddp(string, new Uint8Array(pixelCount(string) * bytesOfPixel(string)), () => 0);
      return this.keyed(string).map(({ universe, key }) => {
        const sequence = protocol === 'artnet' ? 0 : ((this.sequences.get(key) ?? 0) + aheadAtEnd) % 256;
        return this.dmx({ string, universe }, new Uint8Array(universeChannels), sequence, false);
      });
    });
  }

  private dmx(
    { string, universe }: Universe,
    values: Uint8Array,
    sequence: number,
    isSynced = true,
  ): PixelDatagram {
    const { protocol, address, priority, sync, simulated } = string.send;
    const to = { node: nodeOf(string), isSimulated: simulated };
    if (protocol === 'artnet')
      return { ...to, address, port: artNetPort, bytes: artDmx(universe, sequence, values) };
    const head = { universe, sequence, priority, sync: sync && isSynced ? string.send.universe : 0 };
    return {
      ...to,
      address: address || sacnAddress(universe),
      port: sacnPort,
      bytes: sacnData(this.source, head, values),
    };
  }

  /** The synchronization packet of a string, if it wants one and none of that stream was made yet. */
  private sync(
    string: PixelString,
    made: ReadonlyMap<string, PixelDatagram>,
  ): { stream: string; datagram: PixelDatagram } | null {
    const { protocol, address, sync, universe, simulated } = string.send;
    const stream = `sync ${protocol} ${nodeOf(string)} ${simulated} ${protocol === 'sacn' ? universe : ''}`;
    if (!sync || made.has(stream)) return null;
    const to = { node: nodeOf(string), isSimulated: simulated };
    if (protocol === 'artnet')
      return { stream, datagram: { ...to, address, port: artNetPort, bytes: artSync() } };
    const bytes = sacnSync(this.source, universe, this.next(stream, 255));
    return {
      stream,
      datagram: { ...to, address: address || sacnAddress(universe), port: sacnPort, bytes },
    };
  }

  private ddp(string: PixelString, data: Uint8Array, sequence: () => number): PixelDatagram[] {
    const type = string.order.length === 4 ? ddpTypes.rgbw : ddpTypes.rgb;
    const datagrams: PixelDatagram[] = [];
    for (let offset = 0; offset < data.length; offset += mostDdpBytes) {
      const part = data.subarray(offset, offset + mostDdpBytes);
      const isLast = offset + part.length >= data.length;
      datagrams.push({
        address: string.send.address,
        node: nodeOf(string),
        isSimulated: string.send.simulated,
        port: ddpPort,
        bytes: ddpData({ offset, sequence: sequence(), type, isLast }, part),
      });
    }
    return datagrams;
  }
}

/** Addresses of the network that a string sends to. */
export function addressesOf(string: PixelString): string[] {
  const { protocol, address, simulated } = string.send;
  if (protocol === 'none' || simulated) return [];
  if (address) return [address];
  return protocol === 'sacn'
    ? [...new Set(patchOf(string).map(({ universe }) => sacnAddress(universe)))]
    : [];
}

/** Puts datagrams into one message for the server: for each the length of its address, address, port, length and bytes. */
export function writeDatagrams(datagrams: readonly Datagram[]): Uint8Array<ArrayBuffer> {
  const size = datagrams.reduce((sum, { address, bytes }) => sum + 5 + address.length + bytes.length, 0);
  const message = new Uint8Array(size);
  const view = new DataView(message.buffer);
  let at = 0;
  for (const { address, port, bytes } of datagrams) {
    message[at++] = address.length;
    for (const c of address) message[at++] = c.charCodeAt(0);
    view.setUint16(at, port);
    view.setUint16(at + 2, bytes.length);
    message.set(bytes, at + 4);
    at += 4 + bytes.length;
  }
  return message;
}

/** Reads such a message; null if it is torn. */
export function readDatagrams(message: Uint8Array): Datagram[] | null {
  const view = new DataView(message.buffer, message.byteOffset, message.byteLength);
  const datagrams: Datagram[] = [];
  let at = 0;
  while (at < message.length) {
    const letters = message[at++];
    if (at + letters + 4 > message.length) return null;
    const address = String.fromCharCode(...message.subarray(at, at + letters));
    at += letters;
    const port = view.getUint16(at);
    const length = view.getUint16(at + 2);
    at += 4;
    if (at + length > message.length) return null;
    datagrams.push({ address, port, bytes: message.subarray(at, at + length) });
    at += length;
  }
  return datagrams;
}
