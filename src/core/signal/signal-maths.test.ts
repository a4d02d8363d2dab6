import { describe, expect, test } from '@jest/globals';
import { envelopeAt, type EnvelopeShape } from './envelope';
import { fitValue } from './fit';
import { SignalBuffer, laneOf } from './signal';
import { spreadIndex, spreadInto } from './spread';
import { wave } from './wave';

const fit = (from: [number, number], to: [number, number]) => ({ from, to, bend: 1, edges: 'pass' as const });

describe('fit', () => {
  test.each([
    [[-1, 1], [0, 360], 0, 180],
    [[0, 1], [-1, 1], 0.25, -0.5],
    [[-1, 1], [0, 0.6], 1, 0.6],
    [[0, 1], [0.5, 2.5], 0.5, 1.5],
    [[0.5, 1], [0, 0.5], 0.75, 0.25],
    [[0, 1], [1, 0], 0.25, 0.75],
  ] as [[number, number], [number, number], number, number][])('%j to %j', (from, to, value, expected) =>
    expect(fitValue(value, fit(from, to))).toBeCloseTo(expected),
  );
  test('edges', () => {
    const at = (edges: 'hold' | 'pass' | 'wrap' | 'mirror', v: number) =>
      fitValue(v, { from: [0, 1], to: [0, 10], bend: 1, edges });
    expect(at('hold', 1.5)).toBe(10);
    expect(at('pass', 1.5)).toBe(15);
    expect(at('wrap', 1.5)).toBe(5);
    expect(at('mirror', 1.25)).toBeCloseTo(7.5);
    expect(at('mirror', -0.25)).toBeCloseTo(2.5);
  });
  test('a range without width and a bend', () => {
    expect(fitValue(3, fit([1, 1], [4, 8]))).toBe(4);
    expect(fitValue(0.5, { from: [0, 1], to: [0, 1], bend: 2, edges: 'hold' })).toBe(0.25);
  });
});

describe('spread', () => {
  test('mirror runs forth and back: 150 over 300', () => {
    for (const i of [0, 149, 150, 151, 299])
      expect(spreadIndex('mirror', i, 150)).toBe(i < 150 ? i : 299 - i);
    expect(spreadIndex('mirror', 300, 150)).toBe(0);
  });
  test('repeat and hold', () => {
    expect([0, 3, 4, 7].map((i) => spreadIndex('repeat', i, 4))).toEqual([0, 3, 0, 3]);
    expect([0, 3, 9].map((i) => spreadIndex('hold', i, 4))).toEqual([0, 3, 3]);
  });
  test('stretch keeps both ends, one sample serves all', () => {
    const out = new Float32Array(5);
    spreadInto(out, Float32Array.of(0, 1, 4), 'stretch');
    expect([...out]).toEqual([0, 0.5, 1, 2.5, 4]);
    spreadInto(out, Float32Array.of(7), 'repeat');
    expect([...out]).toEqual([7, 7, 7, 7, 7]);
    spreadInto(out, new Float32Array(0), 'stretch');
    expect([...out]).toEqual([0, 0, 0, 0, 0]);
  });
});

describe('waves', () => {
  test.each([
    ['sine', 0.25, 1],
    ['triangle', 0.25, 1],
    ['triangle', 0.75, -1],
    ['square', 0.49, 1],
    ['square', 0.51, -1],
    ['ramp', 0.5, 0],
    ['fall', 0.25, 0.5],
    ['sine', -0.25, -1],
  ] as const)('%s at %d', (shape, turns, expected) => expect(wave(shape, turns)).toBeCloseTo(expected));
});

describe('envelope: attack 0.1 s, decay 0.8 s, both easing out, rest 0', () => {
  const shape: EnvelopeShape = {
    attackSeconds: 0.1,
    holdSeconds: 0,
    decaySeconds: 0.8,
    sustain: 0,
    releaseSeconds: 0.3,
    attackBend: 2,
    decayBend: 2,
    releaseBend: 2,
  };
  test('rises, falls and rests', () => {
    expect(envelopeAt(shape, -0.01, Infinity)).toBe(0);
    expect(envelopeAt(shape, 0.05, 0.01)).toBeCloseTo(0.75);
    expect(envelopeAt(shape, 0.1, 0.01)).toBeCloseTo(1);
    expect(envelopeAt(shape, 0.5, 0.01)).toBeCloseTo(0.25);
    expect(envelopeAt(shape, 0.9, 0.01)).toBeCloseTo(0);
    expect(envelopeAt(shape, 5, 0.01)).toBe(0);
  });
  test('sustain holds while held and releases after', () => {
    const held = { ...shape, sustain: 0.5 };
    expect(envelopeAt(held, 3, Infinity)).toBeCloseTo(0.5);
    expect(envelopeAt(held, 3.15, 3)).toBeCloseTo(0.125);
    expect(envelopeAt(held, 3.31, 3)).toBe(0);
  });
  test('no step anywhere', () => {
    const held = { ...shape, sustain: 0.4, holdSeconds: 0.05 };
    let before = 0;
    for (let t = 0; t < 2; t += 0.001) {
      const now = envelopeAt(held, t, 1.2);
      expect(Math.abs(now - before)).toBeLessThan(0.03);
      before = now;
    }
  });
});

describe('signal memory', () => {
  test('keeps its arrays while names and count stay', () => {
    const buffer = new SignalBuffer();
    const [first] = buffer.layout(['x'], 4);
    expect(buffer.layout(['y'], 4)[0]).toBe(first);
    expect(buffer.lanes[0].name).toBe('y');
    expect(buffer.layout(['y'], 9)[0]).toHaveLength(9);
    expect(buffer.layout(['y', 'z'], 3)).toHaveLength(2);
  });
  test('finds lanes by name, else by place', () => {
    const buffer = new SignalBuffer();
    buffer.layout(['x', 'y'], 1);
    expect(laneOf(buffer, 'y')?.name).toBe('y');
    expect(laneOf(buffer, 'q', 1)?.name).toBe('y');
    expect(laneOf(buffer, undefined, 7)?.name).toBe('x');
  });
});
