import { describe, expect, test } from '@jest/globals';
import { alongPlaces, flatten } from './curve';
import { cornerNumbers, forms, Ink } from './ink';
import { drawBars, drawPoints, drawTrace } from './number-faces';

/** Corners of a quad: place, place in the shape, form, colour. */
const corners = (ink: Ink, quad: number) =>
  [0, 1, 2, 3].map((k) => {
    const from = (4 * quad + k) * cornerNumbers;
    const [x, y, u, v, ...rest] = ink.corners.slice(from, from + cornerNumbers);
    return { x, y, u, v, form: rest.slice(0, 4), colour: rest.slice(4) };
  });

/** Upper left and lower right of a quad. */
const bounds = (ink: Ink, quad: number): number[] => {
  const all = corners(ink, quad);
  const [x, y] = [all.map((c) => c.x), all.map((c) => c.y)];
  return [Math.min(...x), Math.min(...y), Math.max(...x), Math.max(...y)].map((v) => Number(v.toFixed(3)));
};

const red = [1, 0, 0] as const;

describe('ink', () => {
  test('a line is a quad around both of its ends, in whatever direction it goes', () => {
    const ink = new Ink();
    ink.line(10, 20, 10, 50, 2, [...red, 1]);
    expect(bounds(ink, 0)).toEqual([7, 17, 13, 53]);
    expect(corners(ink, 0)[0].form).toEqual([forms.line, 30, 2, -1]);
    ink.disc(5, 5, 4, red);
    expect(bounds(ink, 1)).toEqual([0, 0, 10, 10]);
  });

  test('a box and a picture are told their size, so that their corners can be round', () => {
    const ink = new Ink();
    ink.box(1, 2, 30, 40, red, 0.5, 5);
    ink.picture(0, 0, 10, 10, [0.25, 0.5, 0.25, -0.5], 3);
    expect(bounds(ink, 0)).toEqual([1, 2, 31, 42]);
    expect(corners(ink, 0)[3]).toMatchObject({
      u: 30,
      v: 40,
      form: [forms.box, 30, 40, 5],
      colour: [1, 0, 0, 0.5],
    });
    expect(corners(ink, 1)[0]).toMatchObject({
      form: [forms.picture, 10, 10, 3],
      colour: [0.25, 0.5, 0.25, -0.5],
    });
  });

  test('grows as it has to and keeps what is there; cleared, it begins again', () => {
    const ink = new Ink();
    for (let k = 0; k < 1000; k++) ink.box(k, 0, 1, 1, red);
    expect(ink.quads).toBe(1000);
    expect([bounds(ink, 0), bounds(ink, 999)]).toEqual([
      [0, 0, 1, 1],
      [999, 0, 1000, 1],
    ]);
    ink.clear();
    expect(ink.quads).toBe(0);
  });
});

describe('curves', () => {
  test('go through the ends of their pieces, one after the other', () => {
    const places = flatten([0, 0, 1, 0, 2, 0, 3, 0, 3, 0, 3, 1, 3, 2, 3, 3]);
    expect(places).toHaveLength(2 * 41);
    expect([...places.slice(0, 2)]).toEqual([0, 0]);
    expect([...places.slice(40, 42)]).toEqual([3, 0]);
    expect([...places.slice(-2)]).toEqual([3, 3]);
  });

  test('a share of the way is one of its length', () => {
    const places = flatten([0, 0, 1, 0, 2, 0, 3, 0, 3, 0, 3, 1, 3, 2, 3, 3]);
    const [x, y] = alongPlaces(places, 0.25);
    expect(x).toBeCloseTo(1.5, 4);
    expect(y).toBeCloseTo(0, 4);
    expect(alongPlaces(places, 1)).toEqual([3, 3]);
    expect(alongPlaces(places, 7)).toEqual([3, 3]);
    expect(alongPlaces(new Float32Array([4, 5]), 0.5)).toEqual([4, 5]);
  });
});

describe('faces of numbers', () => {
  const box = { x: 100, y: 0, width: 152, height: 56 };

  test('bars stand on zero: upward for what is above, downward for what is below', () => {
    const ink = new Ink();
    drawBars(ink, [1, -1], box, 1, red);
    const [up, down] = [bounds(ink, 1), bounds(ink, 2)];
    expect(up[1]).toBe(10);
    expect(up[3]).toBe(28);
    expect(down[1]).toBe(28);
    expect(down[3]).toBe(46);
    expect(up[0]).toBe(108);
    expect(down[2]).toBeCloseTo(243, 3);
  });

  test('a trace keeps to its face, also where the signal stands still', () => {
    const ink = new Ink();
    drawTrace(
      ink,
      Array.from({ length: 120 }, (_, k) => Math.sin(k)),
      box,
      1,
      red,
    );
    expect(ink.quads).toBe(120);
    for (let k = 0; k < ink.quads; k++) {
      const [left, top, right, bottom] = bounds(ink, k);
      expect(left >= 100 && right <= 252 && top >= 0 && bottom <= 56).toBe(true);
    }
    ink.clear();
    drawTrace(ink, [0, 0, 0], box, 1, red);
    expect(ink.corners.slice(0, 4 * cornerNumbers * ink.quads).every(Number.isFinite)).toBe(true);
  });

  test('points are fitted to the face, and near ones are larger and lighter', () => {
    const ink = new Ink();
    drawPoints(ink, new Float32Array([0, 0, 9, 0, 0, -9]), box, 1, red);
    const width = (quad: number): number => bounds(ink, quad)[2] - bounds(ink, quad)[0];
    expect(width(0)).toBeGreaterThan(width(1));
    expect(corners(ink, 0)[0].colour[3]).toBeGreaterThan(corners(ink, 1)[0].colour[3]);
    const [left, top, right, bottom] = bounds(ink, 0);
    expect(left > 100 && right < 252 && top > 0 && bottom < 56).toBe(true);
  });
});
