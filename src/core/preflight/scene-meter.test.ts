import { expect, test } from '@jest/globals';
import { measuredSize, SceneMeter } from './scene-meter';

const { width, height } = measuredSize;
const grey = (v: number): Uint8ClampedArray =>
  new Uint8ClampedArray(width * height * 4).map((_, k) => (k % 4 === 3 ? 255 : v));

test('a round is measured from its first frame to the one after its last', () => {
  const meter = new SceneMeter();
  for (let frame = 0; frame <= 60; frame++) meter.add(grey(frame % 6 < 3 ? 0 : 255), frame / 60);
  const { general, red, seam, seconds } = meter.result(1, false);
  // Ten times a second there and back.
  expect(general.most).toBeGreaterThanOrEqual(19);
  expect(general.at).toBeGreaterThan(0.9);
  expect(red.most).toBe(0);
  expect(seam).toEqual({ mean: 0, worst: 0 });
  expect(seconds).toBe(1);
});

test('the seam is the mean and the worst of all channels, alpha left out', () => {
  const meter = new SceneMeter();
  meter.add(grey(10), 0);
  const last = grey(10);
  last[0] = 250;
  last[3] = 0;
  meter.add(last, 1);
  const { seam } = meter.result(1, false);
  expect(seam.worst).toBe(240);
  expect(seam.mean).toBeCloseTo(240 / (width * height * 3), 9);
});

test('a frame of another size is refused', () =>
  expect(() => new SceneMeter().add(new Uint8ClampedArray(4), 0)).toThrow('96 x 54'));
