import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../../nodes/catalogue';
import type { PixelString } from '../../document/types';
import { makeShow } from '../../show/create';
import { addPixelString } from '../../show/edit-wall';
import { readShow, writeShow } from '../../show/validate';
import { moveOutput, partOf } from '../outputs';
import { artDmx, artSync } from './art-net';
import { addressesOf, PixelPackets, readDatagrams, writeDatagrams } from './datagrams';
import { ddpData } from './ddp';
import { lightOf, packPixels, patchOf, pixelPlaces } from './pixels';
import { sacnAddress, sacnData, sacnSync } from './sacn';

const base = (): PixelString => {
  const show = makeShow(catalogue, 'Pixels');
  addPixelString(show);
  return show.wall.outputs[0] as PixelString;
};
const string = ({
  send,
  ...change
}: Partial<Omit<PixelString, 'send'>> & { send?: Partial<PixelString['send']> }) => {
  const one = base();
  return { ...one, gamma: 1, ...change, send: { ...one.send, ...send } } as PixelString;
};
const hex = (bytes: Uint8Array): string => [...bytes].map((b) => b.toString(16).padStart(2, '0')).join(' ');
const cid = Uint8Array.from({ length: 16 }, (_, k) => k + 1);

describe('where pixels lie', () => {
  test('evenly along a line with corners, each in the middle of its share', () => {
    const places = pixelPlaces(
      string({
        points: [
          [0, 0],
          [30, 0],
          [30, 10],
        ],
        pixels: 4,
      }),
    );
    expect([...places]).toEqual([5, 0, 15, 0, 25, 0, 30, 5]);
  });

  test('around a closed line, from the end, or at points of their own', () => {
    const square: [number, number][] = [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ];
    expect([...pixelPlaces(string({ points: square, closed: true, pixels: 4 }))]).toEqual([
      5, 0, 10, 5, 5, 10, 0, 5,
    ]);
    expect([...pixelPlaces(string({ points: square, layout: 'points', reversed: true }))]).toEqual([
      0, 10, 10, 10, 10, 0, 0, 0,
    ]);
    expect([...pixelPlaces(string({ points: [[3, 4]], pixels: 2 }))]).toEqual([3, 4, 3, 4]);
  });

  test('they are moved as a whole', () => {
    const one = string({
      points: [
        [10, 20],
        [30, 20],
      ],
      area: 4,
    });
    moveOutput(one, 'x', 100);
    expect(one.points).toEqual([
      [102, 20],
      [122, 20],
    ]);
    expect(partOf(one)).toEqual({ x: 100, y: 18, width: 24, height: 4, turn: 0 });
  });
});

describe('bytes of pixels', () => {
  const rgba = Float32Array.of(1, 0.5, 0, 1, 0.2, 0.4, 1, 1);
  const packed = (change: Parameters<typeof string>[0]): number[] => {
    const one = string({ pixels: 2, ...change });
    const into = new Uint8Array(2 * one.order.length * (one.bits / 8));
    packPixels(one, lightOf(one, rgba), into);
    return [...into];
  };

  test('stand in the order of the channels, with white from what the colours share', () => {
    expect(packed({ order: 'RGB' })).toEqual([255, 128, 0, 51, 102, 255]);
    expect(packed({ order: 'GRB' })).toEqual([128, 255, 0, 102, 51, 255]);
    expect(packed({ order: 'RGBW' })).toEqual([255, 128, 0, 0, 0, 51, 204, 51]);
    expect(packed({ order: 'WRGB' })).toEqual([0, 255, 128, 0, 51, 0, 51, 204]);
  });

  test('have 8 or 16 bits, coarse first, and go through gamma and brightness', () => {
    expect(packed({ order: 'RGB', bits: 16 }).slice(0, 6)).toEqual([255, 255, 128, 0, 0, 0]);
    expect(packed({ order: 'RGB', gamma: 2, brightness: 0.5 })).toEqual([128, 32, 0, 5, 20, 128]);
  });

  test('are dimmed where the string would draw more than it may', () => {
    const one = string({ pixels: 2, order: 'RGB', milliamperes: 1000 });
    const into = new Uint8Array(6);
    expect(packPixels(one, rgba, into)).toBeCloseTo(3.1, 5);
    expect(packPixels({ ...one, mostAmperes: 1.55 }, rgba, into)).toBeCloseTo(1.55, 5);
    [128, 64, 0, 26, 51, 128].forEach((half, k) => expect(Math.abs(into[k] - half)).toBeLessThan(2));
  });
});

describe('universes', () => {
  test('are filled with whole pixels, from a channel on', () => {
    expect(patchOf(string({ pixels: 200, order: 'RGB', send: { universe: 7, channel: 1 } }))).toEqual([
      { universe: 7, channel: 1, from: 0, bytes: 510 },
      { universe: 8, channel: 1, from: 510, bytes: 90 },
    ]);
    expect(patchOf(string({ pixels: 3, order: 'RGBW', send: { universe: 2, channel: 505 } }))).toEqual([
      { universe: 2, channel: 505, from: 0, bytes: 8 },
      { universe: 3, channel: 1, from: 8, bytes: 4 },
    ]);
    // Nothing fits at the very end of a universe.
    expect(patchOf(string({ pixels: 1, order: 'RGB', send: { universe: 2, channel: 511 } }))).toEqual([
      { universe: 3, channel: 1, from: 0, bytes: 3 },
    ]);
  });

  test('that two strings share are said, and so is an address that is missing or impossible', () => {
    const show = makeShow(catalogue, 'Pixels');
    for (let k = 0; k < 2; k++) {
      addPixelString(show);
      Object.assign((show.wall.outputs[k] as PixelString).send, { protocol: 'sacn', universe: 5 });
    }
    const said = (): string[] => readShow(writeShow(show), catalogue).findings.map(({ what }) => what);
    expect(said()).toContain(
      'Pixel string 2 and Pixel string share channels of universe 5. Move one of them.',
    );
    const [first, second] = show.wall.outputs as PixelString[];
    second.send.channel = 200;
    Object.assign(first.send, { protocol: 'artnet', universe: 40000 });
    expect(said().filter((what) => what.includes('share'))).toEqual([]);
    expect(said()).toContain('Pixel string has no address to be sent to. Type one in the Wall view.');
    first.send.address = '10.0.0.300';
    expect(said()).toContain('10.0.0.300 is no IPv4 address. Its numbers go up to 255.');
    first.send.address = '10.0.0.3';
    expect(said().join()).toContain('Art-Net has the universes 0 to 32767');
    first.send.address = 'node';
    expect(said).toThrow(/send/);
  });
});

describe('packets', () => {
  test('ArtDmx and ArtSync, byte by byte', () => {
    expect(hex(artDmx(0x1234, 7, Uint8Array.of(1, 2, 3)))).toBe(
      '41 72 74 2d 4e 65 74 00 00 50 00 0e 07 00 34 12 00 04 01 02 03 00',
    );
    expect(hex(artSync())).toBe('41 72 74 2d 4e 65 74 00 00 52 00 0e 00 00');
  });

  test('E1.31 data: three layers whose lengths run to the end, priority, sequence, universe', () => {
    const data = sacnData(
      { cid, name: 'Pyrvel' },
      { universe: 0x0102, sequence: 9, priority: 120, sync: 7 },
      Uint8Array.of(10, 20),
    );
    expect(data).toHaveLength(128);
    expect(hex(data.subarray(0, 38))).toBe(
      '00 10 00 00 41 53 43 2d 45 31 2e 31 37 00 00 00 70 70 00 00 00 04 01 02 03 04 05 06 07 08 09 0a 0b 0c 0d 0e 0f 10',
    );
    expect(hex(data.subarray(38, 52))).toBe('70 5a 00 00 00 02 50 79 72 76 65 6c 00 00');
    expect(hex(data.subarray(108))).toBe('78 00 07 09 00 01 02 70 0d 02 a1 00 00 00 01 00 03 00 0a 14');
    expect(sacnAddress(0x0102)).toBe('239.255.1.2');
  });

  test('E1.31 synchronization', () => {
    const sync = sacnSync({ cid, name: 'Pyrvel' }, 7, 3);
    expect(sync).toHaveLength(49);
    expect(hex(sync.subarray(16, 22))).toBe('70 21 00 00 00 08');
    expect(hex(sync.subarray(38))).toBe('70 0b 00 00 00 01 03 00 07 00 00');
  });

  test('DDP: version, push with the last, offset and length', () => {
    const head = { offset: 1440, sequence: 4, type: 0x0b, isLast: true };
    expect(hex(ddpData(head, Uint8Array.of(9, 8, 7)))).toBe('41 04 0b 01 00 00 05 a0 00 03 09 08 07');
  });

  test('strings in one universe share its packet, also where only one of them is due', () => {
    const packets = new PixelPackets({ cid, name: 'Pyrvel' });
    const send = { protocol: 'artnet', address: '10.0.0.3', universe: 1 } as const;
    const [a, b] = [
      string({ id: 'o1', pixels: 1, order: 'RGB', send: { ...send, channel: 1 } }),
      string({ id: 'o2', pixels: 1, order: 'RGB', send: { ...send, channel: 4, sync: true } }),
    ];
    const first = packets.of([
      [a, Uint8Array.of(1, 2, 3)],
      [b, Uint8Array.of(4, 5, 6)],
    ]);
    expect(first.map(({ bytes }) => hex(bytes.subarray(12)))).toEqual([
      '01 00 01 00 00 06 01 02 03 04 05 06',
    ]);
    const [next, sync] = packets.of([[b, Uint8Array.of(7, 8, 9)]]);
    expect(hex(next.bytes.subarray(12))).toBe('02 00 01 00 00 06 01 02 03 07 08 09');
    expect(hex(sync.bytes)).toBe(hex(artSync()));
    expect(next).toMatchObject({ address: '10.0.0.3', port: 6454 });
  });

  test('a long string goes to a display in several packets, the last with push', () => {
    const packets = new PixelPackets({ cid, name: 'Pyrvel' });
    const one = string({ pixels: 500, order: 'RGB', send: { protocol: 'ddp', address: '10.0.0.4' } });
    const sent = packets.of([[one, new Uint8Array(1500)]]);
    expect(sent.map(({ bytes }) => hex(bytes.subarray(0, 10)))).toEqual([
      '40 01 0b 01 00 00 00 00 05 a0',
      '41 02 0b 01 00 00 05 a0 00 3c',
    ]);
  });

  test('sACN without an address is multicast; synchronization goes to the first universe', () => {
    const packets = new PixelPackets({ cid, name: 'Pyrvel' });
    const one = string({ pixels: 200, order: 'RGB', send: { protocol: 'sacn', universe: 300, sync: true } });
    expect(packets.of([[one, new Uint8Array(600)]]).map(({ address, port }) => `${address}:${port}`)).toEqual(
      ['239.255.1.44:5568', '239.255.1.45:5568', '239.255.1.44:5568'],
    );
    expect(addressesOf(one)).toEqual(['239.255.1.44', '239.255.1.45']);
    expect(addressesOf(string({ send: { protocol: 'none' } }))).toEqual([]);
  });

  test('travel to the server in one message, which is read back or known to be torn', () => {
    const datagrams = [
      { address: '10.0.0.3', port: 6454, bytes: Uint8Array.of(1, 2, 3) },
      { address: '239.255.0.1', port: 5568, bytes: new Uint8Array(0) },
    ];
    const message = writeDatagrams(datagrams);
    expect(readDatagrams(message)).toEqual(datagrams);
    expect(readDatagrams(message.subarray(0, message.length - 1))).toBeNull();
    expect(readDatagrams(Uint8Array.of(200, 1))).toBeNull();
    expect(readDatagrams(new Uint8Array(0))).toEqual([]);
  });
});
