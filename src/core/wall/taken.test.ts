import { describe, expect, test } from '@jest/globals';
import type { OutputPart } from '../document/types';
import { takenBoxes } from './taken';

const canvas = { width: 1000, height: 500 };
const part = (x: number, y: number, width: number, height: number, turn = 0): OutputPart => ({
  x,
  y,
  width,
  height,
  turn,
});

describe('what outputs take of the canvas', () => {
  test('is a box around each part, from the lower left, a little larger', () => {
    const [box] = takenBoxes([part(500, 100, 200, 100)], canvas)!;
    expect(box.x).toBeCloseTo(0.496, 9);
    expect(box.width).toBeCloseTo(0.208, 9);
    expect(box.y).toBeCloseTo(1 - 204 / 500, 9);
    expect(box.height).toBeCloseTo(108 / 500, 9);
  });

  test('is one box where parts overlap, whatever came between them, and several where they do not', () => {
    expect(takenBoxes([part(0, 0, 100, 100), part(600, 0, 100, 100)], canvas)).toHaveLength(2);
    expect(
      takenBoxes([part(0, 0, 100, 100), part(150, 0, 100, 100), part(90, 0, 70, 100)], canvas),
    ).toHaveLength(1);
    expect(
      takenBoxes(
        Array.from({ length: 20 }, (_, k) => part(50 * k, 0, 10, 10)),
        canvas,
      ),
    ).toHaveLength(1);
  });

  test('reaches as far as a turned part does, and not beyond the canvas', () => {
    const [box] = takenBoxes([part(-50, 200, 200, 20, 90)], canvas)!;
    expect(box.x).toBeCloseTo(0.036, 9);
    expect(box.height).toBeCloseTo(208 / 500, 9);
    const [corner] = takenBoxes([part(900, 400, 400, 400)], canvas)!;
    expect(corner.x + corner.width).toBeCloseTo(1, 9);
    expect(corner.y).toBeCloseTo(0, 9);
  });

  test('is all of it where little would be left out, and nothing where all lies outside', () => {
    expect(takenBoxes([part(0, 0, 1000, 480)], canvas)).toBeNull();
    expect(takenBoxes([part(2000, 0, 10, 10)], canvas)).toEqual([]);
  });
});
