import { expect, test } from '@jest/globals';
import type { PixelString } from '../../core/document/types';
import { makeShow } from '../../core/show/create';
import { addPixelString } from '../../core/show/edit-wall';
import { catalogue } from '../../nodes/catalogue';
import { csvHead, csvRows, recordedPackets } from './pixel-files';

const show = makeShow(catalogue, 'String');
addPixelString(show);
const string: PixelString = {
  ...(show.wall.outputs[0] as PixelString),
  points: [
    [0, 0],
    [10, 0],
  ],
  pixels: 2,
  order: 'GRB',
};
Object.assign(string.send, { protocol: 'sacn', address: '', universe: 5, simulated: false });
const bytes = Uint8Array.of(1, 2, 3, 4, 5, 6, 11, 12, 13, 14, 15, 16);
const text = (part: Uint8Array): string => new TextDecoder().decode(part);

test('pixels are rows of a table, by the channels as they are sent', () => {
  expect(text(csvHead(string))).toBe('frame,1G,1R,1B,2G,2R,2B\n');
  expect(text(csvRows(string, bytes, 7))).toBe('7,1,2,3,4,5,6\n8,11,12,13,14,15,16\n');
});

test('packets are recorded with the times of their frames, as they would be on the wire', () => {
  const packets = recordedPackets(string, 25);
  const file = Buffer.concat([packets.head(), packets.frames(bytes, 50)]);
  expect(file.readUInt32LE(0)).toBe(0xa1b2c3d4);
  const times: number[] = [];
  for (let at = 24; at < file.length;) {
    const length = file.readUInt32LE(at + 8);
    times.push(file.readUInt32LE(at) + file.readUInt32LE(at + 4) / 1e6);
    const ip = file.subarray(at + 16 + 14);
    // The sum of a header with its checksum in it is all ones (RFC 1071).
    let sum = 0;
    for (let k = 0; k < 20; k += 2) sum += ip.readUInt16BE(k);
    while (sum >> 16) sum = (sum & 0xffff) + (sum >> 16);
    expect(sum).toBe(0xffff);
    // To the group of its universe (ANSI E1.31), at the port of sACN.
    expect([...ip.subarray(16, 20)]).toEqual([239, 255, 0, 5]);
    expect(ip.readUInt16BE(22)).toBe(5568);
    expect(ip.readUInt16BE(2)).toBe(length - 14);
    at += 16 + length;
  }
  expect(times).toEqual([2, 2.04]);
});
