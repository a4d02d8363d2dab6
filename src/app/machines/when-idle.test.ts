import { expect, test } from '@jest/globals';
import { holdIdle } from '../testing/fake-browser';
import { runWhenIdle } from './when-idle';

function* counting(to: number, seen: number[]): Generator<void> {
  for (let k = 1; k <= to; k++) {
    seen.push(k);
    yield;
  }
}

test('one step is run each time the page has time, until there are no more', () => {
  const { waiting: idle, release } = holdIdle();
  const seen: number[] = [];
  runWhenIdle(counting(2, seen), 1000);
  expect(seen).toEqual([]);
  for (const expected of [[1], [1, 2], [1, 2]]) {
    idle.shift()!();
    expect(seen).toEqual(expected);
  }
  expect(idle).toEqual([]);
  release();
});

test('none is run once it is ended', () => {
  const { waiting: idle, release } = holdIdle();
  const seen: number[] = [];
  const end = runWhenIdle(counting(3, seen), 1000);
  idle.shift()!();
  end();
  idle.shift()!();
  expect(seen).toEqual([1]);
  expect(idle).toEqual([]);
  release();
});

test('a browser that does not say so runs them one after the other', async () => {
  const seen: number[] = [];
  runWhenIdle(counting(2, seen), 1000);
  expect(seen).toEqual([]);
  while (seen.length < 2) await new Promise((resolve) => setTimeout(resolve));
  expect(seen).toEqual([1, 2]);
});
