import { describe, expect, test } from '@jest/globals';
import { bandAmplitudes, bandEdges, bandLevel, decibels } from './bands';
import { Listener, SampleListener } from './listener';
import { loopTempo, makeLoop } from './loop';
import { binCount, hopSize, Spectrum, windowSize } from './spectrum';

const rate = 48000;
const sine = (hertz: number, amplitude: number, seconds: number): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, k) => amplitude * Math.sin((2 * Math.PI * hertz * k) / rate),
  );
const click = (seconds: number, every: number): Float32Array => {
  const out = new Float32Array(Math.round(seconds * rate));
  for (let at = 0; at < seconds; at += every) {
    const start = Math.round(at * rate);
    for (let k = 0; k < 2000 && start + k < out.length; k++)
      out[start + k] = Math.sin(k * 0.9) * Math.exp(-k / 300);
  }
  return out;
};

describe('spectrum', () => {
  test.each([
    [1000, 1],
    [1007.3, 0.5],
    [100, 0.1],
    [12345, 0.01],
  ])('a sine of %d Hz has the power of its amplitude %d squared', (hertz, amplitude) => {
    const spectrum = new Spectrum();
    spectrum.push(sine(hertz, amplitude, 0.1), () => {});
    const sum = spectrum.power.reduce((a, b) => a + b, 0);
    expect(Math.sqrt(sum) / amplitude).toBeCloseTo(1, 2);
    const top = spectrum.power.indexOf(Math.max(...spectrum.power));
    expect(Math.abs(top - (hertz * windowSize) / rate)).toBeLessThan(1);
  });
  test('hops come every 512 samples, however the blocks are cut', () => {
    const sound = sine(440, 0.8, 0.2);
    const hear = (block: number): number[] => {
      const seen: number[] = [];
      const spectrum = new Spectrum();
      for (let at = 0; at < sound.length; at += block)
        spectrum.push(sound.subarray(at, at + block), (meanSquare) =>
          seen.push(meanSquare, spectrum.power[19]),
        );
      return seen;
    };
    expect(hear(128).length / 2).toBe(Math.floor(sound.length / hopSize));
    expect(hear(128)).toEqual(hear(1000));
    expect(Math.sqrt(hear(512)[20])).toBeCloseTo(0.8 / Math.SQRT2, 1);
  });
});

describe('bands', () => {
  test('edges go by equal steps of pitch, in any order', () => {
    expect([...bandEdges(3, 100, 800)].map(Math.round)).toEqual([100, 200, 400, 800]);
    expect([...bandEdges(3, 800, 100)].map(Math.round)).toEqual([100, 200, 400, 800]);
    expect([...bandEdges(2, 0, 0)].every((v) => Number.isFinite(v) && v > 0)).toBe(true);
  });
  test.each([1, 10, 100, 256])('a sine of known level stands in its band among %d', (count) => {
    const spectrum = new Spectrum();
    const edges = bandEdges(count, 30, 16000);
    // In the middle of a band that is wider than the sine's lobe.
    const band = Math.floor(count * 0.8);
    const hertz = Math.sqrt(edges[band] * edges[band + 1]);
    spectrum.push(sine(hertz, 0.25, 0.1), () => {});
    const out = new Float32Array(count);
    bandAmplitudes(spectrum.power, rate, edges, out);
    expect(out.indexOf(Math.max(...out))).toBe(band);
    expect(Math.abs(decibels(out[band]) - decibels(0.25))).toBeLessThan(0.6);
    // No power is lost or doubled between the bands.
    expect(Math.hypot(...out)).toBeCloseTo(0.25, 2);
  });
  test('levels: floor, tilt and gain by range', () => {
    const shape = { tilt: 0, floor: -60, gains: [0, 0, 0] as [number, number, number] };
    expect(bandLevel(1, 500, shape)).toBe(1);
    expect(bandLevel(0.001, 500, shape)).toBeCloseTo(0);
    expect(bandLevel(0, 500, shape)).toBe(0);
    expect(bandLevel(10 ** (-30 / 20), 500, shape)).toBeCloseTo(0.5);
    // 3 dB an octave lifts 4 kHz by 6 dB and lowers 500 Hz by 3 dB.
    const quiet = 10 ** (-30 / 20);
    expect(bandLevel(quiet, 4000, { ...shape, tilt: 3 })).toBeCloseTo(0.6);
    expect(bandLevel(quiet, 500, { ...shape, tilt: 3 })).toBeCloseTo(0.45);
    const gains = [6, 0, -12] as [number, number, number];
    expect([100, 1000, 8000].map((f) => Number(bandLevel(quiet, f, { ...shape, gains }).toFixed(3)))).toEqual(
      [0.6, 0.5, 0.3],
    );
  });
});

describe('onsets and tempo', () => {
  test.each([
    [0.5, 120],
    [0.6, 100],
    [0.441, 136.05],
    [0.35, 171.43],
  ])('clicks every %d s are heard one by one, at their tempo', (every, bpm) => {
    const listener = new Listener(rate);
    const seconds = 12;
    listener.push(click(seconds, every));
    // The first may fall before there is anything to compare it with.
    expect(Math.abs(listener.state.onsets.all.count - seconds / every)).toBeLessThanOrEqual(2);
    expect(listener.state.bpm).toBeCloseTo(bpm, 0);
    expect(listener.state.confidence).toBeGreaterThan(0.4);
  });
  test('silence and a held tone have no onsets and no tempo', () => {
    for (const sound of [new Float32Array(10 * rate), sine(300, 0.5, 10)]) {
      const listener = new Listener(rate);
      listener.push(sound);
      expect(listener.state.onsets.all.count).toBeLessThanOrEqual(1);
      expect(listener.state.confidence).toBeLessThan(0.4);
    }
  });
});

describe('the shipped loop', () => {
  const loop = makeLoop(rate);
  test('is 16 beats at its tempo, within full scale, and its end meets its start', () => {
    expect(loop.length).toBe(8 * rate);
    const most = loop.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(most).toBeCloseTo(0.9, 5);
    expect(Math.abs(loop[0] - loop[loop.length - 1])).toBeLessThan(0.1);
    expect([...makeLoop(rate).subarray(0, 500)]).toEqual([...loop.subarray(0, 500)]);
  });
  test('has bass in the low bands, hits in each range, and is heard at its tempo', () => {
    const heard = new SampleListener(loop, rate);
    const out = new Float32Array(3);
    const sum = [0, 0, 0];
    for (let k = 0; k < 480; k++) {
      const { power } = heard.at(k / 60);
      bandAmplitudes(power, rate, Float32Array.of(30, 250, 2500, 16000), out);
      out.forEach((v, band) => (sum[band] += v / 480));
    }
    expect(sum[0]).toBeGreaterThan(1.5 * sum[1]);
    expect(sum[1]).toBeGreaterThan(sum[2]);
    const { onsets, bpm } = heard.at(12);
    expect(bpm).toBeCloseTo(loopTempo, 0);
    for (const range of ['all', 'low', 'high'] as const) expect(onsets[range].count).toBeGreaterThan(12);
  });
  test('a moment is heard alike at any frame rate, and after a jump', () => {
    const at = (fps: number): number[] => {
      const heard = new SampleListener(loop, rate);
      for (let k = 0; k < fps; k++) heard.at(k / fps);
      return [...heard.at(1).power];
    };
    expect(at(24)).toEqual(at(144));
    const jumped = new SampleListener(loop, rate);
    jumped.at(12);
    expect([...jumped.at(1).power]).toEqual(at(60));
    const far = new SampleListener(loop, rate);
    // 300 s are 37 rounds and a half: the same place as 4 s.
    const [there, here] = [[...far.at(300).power], [...new SampleListener(loop, rate).at(300 - 8).power]];
    there.forEach((v, k) => expect(v).toBeCloseTo(here[k], 6));
  });
  test('nothing to hear is silence', () => {
    expect(new SampleListener(new Float32Array(0), rate).at(3).level).toBe(0);
    expect(new SampleListener(loop, rate).at(0).power).toHaveLength(binCount);
  });
});
