import { beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { makeShow } from '../../core/show/create';
import type { Show } from '../../core/document/types';
import { longestStepSeconds } from '../../core/time/clock';
import { catalogue } from '../../nodes/catalogue';
import { longestCatchUpSeconds, Transport } from './transport';

let transport: Transport;
let show: Show;
beforeEach(() => {
  transport = new Transport();
  show = makeShow(catalogue, 'Time');
});
const beat = (): number => transport.moment(0, show).beat;

describe('time goes on', () => {
  test('as the clock does, and what has a memory by no more than it can stand', () => {
    expect(transport.advance(1 / 60, 60)).toBeCloseTo(1 / 60);
    expect(transport.advance(99, 60)).toBe(longestStepSeconds);
    expect(transport.time).toBeCloseTo(1 / 60 + longestCatchUpSeconds);
    expect(transport.advance(0.7, 60)).toBe(longestStepSeconds);
    expect(transport.time).toBeCloseTo(1 / 60 + longestCatchUpSeconds + 0.7);
  });

  test('only by steps while it stands, each a frame of the show', () => {
    transport.playing = false;
    expect(transport.advance(0.5, 50)).toBe(0);
    transport.step();
    transport.step();
    expect([transport.advance(0.5, 50), transport.advance(0.5, 50), transport.advance(0.5, 50)]).toEqual([
      0.02, 0.02, 0,
    ]);
    expect(transport.time).toBeCloseTo(0.04);
  });

  test('round in a range, whatever the steps are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 0.05, max: 8, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 0.3, noNaN: true }), { minLength: 1, maxLength: 60 }),
        (start, length, steps) => {
          const t = new Transport();
          t.range = [start, start + length];
          t.jump(start);
          for (const dt of steps) {
            t.advance(dt, 60);
            if (t.time < start - 1e-9 || t.time >= start + length + 1e-9) return false;
          }
          return true;
        },
      ),
      { seed: 5 },
    );
  });
});

describe('a jump', () => {
  test('goes no further back than the start, and counts beats as if the tempo had always been this', () => {
    transport.jump(-4);
    expect(transport.time).toBe(0);
    transport.jump(3);
    expect(beat()).toBeCloseTo(6);
  });

  test('that is exact prepares the frames up to its goal, at most half a minute', () => {
    transport.jumpExactly(1, 60);
    expect(transport.preroll).toEqual({ first: 0, next: 0, last: 59 });
    transport.jumpExactly(100, 60);
    expect(transport.preroll).toEqual({ first: 5999 - 1800, next: 5999 - 1800, last: 5999 });
    transport.jumpExactly(0, 60);
    expect(transport.preroll).toBeNull();
    transport.jumpExactly(2, 60);
    transport.jump(1);
    expect(transport.preroll).toBeNull();
  });

  test('opening a show goes to a time and plays or stands there', () => {
    transport.open(7, false);
    expect([transport.time, transport.playing, transport.advance(1, 60)]).toEqual([7, false, 0]);
  });
});

test('a change of tempo goes on at the beat where it is', () => {
  for (let k = 0; k < 30; k++) transport.advance(1 / 30, 60);
  expect(beat()).toBeCloseTo(2);
  const before = show.tempo;
  show = { ...show, tempo: { ...show.tempo, bpm: 60 } };
  transport.changeTempo(before);
  expect(beat()).toBeCloseTo(2);
  for (let k = 0; k < 30; k++) transport.advance(1 / 30, 60);
  expect(beat()).toBeCloseTo(3);
});
