import { expect, test } from '@jest/globals';
import { measuredSize, RoundMeter } from './round-meter';

const { width, height } = measuredSize;
const grey = (v: number): Uint8ClampedArray =>
  new Uint8ClampedArray(width * height * 4).map((_, k) => (k % 4 === 3 ? 255 : v));

test('a stretch of time is measured, and its strip shows the worst of each part', () => {
  const meter = new RoundMeter();
  for (let frame = 0; frame < 600; frame++)
    meter.add(grey(frame >= 300 && frame % 6 < 3 ? 255 : 0), frame / 60);
  const { general, red, seam, seconds, strip } = meter.result(10);
  // Ten times a second there and back.
  expect(general.most).toBeGreaterThanOrEqual(19);
  expect(general.at).toBeGreaterThan(5.9);
  expect(red.most).toBe(0);
  expect(seam).toBeNull();
  expect(seconds).toBe(10);
  expect(strip.general).toHaveLength(240);
  expect(Math.max(...strip.general.slice(0, 120))).toBe(0);
  expect(Math.max(...strip.general.slice(200))).toBeGreaterThanOrEqual(19);
  expect(strip.light.slice(0, 120)).toEqual(new Array(120).fill(0));
  expect(Math.max(...strip.light)).toBe(1);
});

test('of a stretch of few frames each is a point of the strip', () => {
  const meter = new RoundMeter();
  for (let frame = 0; frame < 3; frame++) meter.add(grey(51 * frame), frame / 60);
  expect(meter.result(0.05).strip.light.map((v) => Number(v.toFixed(3)))).toEqual([0, 0.2, 0.4]);
});

test('the seam is the mean and the worst of all channels with its place, alpha left out', () => {
  const meter = new RoundMeter();
  meter.add(grey(10), 0);
  const last = grey(10);
  last[4 * (width * 27 + 48)] = 250;
  last[3] = 0;
  meter.meet(last);
  const { seam } = meter.result(1);
  expect(seam!.worst).toBe(240);
  expect(seam!.mean).toBeCloseTo(240 / (width * height * 3), 9);
  expect(seam!.at[0]).toBeCloseTo(0.505, 2);
  expect(seam!.at[1]).toBeCloseTo(0.509, 2);
});

test('bars over the picture are noticed with their time', () => {
  const meter = new RoundMeter();
  const bars = grey(20).map((v, k) => (((k >> 2) % width) % 12 < 6 ? v : 230));
  for (let frame = 0; frame < 24; frame++) meter.add(frame < 12 ? grey(128) : bars, frame / 60);
  const { pattern } = meter.result(0.4);
  expect(pattern.most).toBeGreaterThan(0.8);
  expect(pattern.at).toBeCloseTo(0.2, 9);
});

test('flashes of a second apart count with their time, and are not on the time line', () => {
  const meter = new RoundMeter();
  for (let frame = 0; frame < 60; frame++) meter.add(grey(100), frame / 60);
  for (let frame = 0; frame < 60; frame++) meter.add(grey(frame % 6 < 3 ? 255 : 0), 40 + frame / 60, true);
  const { general, strip } = meter.result(1);
  expect(general.most).toBeGreaterThan(18);
  expect(general.at).toBeGreaterThan(40);
  expect(strip.general).toHaveLength(60);
  expect(Math.max(...strip.general)).toBe(0);
});

test('a frame of another size is refused', () =>
  expect(() => new RoundMeter().add(new Uint8ClampedArray(4), 0)).toThrow('96 x 54'));
