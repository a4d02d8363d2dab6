import { describe, expect, test } from '@jest/globals';
import { OutlineError, readOutlines } from './outlines';

const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${inside}</svg>`;
const rounded = (points: readonly (readonly [number, number])[]): number[][] =>
  points.map((point) => point.map((v) => Math.round(v * 1000) / 1000 + 0));

describe('outlines of a drawing', () => {
  test('are read in order, whatever element draws them', () => {
    const outlines = readOutlines(
      svg(
        '<title>a</title><polygon points="0,0 4,0 4,3"/><g><rect x="1" y="2" width="3" height="4"/></g><polyline points="0 0 5 5"/><line x1="1" y1="1" x2="2" y2="3"/><path d="m1 1h2v2z M5 5 L6 6 7 5 Z"/><circle cx="2" cy="2" r="1"/>',
      ),
    );
    expect(outlines.map(({ closed, points }) => [closed, points.length])).toEqual([
      [true, 3],
      [true, 4],
      [false, 2],
      [false, 2],
      [true, 3],
      [true, 3],
      [true, 48],
    ]);
    expect(outlines[1].points).toEqual([
      [1, 2],
      [4, 2],
      [4, 6],
      [1, 6],
    ]);
    for (const [x, y] of outlines[6].points) expect(Math.hypot(x - 2, y - 2)).toBeCloseTo(1, 3);
  });

  test('lie where transforms of all elements around them put them', () => {
    const [one] = readOutlines(
      svg(
        '<g transform="translate(10 20) scale(2)"><g transform="rotate(90)"><polyline points="1,0 2,0"/></g></g>',
      ),
    );
    expect(rounded(one.points)).toEqual([
      [10, 22],
      [10, 24],
    ]);
    const [about] = readOutlines(svg('<polyline transform="rotate(180 2 3)" points="1,3 0,0"/>'));
    expect(rounded(about.points)).toEqual([
      [3, 3],
      [4, 6],
    ]);
  });

  test('leave out what is only there to be used elsewhere', () => {
    expect(
      readOutlines(svg('<defs><rect width="2" height="2"/></defs><clipPath><circle r="2"/></clipPath>')),
    ).toEqual([]);
  });

  test.each([
    ['no drawing', 'pixels, 3, 4'],
    ['another kind of file', '<html><body/></html>'],
    ['a damaged path', svg('<path d="M0 0 L wrong"/>')],
  ])('%s is refused with a sentence', (_name, text) => {
    expect(() => readOutlines(text)).toThrow(OutlineError);
  });

  test('entities are never expanded', () => {
    const bomb = '<!DOCTYPE svg [<!ENTITY a "1,1 2,2 3,3">]>' + svg('<polygon points="&a;"/>');
    expect(() => readOutlines(bomb)).toThrow(OutlineError);
  });
});
