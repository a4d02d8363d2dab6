import { performanceAt } from '../core/desk/performance-state';
import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Gpu } from './gpu/gpu';
import type { GpuClock } from './gpu/gpu-clock';
import type { FeedbackWatch } from './output/feedback-watch';
import type { ScenePlayer } from './playback/scene-player';
import type { FromEngine, PerformanceReport } from './protocol/protocol';
import { Reports } from './reports';

const state = (number: number): PerformanceReport => ({
  state: {
    ...performanceAt('s'),
    number,
    transport: { playing: true, time: number, ahead: 0, frame: 0, beat: 0, range: null, done: 1, bpm: 120 },
  },
  performed: 3,
});

/** A player of which only faults and notes are asked. */
const player = (faults: Record<string, string>, notes: Record<string, string> = {}): ScenePlayer =>
  ({ faults: () => faults, notes: () => notes, run: { runs: new Map() } }) as unknown as ScenePlayer;

const watch = (notes: Record<string, string> = {}): FeedbackWatch =>
  ({ notes: () => notes }) as unknown as FeedbackWatch;

describe('reports of the engine', () => {
  let told: FromEngine[];
  let reports: Reports;
  const types = (): string[] => told.map(({ type }) => type);

  beforeEach(() => {
    told = [];
    reports = new Reports((message) => told.push(message));
  });

  test('of the performance come at most every 40 ms, and at once where somebody waits for one', () => {
    for (let now = 1000; now < 1100; now += 10) reports.performance(now, () => state(now));
    expect(told).toHaveLength(2);
    reports.performance(1101, () => state(1101), true);
    expect(told.at(-1)).toEqual({ type: 'performance', ...state(1101) });
    reports.performance(1120, () => state(1120));
    expect(told).toHaveLength(3);
    reports.performance(1142, () => state(1142));
    expect(told).toHaveLength(4);
  });

  test('of many hands come once a display frame, the last of them with the next call', () => {
    for (let n = 0; n < 100; n++) reports.performance(1000 + n / 2, () => state(n), true);
    expect(told).toHaveLength(4);
    expect(reports.hasNews).toBe(true);
    reports.performance(1062, () => state(99));
    expect(told.at(-1)).toEqual({ type: 'performance', ...state(99) });
    expect(reports.hasNews).toBe(false);
    reports.performance(1070, () => state(100));
    expect(told).toHaveLength(5);
  });

  test('of values become rarer while the GPU is busy', () => {
    const look = { scene: 's', cards: [], bench: null, inspected: null };
    for (let now = 1000; now < 2000; now += 10) reports.glance(now, player({}), look, 0);
    const easy = told.length;
    for (let now = 3000; now < 4000; now += 10) reports.glance(now, player({}), look, 400);
    expect(easy).toBeGreaterThan(15);
    expect(told.length - easy).toBe(5);
    expect(told[0]).toEqual({ type: 'glance', nodes: [], parts: [], bench: null });
  });

  test('of faults come only when they differ, each scene by itself', () => {
    const good = new Map([
      ['a', player({})],
      ['b', player({ n1: 'Broken.' })],
    ]);
    for (let now = 1000; now < 3000; now += 110) reports.faults(now, good, null, watch());
    expect(told).toEqual([
      { type: 'faults', scene: 'a', faults: {}, notes: {}, feedback: {} },
      { type: 'faults', scene: 'b', faults: { n1: 'Broken.' }, notes: {}, feedback: {} },
    ]);
    reports.faults(4000, new Map([['b', player({}, { n2: '40 samples.' })]]), null, watch());
    expect(told.at(-1)).toMatchObject({ scene: 'b', faults: {}, notes: { n2: '40 samples.' } });
  });

  test('of feedback belong to the watched scene', () => {
    const players = new Map([
      ['a', player({})],
      ['b', player({})],
    ]);
    reports.faults(1000, players, 'b', watch({ w1: 'Blows out.' }));
    expect(told).toMatchObject([{ feedback: {} }, { feedback: { w1: 'Blows out.' } }]);
  });

  test('of another show tell all faults again', () => {
    const players = new Map([['a', player({ n1: 'Broken.' })]]);
    reports.faults(1000, players, null, watch());
    reports.faults(2000, players, null, watch());
    expect(told).toHaveLength(1);
    reports.forget();
    reports.faults(3000, players, null, watch());
    expect(told).toHaveLength(2);
  });

  test('of costs come four times a second, with what the GPU and its clock say', () => {
    const gpu = { passes: 7, targetCount: 5, shaderCount: 3 } as Gpu;
    const clock = { perSecond: 58, frameMs: 4.5, nodeMs: { n1: 0.25 } } as unknown as GpuClock;
    const rest = { stageFrames: 11, frames: 99, cpuMs: 1.5, width: 320, height: 180 };
    for (let now = 1000; now < 2000; now += 16) reports.stats(now, gpu, clock, rest);
    expect(told).toHaveLength(4);
    expect(told[0]).toEqual({
      type: 'stats',
      stats: {
        ...rest,
        framesPerSecond: 58,
        frameMs: 4.5,
        passes: 7,
        targets: 5,
        shaders: 3,
        nodeMs: { n1: 0.25 },
      },
    });
  });

  test('of sound have a pace of their own', () => {
    const meter = { level: 0.5, bands: new Float32Array(2), onsets: 1, bpm: 120, confidence: 0.9 };
    for (let now = 1000; now < 1200; now += 10) reports.heard(now, () => meter);
    reports.performance(1200, () => state(1));
    expect(types()).toEqual(['heard', 'heard', 'heard', 'heard', 'performance']);
    expect(told[0]).toEqual({ type: 'heard', ...meter });
  });
});
