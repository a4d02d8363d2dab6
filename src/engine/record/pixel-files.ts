import type { PixelString } from '../../core/document/types';
import { PixelPackets } from '../../core/wall/pixels/datagrams';
import { bytesOfPixel, pixelCount } from '../../core/wall/pixels/pixels';
import { joined } from './png';

const text = (lines: string): Uint8Array<ArrayBuffer> =>
  new TextEncoder().encode(lines) as Uint8Array<ArrayBuffer>;

/** First row of a table of pixels: the frame, then the channels of each pixel in the order they are sent. */
export function csvHead(string: PixelString): Uint8Array<ArrayBuffer> {
  const columns = Array.from({ length: pixelCount(string) }, (_, k) =>
    [...string.order].map((channel) => `${k + 1}${channel}`),
  );
  return text(`frame,${columns.flat().join(',')}\n`);
}

const frameBytes = (string: PixelString): number => pixelCount(string) * bytesOfPixel(string);

/** Rows of the frames whose pixels lie in `bytes`. */
export function csvRows(string: PixelString, bytes: Uint8Array, first: number): Uint8Array<ArrayBuffer> {
  const size = frameBytes(string);
  let lines = '';
  for (let at = 0, frame = first; at + size <= bytes.length; at += size, frame++)
    lines += `${frame},${bytes.subarray(at, at + size).join(',')}\n`;
  return text(lines);
}

const ethernet = 1;
const [ethernetHead, ipHead, udpHead] = [14, 20, 8];
/** Port that recorded packets come from; any will do. */
const ownPort = 49152;

function checksum(bytes: Uint8Array): number {
  let sum = 0;
  for (let k = 0; k < bytes.length; k += 2) sum += (bytes[k] << 8) | bytes[k + 1];
  while (sum >> 16) sum = (sum & 0xffff) + (sum >> 16);
  return ~sum & 0xffff;
}

const addressOf = (text: string): number[] => {
  const parts = text.split('.').map(Number);
  return parts.length === 4 && parts.every((part) => part >= 0 && part < 256) ? parts : [127, 0, 0, 1];
};

/** A UDP packet as it would be on the wire (RFC 791, RFC 768), with what a capture file says of it. */
function captured(
  { address, port, bytes }: { address: string; port: number; bytes: Uint8Array },
  microseconds: number,
): Uint8Array {
  const length = ethernetHead + ipHead + udpHead + bytes.length;
  const out = new Uint8Array(16 + length);
  const view = new DataView(out.buffer);
  view.setUint32(0, Math.floor(microseconds / 1e6), true);
  view.setUint32(4, microseconds % 1e6, true);
  view.setUint32(8, length, true);
  view.setUint32(12, length, true);
  const to = addressOf(address);
  const isMulticast = to[0] >= 224 && to[0] < 240;
  // The address of a group on Ethernet (RFC 1112, 6.4).
  out.set(isMulticast ? [1, 0, 0x5e, to[1] & 127, to[2], to[3]] : [2, 0, 0, 0, 0, 2], 16);
  out.set([2, 0, 0, 0, 0, 1, 8, 0], 22);
  const ip = 16 + ethernetHead;
  view.setUint16(ip, 0x4500);
  view.setUint16(ip + 2, ipHead + udpHead + bytes.length);
  view.setUint16(ip + 6, 0x4000);
  out.set([isMulticast ? 1 : 64, 17], ip + 8);
  out.set([127, 0, 0, 1, ...to], ip + 12);
  view.setUint16(ip + 10, checksum(out.subarray(ip, ip + ipHead)));
  const udp = ip + ipHead;
  view.setUint16(udp, ownPort);
  view.setUint16(udp + 2, port);
  view.setUint16(udp + 4, udpHead + bytes.length);
  out.set(bytes, udp + udpHead);
  return out;
}

/** Packets of a string as a capture file (libpcap), which network tools play back at the times in it. */
export function recordedPackets(string: PixelString, fps: number) {
  const packets = new PixelPackets({ cid: new Uint8Array(16).fill(0x50), name: 'Pyrvel' });
  const size = frameBytes(string);
  return {
    head(): Uint8Array<ArrayBuffer> {
      const head = new Uint8Array(24);
      const view = new DataView(head.buffer);
      view.setUint32(0, 0xa1b2c3d4, true);
      view.setUint16(4, 2, true);
      view.setUint16(6, 4, true);
      view.setUint32(16, 65535, true);
      view.setUint32(20, ethernet, true);
      return head;
    },
    /** Packets of the frames whose pixels lie in `bytes`; `first`: number of the first, from 0. */
    frames(bytes: Uint8Array, first: number): Uint8Array<ArrayBuffer> {
      const parts: Uint8Array[] = [];
      for (let at = 0, frame = first; at + size <= bytes.length; at += size, frame++)
        for (const datagram of packets.of([[string, bytes.subarray(at, at + size)]]))
          parts.push(captured(datagram, Math.round((frame * 1e6) / fps)));
      return joined(parts);
    },
  };
}
