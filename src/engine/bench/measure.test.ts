import { expect, test } from '@jest/globals';
import { alike, apart, compare, ratioOf, type Shown } from './measure';

const size = { width: 8, height: 4 };
const picture = (of: (x: number, y: number) => number): Uint8Array =>
  Uint8Array.from({ length: 4 * 32 }, (_, k) =>
    k % 4 === 3 ? 255 : of((k >> 2) % 8, Math.floor((k >> 2) / 8)),
  );
const shown = (...pictures: Uint8Array[]): Shown => {
  let at = 0;
  return {
    size,
    frame: (k) => void (at = k),
    finish: () => undefined,
    pixels: () => pictures[at > 2 ? pictures.length - 1 : 0],
  };
};
const ramp = picture((x) => 20 + 10 * x);

test('pictures that differ are told apart, those that do not are compared', () => {
  expect(() => alike(shown(ramp), shown(ramp))).not.toThrow();
  expect(() => alike(shown(ramp), shown(picture((x) => 21 + 10 * x)))).not.toThrow();
  expect(() => alike(shown(ramp), shown(picture((x) => 24 + 10 * x)))).toThrow(/frame 2: 4.00 of 255/);
  expect(() =>
    alike(
      shown(ramp),
      shown(
        ramp,
        picture((x) => 90 - 10 * x),
      ),
    ),
  ).toThrow(/frame 31/);
  expect(() => alike(shown(picture(() => 0)), shown(picture(() => 0)))).toThrow(/Nothing is drawn/);
});

test('an edge that lies a pixel further does not count, a plane of another colour does', () => {
  const step = (at: number, high = 200): Uint8Array => picture((x) => (x < at ? 0 : high));
  const { all, flat } = apart(step(4), step(5), size);
  expect(all).toBeGreaterThan(20);
  expect(flat).toBe(0);
  expect(apart(step(4), step(4, 190), size).flat).toBeGreaterThan(2);
  // Where everything is an edge, all of it counts.
  expect(
    apart(
      picture((x) => (x % 2) * 200),
      picture((x) => (x % 2) * 200),
      size,
    ).flat,
  ).toBeNull();
});

test('a ratio is the median of pairs, with its quartiles', () => {
  expect(ratioOf([2, 4, 30], [1, 4, 10])).toEqual({ median: 2, low: 1.5, high: 2.5, ms: [4, 4] });
});

test('rounds take turns about which goes first', () => {
  const order: string[] = [];
  const work = (name: string) => ({ frame: () => void order.push(name), finish: () => undefined });
  compare(work('a'), work('b'), 4, 1);
  expect(order.join('')).toBe('aabb' + 'ba' + 'ab' + 'ba' + 'ab');
});
