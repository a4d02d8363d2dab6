import { describe, expect, it } from '@jest/globals';
import { randomAt } from '../random';
import { ClockMeter } from './clock';

/** Rounds between clocks that are so far apart and part by so much, over a network that now and then lets one way wait. */
function measured({
  offset = 0,
  drift = 0,
  rounds = 40,
  everyMs = 1000,
  way = 1,
  wait = 20,
  seed = 1,
}: Partial<Record<'offset' | 'drift' | 'rounds' | 'everyMs' | 'way' | 'wait' | 'seed', number>>) {
  let drawn = 0;
  const random = (): number => randomAt(drawn++, seed);
  const meter = new ClockMeter();
  const server = (own: number): number => own + offset + drift * own;
  let now = 0;
  for (let k = 0; k < rounds; k++) {
    const sent = k * everyMs;
    const there = way + (random() < 0.3 ? random() * wait : random() * 0.2);
    const back = way + (random() < 0.3 ? random() * wait : random() * 0.2);
    now = sent + there + back;
    meter.add({ sent, server: server(sent + there), received: now });
  }
  return { meter, now, server };
}

describe('the clock of another machine', () => {
  it('is found within a fraction of a millisecond, though a third of all ways wait up to 20 ms', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { meter, now, server } = measured({ offset: 123456.7, seed });
      expect(Math.abs(meter.toServer(now) - server(now))).toBeLessThan(0.5);
      expect(meter.state!.jitter).toBeLessThan(1);
    }
  });

  it('is followed where it runs quicker', () => {
    const drift = 40e-6;
    const { meter, now, server } = measured({ offset: -5000, drift, rounds: 120 });
    expect(meter.state!.drift).toBeCloseTo(drift * 1000, 2);
    const later = now + 30000;
    expect(Math.abs(meter.toServer(later) - server(later))).toBeLessThan(0.7);
    expect(meter.toOwn(meter.toServer(later))).toBeCloseTo(later, 4);
  });

  it('is wrong by half of what the ways differ by, and says how long they are', () => {
    const meter = new ClockMeter();
    for (let k = 0; k < 10; k++)
      meter.add({ sent: k * 1000, server: k * 1000 + 300, received: k * 1000 + 310 });
    expect(meter.state).toMatchObject({ offset: 145, roundTrip: 310, rounds: 10 });
  });

  it('is followed when it is set, but not for one answer that is strange', () => {
    const { meter, now } = measured({ offset: 100 });
    const before = meter.state!.offset;
    meter.add({ sent: now + 1000, server: now + 1001 + 9000, received: now + 1002 });
    expect(meter.state!.offset).toBe(before);
    for (let k = 2; k <= 4; k++)
      meter.add({ sent: now + k * 1000, server: now + k * 1000 + 1 + 9000, received: now + k * 1000 + 2 });
    expect(meter.state!.offset).toBeCloseTo(9000, 3);
  });

  it('is the own one while nothing is known, and takes no round that cannot be', () => {
    const meter = new ClockMeter();
    meter.add({ sent: 10, server: 5, received: 9 });
    meter.add({ sent: 10, server: NaN, received: 12 });
    expect(meter.state).toBeNull();
    expect(meter.toServer(77)).toBe(77);
  });
});
