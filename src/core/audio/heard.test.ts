import { describe, expect, test } from '@jest/globals';
import { heardBytes, LostCount, numberOfHeard, packHeard, readHeard } from './heard';
import { Listener, silence } from './listener';

const rate = 48000;
/** A second of a beat of 300 Hz. */
const beat = Float32Array.from(
  { length: rate },
  (_, k) => 0.5 * Math.exp(-((k % 12000) / 2000)) * Math.sin((2 * Math.PI * 300 * k) / rate),
);

describe('what is heard, as it travels', () => {
  test('comes back as it was: levels and onsets as they are, powers to a thousandth', () => {
    const listener = new Listener(rate);
    for (let k = 0; k < 10; k++) listener.push(beat);
    const { state } = listener;
    expect(state.onsets.all.count).toBeGreaterThan(5);
    const bytes = packHeard({ number: 4000000000, state });
    expect(bytes).toHaveLength(heardBytes);
    const back = readHeard(bytes)!;
    expect(back.number).toBe(4000000000);
    expect(back.state).toMatchObject({
      rate,
      level: Math.fround(state.level),
      peak: Math.fround(state.peak),
    });
    expect(back.state.onsets.low.count).toBe(state.onsets.low.count);
    expect(back.state.bpm).toBe(state.bpm === null ? null : Math.fround(state.bpm));
    state.power.forEach((power, k) => {
      if (power > 1e-12) expect(back.state.power[k] / power).toBeCloseTo(1, 3);
      else expect(back.state.power[k]).toBeLessThanOrEqual(1.01e-12);
    });
  });

  test('of silence nothing is heard, and no tempo', () => {
    const { state } = readHeard(packHeard({ number: 1, state: silence }))!;
    expect(state.bpm).toBeNull();
    expect(state.power.every((power) => power === 0)).toBe(true);
  });

  test('is read from the middle of other bytes too; what is damaged is nothing', () => {
    const bytes = packHeard({ number: 7, state: { ...silence, level: 0.25 } });
    const inside = new Uint8Array(heardBytes + 9);
    inside.set(bytes, 5);
    expect(readHeard(inside.subarray(5, 5 + heardBytes))).toMatchObject({
      number: 7,
      state: { level: 0.25 },
    });
    expect(numberOfHeard(inside.subarray(5, 5 + heardBytes))).toBe(7);
    expect(numberOfHeard(bytes.subarray(1))).toBeNull();
    expect(readHeard(bytes.subarray(1))).toBeNull();
    expect(readHeard(new Uint8Array(heardBytes))).toBeNull();
    expect(readHeard(new Uint8Array(heardBytes).fill(255))).toBeNull();
  });
});

describe('what was lost on the way', () => {
  test('is told as a share, once enough was sent; what comes late is left out', () => {
    const lost = new LostCount();
    for (let number = 1; number <= 400; number++) if (number % 4 !== 0) expect(lost.take(number)).toBe(true);
    expect(lost.take(390)).toBe(false);
    expect(lost.share()).toBeCloseTo(0.25, 2);
    expect(lost.share()).toBeNull();
    for (let number = 401; number <= 800; number++) lost.take(number);
    expect(lost.share()).toBeCloseTo(0, 2);
  });

  test('neither a sender that begins anew nor a link that was away has lost anything', () => {
    const lost = new LostCount();
    for (let number = 5001; number <= 5400; number++) lost.take(number);
    for (let number = 1; number <= 400; number++) expect(lost.take(number)).toBe(true);
    expect(lost.share()).toBe(0);
    // An engine that was restarted after a second or two.
    for (let number = 1; number <= 60; number++) expect(lost.take(number)).toBe(true);
    for (let number = 9001; number <= 9400; number++) lost.take(number);
    expect(lost.share()).toBe(0);
  });
});
