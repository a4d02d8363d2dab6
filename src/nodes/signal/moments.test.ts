import { describe, expect, test } from '@jest/globals';
import { Bench, rounded } from '../../../test/signal-bench';
import { SceneRun } from '../../core/run/scene-run';
import { wayOf } from '../../core/run/other-times';
import { idleInputs } from '../../core/inputs/inputs';
import { makeScene } from '../../core/show/create';
import { addNode, connect, setFormula, setMotions } from '../../core/show/edit';
import { freshMotion } from '../../core/document/motions';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../catalogue';

const ramp = { shape: 'ramp', rate: 0.1, amplitude: 0.5, centre: 0.5 };

describe('Time Spread', () => {
  test('evenly over the cycle: d = cycle / n, already under way', () => {
    const bench = new Bench().add('oscillator', ramp).add('time-spread', { samples: 5, cycle: 10 });
    // At 1 s: 0.1 and then 2 s earlier each.
    expect(rounded(bench.goTo(60).play()[0])).toEqual([0.1, 0.9, 0.7, 0.5, 0.3]);
  });
  test.each([
    ['hold', [0.1, 0, 0]],
    ['empty', [0.1, 0, 0]],
    ['running', [0.1, 0.9, 0.7]],
  ])('at the start: %s', (before, expected) => {
    const bench = new Bench()
      .add('oscillator', ramp)
      .add('time-spread', { samples: 3, apart: 'step', step: 2, before });
    expect(rounded(bench.goTo(60).play()[0])).toEqual(expected);
  });
  test('a step in frames, beats and rounds of the loop', () => {
    const second = (controls: Record<string, string | number>): number => {
      const bench = new Bench().add('oscillator', ramp).add('time-spread', {
        samples: 2,
        apart: 'step',
        ...controls,
      });
      return rounded(bench.loop(2, 'seconds').goTo(300).play()[0])[1];
    };
    expect(second({ step: 60, unit: 'frames' })).toBe(0.4);
    expect(second({ step: 2, unit: 'beats' })).toBe(0.4);
    expect(second({ step: 0.5, unit: 'loops' })).toBe(0.4);
    expect(second({ step: -1, unit: 'seconds' })).toBe(0.6);
  });
  test('many samples keep their number, each at its own time', () => {
    const bench = new Bench()
      .add('oscillator', { ...ramp, samples: 4, spread: 0.4 })
      .add('time-spread', { apart: 'step', step: 1 });
    expect(rounded(bench.goTo(300).play()[0])).toEqual([0.5, 0.5, 0.5, 0.5]);
  });
  test('what has a memory is read from its past, at any frame rate', () => {
    for (const rate of [30, 60, 144]) {
      const bench = new Bench(rate)
        .add('oscillator', ramp)
        .add('smooth', { rise: 0, fall: 0 })
        .add('time-spread', { samples: 3, apart: 'step', step: 0.5 });
      expect(rounded(bench.play(2 * rate + 1)[0])).toEqual([0.2, 0.15, 0.1]);
    }
  });
  test('nothing wired gives 0', () =>
    expect(new Bench().add('time-spread', { samples: 2 }).play()).toEqual([[0, 0]]));
});

describe('asking for many moments at once', () => {
  /** A chain whose way is looked at, and played in both ways. */
  function chain(edit: (scene: ReturnType<typeof makeScene>, osc: string, remap: string) => void = () => {}) {
    const scene = makeScene(catalogue, 's1', 'Scene');
    const osc = addNode(scene, catalogue, 'oscillator', [0, 0]);
    const remap = addNode(scene, catalogue, 'remap', [0, 0]);
    connect(scene, catalogue, osc, remap, 'in');
    edit(scene, osc, remap);
    const run = new SceneRun(catalogue);
    run.update(scene, [remap]);
    run.run({
      moment: momentAt(1, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 16, height: 9 },
      feedback: oneStep,
    });
    return { way: wayOf(remap, scene, run.plan, run.runs).way, scene, remap };
  }
  test.each([
    ['a plain chain', 'many', undefined],
    [
      'a formula of time on a control with many samples',
      'many',
      (s, osc) => setFormula(s, osc, 'centre', 'time'),
    ],
    [
      'a formula of time on a control with one',
      'single',
      (s, _o, remap) => setFormula(s, remap, 'after', 'time'),
    ],
    ['a formula that asks for its sample', 'single', (s, osc) => setFormula(s, osc, 'centre', 'time + i')],
    ['a swing', 'single', (s, osc) => setMotions(s, osc, 'centre', [freshMotion('swing', [0, 1], 1)])],
    ['a hit', 'none', (s, osc) => setMotions(s, osc, 'centre', [freshMotion('hit', [0, 1], 1)])],
    [
      'a key wired in',
      'none',
      (s, osc) => connect(s, catalogue, addNode(s, catalogue, 'keys', [0, 0]), osc, 'centre'),
    ],
    [
      'a reading by another that moves',
      'many',
      (s, osc) => {
        const other = addNode(s, catalogue, 'drift', [0, 0]);
        connect(s, catalogue, other, osc, 'amplitude');
      },
    ],
  ] as [string, string, (s: ReturnType<typeof makeScene>, osc: string, remap: string) => void][])(
    '%s: %s',
    (_what, way, edit) => expect(chain(edit).way).toBe(way),
  );
  test('all at once and one by one give the same', () => {
    const drive = (text: string) => {
      const bench = new Bench().add('oscillator', { rate: 0.3 }).add('formula', { formula: text });
      return bench.add('steps', { step: 0.01 }).add('time-spread', { samples: 7, apart: 'step', step: 0.21 });
    };
    // The second asks for its sample, which is 0 at every moment.
    const atOnce = drive('x = in.value * cos(beat) + bar + frame').goTo(333).play();
    const oneByOne = drive('x = in.value * cos(beat) + bar + frame + i').goTo(333).play();
    expect(rounded(atOnce[0])).toEqual(rounded(oneByOne[0]));
    expect(new Set(atOnce[0]).size).toBe(7);
  });
});

describe('Keyframes', () => {
  const lanes = [
    {
      name: 'x',
      keys: [
        { at: 0, value: 0, form: 'straight' as const },
        { at: 300, value: 30, form: 'straight' as const },
      ],
    },
    { name: 'y', keys: [{ at: 10, value: 5, form: 'hold' as const }] },
  ];
  const bench = (more = {}) => new Bench().add('keyframes', { lanes, unit: 'frames', length: 300, ...more });
  test('a key on frame N of N is met at the start: frame 299 is the last before it', () => {
    const at = (frame: number): number => rounded([bench().goTo(frame).play()[0][0]])[0];
    expect([0, 1, 150, 299, 300, 301].map(at)).toEqual([0, 0.1, 15, 29.9, 0, 0.1]);
  });
  test('once holds the end, to and fro turns back, start and speed shift it', () => {
    expect(bench({ play: 'once' }).goTo(900).play()[0][0]).toBe(30);
    expect(rounded([bench({ play: 'toAndFro' }).goTo(330).play()[0][0]])).toEqual([27]);
    expect(rounded([bench({ start: 100, speed: 2 }).goTo(150).play()[0][0]])).toEqual([10]);
    expect(bench().play()[1]).toEqual([5]);
  });
  test('in rounds of the loop, and led by hand', () => {
    const loop = new Bench().add('keyframes', {
      lanes: [{ name: 'v', keys: [{ ...lanes[0].keys[0] }, { at: 1, value: 1, form: 'straight' }] }],
      unit: 'loop',
      length: 1,
    });
    expect(rounded(loop.loop(4, 'seconds').goTo(60).play()[0])).toEqual([0.25]);
    const led = new Bench().add('values', { list: [0, 60, 299] }).add(
      'keyframes',
      {
        lanes,
        unit: 'frames',
        length: 300,
      },
      'at',
    );
    expect(rounded(led.play()[0])).toEqual([0, 6, 29.9]);
  });
});

describe('Curve', () => {
  const straight = [
    {
      name: 'value',
      keys: [
        { at: 0, value: -1, form: 'straight' as const },
        { at: 1, value: 3, form: 'straight' as const },
      ],
    },
  ];
  test('both ends are read, for 1 and for many, and as many as something else has', () => {
    const read = (samples: number) => new Bench().add('curve', { curve: straight, samples }).play()[0];
    expect(read(1)).toEqual([-1]);
    expect(read(5)).toEqual([-1, 0, 1, 2, 3]);
    const like = new Bench().add('values', { list: [9, 9, 9] }).add('curve', { curve: straight }, 'like');
    expect(like.play()[0]).toEqual([-1, 1, 3]);
  });
});

describe('Oscillator', () => {
  test('cycles in each round of the loop, and a locked loop rounds rates to whole cycles', () => {
    const at = (unit: string, rate: number, lock: boolean, frame: number): number =>
      new Bench()
        .add('oscillator', { shape: 'ramp', unit, rate, amplitude: 0.5, centre: 0.5 })
        .loop(10, 'seconds', lock)
        .goTo(frame)
        .play()[0][0];
    expect(at('loop', 2, false, 150)).toBeCloseTo(0.5);
    // 0.33 Hz makes 3.3 cycles in 10 s: three when locked, so that 10 s later all is as it was.
    for (const frame of [60, 660]) expect(at('hertz', 0.33, true, frame)).toBeCloseTo(0.3);
    expect(at('hertz', 0.33, false, 660)).not.toBeCloseTo(0.3);
    // Slow rates do not stand still: one cycle at least.
    expect(at('hertz', 0.01, true, 300)).toBeCloseTo(0.5);
  });
  test('a drawn cycle, and the order of a spread', () => {
    const curve = [
      {
        name: 'value',
        keys: [
          { at: 0, value: 0, form: 'straight' as const },
          { at: 1, value: 1, form: 'straight' as const },
        ],
      },
    ];
    const row = (order: string) =>
      rounded(
        new Bench()
          .add('oscillator', { shape: 'drawn', curve, samples: 5, spread: 1, order, rate: 0 })
          .play()[0],
      );
    expect(row('first')).toEqual([0, 0.2, 0.4, 0.6, 0.8]);
    expect(row('last')).toEqual([0.8, 0.6, 0.4, 0.2, 0]);
    expect(row('centre')).toEqual([0.8, 0.4, 0, 0.4, 0.8]);
    expect(row('edges')).toEqual([0, 0.4, 0.8, 0.4, 0]);
    expect([...row('random')].sort()).toEqual([0, 0.2, 0.4, 0.6, 0.8]);
  });
});

test('Drift in a locked loop comes back to its start', () => {
  const bench = new Bench().add('drift', { samples: 3, period: 1, speed: 0.7 }).loop(3, 'seconds', true);
  const first = rounded(bench.goTo(30).play()[0]);
  expect(rounded(bench.goTo(210).play()[0])).toEqual(first);
  expect(rounded(bench.goTo(120).play()[0])).not.toEqual(first);
});

describe('Table', () => {
  const csv = 'x,y\n0,10\n1,20\n4,30';
  test('all rows, by index round the end, and mixed', () => {
    expect(new Bench().add('table', { csv }).play()).toEqual([
      [0, 1, 4],
      [10, 20, 30],
    ]);
    const by = (index: number, between: string) =>
      new Bench()
        .add('table', { csv, gives: 'index', index, between })
        .play()
        .map(([v]) => v);
    expect(by(1.5, 'row')).toEqual([1, 20]);
    expect(by(1.5, 'mix')).toEqual([2.5, 25]);
    expect(by(-1, 'row')).toEqual([4, 30]);
    expect(by(5, 'row')).toEqual([4, 30]);
  });
  test('one that cannot be read says where, and none gives 0', () => {
    expect(new Bench().add('table', { csv: 'x\n1\ntwo' }).fault()).toBe(
      'Row 3, column 1 is “two”, not a number.',
    );
    expect(new Bench().add('table', { csv: '' }).play()).toEqual([[0]]);
  });
});

describe('Ripple', () => {
  const hit = (bench: Bench, presses: number): number[] => {
    const [row] = bench.key(true, presses).play();
    bench.key(false, presses);
    return row;
  };
  const straight = { attack: 0, decay: 1, decayBend: 1 };
  test('travels from the centre to both ends in its time', () => {
    const bench = new Bench().add('keys').add('ripple', { samples: 5, time: 0.5, ...straight }, 'hit');
    bench.play();
    expect(hit(bench, 1)).toEqual([0, 0, 1, 0, 0]);
    const later = bench.play(30)[0];
    expect(rounded(later)).toEqual([1, 0.75, 0.5, 0.75, 1]);
  });
  test('a second hit does not cut the first: two waves run', () => {
    const bench = new Bench()
      .add('keys')
      .add('ripple', { samples: 11, from: 'first', time: 1, attack: 0, decay: 0.15, decayBend: 1 }, 'hit');
    bench.play();
    hit(bench, 1);
    bench.play(29);
    hit(bench, 2);
    const row = bench.play(13)[0];
    // 0.7 s and 0.2 s on their way: elements 7 and 2 are lit, those between are dark.
    expect([row[2], row[7]].every((v) => v > 0.8)).toBe(true);
    expect([row[0], row[4], row[5], row[9]].every((v) => v < 0.05)).toBe(true);
  });
  test('from a place, by distance; weaker on its way; a wave that has begun keeps its place', () => {
    const bench = new Bench()
      .add('keys')
      .add('ripple', { from: 'place', place: [0.5, 0], time: 1, fade: 0.5, ...straight }, 'hit')
      .beside('values', { list: [-0.5, 0, 0.5] }, 'elements');
    bench.play();
    expect(hit(bench, 1)).toEqual([0, 0, 1]);
    expect(rounded(bench.play(30)[0])).toEqual([0, 0.75, 0.5]);
  });
  test('the test button starts one, stored presses do not', () => {
    const scene = makeScene(catalogue, 's1', 'Scene');
    const id = addNode(scene, catalogue, 'ripple', [0, 0]);
    scene.nodes[id].controls.test = 4;
    const run = new SceneRun(catalogue);
    const play = (test: number, frame: number): number => {
      const next = {
        ...scene,
        nodes: {
          ...scene.nodes,
          [id]: { ...scene.nodes[id], controls: { ...scene.nodes[id].controls, test } },
        },
      };
      run.update(next, [id]);
      run.run({
        moment: momentAt(frame / 60, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 }),
        live: idleInputs(),
        canvas: { width: 16, height: 9 },
        feedback: oneStep,
      });
      return Math.max(...run.runs.get(id)!.signal.lanes[0].samples);
    };
    expect(play(4, 0)).toBe(0);
    play(5, 1);
    expect(play(5, 6)).toBeGreaterThan(0.9);
  });
});

describe('Rearrange and Pick Lanes', () => {
  const places = { csv: 'x,y\n0,1\n0,0\n1,0\n-2,0\n0,-1' };
  test('by distance and in a spiral from a place', () => {
    const order = (how: string) =>
      new Bench()
        .add('table', places)
        .add('rearrange', { order: how, place: [0, 0] })
        .play();
    expect(order('distance')).toEqual([
      [0, 1, 0, 0, -2],
      [0, 0, 1, -1, 0],
    ]);
    expect(order('spiral')[0][4]).toBe(-2);
  });
  test('only samples for which a condition holds', () => {
    const kept = (keep: string, by = '') =>
      new Bench()
        .add('table', places)
        .add('pick-lanes', { keep, by, limits: [-0.5, 0.5] })
        .play()[0];
    expect(kept('above')).toEqual([0, 0, 1, 0]);
    expect(kept('below')).toEqual([0, 0, -2, 0]);
    expect(kept('inside', 'y')).toEqual([0, 1, -2]);
    expect(kept('outside')).toEqual([1, -2]);
  });
});

describe('Point Reader', () => {
  const read = (gives: string) => new Bench().add('ring', {}).add('point-reader', { gives }).play();
  test('places, directions, places on a picture and the middle', () => {
    const places = read('places');
    expect(places).toHaveLength(3);
    expect(places[0].length).toBe(read('picture')[0].length);
    const [x, y, z] = read('middle').map(([v]) => v);
    expect(Math.hypot(x, y, z)).toBeLessThan(0.02);
    for (let i = 0; i < places[0].length; i++) {
      const [nx, ny, nz] = read('normals').map((lane) => lane[i]);
      expect(Math.hypot(nx, ny, nz)).toBeCloseTo(1, 4);
    }
  });
});
