import { beforeEach, describe, expect, test } from '@jest/globals';
import { WorkSize } from './work-size';

const canvas = { width: 1920, height: 1080 };
const budget = 1000 / 60;
let size: WorkSize;
let now: number;

/** Lets so many seconds pass in which a frame costs that much. */
function pass(seconds: number, frameMs: number, onStage = false): number {
  for (const end = now + seconds * 1000; now < end; now += 100) size.choose(now, onStage, frameMs, budget);
  return size.of(canvas).width / canvas.width;
}

beforeEach(() => {
  size = new WorkSize();
  now = 10000;
});

describe('work size', () => {
  test('begins small, and grows while the GPU has time', () => {
    expect(size.of(canvas)).toEqual({ width: 480, height: 270 });
    expect(pass(0.2, 1)).toBe(0.5);
    expect(pass(2, 1)).toBe(1);
  });

  test('stays while nothing is known of the GPU', () => {
    expect(pass(10, 0)).toBe(0.25);
  });

  test('shrinks where the GPU cannot keep up, in steps that are given time to show', () => {
    pass(0.5, 1);
    expect(pass(0.1, budget * 2)).toBe(1);
    expect(pass(1.6, budget * 2)).toBe(0.5);
    expect(pass(1.6, budget * 2)).toBe(0.25);
    expect(pass(10, budget * 2)).toBe(0.25);
  });

  test('goes below a quarter only where hardly anything would move, never below an eighth', () => {
    expect(pass(2, budget * 20)).toBe(0.125);
    expect(pass(10, budget * 20)).toBe(0.125);
    expect(pass(2, budget * 0.9)).toBe(0.25);
  });

  test('does not swing between two sizes at a cost in between', () => {
    pass(2, 1);
    const before = pass(2, budget);
    for (let k = 0; k < 20; k++) expect(pass(1, budget)).toBe(before);
  });

  test('is whole on stage, whatever is chosen or it costs', () => {
    size.scale = 0.25;
    expect(pass(5, budget * 20, true)).toBe(1);
    expect(pass(0.1, budget * 20)).toBe(0.25);
  });

  test('a chosen share holds', () => {
    size.scale = 0.5;
    expect(pass(10, 1)).toBe(0.5);
    expect(size.of({ width: 1, height: 1 })).toEqual({ width: 1, height: 1 });
  });
});
