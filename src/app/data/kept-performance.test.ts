import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { afterAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { FakeWorker, fakeWindow, installFakeBrowser } from '../testing/fake-browser';

jest.useFakeTimers();
afterAll(() => void jest.useRealTimers());
installFakeBrowser();
const { keepPerformance, keptPerformance } = await import('./kept-performance');
const { engine } = await import('../engine/client');

const say = (change: object = {}, time = 1, performed = 0): void =>
  FakeWorker.last.say({
    type: 'performance',
    performed,
    state: {
      ...performanceAt('a'),
      number: 1,
      transport: { playing: true, time, frame: 0, beat: 0, range: null, done: 1, bpm: 120 },
      program: { program: 'a', incoming: null, fade: 0, next: null },
      blackout: false,
      freeze: false,
      ...change,
    } as PerformanceState,
  });

describe('the performance of a tab', () => {
  let show = 'night';
  engine();
  keepPerformance(() => show);

  beforeEach(() => {
    show = 'night';
    say({ blackout: false });
  });

  test('is kept as soon as something is switched', () => {
    say({ blackout: true });
    expect(keptPerformance('night')?.resume.blackout).toBe(true);
    say({ freeze: true });
    expect(keptPerformance('night')?.resume).toMatchObject({ blackout: false, freeze: true });
  });

  test('belongs to its show', () => {
    say({ blackout: true });
    expect(keptPerformance('day')).toBeNull();
    show = 'day';
    say({ blackout: true, freeze: true });
    expect(keptPerformance('day')?.resume.freeze).toBe(true);
    expect(keptPerformance('night')).toBeNull();
  });

  test('is not written for time and fades alone, but with its time when the page goes', () => {
    say({ blackout: true }, 3);
    say({ blackout: true }, 4);
    say({ blackout: true, program: { program: 'a', incoming: null, fade: 0.4, next: null } }, 5);
    expect(keptPerformance('night')?.resume.transport.time).toBe(3);
    fakeWindow.fire('pagehide');
    expect(keptPerformance('night')?.resume.transport.time).toBe(5);
  });

  test('is kept every few seconds all the same: a tab that is discarded is not asked before', () => {
    say({ blackout: true }, 3);
    say({ blackout: true }, 4);
    jest.advanceTimersByTime(4000);
    say({ blackout: true }, 8);
    jest.advanceTimersByTime(1000);
    expect(keptPerformance('night')?.resume.transport.time).toBe(8);
  });

  test('is kept by the clock of the machine as it was set last, which the next page goes by', () => {
    const at = performance.timeOrigin + performance.now();
    const setBack = jest.spyOn(Date, 'now').mockImplementation(() => at - 7200000);
    say({ blackout: true, at });
    setBack.mockRestore();
    expect((at - keptPerformance('night')!.resume.at) / 7200000).toBeCloseTo(1, 3);
  });

  test('goes on with what was pressed in the last moment before the page went', () => {
    say({ blackout: false });
    engine().perform({ type: 'blackout' });
    engine().perform({ type: 'freeze' });
    fakeWindow.fire('pagehide');
    expect(keptPerformance('night')?.due).toEqual([{ type: 'blackout' }, { type: 'freeze' }]);
  });

  test('is none where no show is open, and where what is kept can’t be read', () => {
    show = '';
    sessionStorage.clear();
    say({ freeze: true });
    fakeWindow.fire('pagehide');
    expect(keptPerformance('')).toBeNull();
    sessionStorage.setItem('pyrvel.performance', '{"showId":');
    expect(keptPerformance('night')).toBeNull();
    sessionStorage.setItem('pyrvel.performance', 'null');
    expect(keptPerformance('night')).toBeNull();
  });
});
