import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../random';
import { OscError, readPacket, writePacket, type OscMessage } from './packet';
import { isPattern, matchesAddress } from './pattern';

const ascii = (text: string): number[] => {
  const bytes = [...text].map((c) => c.charCodeAt(0));
  do bytes.push(0);
  while (bytes.length % 4);
  return bytes;
};
const bundle = (...parts: Uint8Array[]): Uint8Array =>
  Uint8Array.from([
    ...ascii('#bundle'),
    ...[0, 0, 0, 0, 0, 0, 0, 1],
    ...parts.flatMap((part) => [0, 0, part.length >> 8, part.length & 255, ...part]),
  ]);

describe('packets', () => {
  const messages: OscMessage[] = [
    { address: '/hive/3/glow', args: [0.5] },
    { address: '/a', args: [7, -1, 'bee', true, false] },
    { address: '/abc', args: [] },
    { address: '/four', args: ['four', ''] },
  ];
  test.each(messages)('written and read: $address', (message) => {
    const bytes = writePacket(message);
    expect(bytes.length % 4).toBe(0);
    expect(readPacket(bytes)).toEqual([message]);
  });
  test('the example of the specification: /oscillator/4/frequency 440', () => {
    const bytes = Uint8Array.from([...ascii('/oscillator/4/frequency'), ...ascii(',f'), 0x43, 0xdc, 0, 0]);
    expect(readPacket(bytes)).toEqual([{ address: '/oscillator/4/frequency', args: [440] }]);
  });
  test('bundles, also in bundles', () => {
    const inner = bundle(writePacket(messages[0]), writePacket(messages[1]));
    expect(readPacket(bundle(inner, writePacket(messages[2])))).toEqual(messages.slice(0, 3));
    expect(readPacket(bundle())).toEqual([]);
  });
  test('other types are passed over with their data, numbers that are none are 0', () => {
    const bytes = Uint8Array.from([
      ...ascii('/x'),
      ...ascii(',bNIdhf'),
      ...[0, 0, 0, 3, 1, 2, 3, 0],
      ...[0x40, 0x04, 0, 0, 0, 0, 0, 0],
      ...[0, 0, 0, 0, 0, 0, 1, 0],
      ...[0x7f, 0xc0, 0, 0],
    ]);
    expect(readPacket(bytes)).toEqual([{ address: '/x', args: [2.5, 256, 0] }]);
  });
  test.each([
    [[], /filled up to four/],
    [[1, 2, 3], /filled up to four/],
    [[47, 97, 98, 99], /does not end/],
    [[...ascii('x'), ...ascii(',')], /begins with a slash/],
    [[...ascii('/x'), ...ascii('i')], /types of the arguments/],
    [[...ascii('/x'), ...ascii(',i')], /ends too early/],
    [[...ascii('/x'), ...ascii(',q')], /type q/],
    [[...ascii('#bundle'), ...[0, 0, 0, 0, 0, 0, 0, 1], 0, 0, 1, 0], /does not fit/],
  ])('%j is refused', (bytes, words) => {
    expect(() => readPacket(Uint8Array.from(bytes))).toThrow(words);
    expect(() => readPacket(Uint8Array.from(bytes))).toThrow(OscError);
  });
  test('bundles without end are refused', () => {
    let packet = writePacket(messages[0]);
    for (let k = 0; k < 20; k++) packet = bundle(packet);
    expect(() => readPacket(packet)).toThrow(/too deeply/);
  });
  test('damaged packets are read or refused, never worse', () => {
    const whole = bundle(...messages.map(writePacket));
    for (let seed = 0; seed < 2000; seed++) {
      const bytes = whole.slice(0, Math.ceil(randomAt(1, seed) * whole.length));
      for (let k = 0; k < 4; k++)
        bytes[Math.floor(randomAt(2 + k, seed) * bytes.length)] = Math.floor(randomAt(9 + k, seed) * 256);
      try {
        for (const { args } of readPacket(bytes))
          for (const v of args) expect(typeof v === 'number' ? Number.isFinite(v) : true).toBe(true);
      } catch (error) {
        expect(error).toBeInstanceOf(OscError);
      }
    }
  });
});

describe('address patterns', () => {
  test.each([
    ['/a/b', '/a/b', true],
    ['/a/?', '/a/b', true],
    ['/a/?', '/a/bc', false],
    ['/a/*', '/a/bcd', true],
    ['/a/*', '/a/b/c', false],
    ['/*/glow', '/hive/glow', true],
    ['/*/*', '/hive/glow', true],
    ['/fader[1-4]', '/fader3', true],
    ['/fader[!1-4]', '/fader3', false],
    ['/fader[!1-4]', '/fader7', true],
    ['/fader[13]', '/fader2', false],
    ['/{left,right}/x', '/right/x', true],
    ['/{left,right}/x', '/up/x', false],
    ['/a*c*e', '/abcde', true],
    ['/a[', '/a[', false],
    ['/a{b', '/ab', false],
    ['/a', '/ab', false],
  ])('%s and %s: %s', (pattern, address, expected) =>
    expect(matchesAddress(pattern, address)).toBe(expected),
  );
  test('a pattern made to take forever is given up', () => {
    expect(matchesAddress(`/${'*a'.repeat(30)}b`, `/${'a'.repeat(60)}`)).toBe(false);
    expect([isPattern('/a/*'), isPattern('/a/b')]).toEqual([true, false]);
  });
});
