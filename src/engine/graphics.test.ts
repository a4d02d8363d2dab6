import { beforeEach, describe, expect, test } from '@jest/globals';
import { GraphicsKeeper, type Graphics } from './graphics';
import type { FromEngine } from './protocol/protocol';

type Parts = ConstructorParameters<typeof GraphicsKeeper>[0];

describe('the graphics of an engine', () => {
  let told: string[];
  let moves: number;
  let made: { gpu: { isLost: boolean } }[];
  /** Whether the machine has a graphics card. */
  let hasCard: boolean;
  let losses: number;
  const start = (): GraphicsKeeper => {
    const parts = {
      players: { moveTo: () => moves++ },
      tell: (message: FromEngine) => {
        if (message.type === 'graphics') told.push(message.state);
      },
    } as unknown as Parts;
    return new GraphicsKeeper(parts, () => {
      if (!hasCard) throw new Error('no WebGL2');
      const one = { gpu: { isLost: false } };
      made.push(one);
      return one as unknown as Graphics;
    });
  };
  const retry = (keeper: GraphicsKeeper, now: number): void => keeper.retry(now, () => losses++);

  beforeEach(() => {
    told = [];
    moves = losses = 0;
    made = [];
    hasCard = true;
  });

  test('are there from the start, and what plays moves to them', () => {
    const keeper = start();
    expect(keeper.usable).toBe(made[0]);
    expect([moves, told]).toEqual([1, []]);
  });

  test('that are lost are said to be once, asked for now and then, and said to be back', () => {
    const keeper = start();
    made[0].gpu.isLost = true;
    hasCard = false;
    expect(keeper.usable).toBeNull();
    for (let now = 1000; now < 2000; now += 16) retry(keeper, now);
    expect([told, losses, made.length]).toEqual([['lost'], 1, 1]);
    hasCard = true;
    for (let now = 2000; now < 2300; now += 16) if (!keeper.usable) retry(keeper, now);
    expect([told, moves, made.length]).toEqual([['lost', 'back'], 2, 2]);
    expect(keeper.usable).toBe(made[1]);
  });

  test('that a machine never had are said to be none, once', () => {
    hasCard = false;
    const keeper = start();
    for (let now = 1000; now < 2000; now += 16) retry(keeper, now);
    expect([told, losses]).toEqual([['none'], 0]);
  });

  test('that are back let outputs keep what they showed until there are whole pictures, and no longer than that', () => {
    const keeper = start();
    expect(keeper.isReturning(0, () => false)).toBe(false);
    keeper.beginReturn(1000);
    expect(keeper.isReturning(1016, () => false)).toBe(true);
    expect(keeper.isReturning(1032, () => true)).toBe(false);
    // A picture that is made new later is no return.
    expect(keeper.isReturning(1048, () => false)).toBe(false);
  });

  test('of which no whole picture comes let outputs go on after half a minute', () => {
    const keeper = start();
    keeper.beginReturn(1000);
    expect(keeper.isReturning(30999, () => false)).toBe(true);
    expect(keeper.isReturning(31001, () => false)).toBe(false);
  });
});
