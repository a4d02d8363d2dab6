import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../../nodes/catalogue';
import type { PixelString } from '../../document/types';
import { makeShow } from '../../show/create';
import { addPixelString } from '../../show/edit-wall';
import { artDmx, artSync } from './art-net';
import { nodeOf, PixelPackets } from './datagrams';
import { packPixels, pixelCount, bytesOfPixel } from './pixels';
import { PixelReceiver, readPixelPacket } from './receive';
import { sacnData, sacnSync } from './sacn';

const source = { cid: new Uint8Array(16).fill(7), name: 'Pyrvel' };

function string(change: Partial<PixelString>, send: Partial<PixelString['send']>): PixelString {
  const show = makeShow(catalogue, 'Pixels');
  addPixelString(show);
  const one = show.wall.outputs[0] as PixelString;
  return { ...one, gamma: 1, ...change, send: { ...one.send, address: '10.0.0.9', ...send } };
}

/** Colours that differ from pixel to pixel. */
const colours = (count: number): Float32Array =>
  Float32Array.from({ length: 4 * count }, (_, k) => (k % 4 === 3 ? 1 : ((k * 37) % 101) / 100));

function bytes(one: PixelString, rgba: Float32Array): Uint8Array {
  const data = new Uint8Array(pixelCount(one) * bytesOfPixel(one));
  packPixels(one, rgba, data);
  return data;
}

describe('what was sent is what is shown', () => {
  test.each([
    ['Art-Net over two universes', { pixels: 200, order: 'GRB' as const }, { protocol: 'artnet' as const }],
    [
      'sACN with 16 bits',
      { pixels: 30, order: 'BGR' as const, bits: 16 as const },
      { protocol: 'sacn' as const, channel: 40 },
    ],
    ['DDP in several packets', { pixels: 700, order: 'RGB' as const }, { protocol: 'ddp' as const }],
    [
      'Art-Net that is synchronized',
      { pixels: 8, order: 'RGB' as const },
      { protocol: 'artnet' as const, sync: true },
    ],
    [
      'sACN that is synchronized',
      { pixels: 8, order: 'RGB' as const },
      { protocol: 'sacn' as const, sync: true },
    ],
  ])('%s', (_name, change, send) => {
    const one = string(change, send);
    const rgba = colours(one.pixels);
    const packets = new PixelPackets(source);
    const receiver = new PixelReceiver();
    // The second frame waits for its synchronization packet, if there is one.
    for (const frame of [rgba.map((v) => v / 3), rgba])
      for (const { node, bytes: packet } of packets.of([[one, bytes(one, frame)]]))
        receiver.take(node, packet, 1000);
    const light = new Float32Array(3 * one.pixels);
    receiver.light(nodeOf(one), one, light);
    for (let k = 0; k < one.pixels; k++)
      for (let c = 0; c < 3; c++) expect(Math.abs(light[3 * k + c] - rgba[4 * k + c])).toBeLessThan(0.003);
    expect(receiver.countOf(nodeOf(one), one, 1000)).toMatchObject({ lost: 0, late: 0 });
    expect(receiver.unread).toBe(0);
  });

  test('white of RGBW shines with the colours', () => {
    const one = string({ pixels: 1, order: 'RGBW' }, { protocol: 'artnet' });
    const receiver = new PixelReceiver();
    receiver.take(nodeOf(one), artDmx(one.send.universe, 1, Uint8Array.of(51, 0, 0, 102)), 0);
    const light = new Float32Array(3);
    receiver.light(nodeOf(one), one, light);
    expect([...light].map((v) => Math.round(v * 10) / 10)).toEqual([0.6, 0.4, 0.4]);
  });
});

describe('a stream of packets', () => {
  const one = string({ pixels: 1, order: 'RGB' }, { protocol: 'artnet', universe: 3 });
  const hear = (sequences: readonly number[], gapMs = 10) => {
    const receiver = new PixelReceiver();
    sequences.forEach((sequence, k) =>
      receiver.take(nodeOf(one), artDmx(3, sequence, Uint8Array.of(k, 0, 0)), k * gapMs),
    );
    const light = new Float32Array(3);
    receiver.light(nodeOf(one), one, light);
    const last = (sequences.length - 1) * gapMs;
    return { ...receiver.countOf(nodeOf(one), one, last), shown: Math.round(light[0] * 255) };
  };

  test('is counted: what is lost, and what comes late and is left out', () => {
    expect(hear([1, 2, 3])).toMatchObject({ packets: 3, lost: 0, late: 0, shown: 2 });
    expect(hear([1, 2, 5])).toMatchObject({ packets: 3, lost: 2, late: 0, shown: 2 });
    expect(hear([1, 3, 2, 4])).toMatchObject({ packets: 4, lost: 0, late: 1, shown: 3 });
    expect(hear([254, 255, 1, 2])).toMatchObject({ lost: 0, late: 0, shown: 3 });
    expect(hear([0, 0, 0])).toMatchObject({ lost: 0, late: 0, shown: 2 });
  });

  test('has a rate, which falls to nothing when it ends', () => {
    const every50 = Array.from({ length: 60 }, (_, k) => k + 1);
    expect(hear(every50, 50).rate).toBe(20);
    const receiver = new PixelReceiver();
    receiver.take(nodeOf(one), artDmx(3, 1, Uint8Array.of(1, 1, 1)), 0);
    expect(receiver.countOf(nodeOf(one), one, 9000).rate).toBe(0);
  });

  test('that is synchronized shows what comes at once when synchronization ends', () => {
    const receiver = new PixelReceiver();
    const light = new Float32Array(3);
    const shows = (): number => {
      receiver.light(nodeOf(one), one, light);
      return Math.round(light[0] * 255);
    };
    receiver.take(nodeOf(one), artSync(), 0);
    receiver.take(nodeOf(one), artDmx(3, 1, Uint8Array.of(90, 0, 0)), 10);
    expect(shows()).toBe(0);
    receiver.take(nodeOf(one), artSync(), 20);
    expect(shows()).toBe(90);
    receiver.take(nodeOf(one), artDmx(3, 2, Uint8Array.of(120, 0, 0)), 5000);
    expect(shows()).toBe(120);
  });
});

describe('what is no packet', () => {
  test('is counted and shows nothing', () => {
    const receiver = new PixelReceiver();
    for (const packet of [
      new Uint8Array(0),
      Uint8Array.of(1, 2, 3),
      artDmx(1, 1, new Uint8Array(40)).subarray(0, 30),
      sacnData(source, { universe: 1, sequence: 1, priority: 100, sync: 0 }, new Uint8Array(40)).subarray(
        0,
        130,
      ),
      sacnSync(source, 1, 1).subarray(0, 30),
      Uint8Array.of(0x41, 1, 0x0b, 1, 0, 0, 0, 0, 5, 0, 1),
    ])
      receiver.take('node', packet, 0);
    expect(receiver.unread).toBe(6);
    expect(receiver.version).toBe(0);
  });

  test('torn or random bytes never throw', () => {
    const whole = artDmx(2, 3, new Uint8Array(64).fill(9));
    for (let length = 0; length <= whole.length; length++)
      expect(() => readPixelPacket(whole.subarray(0, length))).not.toThrow();
    let seed = 5;
    const random = (): number => (seed = (seed * 48271) % 2147483647) % 256;
    for (let k = 0; k < 500; k++)
      expect(() => readPixelPacket(Uint8Array.from({ length: k % 200 }, random))).not.toThrow();
  });
});

test('the end leaves nodes black, with numbers that no node takes for late ones', () => {
  const one = string({ pixels: 4, order: 'RGB' }, { protocol: 'sacn' });
  const packets = new PixelPackets(source);
  const receiver = new PixelReceiver();
  const rgba = colours(4);
  for (let frame = 0; frame < 230; frame++)
    for (const { node, bytes: packet } of packets.of([[one, bytes(one, rgba)]]))
      receiver.take(node, packet, frame);
  const dark = packets.black([one]);
  // Up to a second of frames follows what was left with the server.
  for (let frame = 0; frame < 60; frame++)
    for (const { node, bytes: packet } of packets.of([[one, bytes(one, rgba)]]))
      receiver.take(node, packet, 300 + frame);
  for (const { node, bytes: packet } of dark) receiver.take(node, packet, 400);
  const light = new Float32Array(12);
  receiver.light(nodeOf(one), one, light);
  expect([...light]).toEqual(new Array<number>(12).fill(0));
});
