import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { PerformanceCommand } from '../../core/desk/command';
import { Hands, type Held } from './hands';

const move = (control: string, value: number): PerformanceCommand => ({
  type: 'desk',
  control,
  value: [value],
});
const press = (control: string, down: boolean): PerformanceCommand => ({ type: 'press', control, down });

describe('hands at remote desks', () => {
  let isLed: boolean;
  let done: PerformanceCommand[][];
  let hands: Hands;
  let held: Held;
  beforeEach(() => {
    jest.useFakeTimers();
    isLed = true;
    done = [];
    held = new Map();
    hands = new Hands(
      () => isLed,
      (commands) => void done.push([...commands]),
    );
  });
  afterEach(() => void jest.useRealTimers());

  test('move many faders: the last place of each comes, in one go', () => {
    for (const value of [0.1, 0.2, 0.3]) expect(hands.take(move('a', value), 'desk', held)).toBe('');
    hands.take(move('b', 0.5), 'desk', held);
    hands.take(move('a', 0.4), 'desk', held);
    expect(done).toEqual([]);
    jest.runAllTimers();
    expect(done).toEqual([[move('b', 0.5), move('a', 0.4)]]);
    hands.take(move('a', 0.6), 'desk', held);
    jest.runAllTimers();
    expect(done[1]).toEqual([move('a', 0.6)]);
  });

  test('do all else at once, and after the moves before it', () => {
    hands.take(move('a', 0.4), 'desk', held);
    hands.take(press('pad', true), 'desk', held);
    expect(done).toEqual([[move('a', 0.4)], [press('pad', true)]]);
    jest.runAllTimers();
    expect(done).toHaveLength(2);
  });

  test('let go what they hold once their desk is gone, and only that', () => {
    hands.take(press('pad', true), 'desk', held);
    hands.take(press('other', true), 'desk', held);
    hands.take(press('other', false), 'desk', held);
    hands.take({ type: 'hit', hit: 'strobe', on: true }, 'all', held);
    done.length = 0;
    hands.letGo(held);
    expect(done).toEqual([[press('pad', false)], [{ type: 'hit', hit: 'strobe', on: false }]]);
    hands.letGo(held);
    expect(done).toHaveLength(2);
  });

  test('are told what they may not do, and nothing of it is done', () => {
    expect(hands.take({ type: 'blackout' }, 'look', held)).toMatch(/may not do that/);
    expect(hands.take({ type: 'explode' }, 'all', held)).toMatch(/no command/);
    isLed = false;
    expect(hands.take(press('pad', true), 'all', held)).toMatch(/away/);
    hands.letGo(held);
    jest.runAllTimers();
    expect(done).toEqual([]);
  });

  test('move nothing any more at the end', () => {
    hands.take(move('a', 0.4), 'desk', held);
    hands.end();
    jest.runAllTimers();
    expect(done).toEqual([]);
  });
});
