import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from './create';
import { homeTransition, shareAt, transitionSeconds, transitionStart } from './transition';
import { readShow, writeShow } from './validate';

const show = makeShow(catalogue, 'Takes');
const with_ = (change: Partial<typeof show.transition>) => ({
  ...show,
  transition: { ...homeTransition(), ...change },
});

describe('a transition', () => {
  test('lasts seconds or beats', () => {
    expect(transitionSeconds(with_({ length: 3 }))).toBe(3);
    expect(
      transitionSeconds({ ...with_({ length: 4, unit: 'beats' }), tempo: { bpm: 120, beatsPerBar: 4 } }),
    ).toBe(2);
  });

  test('begins at once, or with the next beat or bar, never with the one that is', () => {
    expect(transitionStart(with_({}), 3.2)).toBeNull();
    expect(transitionStart(with_({ start: 'beat' }), 3.2)).toBe(4);
    expect(transitionStart(with_({ start: 'beat' }), 4)).toBe(5);
    expect(transitionStart(with_({ start: 'bar' }), 3.9)).toBe(4);
    expect(transitionStart(with_({ start: 'bar' }), 4.1)).toBe(8);
  });

  test('a wipe travels by its angle and is whole at both ends', () => {
    const wipe = { ...homeTransition(), look: 'wipe', angle: 0, soft: 0 } as const;
    expect(shareAt(wipe, 0.5, [0.3, 0.5], 1.6)).toBe(1);
    expect(shareAt(wipe, 0.5, [0.7, 0.5], 1.6)).toBe(0);
    expect(shareAt({ ...wipe, angle: 180 }, 0.5, [0.7, 0.5], 1.6)).toBe(1);
    expect(shareAt({ ...wipe, angle: 90 }, 0.25, [0.5, 0.2], 1.6)).toBe(1);
    expect(shareAt({ ...wipe, angle: 90 }, 0.25, [0.5, 0.3], 1.6)).toBe(0);
    for (const angle of [0, 37, 90, 211])
      for (const soft of [0, 0.4, 1])
        for (const place of [
          [0, 0],
          [1, 0],
          [0.5, 0.5],
          [0, 1],
          [1, 1],
        ] as const) {
          expect(shareAt({ ...wipe, angle, soft }, 0, place, 1.6)).toBeCloseTo(0);
          expect(shareAt({ ...wipe, angle, soft }, 1, place, 1.6)).toBeCloseTo(1);
        }
  });

  test('an iris opens from the middle into the corners', () => {
    const iris = { ...homeTransition(), look: 'iris', soft: 0.05 } as const;
    expect(shareAt(iris, 0.2, [0.5, 0.5], 1.6)).toBe(1);
    expect(shareAt(iris, 0.2, [0, 0], 1.6)).toBe(0);
    expect(shareAt(iris, 1, [0, 0], 1.6)).toBeCloseTo(1);
  });

  test('of an older show is a mix of the seconds its fade had', () => {
    const { transition, ...older } = JSON.parse(writeShow(show)) as Record<string, unknown>;
    expect(transition).toEqual(homeTransition());
    const { show: read } = readShow(JSON.stringify({ ...older, version: 4, fadeSeconds: 3.5 }), catalogue);
    expect(read.transition).toEqual({ ...homeTransition(), length: 3.5 });
  });
});
