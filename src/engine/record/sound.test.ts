import { expect, test } from '@jest/globals';
import { runsReader, samplesReader } from './sound';

/** A second of sound whose samples say where they are. */
const ramp = samplesReader({ rate: 100, samples: Float32Array.from({ length: 100 }, (_, k) => k) });

test('sound goes round', async () => {
  expect([...(await ramp.read(98, 4))[0]]).toEqual([98, 99, 0, 1]);
});

test('what was heard goes on through uneven frames, jumps where the show jumped, and is silent where it stood', async () => {
  // Ten frames a second: two that came a little late, a jump to 0.5, and a stop.
  const places = [0, 0.11, 0.19, 0.5, 0.6, Number.NaN, Number.NaN, 0.7];
  const heard = [...(await runsReader(ramp, places, 10).read(0, 80))[0]];
  expect(heard.slice(0, 30)).toEqual(Array.from({ length: 30 }, (_, k) => k));
  expect(heard.slice(30, 50)).toEqual(Array.from({ length: 20 }, (_, k) => 50 + k));
  expect(heard.slice(50, 70)).toEqual(Array.from({ length: 20 }, () => 0));
  expect(heard.slice(70, 80)).toEqual(Array.from({ length: 10 }, (_, k) => 70 + k));
});

test('what was heard can be read from anywhere', async () => {
  const reader = runsReader(ramp, [0.2, 0.3, 0.9], 10);
  expect([...(await reader.read(18, 4))[0]]).toEqual([38, 39, 90, 91]);
});
