import { describe, expect, test } from '@jest/globals';
import { aligned, boundsOf, cornersOf, distributed, mapToCanvas, snapOf } from './parts';

const part = (x: number, y: number, width: number, height: number, turn = 0) => ({
  x,
  y,
  width,
  height,
  turn,
});
const canvas = { width: 400, height: 200 };
const upright = { quarterTurns: 0, mirrored: false };
/** A place of an output's picture as pixels of the canvas from its top left. */
const at = (p: ReturnType<typeof part>, mounted: typeof upright, u: number, v: number): number[] => {
  const [a, b, c, d, e, f] = mapToCanvas(p, mounted, canvas);
  return [(a * u + b * v + c) * canvas.width, (1 - (d * u + e * v + f)) * canvas.height].map(
    (n) => Math.round(n * 1e6) / 1e6,
  );
};

describe('parts', () => {
  test('turn clockwise around their middle', () => {
    const corners = cornersOf(part(100, 50, 100, 40, 90)).map((corner) => corner.map(Math.round));
    expect(corners).toEqual([
      [170, 20],
      [170, 120],
      [130, 120],
      [130, 20],
    ]);
    const box = boundsOf(part(100, 50, 100, 40, 90));
    expect([box.x, box.y, box.width, box.height].map(Math.round)).toEqual([130, 20, 40, 100]);
  });

  test('an upright output shows its part as it is', () => {
    expect(at(part(100, 50, 100, 40), upright, 0, 0)).toEqual([100, 50]);
    expect(at(part(100, 50, 100, 40), upright, 1, 0.5)).toEqual([200, 70]);
  });

  test('a turned or mirrored one shows other corners at its top left', () => {
    const p = part(100, 50, 100, 40);
    // Turned clockwise once, the lower left of the part is at the top left of the output.
    expect(at(p, { quarterTurns: 1, mirrored: false }, 0, 0)).toEqual([100, 90]);
    expect(at(p, { quarterTurns: 1, mirrored: false }, 1, 0)).toEqual([100, 50]);
    expect(at(p, { quarterTurns: 2, mirrored: false }, 0, 0)).toEqual([200, 90]);
    expect(at(p, { quarterTurns: 3, mirrored: false }, 0, 0)).toEqual([200, 50]);
    expect(at(p, { quarterTurns: 0, mirrored: true }, 0, 0)).toEqual([200, 50]);
  });

  test('are brought in line and spread evenly', () => {
    const three = [part(0, 0, 10, 10), part(50, 5, 30, 10), part(90, 20, 10, 20)];
    expect(aligned(three, 'left')).toEqual({ axis: 'x', moves: [0, -50, -90] });
    expect(aligned(three, 'right').moves).toEqual([90, 20, 0]);
    expect(aligned(three, 'middle')).toEqual({ axis: 'y', moves: [15, 10, -10] });
    // 100 pixels less 50 of the parts leave two gaps of 25.
    expect(distributed(three, 'x')).toEqual([0, -15, 0]);
  });

  test('meet the nearest edge or middle within reach, each axis by itself', () => {
    const others = [{ x: 100, y: 100, width: 50, height: 50 }];
    expect(snapOf({ x: 152, y: 30, width: 20, height: 20 }, others, canvas, 5)).toEqual([-2, 0]);
    expect(snapOf({ x: 3, y: 178, width: 20, height: 20 }, others, canvas, 5)).toEqual([-3, 2]);
    expect(snapOf({ x: 191, y: 70, width: 20, height: 56 }, others, canvas, 5)).toEqual([-1, -1]);
    expect(snapOf({ x: 60, y: 30, width: 7, height: 7 }, others, canvas, 5)).toEqual([0, 0]);
  });
});
