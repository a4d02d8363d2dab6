import { describe, expect, test } from '@jest/globals';
import { Bench, rounded } from '../../../test/signal-bench';
import type { ControlValue } from '../../core/document/types';

const line = (samples: number, from: number, to: number): [string, Record<string, number>] => [
  'number-line',
  { samples, from, to },
];
/** One value that is 1 in a frame and 0 in the next. */
const hit = (bench: Bench, presses: number): number[][] => {
  const seen = bench.key(true, presses).play();
  bench.key(false, presses);
  return seen;
};

describe('Combine', () => {
  test.each([
    ['add', [11, 12, 13]],
    ['subtract', [-9, -8, -7]],
    ['multiply', [10, 20, 30]],
    ['divide', [0.1, 0.2, 0.3]],
    ['least', [1, 2, 3]],
    ['most', [10, 10, 10]],
    ['average', [5.5, 6, 6.5]],
  ])('%s, with one sample for all', (how, expected) => {
    const bench = new Bench()
      .add(...line(3, 1, 3))
      .add('combine', { how })
      .beside('values', { list: [10] }, 'in');
    expect(rounded(bench.play()[0])).toEqual(expected);
  });
  test('divided by 0 is 0, and nothing wired is 0', () => {
    const bench = new Bench()
      .add(...line(2, 1, 2))
      .add('combine', { how: 'divide' })
      .beside('values', { list: [0] }, 'in');
    expect(bench.play()).toEqual([[0, 0]]);
    expect(new Bench().add('combine').play()).toEqual([[0]]);
  });
});

describe('Smooth', () => {
  test.each([30, 60, 144])(
    'covers 95 %% of the way in its time at %d frames a second, up and down apart',
    (rate) => {
      const bench = new Bench(rate).add('keys').add('smooth', { rise: 0.5, fall: 2 });
      bench.play();
      bench.key(true, 1);
      expect(bench.play(rate / 2)[0][0]).toBeCloseTo(0.95, 2);
      bench.key(false, 1);
      const top = bench.play(1)[0][0];
      expect(bench.play(2 * rate)[0][0] / top).toBeCloseTo(0.05, 1);
    },
  );
  test('starts where it is, and follows at once without times', () => {
    expect(
      rounded(
        new Bench()
          .add(...line(3, 1, 3))
          .add('smooth')
          .play()[0],
      ),
    ).toEqual([1, 2, 3]);
    const quick = new Bench().add('keys').add('smooth', { rise: 0, fall: 0 });
    quick.play();
    expect(hit(quick, 1)).toEqual([[1]]);
    expect(quick.play()).toEqual([[0]]);
  });
});

describe('Accumulate', () => {
  test.each([30, 60, 144])('a speed of 2 for 3 s is 6 at %d frames a second', (rate) => {
    const bench = new Bench(rate).add('values', { list: [2] }).add('accumulate', { start: 1 });
    expect(bench.play(3 * rate + 1)[0][0]).toBeCloseTo(7, 4);
  });
  test.each([
    ['wrap', 0.5],
    ['mirror', 0.5],
    ['hold', 1],
  ])('%s at the ends', (ends, expected) => {
    const bench = new Bench().add('values', { list: [1] }).add('accumulate', { ends });
    expect(bench.play(91)[0][0]).toBeCloseTo(expected, 4);
  });
  test('a restart goes back to the start', () => {
    const bench = new Bench()
      .add('values', { list: [1] })
      .add('accumulate', { start: 4 })
      .beside('keys', {}, 'restart');
    bench.play(61);
    expect(hit(bench, 1)[0][0]).toBeCloseTo(4 + 1 / 60, 4);
  });
});

describe('Hold Value, Crossing and Gate', () => {
  test('takes a value when the trigger fires and keeps it', () => {
    const bench = new Bench()
      .add('oscillator', { shape: 'ramp', rate: 0.1 })
      .add('hold-value')
      .beside('keys', {}, 'trigger');
    expect(bench.play(30)[0][0]).toBeCloseTo(-1, 4);
    const taken = hit(bench, 1)[0][0];
    expect(taken).toBeCloseTo(-1 + 0.2 * 0.5, 4);
    expect(bench.play(50)[0][0]).toBe(taken);
  });
  test('a crossing fires once on its way up, and only after it has fallen far enough again', () => {
    const fires = (controls: Record<string, string | number>, frames: number): number => {
      const bench = new Bench().add('oscillator', { rate: 1 }).add('crossing', controls);
      return Array.from({ length: frames }, () => bench.play()[0][0]).reduce((sum, v) => sum + v, 0);
    };
    expect(fires({}, 120)).toBe(2);
    expect(fires({ fires: 'down' }, 120)).toBe(2);
    expect(fires({ fires: 'both' }, 120)).toBe(4);
    // Never 1.6 below the threshold: it fires once and is not ready again.
    expect(fires({ slack: 1.6 }, 120)).toBe(1);
    // Over a half from 30 to 150 degrees, a little longer with the slack of 0.1.
    expect(fires({ fires: 'over', slack: 0 }, 60)).toBeGreaterThanOrEqual(19);
  });
  test('a gate passes while it is open, and keeps or changes to its own value', () => {
    const bench = (controls: Record<string, string | number>): Bench =>
      new Bench()
        .add('oscillator', { shape: 'ramp', rate: 0.1 })
        .add('gate', controls)
        .beside('keys', {}, 'open');
    const own = bench({ shut: 'own', value: 0.25 });
    expect(own.play()).toEqual([[0.25]]);
    expect(own.key(true, 1).play(30)[0][0]).toBeCloseTo(-0.9, 4);
    expect(own.key(false, 1).play()).toEqual([[0.25]]);
    const last = bench({ shut: 'last' });
    const passed = last.key(true, 1).play(30)[0][0];
    expect(last.key(false, 1).play(30)[0][0]).toBe(passed);
    expect(
      new Bench()
        .add(...line(2, 3, 4))
        .add('gate')
        .play(),
    ).toEqual([[3, 4]]);
  });
});

describe('Resample, Rearrange and Pick Lanes', () => {
  test.each([
    ['stretch', [0, 0.5, 1, 1.5, 2]],
    ['steps', [0, 0, 1, 1, 2]],
    ['repeat', [0, 1, 2, 0, 1]],
    ['mirror', [0, 1, 2, 2, 1]],
    ['hold', [0, 1, 2, 2, 2]],
  ])('resample: %s', (form, expected) =>
    expect(
      new Bench()
        .add(...line(3, 0, 2))
        .add('resample', { samples: 5, form })
        .play()[0],
    ).toEqual(expected),
  );
  const values = [3, 1, 4, 1, 5];
  test.each([
    ['reverse', 0, [5, 1, 4, 1, 3]],
    ['reverse', 1, [3, 5, 1, 4, 1]],
    ['mirror', 0, [3, 1, 4, 1, 5, 5, 1, 4, 1, 3]],
    ['rising', 0, [1, 1, 3, 4, 5]],
    ['falling', -1, [4, 3, 1, 1, 5]],
    ['centre', 0, [4, 1, 1, 3, 5]],
  ])('rearrange: %s, shifted by %d', (order, shift, expected) =>
    expect(new Bench().add('values', { list: values }).add('rearrange', { order, shift }).play()[0]).toEqual(
      expected,
    ),
  );
  test('at random nothing is lost, and the seed decides', () => {
    const [first, same, other] = [1, 1, 2].map(
      (seed) =>
        new Bench()
          .add(...line(20, 0, 19))
          .add('rearrange', { order: 'random', seed })
          .play()[0],
    );
    expect(same).toEqual(first);
    expect(other).not.toEqual(first);
    expect([...first].sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_, i) => i));
  });
  test('lanes become samples and samples lanes', () => {
    const bench = new Bench()
      .add(...line(3, 0, 2))
      .add('formula', { formula: 'a = i\nb = i + 10' })
      .add('rearrange', { order: 'turned' });
    expect(bench.play()).toEqual([
      [0, 10],
      [1, 11],
      [2, 12],
    ]);
  });
  test.each([
    [{ lanes: 'left' }, [[0, 1, 2, 3, 4]]],
    [{ lanes: '*t', first: 3 }, [[3, 4], [103, 104]]], // prettier-ignore
    [{ lanes: 'r* left', every: 2 }, [[100, 102, 104], [0, 2, 4]]], // prettier-ignore
    [{ lanes: '*', first: -2, most: 1 }, [[3], [103]]],
    [{ lanes: 'l*f*t', most: 2 }, [[0, 1]]],
    [{ lanes: 'none' }, [[0]]],
    [{ lanes: '*', first: 9 }, [[0]]],
  ])('picks %j', (controls, expected) =>
    expect(
      new Bench()
        .add(...line(5, 0, 4))
        .add('formula', { formula: 'left = i\nright = i + 100' })
        .add('pick-lanes', controls)
        .play(),
    ).toEqual(expected),
  );
});

describe('Between', () => {
  const points = (controls: Record<string, string | number>): number[][] =>
    new Bench()
      .add('values', { list: [1] })
      .add('formula', { formula: 'x = 1\ny = 1' })
      .add('between', controls)
      .beside('formula', { formula: 'x = 4\ny = 5' }, 'b')
      .play();
  test('the middle, a share, the distance and the angle', () => {
    expect(points({})).toEqual([[2.5], [3]]);
    expect(points({ share: 0 })).toEqual([[1], [1]]);
    expect(points({ gives: 'distance' })).toEqual([[5]]);
    expect(points({ gives: 'angle' })[0][0]).toBeCloseTo((Math.atan2(4, 3) * 180) / Math.PI, 4);
  });
  test('across a width counts by the canvas, which is 16 to 9', () =>
    expect(points({ gives: 'distance', across: 'widths' })[0][0]).toBeCloseTo(
      Math.hypot((3 * 16) / 9, 4),
      4,
    ));
});

describe('Shape by Curve', () => {
  test.each([
    ['hold', [0, 0, 5, 10, 2]],
    ['wrap', [10, 0, 5, 10, 10]],
  ])('looks values up between the samples, and beyond the ends: %s', (edges, expected) => {
    const bench = new Bench()
      .add('values', { list: [-0.5, 0, 0.25, 0.5, 1.5] })
      .add('shape-by-curve', { edges })
      .beside('values', { list: [0, 10, 2] }, 'curve');
    expect(rounded(bench.play()[0])).toEqual(expected);
  });
  test('without a curve nothing is changed', () =>
    expect(
      new Bench()
        .add(...line(2, 3, 4))
        .add('shape-by-curve')
        .play(),
    ).toEqual([[3, 4]]));
});

describe('Beat Clock', () => {
  test('phases of a beat and a bar, at 120 beats a minute', () => {
    const bench = new Bench().add('beat-clock', { periods: [1, 4] });
    expect(rounded(bench.play(76)[0])).toEqual([0.5, 0.625]);
  });
  test('a hit at the start of each beat and at no other frame', () => {
    const bench = new Bench().add('beat-clock', { gives: 'hit' });
    const hits = Array.from({ length: 91 }, () => bench.play()[0][0]);
    expect(hits.flatMap((v, frame) => (v ? [frame] : []))).toEqual([0, 30, 60, 90]);
  });
  test('each sample later than the one before, counted', () => {
    const bench = new Bench().add('beat-clock', { periods: [1, 1], each: 0.5, gives: 'count' });
    expect(bench.play(76)).toEqual([[2, 2]]);
    expect(bench.play(15)).toEqual([[3, 2]]);
  });
});

describe('Counter', () => {
  const counted = (controls: Record<string, string | number>, hits: number): number => {
    const bench = new Bench().add('keys').add('counter', controls);
    bench.play();
    let seen = bench.play();
    for (let k = 1; k <= hits; k++) {
      seen = hit(bench, k);
      bench.play();
    }
    return seen[0][0];
  };
  test.each([
    [{ from: 1, to: 3 }, 4, 2],
    [{ from: 1, to: 3, ends: 'mirror' }, 3, 2],
    [{ from: 1, to: 3, ends: 'mirror' }, 4, 1],
    [{ from: 1, to: 3, ends: 'hold' }, 9, 3],
    [{ from: 1, to: 3, ends: 'none' }, 9, 10],
    [{ from: 3, to: 1 }, 1, 2],
    [{ from: 0, to: 1, step: 0.25 }, 5, 0],
    [{ from: 2, to: 2, ends: 'mirror' }, 5, 2],
    [{ from: 2, to: 5, step: 0 }, 5, 2],
  ])('%j after %d hits', (controls, hits, expected) => expect(counted(controls, hits)).toBe(expected));
  test('counts by itself where no trigger is wired, and begins again at a restart', () => {
    const bench = new Bench().add('counter', { ticks: 1 }).beside('keys', {}, 'restart');
    expect(bench.play(91)).toEqual([[3]]);
    expect(hit(bench, 1)).toEqual([[0]]);
    expect(bench.play(30)).toEqual([[1]]);
  });
});

describe('Random Walk', () => {
  test('keeps to its ends and its greatest step, and is the same at any frame rate', () => {
    const at = (rate: number): number[] => {
      const bench = new Bench(rate).add('random-walk', { samples: 3, step: 0.5, smooth: false });
      return Array.from({ length: 12 }, () => bench.play(rate)[0]).flat();
    };
    const slow = at(30);
    at(60).forEach((v, k) => expect(v).toBeCloseTo(slow[k], 5));
    expect(Math.max(...slow.map(Math.abs))).toBeLessThanOrEqual(1);
    const bench = new Bench().add('random-walk', { step: 0.2, rate: 60, smooth: false });
    const values = Array.from({ length: 200 }, () => bench.play()[0][0]);
    for (let k = 1; k < 200; k++) expect(Math.abs(values[k] - values[k - 1])).toBeLessThanOrEqual(0.2 + 1e-5);
    expect(new Set(values).size).toBeGreaterThan(150);
  });
  test('glides from step to step', () => {
    const bench = new Bench().add('random-walk', { rate: 2 });
    const values = Array.from({ length: 31 }, () => bench.play()[0][0]);
    for (let k = 2; k < 30; k++)
      expect(values[k] - values[k - 1]).toBeCloseTo(values[k - 1] - values[k - 2], 4);
  });
});

describe('Lane Delay', () => {
  /** A ramp of 1 a second through the delay, after 3 s. */
  const through = (controls: Record<string, ControlValue>, rate = 60): number[] =>
    new Bench(rate)
      .add('oscillator', { shape: 'ramp', rate: 0.01, amplitude: 50, centre: 50 })
      .add('lane-delay', controls)
      .play(3 * rate + 1)[0];
  test.each([30, 60, 144])('0.1 s a sample: of 20 the last is 1.9 s late, at %d frames a second', (rate) => {
    const values = through({ samples: 20, seconds: 0.1 }, rate);
    expect(values).toHaveLength(20);
    values.forEach((v, i) => expect(v).toBeCloseTo(3 - 0.1 * i, 3));
  });
  test('over all, mirrored about the centre', () => {
    const values = through({ samples: 5, seconds: 0.5, over: 'all', from: 'centre' });
    [0.5, 0.25, 0, 0.25, 0.5].forEach((late, i) => expect(values[i]).toBeCloseTo(3 - late, 3));
    const edges = through({ samples: 4, seconds: 0.5, over: 'all', from: 'edges' });
    [0, 0.5, 0.5, 0].forEach((late, i) => expect(edges[i]).toBeCloseTo(3 - late, 3));
  });
  test('bent', () => {
    const values = through({ samples: 3, seconds: 1, over: 'all', bend: 2 });
    [0, 0.25, 1].forEach((late, i) => expect(values[i]).toBeCloseTo(3 - late, 3));
  });
  test('by a drawn curve', () => {
    const keys = [
      { at: 0, value: 1, form: 'straight' as const },
      { at: 0.5, value: 0.2, form: 'straight' as const },
      { at: 1, value: 0, form: 'straight' as const },
    ];
    const values = through({ samples: 3, seconds: 1, over: 'all', curve: [{ name: 'value', keys }] });
    [1, 0.2, 0].forEach((late, i) => expect(values[i]).toBeCloseTo(3 - late, 3));
  });
  test('starts with the first value, or empty', () => {
    const start = (before: string): number[] =>
      new Bench()
        .add('values', { list: [7] })
        .add('lane-delay', { samples: 3, seconds: 1, before })
        .play(90)[0];
    expect(start('hold')).toEqual([7, 7, 7]);
    expect(start('empty')).toEqual([7, 7, 0]);
  });
});
