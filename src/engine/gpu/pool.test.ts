import { beforeEach, describe, expect, test } from '@jest/globals';
import { Pool } from './pool';

class Thing {
  isDisposed = false;
  dispose(): void {
    this.isDisposed = true;
  }
}

describe('a pool', () => {
  let pool: Pool<Thing>;
  const things = (count: number): Thing[] => Array.from({ length: count }, () => new Thing());
  beforeEach(() => {
    pool = new Pool();
  });

  test('gives back the last one of a kind, and none of another', () => {
    const [a, b] = things(2);
    pool.give('wide', a);
    pool.give('wide', b);
    expect(pool.take('narrow')).toBeUndefined();
    expect(pool.take('wide')).toBe(b);
    expect(pool.take('wide')).toBe(a);
    expect(pool.take('wide')).toBeUndefined();
  });

  test('keeps four of a kind', () => {
    const all = things(5);
    for (const one of all) pool.give('wide', one);
    expect(pool.size).toBe(4);
    expect(all.map(({ isDisposed }) => isDisposed)).toEqual([false, false, false, false, true]);
  });

  test('lets go what nobody wants for a while, and keeps what is taken again and again', () => {
    const [used, spare, other] = things(3);
    for (const one of [spare, used]) pool.give('wide', one);
    pool.give('narrow', other);
    for (let round = 0; round < 5; round++) {
      pool.trim();
      pool.give('wide', pool.take('wide')!);
    }
    expect(pool.size).toBe(3);
    pool.trim();
    expect([used, spare, other].map(({ isDisposed }) => isDisposed)).toEqual([false, true, true]);
    expect(pool.take('wide')).toBe(used);
    expect(pool.size).toBe(0);
  });

  test('is cleared of all', () => {
    const all = things(2);
    for (const one of all) pool.give('wide', one);
    pool.clear();
    expect(all.every(({ isDisposed }) => isDisposed)).toBe(true);
    expect(pool.size).toBe(0);
  });
});
