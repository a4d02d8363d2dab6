import { describe, expect, test } from '@jest/globals';
import { Bench, rounded } from '../../../test/signal-bench';

describe('Number Line', () => {
  test('with its end for a range, without it for a cycle', () => {
    expect(rounded(new Bench().add('number-line', { samples: 5 }).play()[0])).toEqual([
      0, 0.25, 0.5, 0.75, 1,
    ]);
    expect(rounded(new Bench().add('number-line', { samples: 4, end: 'without' }).play()[0])).toEqual([
      0, 0.25, 0.5, 0.75,
    ]);
    expect(rounded(new Bench().add('number-line', { samples: 5, end: 'mirror' }).play()[0])).toEqual([
      0, 0.5, 1, 0.5, 0,
    ]);
    expect(rounded(new Bench().add('number-line', { samples: 4, end: 'mirror' }).play()[0])).toEqual([
      0, 1, 1, 0,
    ]);
    expect(new Bench().add('number-line', { samples: 1 }).play()[0]).toEqual([0]);
  });
});

describe('Oscillator', () => {
  test('phases spread evenly over the cycle', () => {
    const [values] = new Bench().add('oscillator', { samples: 4, spread: 1, rate: 0 }).play();
    expect(rounded(values)).toEqual([0, 1, 0, -1].map((v) => v + 0));
  });
  test('follows the beat: at 120 bpm two beats are a second', () => {
    const [values] = new Bench().add('oscillator', { unit: 'beats', rate: 2, shape: 'ramp' }).play(31);
    expect(values[0]).toBeCloseTo(0, 4);
  });
  test('n phases make n waves', () => {
    const bench = new Bench().add('oscillator', { rate: 0 }).beside('number-line', { samples: 6 }, 'phase');
    expect(bench.play()[0]).toHaveLength(6);
  });
});

describe('Drift', () => {
  test('a loop comes back to its start exactly', () => {
    const controls = { loop: 2, speed: 1.5, lanes: 2 };
    const start = new Bench().add('drift', controls).play(1);
    const end = new Bench().add('drift', controls).play(121);
    expect(end[0][0]).toBeCloseTo(start[0][0], 5);
    expect(new Bench().add('drift', controls).play(60)[0][0]).not.toBeCloseTo(start[0][0], 2);
    expect(start[0][0]).not.toBe(start[1][0]);
  });
});

describe('Scatter', () => {
  test('keeps to its range or list, and to its seed', () => {
    const [even] = new Bench().add('scatter', { samples: 500, range: [-1, 3] }).play();
    expect(Math.min(...even)).toBeGreaterThanOrEqual(-1);
    expect(Math.max(...even)).toBeLessThan(3);
    expect(
      new Set(new Bench().add('scatter', { samples: 200, form: 'list', list: [2, 5] }).play()[0]),
    ).toEqual(new Set([2, 5]));
    expect(new Bench().add('scatter', { samples: 500, range: [-1, 3] }).play()[0]).toEqual(even);
    expect(new Bench().add('scatter', { samples: 500, range: [-1, 3], seed: 2 }).play()[0]).not.toEqual(even);
  });
});

describe('Remap, Steps and Formula', () => {
  test('a range from low to high, in steps', () => {
    const line = { samples: 3, from: -1, to: 1 };
    expect(
      new Bench()
        .add('number-line', line)
        .add('remap', { from: [-1, 1], to: [0, 360] })
        .play()[0],
    ).toEqual([0, 180, 360]);
    const [stepped] = new Bench()
      .add('number-line', { samples: 4, from: 0, to: 0.1 })
      .add('steps', { step: 0.022 })
      .play();
    expect(rounded(stepped)).toEqual([0, 0.044, 0.066, 0.11]);
  });
  test('lanes by name, samples of what comes in', () => {
    const bench = new Bench()
      .add('number-line', { samples: 3 })
      .add('formula', { formula: 'a = in.value * 2\nb = i + n' });
    expect(bench.play()).toEqual([
      [0, 1, 2],
      [3, 4, 5],
    ]);
  });
});

describe('Join Lanes', () => {
  test('names, order and counts', () => {
    const bench = new Bench()
      .add('number-line', { samples: 2 })
      .add('join-lanes', { names: 'x y' })
      .beside('number-line', { samples: 4, from: 5, to: 8 }, 'in');
    expect(bench.play()).toEqual([
      [0, expect.closeTo(1 / 3), expect.closeTo(2 / 3), 1],
      [5, 6, 7, 8],
    ]);
  });
});

describe('History', () => {
  test('is a trace over time, the same at any frame rate', () => {
    const at = (rate: number): number[] =>
      new Bench(rate)
        .add('oscillator', { shape: 'ramp', rate: 0.1 })
        .add('history', { samples: 5, span: 1 })
        .play(rate * 2 + 1)[0];
    for (const rate of [30, 60, 144])
      at(rate).forEach((v, k) => expect(v).toBeCloseTo(-1 + 0.2 * (2 - k * 0.25), 3));
  });
  test('or one sample for each of the last frames', () => {
    const [values] = new Bench()
      .add('oscillator', { shape: 'ramp', rate: 0.1 })
      .add('history', { samples: 40, by: 'frames' })
      .play(121);
    values.forEach((v, k) => expect(v).toBeCloseTo(-1 + 0.2 * (2 - k / 60), 3));
  });
  test('the oldest may come first', () => {
    const [values] = new Bench()
      .add('oscillator', { shape: 'ramp', rate: 0.1 })
      .add('history', { samples: 3, span: 1, order: 'oldest' })
      .play(121);
    expect(values[0]).toBeLessThan(values[2]);
  });
});

describe('Keys and Envelope', () => {
  test('a press shorter than a frame is not lost', () => {
    const bench = new Bench().add('keys');
    expect(bench.play()[0]).toEqual([0]);
    expect(bench.key(false, 1).play()[0]).toEqual([1]);
    expect(bench.play()[0]).toEqual([0]);
  });
  test('toggle and count', () => {
    const toggle = new Bench().add('keys', { mode: 'toggle' });
    toggle.play();
    expect([
      toggle.key(true, 1).play()[0][0],
      toggle.key(false, 1).play()[0][0],
      toggle.key(true, 2).play()[0][0],
    ]).toEqual([1, 1, 0]);
    const count = new Bench().add('keys', { mode: 'count', wrap: 3 });
    count.play();
    expect(count.key(true, 4).play()[0]).toEqual([1]);
  });
  test('a hit rises in 0.1 s and is gone after 0.9 s; a second one does not cut the first', () => {
    const bench = new Bench().add('keys').add('envelope', { attack: 0.1, decay: 0.8 });
    bench.play();
    bench.key(true, 1).play();
    bench.key(false, 1);
    expect(bench.play(6)[0][0]).toBeCloseTo(1, 1);
    const falling = bench.play(6)[0][0];
    bench.key(true, 2).play();
    bench.key(false, 2);
    expect(bench.play()[0][0]).toBeGreaterThan(falling * 0.8);
    expect(bench.play(70)[0][0]).toBe(0);
  });
  test('delays give each sample its own', () => {
    const bench = new Bench()
      .add('keys')
      .add('envelope', { attack: 0, decay: 0.05 })
      .beside('number-line', { samples: 3, to: 1 }, 'delay');
    bench.play();
    bench.key(true, 1).play();
    expect(rounded(bench.play()[0])[0]).toBeGreaterThan(0);
    const [values] = bench.play(60);
    expect([values[0] === 0, values[1] === 0, values[2] > 0]).toEqual([true, true, true]);
  });
});

describe('Pointer', () => {
  test('follows, with lag if wanted', () => {
    const quick = new Bench().add('pointer');
    quick.live = { ...quick.live, pointer: { ...quick.live.pointer, x: 0.4, y: -0.2, down: true } };
    const lanes = quick.play().map((lane) => lane[0]);
    expect(lanes[0]).toBeCloseTo(0.4);
    expect([lanes[2], lanes[3]]).toEqual([1, 0]);
    const slow = new Bench().add('pointer', { lag: 1 });
    slow.play();
    slow.live = quick.live;
    const early = slow.play(6)[0][0];
    expect(early).toBeGreaterThan(0.02);
    expect(early).toBeLessThan(0.2);
    expect(slow.play(200)[0][0]).toBeCloseTo(0.4, 2);
  });
});
