import type { PixelString } from '../../document/types';
import { artDmx, artNetPort, artSync } from './art-net';
import { ddpData, ddpPort, ddpTypes, mostDdpBytes } from './ddp';
import { patchOf, universeChannels } from './pixels';
import { sacnAddress, sacnData, sacnPort, sacnSync, type SacnSource } from './sacn';

/** One UDP packet and where it goes. */
export interface Datagram {
  address: string;
  port: number;
  bytes: Uint8Array;
}

/** Universes as they are put together from all strings that lie in them, and the numbers of packets that were sent. */
export class PixelPackets {
  private readonly sequences = new Map<string, number>();
  /** Channels as they were last sent: a string that is not due keeps what it shows. */
  private readonly channels = new Map<string, { values: Uint8Array; used: number }>();

  constructor(private readonly source: SacnSource) {}

  /** The next number of a stream, 1..`most`. */
  private next(stream: string, most: number): number {
    const number = ((this.sequences.get(stream) ?? 0) % most) + 1;
    this.sequences.set(stream, number);
    return number;
  }

  /** Packets of a frame. `data`: the bytes of each string. Strings that share a universe at an address share its packets. */
  of(strings: readonly (readonly [PixelString, Uint8Array])[]): Datagram[] {
    const datagrams: Datagram[] = [];
    const universes = new Map<string, { string: PixelString; universe: number }>();
    for (const [string, data] of strings) {
      const { protocol, address } = string.send;
      if (protocol === 'none') continue;
      if (protocol === 'ddp') {
        datagrams.push(...this.ddp(string, data));
        continue;
      }
      for (const { universe, channel, from, bytes } of patchOf(string)) {
        const key = `${protocol} ${address} ${universe}`;
        universes.set(key, universes.get(key) ?? { string, universe });
        const held = this.channels.get(key) ?? { values: new Uint8Array(universeChannels), used: 0 };
        held.values.set(data.subarray(from, from + bytes), channel - 1);
        held.used = Math.max(held.used, channel - 1 + bytes);
        this.channels.set(key, held);
      }
    }
    const synced = new Map<string, Datagram>();
    for (const [key, { string, universe }] of universes) {
      const { values, used } = this.channels.get(key)!;
      const { protocol, address, priority, sync } = string.send;
      if (protocol === 'artnet') {
        datagrams.push({
          address,
          port: artNetPort,
          bytes: artDmx(universe, this.next(key, 255), values.subarray(0, used)),
        });
        if (sync) synced.set(`artnet ${address}`, { address, port: artNetPort, bytes: artSync() });
      } else {
        const to = address || sacnAddress(universe);
        const head = {
          universe,
          sequence: this.next(key, 255),
          priority,
          sync: sync ? string.send.universe : 0,
        };
        datagrams.push({
          address: to,
          port: sacnPort,
          bytes: sacnData(this.source, head, values.subarray(0, used)),
        });
        const stream = `sync ${address} ${string.send.universe}`;
        if (sync && !synced.has(stream))
          synced.set(stream, {
            address: address || sacnAddress(string.send.universe),
            port: sacnPort,
            bytes: sacnSync(this.source, string.send.universe, this.next(stream, 255)),
          });
      }
    }
    return [...datagrams, ...synced.values()];
  }

  private ddp(string: PixelString, data: Uint8Array): Datagram[] {
    const { address } = string.send;
    const type = string.order.length === 4 ? ddpTypes.rgbw : ddpTypes.rgb;
    const datagrams: Datagram[] = [];
    for (let offset = 0; offset < data.length; offset += mostDdpBytes) {
      const part = data.subarray(offset, offset + mostDdpBytes);
      datagrams.push({
        address,
        port: ddpPort,
        bytes: ddpData(
          {
            offset,
            sequence: this.next(`ddp ${address}`, 15),
            type,
            isLast: offset + part.length >= data.length,
          },
          part,
        ),
      });
    }
    return datagrams;
  }
}

/** Addresses that a string sends to. */
export function addressesOf(string: PixelString): string[] {
  const { protocol, address } = string.send;
  if (protocol === 'none') return [];
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
