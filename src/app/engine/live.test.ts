import { onlyProgram, performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { FromEngine } from '../../engine/protocol/protocol';
import { FakeWorker, installFakeBrowser } from '../testing/fake-browser';

// The client looks after its engine by a timer, which would keep the test alive.
jest.useFakeTimers();
installFakeBrowser();
(globalThis as { ImageData?: unknown }).ImageData = class {
  constructor(
    readonly data: Uint8ClampedArray,
    readonly width: number,
  ) {}
};
const { lastGlance, listenToEngine, liveStore, onBench, onGlance } = await import('./live');

const state = (change: Partial<PerformanceState> = {}): PerformanceState => ({
  ...performanceAt('a'),
  number: 1,
  transport: { playing: true, time: 1, ahead: 0, frame: 60, beat: 2, range: null, done: 1, bpm: 120 },
  program: onlyProgram('a'),
  ...change,
});
const say = (message: FromEngine): void => FakeWorker.last.say(message);
/** As `say`, and has the page painted. */
const sayAndPaint = (message: FromEngine): void => {
  say(message);
  jest.advanceTimersByTime(20);
};
const glance = (node: string, value: number): Extract<FromEngine, { type: 'glance' }> => ({
  type: 'glance',
  nodes: [
    {
      node,
      kind: 'signal',
      lanes: ['v'],
      values: [value],
      count: 1,
      samples: Float32Array.of(value),
      caption: '',
    },
  ],
  parts: [],
  bench: null,
});

describe('what the engine reports', () => {
  beforeAll(() => listenToEngine());
  afterAll(() => void jest.useRealTimers());

  test('of the performance is in the store as it came', () => {
    sayAndPaint({ type: 'performance', performed: 0, state: state({ blackout: true, freeze: true }) });
    expect(liveStore.getState()).toMatchObject({
      transport: { time: 1, beat: 2 },
      program: { program: 'a' },
      blackout: true,
      freeze: true,
    });
  });

  test('keeps its identity where it is the same, so that nothing is drawn again for it', () => {
    const range: [number, number] = [1, 2];
    const moment = { playing: true, time: 1.2, ahead: 0, frame: 72, beat: 2.4, range, done: 1, bpm: 120 };
    sayAndPaint({ type: 'performance', performed: 0, state: state({ transport: moment }) });
    const { program, transport } = liveStore.getState();
    sayAndPaint({
      type: 'performance',
      performed: 0,
      state: state({ transport: { ...moment, range: [1, 2] } }),
    });
    expect(liveStore.getState().program).toBe(program);
    expect(liveStore.getState().transport).toBe(transport);
    sayAndPaint({
      type: 'performance',
      performed: 0,
      state: state({ transport: { ...moment, range: [1, 3] } }),
    });
    expect(liveStore.getState().transport.range).toEqual([1, 3]);
    sayAndPaint({ type: 'performance', performed: 0, state: state({ program: { ...program, next: 'b' } }) });
    expect(liveStore.getState().program).toMatchObject({ program: 'a', next: 'b' });
  });

  test('of the performance quicker than the page is painted is taken once a paint, the last of it', () => {
    let changes = 0;
    const off = liveStore.subscribe(() => changes++);
    for (let bpm = 100; bpm <= 140; bpm++) say({ type: 'performance', performed: 0, state: state({ bpm }) });
    expect(liveStore.getState().bpm).toBe(100);
    jest.advanceTimersByTime(20);
    expect(liveStore.getState().bpm).toBe(140);
    expect(changes).toBe(2);
    jest.advanceTimersByTime(20);
    sayAndPaint({ type: 'performance', performed: 0, state: state({ bpm: 90 }) });
    expect(liveStore.getState().bpm).toBe(90);
    off();
  });

  test('of faults is kept scene by scene', () => {
    say({ type: 'faults', scene: 'a', faults: { n1: 'Broken.' }, notes: {}, feedback: {} });
    say({ type: 'faults', scene: 'b', faults: {}, notes: { n2: '40 samples.' }, feedback: { w1: 'Hot.' } });
    expect(liveStore.getState()).toMatchObject({
      faults: { a: { n1: 'Broken.' }, b: {} },
      notes: { b: { n2: '40 samples.' } },
      feedback: { b: { w1: 'Hot.' } },
    });
    say({ type: 'faults', scene: 'a', faults: {}, notes: {}, feedback: {} });
    expect(liveStore.getState().faults.a).toEqual({});
  });

  test('of darkness names the scene, until it is lit', () => {
    say({ type: 'dark', scene: 'a', dark: true });
    expect(liveStore.getState().dark).toBe('a');
    say({ type: 'dark', scene: 'a', dark: false });
    expect(liveStore.getState().dark).toBeNull();
  });

  test('of the graphics is a state', () => {
    say({ type: 'graphics', state: 'lost', message: 'Gone.' });
    expect(liveStore.getState().graphics).toBe('lost');
    say({ type: 'graphics', state: 'back', message: 'Back.' });
    expect(liveStore.getState().graphics).toBe('fine');
  });

  test('of values reaches who listens to that node, and is there for who comes later', () => {
    const heard: number[] = [];
    const off = onGlance('n1', ({ values }) => heard.push(values[0]));
    say(glance('n1', 0.25));
    say(glance('n2', 0.5));
    off();
    say(glance('n1', 0.75));
    expect(heard).toEqual([0.25]);
    expect(lastGlance('n1')?.values).toEqual([0.75]);
    expect(lastGlance('n2')?.values).toEqual([0.5]);
    expect(lastGlance('n3')).toBeUndefined();
  });

  test('of the bench reaches the bench', () => {
    const benches: unknown[] = [];
    const off = onBench((bench) => benches.push(bench));
    say(glance('n1', 0));
    off();
    say(glance('n1', 0));
    expect(benches).toEqual([null]);
  });
});
